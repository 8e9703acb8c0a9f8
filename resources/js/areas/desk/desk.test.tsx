import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { DeskPage } from './DeskPage';

const school = { id: 'S1', code: 'primary' } as unknown as School;
const desk = (more: Partial<Schemas['Desk']> = {}): Schemas['Desk'] => ({
    school: 'Lanternfield Primary',
    year: '2026-27',
    loops: [
        {
            key: 'unplaced',
            area: 'roll',
            title: 'Unplaced students',
            detail: 'in no open section',
            count: 4,
            since: null,
            path: 'roll?problem=unplaced',
        },
    ],
    putOff: [],
    news: { since: '2026-11-24T16:05:00Z', lines: [], more: 0 },
    ...more,
});
const putOff = {
    key: 'unplaced',
    title: 'Unplaced students',
    count: 4,
    until: '2026-12-03',
    reason: 'The timetable comes on Monday.',
    by: 'Ines Halloran',
};

describe('the Desk', () => {
    it('puts off what waits, with a day and a reason, and shows what the server then says', async () => {
        serverAnswers({
            'GET /api/schools/S1/desk': desk(),
            'POST /api/schools/S1/desk/put-off': desk({ loops: [], putOff: [putOff] }),
        });
        show(<DeskPage school={school} />);
        await userEvent.click(await screen.findByRole('button', { name: 'Put off: Unplaced students' }));
        await userEvent.type(screen.getByLabelText('Why'), putOff.reason);
        await userEvent.click(screen.getByRole('button', { name: 'Put it off' }));
        expect(await screen.findByText(/4 unplaced students, until 3 December/)).toBeTruthy();
        expect(screen.getByText('Nothing but what is put off.')).toBeTruthy();
        expect(sentTo('POST /api/schools/S1/desk/put-off')).toMatchObject([
            { loop: 'unplaced', reason: putOff.reason, until: /^\d{4}-\d\d-\d\d$/.exec(nextWeek())?.[0] },
        ]);
    });

    it('says at the day why it will not do, and has back what was put off', async () => {
        serverAnswers({
            'GET /api/schools/S1/desk': desk({
                putOff: [{ ...putOff, key: 'no_card', title: 'Students without a card' }],
            }),
            'POST /api/schools/S1/desk/put-off': new Refused(422, 'Choose a day after today.', {
                until: ['Choose a day after today.'],
            }),
            'POST /api/schools/S1/desk/take-back': desk(),
        });
        show(<DeskPage school={school} />);
        await userEvent.click(await screen.findByRole('button', { name: 'Put off: Unplaced students' }));
        await userEvent.type(screen.getByLabelText('Why'), 'So.');
        await userEvent.click(screen.getByRole('button', { name: 'Put it off' }));
        expect(await screen.findByText('Choose a day after today.')).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Cancel' }));
        await userEvent.click(screen.getByRole('button', { name: 'Have back: Students without a card' }));
        await waitFor(() => expect(sentTo('POST /api/schools/S1/desk/take-back')).toEqual([{ loop: 'no_card' }]));
    });

    it('says what others have done since, and no more once it is read', async () => {
        const lines = [
            { entryId: 'E1', title: 'fall.xlsx', actor: 'Petra Okonjo', at: '2026-11-25T08:00:00Z', undone: true },
        ];
        serverAnswers({
            'GET /api/schools/S1/desk': desk({ news: { since: '2026-11-24T16:05:00Z', lines, more: 3 } }),
            'POST /api/schools/S1/desk/read': null,
        });
        show(<DeskPage school={school} />);
        expect(await screen.findByRole('heading', { name: /Done by others since/ })).toBeTruthy();
        expect(screen.getByRole('link', { name: 'fall.xlsx' })).toBeTruthy();
        expect(screen.getByText(/Petra Okonjo.*undone/)).toBeTruthy();
        expect(screen.getByRole('link', { name: 'and 3 more entries in the Ledger' })).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'I have read this' }));
        await waitFor(() => expect(sentTo('POST /api/schools/S1/desk/read')).toHaveLength(1));
    });

    it('begins to count from the first visit, and says nothing then', async () => {
        serverAnswers({
            'GET /api/schools/S1/desk': desk({ news: { since: null, lines: [], more: 0 } }),
            'POST /api/schools/S1/desk/read': null,
        });
        show(<DeskPage school={school} />);
        await waitFor(() => expect(sentTo('POST /api/schools/S1/desk/read')).toHaveLength(1));
        expect(screen.queryByRole('heading', { name: /Done by others/ })).toBeNull();
    });
});

function nextWeek(): string {
    const day = new Date();
    day.setDate(day.getDate() + 7);
    return day.toLocaleDateString('sv');
}
