import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { CommandBox } from './CommandBox';
import type { School } from './session';

const school = { id: 'S1', code: 'primary', coordinates: true } as unknown as School;
const offer = (more: Partial<Schemas['Offer']>): Schemas['Offer'] => ({
    id: 'one',
    verb: 'move',
    label: 'Move Corin Quill from 7B to 7C',
    what: 'Moves 1 student as of today.',
    path: null,
    wall: null,
    entry: null,
    placing: null,
    why: '',
    ...more,
});
const placing = { person: 'P1', from: 'B', to: 'C', day: '2026-11-26', seed: 'seed', fingerprint: 'print' };
const says = (query: string, ...offers: Schemas['Offer'][]) =>
    serverAnswers({
        'GET /api/schools/S1/sections': { sections: [{ id: 'B', name: '7B', kind: 'homeroom', students: 20 }] },
        'GET /api/schools/S1/find': { people: [], next: null, total: 0 },
        [`GET /api/schools/S1/command?q=${query}`]: { offers },
    });
const type = async (text: string) => {
    show(
        <>
            <CommandBox school={school} />
        </>,
    );
    await userEvent.type(screen.getByRole('combobox'), text);
};
const where = () => screen.getByTestId('where').textContent;

beforeAll(() => {
    // What the list measures and scrolls is not there without a screen.
    vi.stubGlobal('ResizeObserver', class { observe() {} unobserve() {} disconnect() {} }); // prettier-ignore
    Element.prototype.scrollIntoView = () => undefined;
});

describe('the one box', () => {
    it('says what Enter would do, and goes there', async () => {
        const path = 'print-room?sections=B';
        says('cards%207B', offer({ label: 'Cards for 7B', what: 'Opens the print for 20 students.', path }));
        await type('cards 7B');
        expect(await screen.findByText('Opens the print for 20 students.')).toBeTruthy();
        await userEvent.keyboard('{Enter}');
        expect(where()).toBe('/s/primary/print-room?sections=B');
    });

    it('moves a student as it was shown, and offers the undo', async () => {
        says('move%2020417%20to%207C', offer({ placing }));
        serverAnswers({
            'POST /api/sections/B/place': {},
            'GET /api/schools/S1/ledger?about=P1': { entries: [{ id: 'E1', action: 'place' }], actors: [], next: null },
            'POST /api/ledger/E1/undo': {},
        });
        await type('move 20417 to 7C');
        await screen.findByText('Moves 1 student as of today.');
        await userEvent.keyboard('{Enter}');
        await screen.findByText('Done: Move Corin Quill from 7B to 7C.');
        expect(sentTo('POST /api/sections/B/place')).toEqual([
            { people: ['P1'], to: 'C', day: '2026-11-26', seed: 'seed', fingerprint: 'print', kind: 'move' },
        ]);
        await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
        await vi.waitFor(() => expect(sentTo('POST /api/ledger/E1/undo')).toHaveLength(1));
    });

    it('says why it cannot be done, and does nothing', async () => {
        says('move%201%20to%207C', offer({ why: 'In 7C already.', what: '' }));
        await type('move 1 to 7C');
        const option = (await screen.findByText('In 7C already.')).closest('[role="option"]');
        expect(option?.getAttribute('aria-disabled')).toBe('true');
        await userEvent.keyboard('{Enter}');
        expect(where()).toBe('/');
    });

    it('says what the server refuses', async () => {
        says('place%201%20in%207C', offer({ placing: { ...placing, from: null } }));
        serverAnswers({ 'POST /api/schools/S1/place': new Refused(409, 'Somebody has changed 7C since.') });
        await type('place 1 in 7C');
        await screen.findByText('Moves 1 student as of today.');
        await userEvent.keyboard('{Enter}');
        expect(await screen.findByText('Somebody has changed 7C since.')).toBeTruthy();
    });

    it('finds sections by a part of their name, and shows what can be typed', async () => {
        says('x');
        await type(' ');
        expect(screen.getByText('move 020417 to 7C')).toBeTruthy();
        await userEvent.type(screen.getByRole('combobox'), '7b');
        expect(await screen.findByText('homeroom, 20 students')).toBeTruthy();
        expect(screen.queryByText('move 020417 to 7C')).toBeNull();
    });
});
