import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { letter, sayings, starts } from './bands';
import { SheetPage } from './SheetPage';

type Detail = Schemas['IntakeDetail'];
type Row = Schemas['PicturedRow'];

// Nothing is laid out here: the box is as high as this says.
beforeAll(() => {
    Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, get: () => 340 });
    Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 800 });
    Element.prototype.scrollTo = () => undefined;
});

const column = (index: number, place: number, heading: string, field: string | null) => ({
    index,
    place,
    heading,
    samples: [],
    field,
    why: field === null ? 'left out' : 'by its heading',
});
const table = (index: number, columns: Detail['sheets'][number]['columns']): Detail['sheets'][number] => ({
    index,
    source: 0,
    label: '',
    kind: 'students',
    kindLabel: 'a student in each row',
    headerRow: 1,
    familyFirst: true,
    odds: null,
    hasFullNames: true,
    columns,
});
const list = (more: Partial<Detail> = {}): Detail => ({
    id: 'L1',
    schoolId: 'S1',
    title: 'fall.csv',
    state: 'planned',
    message: null,
    done: 3,
    total: 3,
    rows: 2,
    quiet: 0,
    round: 1,
    everyone: null,
    sheets: [table(0, [column(0, 0, 'Name', 'full_name'), column(1, 1, 'Locker', null)])],
    fields: [
        { key: 'full_name', label: 'full name' },
        { key: 'homeroom', label: 'homeroom' },
    ],
    kinds: [],
    kept: [],
    said: [],
    repairs: [],
    domains: [],
    rosterOf: null,
    leaving: 0,
    password: false,
    words: '',
    confirmed: false,
    verdicts: { new: 2, cannot: 0 },
    going: 2,
    waiting: 0,
    tallies: [],
    warnings: [],
    blockers: [],
    questions: [],
    sentence: '',
    changes: 2,
    fingerprint: 'f',
    undoUntil: '2026-12-26',
    entryId: null,
    ...more,
});
const row = (number: number, part: Row['part'], cells: Row['cells'], read: string[] = [], why = ''): Row => ({
    number,
    part,
    why,
    cells,
    read,
});
const rows: Row[] = [
    row(1, 'header', [
        { text: 'Name', fate: 'says', note: 'it names the column: full name' },
        { text: 'Locker', fate: 'left', note: 'left out: nothing says what its column holds' },
    ]),
    row(
        2,
        'row',
        [
            { text: 'QUILL, ADA', fate: 'mended', note: 'read as “Quill, Ada” (capitals)' },
            { text: 'L1', fate: 'left', note: 'left out: nothing says what its column holds' },
        ],
        ['Ada | Quill'],
    ),
    row(3, 'row', [{ text: 'Wu, Kai', fate: 'read', note: 'full name' }], ['Kai | Wu']),
    row(4, 'total', [{ text: 'Total: 2', fate: 'left', note: 'it holds a total' }], [], 'it holds a total'),
];
const page = (detail: Detail, shown = rows) => {
    serverAnswers({
        'GET /api/intakes/L1': detail,
        'GET /api/intakes/L1/sheet': {
            sheets: [{ label: '', rows: shown.length, width: 2 }],
            rows: shown,
            next: null,
        },
        'POST /api/intakes/L1/answers': detail,
    });
    show(
        <>
            <SheetPage />
        </>,
        '/s/primary/intake/L1/sheet',
        '/s/:school/intake/:id/sheet',
    );
};
const grid = () => screen.findByRole('grid', { name: 'Sheet of fall.csv' });
const said = () => sentTo('POST /api/intakes/L1/answers');

describe('the sheet as it was read', () => {
    it('shows each cell as it came, what became of it, and what was understood', async () => {
        page(list());
        await grid();
        const second = screen.getAllByRole('row')[2];
        if (!second) throw new Error('no second row');
        expect(within(second).getByText('Ada | Quill')).toBeTruthy();
        expect(within(second).getByText('QUILL, ADA').textContent).toBe('QUILL, ADA, corrected');
        expect(within(second).getByText('L1').className).toContain('cell-left');
        expect(screen.getByText('total')).toBeTruthy();
        await userEvent.click(screen.getByText('QUILL, ADA'));
        expect(screen.getByText(/read as “Quill, Ada” \(capitals\)/)).toBeTruthy();
    });

    it('goes through the cells by keys, and says what is under them', async () => {
        page(list());
        const box = await grid();
        const at = () => box.getAttribute('aria-activedescendant')?.replace(/^.*-(\d+-\d+)$/, '$1');
        for (const key of ['ArrowDown', 'ArrowRight', 'ArrowRight', 'ArrowRight']) fireEvent.keyDown(box, { key });
        expect(at()).toBe('1-2');
        expect(screen.getByText(/Nothing is made of it: left out/)).toBeTruthy();
        for (const key of ['ArrowLeft', 'ArrowLeft', 'ArrowUp', 'ArrowUp']) fireEvent.keyDown(box, { key });
        expect(at()).toBe('0-0');
        expect(document.getElementById(box.getAttribute('aria-activedescendant') ?? '')).not.toBeNull();
    });

    it('lets the header, a row and a range of rows be said otherwise', async () => {
        page(list());
        await grid();
        await userEvent.click(screen.getByRole('button', { name: 'Row 3' }));
        await userEvent.click(await screen.findByRole('menuitem', { name: 'This is the header' }));
        expect(said()).toEqual([{ answers: { 's0.header': '3' } }]);
        await userEvent.click(await screen.findByRole('button', { name: 'Row 4' }));
        await userEvent.click(await screen.findByRole('menuitem', { name: 'Read this row as a row of the list' }));
        expect(said()[1]).toEqual({ answers: { 's0.r4': 'row' } });
        const user = userEvent.setup();
        await user.click(screen.getByText('QUILL, ADA'));
        await user.keyboard('{Shift>}');
        await user.click(screen.getByRole('button', { name: 'Row 3' }));
        await user.keyboard('{/Shift}');
        await userEvent.click(await screen.findByRole('menuitem', { name: 'Leave these 2 rows out' }));
        expect(said()[2]).toEqual({ answers: { 's0.r2': 'skip', 's0.r3': 'skip' } });
    });

    it('lets a column be named, and lists be told apart', async () => {
        page(list());
        await grid();
        await userEvent.click(screen.getByRole('button', { name: /^B/ }));
        await userEvent.click(await screen.findByRole('menuitemradio', { name: 'homeroom' }));
        expect(said()).toEqual([{ answers: { 't0.c1': 'homeroom' } }]);
        await userEvent.click(screen.getByRole('button', { name: /^B/ }));
        await userEvent.click(await screen.findByRole('menuitem', { name: 'Another list begins here' }));
        expect(said()[1]).toEqual({ answers: { 's0.beside': '1' } });
    });

    it('answers what is asked of the list where it can be seen', async () => {
        page(
            list({
                questions: [
                    {
                        id: 's0.hidden',
                        row: null,
                        text: 'Do the hidden rows of the file belong to the list?',
                        detail: '',
                        choices: [{ key: 'take', label: 'Yes, read them too', consequence: '', kind: '' }],
                        evidence: [],
                        probability: null,
                        answer: null,
                        sheet: '',
                        pattern: '',
                    },
                ],
            }),
        );
        await userEvent.click(await screen.findByRole('button', { name: 'Yes, read them too' }));
        expect(said()).toEqual([{ answers: { 's0.hidden': 'take' } }]);
    });

    it('shows a closed list without offering what cannot be done', async () => {
        page(list({ state: 'applied' }));
        await grid();
        expect(screen.queryByRole('button', { name: 'Row 3' })).toBeNull();
        expect(screen.getByText(/The list is closed/)).toBeTruthy();
    });

    it('says that a sheet is not kept any more, and leads back', async () => {
        serverAnswers({
            'GET /api/intakes/L1': list({ state: 'applied' }),
            'GET /api/intakes/L1/sheet': new Refused(422, 'The sheet is not kept any more, or not read yet.'),
        });
        show(<SheetPage />, '/s/primary/intake/L1/sheet', '/s/:school/intake/:id/sheet');
        expect(await screen.findByText('The sheet is not kept any more, or not read yet.')).toBeTruthy();
        expect(screen.getByRole('link', { name: 'Back to the list' }).getAttribute('href')).toBe(
            '/s/primary/intake/L1',
        );
    });
});

describe('bands', () => {
    it('are called as spreadsheets call them', () => {
        expect([0, 25, 26, 51, 52].map(letter)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA']);
    });

    it('know where lists begin that stand side by side', () => {
        const two = [table(0, [column(0, 0, 'Name', 'full_name')]), table(1, [column(0, 3, 'Name', 'full_name')])];
        expect(starts(two, 0)).toEqual([3]);
        expect(starts(two.slice(0, 1), 0)).toEqual([]);
    });

    it('offer what fits, and to take back what was said', () => {
        const labels = (...args: Parameters<typeof sayings>) => sayings(...args).map((s) => s.label);
        expect(labels(0, rows.slice(0, 1), [])).toEqual(['There is no header']);
        expect(labels(0, rows.slice(1, 2), ['s0.r2', 's0.header'])).toEqual([
            'This is the header',
            'Leave this row out',
            'Take back what was said of this row',
            'Take back which row is the header',
        ]);
        expect(labels(0, rows.slice(3, 4), [])).toEqual(['This is the header', 'Read this row as a row of the list']);
        expect(labels(0, [], [])).toEqual([]);
    });
});
