import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { PrintRoomPage } from './PrintRoomPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const line = (id: string, name: string, students: number, hasCode: boolean) => ({
    id,
    name,
    kind: 'class',
    students,
    withCard: 0,
    state: 'open',
    hasCode,
});
const counts = (lacking: string[]) => ({
    letters: 24,
    languages: [
        { language: 'en', name: 'English', letters: 20 },
        { language: 'es', name: 'Spanish', letters: 4 },
    ],
    lacking,
});
const print = (state: string, more: object = {}) => ({
    id: 'p1',
    what: '24 family letters',
    state,
    done: 12,
    total: 24,
    problem: null,
    field: null,
    madeAt: '2026-08-24T09:00:00Z',
    expiresAt: '2026-08-25T09:00:00Z',
    ...more,
});

beforeEach(() => {
    vi.spyOn(window, 'open').mockReturnValue({ location: { href: '' }, close: vi.fn() } as unknown as Window);
    serverAnswers({
        'GET /api/schools/s/sections': { sections: [line('a', '3 Heron', 24, true), line('b', 'Art 3', 20, false)] },
        'GET /api/schools/s/prints': { prints: [] },
        'POST /api/schools/s/letters/counts': counts([]),
    });
});

describe('letters', () => {
    it('say how many there are in each language, and print for those chosen', async () => {
        let looked = 0;
        serverAnswers({
            'POST /api/schools/s/letters': print('waiting'),
            'GET /api/prints/p1': () => print(++looked < 2 ? 'working' : 'done'),
        });
        show(<PrintRoomPage school={school} />, '/?part=letters&sections=a');
        await screen.findByText('Spanish', { selector: 'dt' });
        await userEvent.selectOptions(screen.getByLabelText('Print for'), 'since');
        expect(screen.getByRole('button', { name: /^Print/ })).toHaveProperty('disabled', true);
        await userEvent.selectOptions(screen.getByLabelText('Print for'), 'everyone');
        await userEvent.click(await screen.findByRole('button', { name: 'Print 24 letters' }));
        await screen.findByRole('progressbar', { name: 'Waiting for its turn' });
        await screen.findByRole('progressbar', { name: 'Setting the pages' });
        await screen.findByText(/The letters opened in a new window/, undefined, { timeout: 4000 });
        expect(sentTo('POST /api/schools/s/letters')).toEqual([
            { section_ids: ['a'], kind: 'family', paper: 'a4', otherwise: 'en' },
        ]);
    });

    it('ask for words that are missing in a language before anything is printed', async () => {
        serverAnswers({
            'POST /api/schools/s/letters/counts': counts(['Spanish']),
            'POST /api/schools/s/letters': new Refused(422, 'They do not fit.'),
        });
        show(<PrintRoomPage school={school} />, '/?part=letters&sections=a');
        await screen.findByText('Your wording is missing in Spanish.');
        expect(screen.getByRole('button', { name: 'Print 24 letters' })).toHaveProperty('disabled', true);
        await userEvent.click(screen.getByLabelText(/Use the standard wording there/));
        await userEvent.click(screen.getByRole('button', { name: 'Print 24 letters' }));
        await screen.findByText('They do not fit.');
        expect(sentTo('POST /api/schools/s/letters')).toEqual([
            { section_ids: ['a'], kind: 'family', paper: 'a4', otherwise: 'en', without: true },
        ]);
    });

    it('show the page as its words are typed, and why some are refused', async () => {
        const text = (name: string, standard: string) => ({ name, label: name, standard, own: null, lacking: false });
        serverAnswers({
            'GET /api/schools/s/letters/wording': {
                kind: 'family',
                language: 'en',
                fields: ['student', 'address'],
                lacking: [],
                texts: [
                    text('heading', 'To the family of {student}'),
                    text('new_1', 'Open {address}'),
                    text('note', ''),
                ],
            },
            'POST /api/schools/s/letters/wording': new Refused(422, 'Leave {address} in.', {
                'texts.new_1': ['Leave {address} in.'],
            }),
        });
        show(<PrintRoomPage school={school} />, '/?part=letters&sections=a');
        await userEvent.click(await screen.findByRole('button', { name: 'Edit the wording' }));
        const first = await screen.findByLabelText(/^new_1/);
        await userEvent.clear(first);
        await userEvent.type(first, 'Ask us');
        expect(screen.getByRole('img', { name: /To the family of/ }).textContent).toContain('Ask us');
        await userEvent.click(screen.getByRole('button', { name: 'Save wording' }));
        await screen.findByText('Leave {address} in.');
        expect(sentTo('POST /api/schools/s/letters/wording')).toEqual([
            { kind: 'family', language: 'en', texts: { new_1: 'Ask us' } },
        ]);
    });
});

describe('signed slips', () => {
    it('are ticked off one after another, and the field is ready for the next', async () => {
        serverAnswers({
            'GET /api/schools/s/slips': {
                out: 1,
                back: 1,
                students: [
                    {
                        studentId: 'x',
                        name: 'Noor Haddad',
                        sections: '3 Heron',
                        language: 'ar',
                        printedOn: '2026-08-24',
                        returnedAt: null,
                    },
                    {
                        studentId: 'y',
                        name: 'Kai Wu',
                        sections: '3 Heron',
                        language: 'zh',
                        printedOn: '2026-08-24',
                        returnedAt: '2026-08-25T08:00:00Z',
                    },
                ],
            },
            'POST /api/schools/s/slips': { name: 'Noor Haddad', entry: 7 },
        });
        show(<PrintRoomPage school={school} />, '/?part=slips');
        const out = await screen.findByRole('grid', { name: 'Slips not returned' });
        expect(out.getAttribute('aria-rowcount')).toBe('2');
        await userEvent.click(screen.getByLabelText(/Show those that are back/));
        const all = await screen.findByRole('grid', { name: 'All slips' });
        expect(all.getAttribute('aria-rowcount')).toBe('3');
        const field = screen.getByLabelText('Code of a slip');
        await userEvent.type(field, 'kdm4x7r{Enter}');
        expect((await screen.findByText('Ticked off just now')).parentElement?.textContent).toContain('Noor Haddad');
        expect(field).toHaveProperty('value', '');
        expect(document.activeElement).toBe(field);
        expect(sentTo('POST /api/schools/s/slips')).toEqual([{ slip: 'kdm4x7r' }]);
        serverAnswers({
            'POST /api/schools/s/slips': new Refused(422, 'Ticked off already.', { slip: ['Ticked off already.'] }),
        });
        await userEvent.type(field, 'kdm4x7r{Enter}');
        await screen.findByText('Ticked off already.');
    });
});

describe('codes and handouts', () => {
    it('are printed of sections that have a code, with as many pages as are said', async () => {
        show(<PrintRoomPage school={school} />, '/?part=codes&sections=a');
        const grid = await screen.findByRole('grid', { name: 'Sections with a code' });
        expect(grid.getAttribute('aria-rowcount')).toBe('2');
        await userEvent.selectOptions(screen.getByLabelText('What'), 'slips');
        await screen.findByText(/Opens 3 pages for 1 section/);
        await userEvent.selectOptions(screen.getByLabelText('What'), 'handout');
        await userEvent.click(screen.getByLabelText('Arabic'));
        await screen.findByText(/Opens 2 pages/);
    });
});
