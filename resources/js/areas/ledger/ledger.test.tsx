import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { serverAnswers, sentTo } from '@/testing/server';
import type { School } from '@/shell/session';
import { LedgerPage } from './LedgerPage';

const school = { id: 'S1', code: 'primary' } as unknown as School;
const entry = (more: Partial<Schemas['LedgerLine']> = {}): Schemas['LedgerLine'] => ({
    id: 'E1',
    seq: 7,
    action: 'edit',
    title: 'Corin Quill',
    sentence: 'Changes the grade.',
    changes: 1,
    actor: 'Ines Halloran',
    madeAt: '2026-10-05T15:00:00Z',
    undoneAt: null,
    canUndo: true,
    canRedo: false,
    undoUntil: '2026-10-19',
    kept: [],
    ...more,
});
const page = (entries: Schemas['LedgerLine'][], about: string | null = null): Schemas['LedgerPage'] => ({
    entries,
    next: null,
    actors: [
        { id: 'P1', name: 'Ines Halloran' },
        { id: 'vantrel', name: 'Vantrel' },
    ],
    about,
});
const LEDGER = `GET /api/schools/${school.id}/ledger`;

describe('the Ledger', () => {
    it('asks for an area and for who did it, and hands out what it shows', async () => {
        serverAnswers({
            [LEDGER]: page([entry()]),
            [`${LEDGER}?area=roll`]: page([entry()]),
            [`${LEDGER}?actor=vantrel&area=roll`]: page([]),
        });
        show(<LedgerPage school={school} />);
        await userEvent.selectOptions(await screen.findByLabelText('Area'), 'Roll');
        expect(screen.getByRole('link', { name: 'These as, xlsx' }).getAttribute('href')).toBe(
            `/api/schools/${school.id}/ledger/sheet?area=roll&format=xlsx`,
        );
        await userEvent.selectOptions(screen.getByLabelText('Who'), 'Vantrel');
        expect(await screen.findByText('Nothing of that kind')).toBeTruthy();
        await userEvent.click(screen.getAllByRole('button', { name: 'Clear the filters' })[0] as HTMLElement);
        expect(await screen.findByRole('link', { name: 'All as, xlsx' })).toBeTruthy();
    });

    it('says what its entries are about, and lets that go', async () => {
        serverAnswers({ [`${LEDGER}?about=S1`]: page([entry()], 'Corin Quill'), [LEDGER]: page([entry()]) });
        show(<LedgerPage school={school} />, '/?about=S1');
        expect(await screen.findByText(/^About Corin Quill/)).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'About anybody and anything again' }));
        await vi.waitFor(() => expect(screen.queryByText(/^About Corin Quill/)).toBeNull());
    });

    it('shows of each record what was and what is', async () => {
        serverAnswers({
            [LEDGER]: page([entry()]),
            'GET /api/ledger/E1': {
                entry: entry(),
                changes: [
                    {
                        what: 'person',
                        record: 'Corin Quill',
                        fields: [
                            { field: 'grade', before: '6', after: '7' },
                            { field: 'phone number', before: '555 0100', after: '' },
                        ],
                        reason: 'changed by hand',
                    },
                ],
            } satisfies Schemas['LedgerDetail'],
        });
        show(<LedgerPage school={school} />, '/?entry=E1');
        const grade = (await screen.findByText('grade')).parentElement as HTMLElement;
        expect(within(grade).getByText('6').tagName).toBe('DEL');
        expect(within(grade).getByText('7').tagName).toBe('INS');
        expect(within(screen.getByText('phone number').parentElement as HTMLElement).getByText('none')).toBeTruthy();
        expect(sentTo(LEDGER)).toHaveLength(1);
    });
});
