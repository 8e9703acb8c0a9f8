import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { MailroomPage } from './MailroomPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const message = (more: object = {}) => ({
    id: 'm1',
    via: 'mail',
    kind: 'guardian invited',
    to: 'ada@shoremail.example',
    personId: 'p1',
    subject: 'Lanternfield asks you',
    text: 'Follow https://a.example/x#1',
    madeAt: '2026-08-24T09:00:00Z',
    state: 'bounced',
    problem: 'There is no such address.',
    sentAt: '2026-08-24T09:01:00Z',
    nextAt: null,
    amiss: true,
    bounced: 'There is no such address.',
    files: ['Map.pdf'],
    ...more,
});
const page = (...messages: object[]) => ({ messages, next: null, amiss: 1, waiting: 2 });

describe('the Mailroom', () => {
    it('says what did not arrive and why, and sends it again', async () => {
        serverAnswers({
            'GET /api/schools/s/messages': page(message()),
            'GET /api/messages/m1': message(),
            'GET /api/messages/m2': message({ id: 'm2', state: 'waiting', problem: '', amiss: false }),
            'POST /api/messages/m1/again': message({ id: 'm2', state: 'waiting', problem: '', amiss: false }),
        });
        show(<MailroomPage school={school} />, '/s/LF/mailroom?message=m1');
        await screen.findByText('1 message did not arrive');
        expect(screen.getByRole('button', { name: 'did not arrive 1' })).toBeTruthy();
        expect(screen.getByRole('button', { name: 'waiting 2' })).toBeTruthy();
        await screen.findByText('There is no such address.');
        expect(screen.getByText('Map.pdf')).toBeTruthy();
        expect(screen.getByRole('link', { name: '.eml' }).getAttribute('href')).toBe('/api/messages/m1/eml');
        await userEvent.click(screen.getByRole('button', { name: 'Send again' }));
        await screen.findByText(/^It goes out once more, to /);
        // The new one is open now, and what came back before is said beside it.
        await screen.findByText(/Mail to this address came back before/);
        expect(screen.getByRole('button', { name: 'Stop it' })).toBeTruthy();
    });

    it('shows a message as a page in a frame that can do nothing', async () => {
        serverAnswers({
            'GET /api/schools/s/messages': page(message()),
            'GET /api/messages/m1': message({ state: 'sent', amiss: false, problem: '' }),
        });
        show(<MailroomPage school={school} />, '/s/LF/mailroom?message=m1');
        await userEvent.click(await screen.findByRole('button', { name: 'as a page' }));
        const frame = screen.getByTitle('The message as a page');
        expect(frame.getAttribute('sandbox')).toBe('');
        expect(frame.getAttribute('src')).toBe('/api/messages/m1/html');
    });

    it('keeps what is refused beside what was asked', async () => {
        serverAnswers({
            'GET /api/schools/s/messages': page(message()),
            'GET /api/messages/m1': message(),
            'POST /api/messages/m1/settle': new Refused(422, 'It cannot be set aside.'),
        });
        show(<MailroomPage school={school} />, '/s/LF/mailroom?message=m1');
        await userEvent.click(await screen.findByRole('button', { name: 'Set aside' }));
        await screen.findByText('It cannot be set aside.');
        expect(sentTo('POST /api/messages/m1/settle')).toHaveLength(1);
    });

    it('narrows to those that did not arrive', async () => {
        serverAnswers({
            'GET /api/schools/s/messages': page(message({ id: 'm9', state: 'sent', amiss: false })),
            'GET /api/schools/s/messages?show=amiss': { ...page(), amiss: 0 },
        });
        show(<MailroomPage school={school} />, '/s/LF/mailroom');
        await userEvent.click(await screen.findByRole('button', { name: 'did not arrive 1' }));
        await screen.findByText('No such message');
        await screen.findByText('nothing is amiss');
    });
});
