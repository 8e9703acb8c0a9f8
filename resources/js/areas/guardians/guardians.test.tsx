import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { GuardianPage } from '../access/GuardianPage';
import { OwnPage } from '../access/OwnPage';
import { GuardiansPage, type Tie } from './GuardiansPage';
import { TieSheet } from './TieSheet';

const school = { id: 's', code: 'LF', name: 'Lanternfield', grades: [] } as unknown as School;
const tie = (more: Partial<Tie> = {}): Tie => ({
    id: 't1',
    guardianId: 'g1',
    guardian: 'Layla Haddad',
    studentId: 'n1',
    student: 'Noor Haddad',
    grade: '3',
    relationship: '',
    email: 'layla@shoremail.example',
    confirmed: false,
    phone: '',
    state: 'listed',
    awaiting: false,
    restriction: '',
    since: null,
    by: '',
    invitedAt: null,
    remindedAt: null,
    expiresAt: null,
    consentOn: null,
    consentWay: '',
    ...more,
});
const page = { lines: [tie()], next: null };
const counts = {
    all: 5,
    requests: 2,
    standings: [
        { standing: 'listed', count: 1 },
        { standing: 'awaiting', count: 2 },
        { standing: 'connected', count: 4 },
    ],
};
const at = '/api/schools/s/guardians';

describe('the guardians of a school', () => {
    it('are counted by how they stand, and invited after a look at what that comes to', async () => {
        serverAnswers({
            [`GET ${at}`]: page,
            [`GET ${at}/counts`]: counts,
            [`GET ${at}/runs`]: { runs: [] },
            'GET /api/schools/s/sections': { sections: [] },
            [`POST ${at}/invite/plan`]: {
                guardians: 1,
                children: 1,
                leftOut: 'Not invited: 3 have no mail address.',
                languages: { French: 1, Spanish: 3 },
                days: 28,
            },
            [`POST ${at}/invite`]: {
                id: 'r',
                state: 'done',
                done: 1,
                total: 1,
                said: 'Sends a link to 1 guardian.',
                madeAt: '',
            },
        });
        show(<GuardiansPage school={school} />);
        await screen.findByText('5 guardians of students');
        expect(screen.getByRole('button', { name: 'all 5' }).getAttribute('aria-pressed')).toBe('true');
        expect(screen.getByRole('link', { name: 'Requests (2)' })).toBeTruthy();
        expect(screen.queryByRole('button', { name: /^ended/ })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'listed 1' }));
        expect(screen.getByRole('button', { name: 'listed 1' }).getAttribute('aria-pressed')).toBe('true');
        await userEvent.click(screen.getByRole('button', { name: 'Invite these…' }));
        const dialog = within(await screen.findByRole('dialog'));
        await dialog.findByText(/3 have no mail address/);
        await dialog.findByText(/works for 28 days, and is written in French \(1\), Spanish \(3\)/);
        await userEvent.click(dialog.getByRole('button', { name: 'Invite 1 guardian' }));
        await screen.findByText('Sends a link to 1 guardian.');
        expect(sentTo(`POST ${at}/invite`)).toEqual([{ standing: 'listed' }]);
    });

    it('say so where there are none', async () => {
        serverAnswers({
            [`GET ${at}`]: { lines: [], next: null },
            [`GET ${at}/counts`]: { all: 0, requests: 0, standings: [] },
            [`GET ${at}/runs`]: { runs: [] },
            'GET /api/schools/s/sections': { sections: [] },
        });
        show(<GuardiansPage school={school} />);
        await screen.findByText('No guardians yet');
        expect(screen.getByRole('button', { name: 'Invite these…' })).toHaveProperty('disabled', true);
    });
});

describe('one guardian and one child', () => {
    const sheet = (more: Partial<Tie>) => show(<TieSheet tie={tie(more)} school={school} onClose={() => undefined} />);

    it('are sent a link again, to another address', async () => {
        serverAnswers({ [`POST ${at}/t1/again`]: { said: 'A new link is on its way.' } });
        sheet({ state: 'invited', invitedAt: '2026-09-01T10:00:00Z', expiresAt: '2026-09-29T10:00:00Z' });
        expect(screen.getByRole('button', { name: 'Withdraw' })).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Send again…' }));
        await userEvent.type(screen.getByLabelText(/Another mail address/), 'new@shoremail.example');
        await userEvent.click(screen.getByRole('button', { name: 'Send the link' }));
        await screen.findByText('A new link is on its way.');
        expect(sentTo(`POST ${at}/t1/again`)).toEqual([{ email: 'new@shoremail.example' }]);
    });

    it('are disconnected only after it is said what that means', async () => {
        serverAnswers({ [`POST ${at}/t1/disconnect`]: new Refused(409, 'Somebody has changed this since.') });
        sheet({ state: 'connected' });
        await userEvent.click(screen.getByRole('button', { name: 'Disconnect…' }));
        await screen.findByText(/signed out everywhere/);
        await userEvent.click(screen.getByRole('button', { name: 'Disconnect' }));
        await screen.findByText('Somebody has changed this since.');
    });

    it('are not invited while contact is restricted, and the reason is seen', () => {
        sheet({ restriction: 'court order' });
        expect(screen.getByText('court order')).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Invite…' })).toBeNull();
        expect(screen.queryByRole('button', { name: 'Keep consent…' })).toBeNull();
        expect(screen.getByRole('button', { name: 'Lift the restriction' })).toBeTruthy();
    });
});

describe('the link of an invitation', () => {
    const link = {
        school: 'Lanternfield',
        students: ['Noor', 'Sami'],
        opens: true,
        userName: 'layla@shoremail.example',
    };
    const nobody = { 'GET /api/me': new Refused(401, 'Nobody is signed in.'), 'GET /api/entrance': {} };

    it('asks for a password only after a yes', async () => {
        serverAnswers({
            ...nobody,
            'POST /api/guardian/check': link,
            'POST /api/guardian/accept': { waits: true, signedIn: true },
        });
        show(<GuardianPage />, '/guardian#abc');
        await screen.findByRole('heading', { name: 'Are you a guardian of Noor, Sami?' });
        await userEvent.click(screen.getByRole('button', { name: 'Yes, connect us' }));
        await userEvent.type(screen.getByLabelText('New password'), 'four green boats at sea');
        await userEvent.click(screen.getByRole('button', { name: 'Set the password' }));
        await screen.findByRole('heading', { name: 'The school will check' });
        expect(sentTo('POST /api/guardian/accept')).toEqual([{ token: 'abc', password: 'four green boats at sea' }]);
    });

    it('takes a no', async () => {
        serverAnswers({ ...nobody, 'POST /api/guardian/check': link, 'POST /api/guardian/decline': null });
        show(<GuardianPage />, '/guardian#abc');
        await userEvent.click(await screen.findByRole('button', { name: 'No, this is not my child' }));
        await screen.findByRole('heading', { name: 'Thank you for telling us' });
    });

    it('says that it is over', async () => {
        serverAnswers({ ...nobody, 'POST /api/guardian/check': new Refused(422, 'This link does not work any more.') });
        show(<GuardianPage />, '/guardian#abc');
        await screen.findByRole('heading', { name: 'This link does not work any more' });
    });
});

describe('a guardian’s own address', () => {
    it('is changed by codes of the new and the old one', async () => {
        const own = {
            email: 'old@shoremail.example',
            emailConfirmed: true,
            phone: '',
            phoneConfirmed: false,
            often: 'weekly',
            hour: 17,
        };
        serverAnswers({
            'GET /api/me': { kind: 'guardian', must: '', room: '', schools: [] },
            'GET /api/own/contact': own,
            'POST /api/own/hears': { ...own, often: 'off' },
            'POST /api/own/contact': { old: true },
            'POST /api/own/contact/confirm': { ...own, email: 'new@shoremail.example' },
        });
        show(<OwnPage />);
        const [change] = await screen.findAllByRole('button', { name: 'Change it' });
        if (change) await userEvent.click(change);
        await userEvent.type(screen.getByLabelText('New mail address'), 'new@shoremail.example');
        await userEvent.click(screen.getByRole('button', { name: 'Send me a code' }));
        await userEvent.type(await screen.findByLabelText('Code sent to the new one'), '123456');
        await userEvent.type(screen.getByLabelText('Code sent to the old one'), '654321');
        await userEvent.click(screen.getByRole('button', { name: 'Confirm' }));
        await screen.findByText('new@shoremail.example');
        expect(sentTo('POST /api/own/contact/confirm')).toEqual([{ new: '123456', old: '654321' }]);
        await userEvent.click(screen.getByLabelText('Only what is urgent'));
        expect(sentTo('POST /api/own/hears')).toEqual([{ often: 'off', hour: 17 }]);
    });
});
