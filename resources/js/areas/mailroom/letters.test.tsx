import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { forgetBegun } from '@/ui/begun';
import { LetterDialog } from './LetterDialog';
import { LettersPage } from './LettersPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield', grades: [{ code: '03', short: '3' }] } as unknown as School;
const mailing = (more: object = {}) => ({
    id: 'm1',
    subject: 'Trip',
    whom: 'guardians of grade 3',
    by: 'Ines Halloran',
    madeAt: '2026-11-26T09:00:00Z',
    goesAt: '2099-11-26T09:00:00Z',
    count: 42,
    texts: 0,
    waiting: 42,
    amiss: 0,
    stopped: 0,
    ...more,
});
const outlook = {
    whom: 'guardians of grade 3',
    count: 42,
    texts: 0,
    parts: 0,
    textsGo: true,
    languages: { English: 40, Ukrainian: 2 },
    unwritten: { Spanish: 7 },
    without: ['Silent Moss'],
    bounced: [],
    quietFrom: 20,
    quietTo: 7,
    seen: 'as-looked-at',
    previews: [{ to: 'Layla Haddad', language: 'English', subject: 'Trip', text: 'Dear Layla Haddad' }],
};

async function written() {
    const dialog = within(await screen.findByRole('dialog'));
    await userEvent.type(dialog.getByLabelText('What it is about'), 'Trip');
    await userEvent.type(dialog.getByLabelText('Letter'), 'Dear families');
    return dialog;
}

describe('a letter to many', () => {
    it('is looked at as its receivers get it before it is sent, and can be stopped', async () => {
        serverAnswers({
            'GET /api/schools/s/mailings': { mailings: [], said: '' },
            'POST /api/schools/s/mailings/plan': outlook,
            'POST /api/schools/s/mailings': {
                mailings: [mailing()],
                said: '42 letters go out when their time has come.',
            },
            'POST /api/schools/s/mailings/m1/stop': {
                mailings: [mailing({ waiting: 0, stopped: 42 })],
                said: '42 letters stopped.',
            },
        });
        show(<LettersPage school={school} />, '/s/LF/mailroom/letters');
        await screen.findByText('No letter has been written');
        await userEvent.click(screen.getByRole('button', { name: 'Write one' }));
        const dialog = await written();
        await userEvent.selectOptions(dialog.getByLabelText('Of'), '03');
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await screen.findByText(/40 in English, 2 in Ukrainian/);
        await screen.findByText('Silent Moss');
        await screen.findByText('Dear Layla Haddad');
        expect(sentTo('POST /api/schools/s/mailings')).toEqual([]);
        await userEvent.click(screen.getByRole('button', { name: 'Send 42 letters' }));
        await screen.findByText('42 letters go out when their time has come.');
        expect(sentTo('POST /api/schools/s/mailings')).toEqual([
            {
                readers: 'guardians',
                by: 'mail',
                files: [],
                subject: 'Trip',
                body: 'Dear families',
                subjects: {},
                bodies: {},
                grade: '03',
                even_quiet: false,
                seen: 'as-looked-at',
            },
        ]);
        await userEvent.click(await screen.findByRole('button', { name: 'Stop what has not gone' }));
        await screen.findByText(/42 stopped/);
    });

    it('keeps what was written where it is refused, and goes back to it', async () => {
        serverAnswers({
            'POST /api/sections/c/letter/plan': new Refused(422, 'Nothing fills {{who}}.', {
                body: ['Nothing fills {{who}}.'],
            }),
        });
        show(<LetterDialog school={school} section="c" onClose={() => null} onDone={() => null} />);
        const dialog = await written();
        expect(dialog.queryByLabelText('Of')).toBeNull();
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await dialog.findByText('Nothing fills {{who}}.');
        expect(dialog.getByLabelText(/^Letter/)).toHaveProperty('value', 'Dear families');
        serverAnswers({ 'POST /api/sections/c/letter/plan': { ...outlook, count: 0 } });
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await screen.findByText('None of these can be reached that way.');
        expect(screen.getByRole('button', { name: 'Send 0 letters' })).toHaveProperty('disabled', true);
        await userEvent.click(screen.getByRole('button', { name: 'Back to the letter' }));
        expect(screen.getByLabelText('Letter')).toHaveProperty('value', 'Dear families');
    });

    it('goes as a text: short, without a line of its own, its parts counted', async () => {
        serverAnswers({
            'GET /api/schools/s/mailings/kept': { templates: [] },
            'POST /api/schools/s/mailings/plan': {
                ...outlook,
                texts: 42,
                parts: 84,
                textsGo: false,
                previews: [{ to: 'Layla Haddad', language: 'English', subject: '', text: 'Lanternfield: x', parts: 2 }],
            },
        });
        show(<LetterDialog school={school} onClose={() => undefined} onDone={() => undefined} />);
        const dialog = within(await screen.findByRole('dialog'));
        await userEvent.selectOptions(dialog.getByLabelText('As'), 'text');
        expect(dialog.queryByLabelText('What it is about')).toBeNull();
        expect(dialog.queryByLabelText(/^Add a file/)).toBeNull();
        await userEvent.type(dialog.getByLabelText('Text'), 'Buses are late');
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await screen.findByText(/84 parts of a text message in all.*No gateway for texts is set here/);
        expect(screen.getByText(/a text of 15 characters, 2 parts/)).toBeTruthy();
        expect(screen.getByText('1 person without a number:')).toBeTruthy();
        expect(screen.getByRole('button', { name: 'Send 42 texts' })).toBeTruthy();
        expect(sentTo('POST /api/schools/s/mailings/plan')[0]).toMatchObject({ by: 'text', subject: '', files: [] });
    });

    it('carries files, and says why one is not taken', async () => {
        let tries = 0;
        serverAnswers({
            'GET /api/schools/s/mailings/kept': { templates: [] },
            'POST /api/schools/s/mailings/files': () =>
                ++tries === 1
                    ? new Refused(422, '“page.pdf” is no PDF.', { files: ['“page.pdf” is no PDF.'] })
                    : { id: 'f1', name: 'Map.pdf', size: 140_000 },
            'POST /api/schools/s/mailings/plan': outlook,
        });
        show(<LetterDialog school={school} onClose={() => undefined} onDone={() => undefined} />);
        const dialog = await written();
        const file = dialog.getByLabelText(/^Add a file/);
        await userEvent.upload(file, new File(['x'], 'page.pdf', { type: 'application/pdf' }));
        await dialog.findByText('“page.pdf” is no PDF.');
        await userEvent.upload(file, new File(['x'], 'Map.pdf', { type: 'application/pdf' }));
        await dialog.findByText('Map.pdf');
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await screen.findByText(/With Map\.pdf/);
        expect(screen.getByText('Not written in their language: 7 read Spanish.')).toBeTruthy();
        expect(sentTo('POST /api/schools/s/mailings/plan')[0]).toMatchObject({ files: ['f1'] });
        await userEvent.click(screen.getByRole('button', { name: 'Back to the letter' }));
        await userEvent.click(await screen.findByRole('button', { name: 'Take Map.pdf off' }));
        expect(screen.queryByText('Map.pdf')).toBeNull();
    });

    it('begins with one kept for another time, and is kept itself', async () => {
        const kept = {
            id: 't1',
            name: 'Snow',
            shared: true,
            subject: 'No school today',
            body: 'It snows.',
            subjects: {},
            bodies: { uk: 'Сніг' },
        };
        serverAnswers({
            'GET /api/schools/s/mailings/kept': { templates: [kept] },
            'POST /api/schools/s/mailings/kept': {
                templates: [kept, { ...kept, id: 't2', name: 'Ice', shared: false }],
            },
            'DELETE /api/schools/s/mailings/kept/t1': { templates: [] },
        });
        show(
            <LetterDialog
                school={{ ...school, coordinates: true }}
                onClose={() => undefined}
                onDone={() => undefined}
            />,
        );
        const dialog = within(await screen.findByRole('dialog'));
        await userEvent.click(await dialog.findByText('Letters kept for another time: 1'));
        await userEvent.selectOptions(dialog.getByLabelText('Begin with'), 'Snow (of the school)');
        expect(dialog.getByLabelText('Letter')).toHaveProperty('value', 'It snows.');
        const name = dialog.getByLabelText('Keep what is written as');
        await userEvent.clear(name);
        await userEvent.type(name, 'Ice');
        await userEvent.click(dialog.getByLabelText('For the whole school'));
        await userEvent.click(dialog.getByRole('button', { name: 'Keep it' }));
        await dialog.findByText('Letters kept for another time: 2');
        expect(sentTo('POST /api/schools/s/mailings/kept')).toEqual([
            {
                name: 'Ice',
                shared: false,
                subject: 'No school today',
                body: 'It snows.',
                subjects: {},
                bodies: { uk: 'Сніг' },
            },
        ]);
        await userEvent.click(dialog.getByRole('button', { name: 'Forget “Snow”' }));
        await dialog.findByText('Letters kept for another time');
    });
});

describe('a letter that was begun', () => {
    it('is there again after the dialog was closed by mistake, until it is given up or sent', async () => {
        serverAnswers({
            'GET /api/schools/s/mailings': { mailings: [], said: '' },
            'POST /api/schools/s/mailings/plan': outlook,
            'POST /api/schools/s/mailings': { mailings: [mailing()], said: '42 letters on the way.' },
        });
        show(<LettersPage school={school} />, '/s/LF/mailroom/letters');
        await userEvent.click(await screen.findByRole('button', { name: 'Write one' }));
        await written();
        await userEvent.keyboard('{Escape}');
        expect(screen.queryByRole('dialog')).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Write one' }));
        await screen.findByText('You had begun this, and not sent it.');
        expect(screen.getByLabelText('Letter')).toHaveProperty('value', 'Dear families');
        await userEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
        expect(screen.getByLabelText('Letter')).toHaveProperty('value', '');
        expect(screen.getByLabelText('What it is about')).toHaveProperty('value', '');
        await userEvent.keyboard('{Escape}');
        await userEvent.click(screen.getByRole('button', { name: 'Write one' }));
        expect(screen.queryByText('You had begun this, and not sent it.')).toBeNull();
        const dialog = await written();
        await userEvent.click(dialog.getByRole('button', { name: 'Look at it' }));
        await userEvent.click(await screen.findByRole('button', { name: 'Send 42 letters' }));
        await screen.findByText('42 letters on the way.');
        expect(sessionStorage.length).toBe(0);
    });

    it('is forgotten with whoever signs out', () => {
        sessionStorage.setItem('vantrel.begun.p1.letter.s', '{}');
        sessionStorage.setItem('other', 'stays');
        forgetBegun();
        expect(Object.keys(sessionStorage)).toEqual(['other']);
    });
});
