import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { YearTurnPage } from './YearTurnPage';

const school = { id: 'S1', code: 'primary', name: 'Lanternfield Primary' } as unknown as School;
const start: Partial<Schemas['YearTurnStart']> = {
    year: '2026-27',
    nextName: '2027-28',
    nextBegins: '2027-08-23',
    nextLast: '2028-06-09',
    grades: [{ order: 3, grade: '01', students: 2, next: '02' }],
};
const row = {
    number: 1,
    verdict: 'update',
    matchId: 'P1',
    problems: [],
    cells: { Name: { before: 'Noor Castell', after: null }, Grade: { before: '01', after: '02' } },
} as unknown as Schemas['PlanRow'];
const plan = (over: Partial<Schemas['PlanView']> = {}): Partial<Schemas['PlanView']> => ({
    title: 'To 2027-28',
    sentence: '1 student moves up a grade.',
    seed: 'SEED',
    fingerprint: 'F1',
    changes: 3,
    blockers: [],
    warnings: [],
    questions: [],
    tallies: [],
    verdicts: { update: 1 },
    undoUntil: '2027-06-26T12:00:00Z',
    rows: [row],
    ...over,
});
const START = 'GET /api/schools/S1/year-turn';
const LOOK = 'POST /api/schools/S1/year-turn/rehearse';
const DO = 'POST /api/schools/S1/year-turn';
const turn = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Turn to/ });

describe('the year turn', () => {
    it('is rehearsed at once, and turned only for whoever writes the name of the year', async () => {
        serverAnswers({ [START]: start, [LOOK]: plan(), [DO]: { undoUntil: '2027-06-26T12:00:00Z' } });
        show(<YearTurnPage school={school} />);
        expect(await screen.findByText('1 student moves up a grade.')).toBeTruthy();
        expect(screen.getByText(/^Can be undone until .*26/)).toBeTruthy();
        await waitFor(() => expect(turn().disabled).toBe(false));
        await userEvent.click(turn());
        const words = screen.getByRole('textbox', { name: /2027-28/ });
        await userEvent.type(words, '2026-27{Enter}');
        expect(sentTo(DO)).toEqual([]);
        await userEvent.clear(words);
        await userEvent.type(words, '2027-28{Enter}');
        await waitFor(() => expect(sentTo(DO)).toHaveLength(1));
        expect(sentTo(DO)[0]).toMatchObject({ name: '2027-28', seed: 'SEED', fingerprint: 'F1', held_back: [] });
    });

    it('says what is in the way of it, and states nothing of rows it has not worked out', async () => {
        serverAnswers({ [START]: start, [LOOK]: new Refused(422, 'The year ends before it begins.') });
        show(<YearTurnPage school={school} />);
        expect((await screen.findByRole('alert')).textContent).toBe('The year ends before it begins.');
        expect(screen.getByText('Everyone’s next grade stands here once that is put right.')).toBeTruthy();
        expect(screen.queryByText(/No rows/)).toBeNull();
        expect(turn().disabled).toBe(true);
        await userEvent.clear(screen.getByLabelText('Next year is called'));
        expect(await screen.findByText(/^Give the next year a name/)).toBeTruthy();
    });

    it('is not turned while something stands against it', async () => {
        serverAnswers({ [START]: start, [LOOK]: plan({ blockers: ['There is a year 2027-28 already.'] }) });
        show(<YearTurnPage school={school} />);
        expect(await screen.findByText('There is a year 2027-28 already.')).toBeTruthy();
        expect(turn().disabled).toBe(true);
        expect(screen.queryByText(/Can be undone/)).toBeNull();
    });
});
