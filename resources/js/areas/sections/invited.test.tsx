import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { InvitedPage } from './InvitedPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as unknown as School;
const line = (more: object = {}) => ({
    id: 'i1',
    typed: '020417',
    email: '',
    name: '',
    family: false,
    state: 'sent',
    problem: '',
    sentAt: '2026-11-26T09:00:00Z',
    openedAt: null,
    expiresAt: '2026-12-10T09:00:00Z',
    answeredAt: null,
    open: true,
    ...more,
});
const outlook = {
    count: 2,
    known: 1,
    languages: { English: 2 },
    leftOut: [{ typed: 'nobody', why: 'is no address, and no student’s number or user name.' }],
    bounced: [],
    previews: [{ to: '020417', language: 'English', subject: 'Come into 3 Heron', text: 'Petra asks you' }],
    days: 14,
    seen: 'as-looked-at',
};
const section = { name: '3 Heron', state: 'open', powers: ['place_students'] };
const page = () =>
    show(
        <Routes>
            <Route path="/s/LF/sections/:id/invited" element={<InvitedPage school={school} />} />
        </Routes>,
        '/s/LF/sections/c/invited',
    );

describe('inviting students by mail', () => {
    it('is looked at, with who is left out and why, before it is sent as it was seen', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/invited': { invitations: [], said: '' },
            'POST /api/sections/c/invited/plan': outlook,
            'POST /api/sections/c/invited': { invitations: [line()], said: 'Sends 2 links into 3 Heron.' },
        });
        page();
        await screen.findByText('Nobody has been invited by mail');
        await userEvent.click(await screen.findByRole('button', { name: 'Invite students or families…' }));
        const dialog = within(await screen.findByRole('dialog'));
        await userEvent.selectOptions(dialog.getByLabelText('To'), 'family');
        await userEvent.type(dialog.getByLabelText('Addresses, student numbers or user names'), '020417, nobody');
        await userEvent.click(dialog.getByRole('button', { name: 'Preview' }));
        await screen.findByText(/1 for a student on record, in with one touch\. 1 for somebody who says/);
        expect(screen.getByText('1 line left out:')).toBeTruthy();
        expect(screen.getByText('Petra asks you')).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Send 2 links' }));
        await screen.findByText('020417');
        expect(sentTo('POST /api/sections/c/invited')).toEqual([
            { who: '020417, nobody', family: true, language: 'en', seen: 'as-looked-at' },
        ]);
    });

    it('shows how far each has come, and what to do about it', async () => {
        serverAnswers({
            'GET /api/sections/c': section,
            'GET /api/sections/c/invited': {
                invitations: [
                    line({ id: 'a', state: 'not_there', problem: 'No such mailbox.' }),
                    line({ id: 'b', typed: 'b@x.example', state: 'opened', openedAt: '2026-11-26T10:00:00Z' }),
                    line({ id: 'c', typed: 'c', state: 'asked', open: false }),
                    line({ id: 'd', typed: 'd', state: 'came', name: 'Ada Bell', open: false }),
                ],
                said: '',
            },
            'POST /api/sections/c/invited/a/again': new Refused(422, 'Not now.'),
            'DELETE /api/sections/c/invited/b': { invitations: [], said: 'The link for b@x.example stops working.' },
        });
        page();
        await screen.findByText('4 links sent: 1 came in, 1 at the door, 1 opened and not answered, 1 did not arrive.');
        expect(screen.getByText('No such mailbox.')).toBeTruthy();
        expect(screen.getByText('Ada Bell')).toBeTruthy();
        expect(screen.getByRole('link', { name: 'Answer at the door' })).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Send d a new link' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Send 020417 a new link' }));
        await screen.findByText('Not now.');
        await userEvent.click(screen.getByRole('button', { name: 'Withdraw the link of b@x.example' }));
        await screen.findByText('Nobody has been invited by mail');
    });
});
