import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { ChangeManyDialog } from './ChangeManyDialog';

const school = { id: 'S1', code: 'primary', grades: [{ code: '04', short: '4' }] } as unknown as School;
const plan = (count: number): Partial<Schemas['PlanView']> => ({
    title: `${count} students into grade 4`,
    sentence: `Puts ${count} students into grade 4. Sections stay as they are.`,
    seed: 'SEED',
    fingerprint: 'F1',
    blockers: [],
    warnings: [],
    questions: [],
    undoUntil: '2026-12-10',
    tallies: [{ key: 'changed', count, label: 'students changed' }],
    rows: [
        {
            number: 1,
            verdict: 'update',
            cells: { Student: { before: 'Castell, Noor', after: 'Castell, Noor' } },
            why: '',
            problems: [],
        },
    ] as unknown as Schemas['PlanView']['rows'],
});
const LOOK = 'POST /api/schools/S1/people/change/plan';
const DO = 'POST /api/schools/S1/people/change';
const open = (done = vi.fn()) =>
    show(<ChangeManyDialog school={school} people={['P1', 'P2']} onClose={() => {}} onDone={done} />);

describe('changing many students', () => {
    it('asks for the grade first, shows the plan, and does it as looked at, once', async () => {
        const done = vi.fn();
        serverAnswers({ [LOOK]: plan(2), [DO]: plan(2) });
        open(done);
        expect(sentTo(LOOK)).toEqual([]);
        await userEvent.selectOptions(screen.getByLabelText('Grade'), '04');
        expect(await screen.findByText(/Puts 2 students into grade 4/)).toBeTruthy();
        await userEvent.click(await screen.findByRole('button', { name: 'Change 2 students' }));
        await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
        expect(sentTo(DO)).toEqual([
            { what: 'grade', people: ['P1', 'P2'], grade: '04', seed: 'SEED', fingerprint: 'F1' },
        ]);
    });

    it('looks anew when something else is chosen, and does nothing where nothing would change', async () => {
        serverAnswers({ [LOOK]: plan(0) });
        open();
        await userEvent.selectOptions(screen.getByLabelText('What'), 'leave');
        await waitFor(() => expect(sentTo(LOOK)).toEqual([{ what: 'leave', people: ['P1', 'P2'] }]));
        expect(screen.queryByLabelText('Grade')).toBeNull();
        const button = await screen.findByRole('button', { name: 'Change 0 students' });
        expect((button as HTMLButtonElement).disabled).toBe(true);
    });

    it('says why it was refused', async () => {
        serverAnswers({ [LOOK]: new Refused(422, 'This school has no such grade.') });
        open();
        await userEvent.selectOptions(screen.getByLabelText('What'), 'turn');
        expect((await screen.findByRole('alert')).textContent).toBe('This school has no such grade.');
    });
});
