import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { OwnInvitations } from './OwnInvitations';
import { ClaimReserve, MakeReserves } from './Reserves';
import { SectionForm } from './SectionForm';

const section = { id: 'HERON', name: '3 Heron' } as Schemas['SectionDetail'];
const start = { name: '', kind: 'class' as const, grade: '', period: '', seats: '' };

describe('a section made by hand', () => {
    it('is sent as it was written, once', async () => {
        const save = vi.fn(() => new Promise<void>((done) => setTimeout(done, 20)));
        show(<SectionForm title="A section" button="Make it" start={start} onClose={() => undefined} onSave={save} />);
        await userEvent.type(screen.getByLabelText('Name'), 'Tide pools');
        await userEvent.type(screen.getByLabelText('Seats'), '24');
        await userEvent.dblClick(screen.getByRole('button', { name: 'Make it' }));
        expect(save).toHaveBeenCalledTimes(1);
        expect(save).toHaveBeenCalledWith({ name: 'Tide pools', kind: 'class', grade: '', period: '', seats: '24' });
    });

    it('says at the field what is wrong with it', async () => {
        serverAnswers({
            'POST /api/sections/HERON/reserves': new Refused(422, 'Make from 1 to 20 at a time.', {
                count: ['Make from 1 to 20 at a time.'],
            }),
        });
        const done = vi.fn(() => Promise.resolve());
        show(<MakeReserves section={section} onClose={() => undefined} onDone={done} />);
        await userEvent.clear(screen.getByLabelText('How many'));
        await userEvent.type(screen.getByLabelText('How many'), '40');
        await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
        expect(await screen.findByText('Make from 1 to 20 at a time.')).toBeTruthy();
        expect(done).not.toHaveBeenCalled();
    });
});

describe('reserve accounts', () => {
    it('are made, and said', async () => {
        serverAnswers({ 'POST /api/sections/HERON/reserves': {} });
        const [close, done] = [vi.fn(), vi.fn(() => Promise.resolve())];
        show(<MakeReserves section={section} onClose={close} onDone={done} />);
        await userEvent.click(screen.getByRole('button', { name: 'Make them' }));
        await vi.waitFor(() => expect(close).toHaveBeenCalled());
        expect(done).toHaveBeenCalledTimes(1);
        expect(sentTo('POST /api/sections/HERON/reserves')).toEqual([{ count: 3 }]);
        expect(screen.getByText(/They are at the end of the roster/)).toBeTruthy();
    });

    it('are given to a student, and a refusal without a field stands at the first one', async () => {
        const reserve = { id: 'R1', name: 'Reserve 1', userName: 'reserve.3heron' } as Schemas['RosterLine'];
        serverAnswers({
            'POST /api/sections/HERON/reserves/R1': new Refused(422, 'This account has an owner already.'),
        });
        show(
            <ClaimReserve
                section={section}
                reserve={reserve}
                onClose={() => undefined}
                onDone={() => Promise.resolve()}
            />,
        );
        await userEvent.type(screen.getByLabelText('First name'), 'Noor');
        await userEvent.type(screen.getByLabelText('Last name'), 'Haddad');
        await userEvent.click(screen.getByRole('button', { name: 'Assign' }));
        expect(await screen.findByText('This account has an owner already.')).toBeTruthy();
        expect(screen.getByLabelText('First name').getAttribute('aria-invalid')).toBe('true');
        expect(sentTo('POST /api/sections/HERON/reserves/R1')).toEqual([{ given_name: 'Noor', family_name: 'Haddad' }]);
    });
});

describe('invitations of one’s own', () => {
    const invitation = {
        id: 'I1',
        section: 'Tide pools',
        school: 'Lanternfield Primary',
        role: 'co-teacher',
        inviter: 'Petra Okonjo',
        beginsOn: null,
        endsOn: null,
    };

    it('are answered where they stand', async () => {
        serverAnswers({ 'GET /api/invitations': { invitations: [invitation] }, 'POST /api/invitations/I1/answer': {} });
        show(<OwnInvitations />);
        await userEvent.click(await screen.findByRole('button', { name: 'Accept' }));
        expect(await screen.findByText('You are co-teacher of Tide pools.')).toBeTruthy();
        expect(sentTo('POST /api/invitations/I1/answer')).toEqual([{ answer: 'accept' }]);
    });

    it('say why they could not be', async () => {
        serverAnswers({
            'GET /api/invitations': { invitations: [invitation] },
            'POST /api/invitations/I1/answer': new Refused(
                422,
                'This invitation has been withdrawn. Ask for a new one.',
            ),
        });
        show(<OwnInvitations />);
        await userEvent.click(await screen.findByRole('button', { name: 'Decline' }));
        expect(await screen.findByText(/has been withdrawn/)).toBeTruthy();
    });
});
