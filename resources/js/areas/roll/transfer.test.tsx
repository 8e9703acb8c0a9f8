import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { TransferDialog } from './TransferDialog';

const schools = [
    { id: 'S1', code: 'primary', name: 'Lanternfield Primary' },
    { id: 'S2', code: 'middle', name: 'Copperbrook Middle' },
] as unknown as School[];
const plan = (count: number): Partial<Schemas['PlanView']> => ({
    title: `${count} students to Copperbrook Middle`,
    sentence: `${count} students go to Copperbrook Middle.`,
    seed: 'SEED',
    fingerprint: 'F1',
    blockers: [],
    warnings: [],
    questions: [],
    undoUntil: '2026-12-10',
    tallies: [{ key: 'changed', count, label: 'students go' }],
    rows: [],
});
const LOOK = 'POST /api/schools/all/transfer/plan';
const DO = 'POST /api/schools/all/transfer';
const open = (done = vi.fn()) =>
    show(<TransferDialog schools={schools} people={['P1', 'P2']} onClose={() => {}} onDone={done} />);

describe('sending students to another school', () => {
    it('asks where to first, shows the plan, and does it as looked at', async () => {
        const done = vi.fn();
        serverAnswers({ [LOOK]: plan(2), [DO]: plan(2) });
        open(done);
        expect(sentTo(LOOK)).toEqual([]);
        await userEvent.selectOptions(screen.getByLabelText('To'), 'S2');
        expect(await screen.findByText('2 students go to Copperbrook Middle.')).toBeTruthy();
        await userEvent.click(await screen.findByRole('button', { name: 'Send 2 students' }));
        await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
        expect(sentTo(DO)).toEqual([{ people: ['P1', 'P2'], to: 'S2', seed: 'SEED', fingerprint: 'F1' }]);
    });

    it('cannot be done where nobody would go, and says what the server says', async () => {
        serverAnswers({ [LOOK]: plan(0) });
        open();
        await userEvent.selectOptions(screen.getByLabelText('To'), 'S2');
        const button = await screen.findByRole('button', { name: 'Send 0 students' });
        expect((button as HTMLButtonElement).disabled).toBe(true);
        serverAnswers({ [LOOK]: new Refused(422, 'This is not there any more.') });
        await userEvent.selectOptions(screen.getByLabelText('To'), 'S1');
        expect(await screen.findByText(/not there any more/)).toBeTruthy();
    });
});
