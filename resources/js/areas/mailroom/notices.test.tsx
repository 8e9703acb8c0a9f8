import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { HomeBoard } from '../access/HomeBoard';
import { NoticesPage } from './NoticesPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const notice = (more: object = {}) => ({
    id: 'n1',
    kind: 'work',
    title: 'Reading log',
    body: 'Ten pages a day.',
    day: '2026-12-04',
    guardiansOnly: false,
    titles: {},
    bodies: {},
    by: 'Petra Okonjo',
    madeAt: '2026-11-26T09:00:00Z',
    seen: 3,
    goneThrough: false,
    version: 7,
    missing: 0,
    ...more,
});
const section = { id: 'c', name: '3 Heron', powers: ['see_roster', 'write_notices', 'hand_over_lead'] };

function ofSection() {
    show(
        <Routes>
            <Route path="/s/LF/sections/:id/notices" element={<NoticesPage school={school} />} />
        </Routes>,
        '/s/LF/sections/c/notices',
    );
}

describe('notices of a section', () => {
    it('are written with a day where there is one, and in other languages', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/notices': { notices: [], said: '' },
            'POST /api/sections/c/notices': { notices: [notice()], said: '“Reading log” is there to be read.' },
        });
        ofSection();
        await screen.findByText('Nothing has been written');
        await userEvent.click(await screen.findByRole('button', { name: 'Write one' }));
        const dialog = within(await screen.findByRole('dialog'));
        expect(dialog.queryByLabelText('Due on')).toBeNull();
        await userEvent.selectOptions(dialog.getByLabelText('What it is'), 'work');
        await userEvent.type(dialog.getByLabelText('Due on'), '2026-12-04');
        await userEvent.type(dialog.getByLabelText('In a few words'), 'Reading log');
        await userEvent.type(dialog.getByLabelText('The same in a few words'), 'Diario');
        await userEvent.click(dialog.getByRole('button', { name: 'Let it be read' }));
        await screen.findByText('“Reading log” is there to be read.');
        await screen.findByText('work due 4 December');
        expect(sentTo('POST /api/sections/c/notices')).toEqual([
            {
                kind: 'work',
                title: 'Reading log',
                body: '',
                day: '2026-12-04',
                guardians_only: false,
                titles: { es: 'Diario' },
                bodies: {},
                version: 0,
            },
        ]);
    });

    it('keep what was typed where the server refuses it, beside its field', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/notices': { notices: [notice({ kind: 'notice', day: '' })], said: '' },
            'POST /api/sections/c/notices/n1': new Refused(422, 'Write, in a few words, what it is.', {
                title: ['Write, in a few words, what it is.'],
            }),
        });
        ofSection();
        await userEvent.click(await screen.findByRole('button', { name: 'Change…' }));
        const dialog = within(await screen.findByRole('dialog'));
        await userEvent.type(dialog.getByLabelText('In a few words'), ' again');
        await userEvent.click(dialog.getByRole('button', { name: 'Save changes' }));
        await dialog.findByText('Write, in a few words, what it is.');
        expect(dialog.getByLabelText('In a few words')).toHaveProperty('value', 'Reading log again');
    });

    it('say who has handed work in, everyone until somebody is missing', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/notices': { notices: [notice()], said: '' },
            'GET /api/sections/c/notices/n1/work': {
                title: 'Reading log',
                students: [
                    { personId: 'a', name: 'Ada Bell', state: null },
                    { personId: 'k', name: 'Kit Moss', state: 'excused' },
                ],
            },
            'POST /api/sections/c/notices/n1/work': {
                notices: [notice({ goneThrough: true, missing: 1 })],
                said: '“Reading log” is missing from 1 student.',
            },
        });
        ofSection();
        await userEvent.click(await screen.findByRole('button', { name: 'Who has handed it in…' }));
        const ada = within(await screen.findByRole('radiogroup', { name: 'Ada Bell' }));
        expect(ada.getByLabelText('handed in')).toHaveProperty('checked', true);
        await userEvent.click(ada.getByLabelText('missing'));
        await userEvent.click(screen.getByRole('button', { name: 'Missing from 1: save' }));
        await screen.findByText(/missing from 1$/);
        expect(sentTo('POST /api/sections/c/notices/n1/work')).toEqual([{ states: { a: 'missing', k: 'excused' } }]);
    });

    it('give work in one line, and say what the line lacks', async () => {
        let tries = 0;
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/notices': { notices: [], said: '' },
            'POST /api/sections/c/notices/line': () =>
                ++tries === 1
                    ? new Refused(422, 'Say the day.', { text: ['Say the day.'] })
                    : { notices: [notice()], said: '“Reading log” is due 27 November.' },
        });
        ofSection();
        const line = await screen.findByLabelText('Work in one line: what it is, then the day');
        await userEvent.type(line, 'Reading log');
        await userEvent.click(screen.getByRole('button', { name: 'Give it' }));
        await screen.findByText('Say the day.');
        expect(line).toHaveProperty('value', 'Reading log');
        await userEvent.type(line, ', fri{Enter}');
        await screen.findByRole('heading', { level: 2, name: 'Reading log' });
        expect(line).toHaveProperty('value', '');
        expect(sentTo('POST /api/sections/c/notices/line')[1]).toEqual({ text: 'Reading log, fri' });
    });

    it('bring a gradebook in as it was looked at', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/notices': { notices: [], said: '' },
            'POST /api/sections/c/notices/gradebook/plan': {
                sentence: '1 piece of work new.',
                rows: [],
                warnings: ['results.csv, row 3 is of no work in lineItems.csv.'],
                blockers: [],
                changes: 1,
                seed: 'a-seed',
                fingerprint: 'a-print',
            },
            'POST /api/sections/c/notices/gradebook': { notices: [notice()], said: '1 piece of work new.' },
        });
        ofSection();
        await userEvent.click(await screen.findByRole('button', { name: 'From a gradebook…' }));
        const dialog = within(await screen.findByRole('dialog'));
        expect(dialog.getByRole('button', { name: 'Preview' })).toHaveProperty('disabled', true);
        await userEvent.upload(dialog.getByLabelText('Files'), new File(['x'], 'lineItems.csv'));
        await userEvent.click(dialog.getByRole('button', { name: 'Preview' }));
        await dialog.findByText('results.csv, row 3 is of no work in lineItems.csv.');
        await userEvent.click(dialog.getByRole('button', { name: 'Bring it in' }));
        await screen.findByRole('heading', { level: 2, name: 'Reading log' });
        expect(sentTo('POST /api/sections/c/notices/gradebook')).toEqual([
            { 'files[]': 'lineItems.csv', seed: 'a-seed', fingerprint: 'a-print' },
        ]);
    });

    it('are only read by whoever may not write them', async () => {
        serverAnswers({
            'GET /api/sections/c': { ...section, powers: ['see_roster'] },
            'GET /api/sections/c/notices': { notices: [notice()], said: '' },
        });
        ofSection();
        await screen.findByText(/seen by 3/);
        expect(screen.queryByRole('button')).toBeNull();
    });
});

describe('the board of a child', () => {
    it('says what is missing first, and nothing of what there is none', () => {
        const of = (title: string, more: object = {}) => ({
            id: title,
            kind: 'notice' as const,
            title,
            body: '',
            section: '3 Heron',
            day: '',
            ...more,
        });
        show(
            <HomeBoard
                board={{
                    missing: [of('Log', { kind: 'work', day: '2026-12-04' })],
                    coming: [],
                    new: [of('Boots', { section: '' })],
                }}
            />,
        );
        expect(screen.getAllByRole('heading').map((h) => h.textContent)).toEqual(['Not handed in', 'New']);
        expect(screen.getByText(/due 4 December/)).toBeTruthy();
    });
});
