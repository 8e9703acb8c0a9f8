import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { UndoDialog } from './UndoDialog';

const outlook = (more: Partial<Schemas['UndoOutlook']> = {}): Schemas['UndoOutlook'] => ({
    id: 'E1',
    fingerprint: 'alone',
    goesBack: 12,
    staysCount: 0,
    stays: [],
    lost: [],
    first: [],
    blocked: false,
    ...more,
});
const later = [
    { id: 'E3', title: 'A newer list', madeAt: '2026-11-26T01:00:00Z' },
    { id: 'E2', title: 'A new list', madeAt: '2026-11-25T01:00:00Z' },
];
const undone = (kept: string[] = []) => ({ id: 'E1', title: 'Fall list', kept });
const dialog = () => {
    const done = vi.fn();
    show(<UndoDialog entry="E1" title="Fall list" onClose={() => undefined} onDone={done} />);
    return done;
};

describe('the dialog of an undo', () => {
    it('says what goes back, and undoes that alone', async () => {
        serverAnswers({ 'GET /api/ledger/E1/undo': outlook(), 'POST /api/ledger/E1/undo': undone() });
        const done = dialog();
        expect(await screen.findByText('Everything goes back: 12 records.')).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
        await vi.waitFor(() => expect(done).toHaveBeenCalledWith('Undone: Fall list.'));
        expect(sentTo('POST /api/ledger/E1/undo')).toEqual([{ first: [], fingerprint: 'alone' }]);
    });

    it('names what stays and what cannot come back, and undoes the later ones too where that is said', async () => {
        serverAnswers({
            'GET /api/ledger/E1/undo': outlook({
                goesBack: 9,
                staysCount: 3,
                stays: ['Corin Quill: changed since'],
                lost: ['corin.quill: the passphrase from before cannot come back'],
                first: later,
            }),
            'GET /api/ledger/E1/undo?together=true': outlook({ fingerprint: 'whole', goesBack: 14, first: later }),
            'POST /api/ledger/E1/undo': undone(),
        });
        const done = dialog();
        expect(await screen.findByText('9 records go back; 3 stay.')).toBeTruthy();
        expect(screen.getByText('Corin Quill: changed since')).toBeTruthy();
        expect(screen.getByText(/passphrase from before/)).toBeTruthy();
        await userEvent.click(screen.getByLabelText('Undo these too, so that everything goes back'));
        expect(await screen.findByText('Everything goes back: 14 records.')).toBeTruthy();
        expect(screen.queryByText('Corin Quill: changed since')).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Undo 3 together' }));
        await vi.waitFor(() => expect(done).toHaveBeenCalledWith('Undone: Fall list, and 2 later entries with it.'));
        expect(sentTo('POST /api/ledger/E1/undo')).toEqual([{ first: ['E3', 'E2'], fingerprint: 'whole' }]);
    });

    it('offers only "together" where it cannot go back by itself', async () => {
        serverAnswers({
            'GET /api/ledger/E1/undo': outlook({ blocked: true, staysCount: 1, first: later }),
            'GET /api/ledger/E1/undo?together=true': outlook({ first: later }),
        });
        dialog();
        expect(await screen.findByText('Undone with it, newest first')).toBeTruthy();
        expect(screen.getByRole('button', { name: 'Undo 3 together' })).toBeTruthy();
        expect(screen.queryByRole('checkbox')).toBeNull();
    });

    it('offers nothing where nothing would go back', async () => {
        serverAnswers({ 'GET /api/ledger/E1/undo': outlook({ goesBack: 0, staysCount: 2, first: later }) });
        dialog();
        expect(await screen.findByText('Nothing would go back: all it wrote stays as it is.')).toBeTruthy();
        expect((screen.getByRole('button', { name: 'Undo' }) as HTMLButtonElement).disabled).toBe(true);
        expect(screen.getByRole('checkbox')).toBeTruthy();
    });

    it('offers nothing where nothing could be undone first', async () => {
        serverAnswers({ 'GET /api/ledger/E1/undo': outlook({ blocked: true, staysCount: 1 }) });
        dialog();
        expect(await screen.findByText(/Change it by hand/)).toBeTruthy();
        expect((screen.getByRole('button', { name: 'Undo' }) as HTMLButtonElement).disabled).toBe(true);
    });

    it('says the server’s reason, and stays', async () => {
        serverAnswers({
            'GET /api/ledger/E1/undo': outlook(),
            'POST /api/ledger/E1/undo': new Refused(422, 'This has been undone already.'),
        });
        const done = dialog();
        await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
        expect(await screen.findByText('This has been undone already.')).toBeTruthy();
        expect(done).not.toHaveBeenCalled();
    });
});
