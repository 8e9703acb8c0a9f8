import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { PrintRoomPage } from './PrintRoomPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const line = (id: string, name: string, students: number) => ({
    id,
    name,
    kind: 'class',
    students,
    withCard: 0,
    state: 'open',
});
const sheet = {
    pageWidth: 210,
    pageHeight: 297,
    cardWidth: 90,
    cardHeight: 54,
    columns: 2,
    rows: 5,
    sheets: 3,
    stacked: true,
    places: [
        { x: 15, y: 13.5, card: 1 },
        { x: 105, y: 13.5, card: null },
    ],
    layouts: [
        { layout: 'cards-a4', label: 'A4, 10 cards of 90 × 54 mm' },
        { layout: 'cards-letter', label: 'Letter, 10 cards of 90 × 53 mm' },
    ],
};

beforeEach(() => {
    vi.spyOn(window, 'open').mockReturnValue(null);
    serverAnswers({
        'GET /api/schools/s/sections': { sections: [line('a', '3 Heron', 24), line('b', 'Empty', 0)] },
        'GET /api/schools/s/card-sheet': sheet,
    });
});

describe('the print room', () => {
    it('draws the sheet the server lays out, and prints nothing until a section is chosen', async () => {
        show(<PrintRoomPage school={school} />);
        const picture = await screen.findByRole('img', { name: /2 by 5 cards/ });
        expect(picture.querySelectorAll('text')).toHaveLength(1);
        expect(screen.queryByText('Empty')).toBeNull();
        expect(screen.getByRole('button', { name: 'Print cards' })).toHaveProperty('disabled', true);
    });

    it('says what it prints, and what the server refuses', async () => {
        serverAnswers({ 'POST /api/schools/s/cards': new Refused(422, 'There are no students in what was chosen.') });
        show(<PrintRoomPage school={school} />, '/?sections=a');
        await screen.findByText(/Prints 24 cards for 1 section on 3 sheets/);
        await userEvent.selectOptions(await screen.findByLabelText('Paper'), 'cards-letter');
        await userEvent.click(await screen.findByRole('button', { name: 'Print 24 cards' }));
        await screen.findByText('There are no students in what was chosen.');
        expect(sentTo('POST /api/schools/s/cards')).toEqual([
            { section_ids: ['a'], layout: 'cards-letter', order: 'cut_stack', lost: false },
        ]);
    });

    it('prints those chosen in the Roll, wherever they are', async () => {
        serverAnswers({ 'POST /api/schools/s/cards': new Refused(422, 'There are no students in what was chosen.') });
        const people = [
            { id: 'P1', name: 'Noor Castell', grade: '4', sections: '', userName: 'noor.castell' },
            { id: 'P2', name: 'Kai Wu', grade: '4', sections: '4 Tern', userName: 'kai.wu' },
        ];
        show(<PrintRoomPage school={school} />, { pathname: '/s/LF/print-room', state: { people } });
        await screen.findByText(/Prints 2 cards for those chosen/);
        await userEvent.click(screen.getByLabelText(/The earlier cards are lost/));
        await userEvent.click(screen.getByRole('button', { name: 'Print 2 cards' }));
        await screen.findByText('There are no students in what was chosen.');
        expect(sentTo('POST /api/schools/s/cards')).toEqual([
            { person_ids: ['P1', 'P2'], layout: 'cards-a4', order: 'cut_stack', lost: true },
        ]);
        await userEvent.click(screen.getByRole('button', { name: 'Choose sections instead' }));
        expect(await screen.findByText('Choose the sections whose cards you want.')).toBeTruthy();
    });
});
