import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { CredentialsPart } from './CredentialsPart';

const person = { id: 'P1', name: 'Petra Okonjo', kind: 'staff', state: 'active' } as Schemas['PersonDetail'];
type Line = Schemas['CredentialLine'];
const line = (kind: Line['kind'], id: string, more: Partial<Line> = {}): Line => ({
    kind,
    id,
    what: kind === 'password' ? 'petra.okonjo' : '',
    since: '2026-08-24T08:00:00Z',
    by: 'issued by Ines Halloran',
    lastUsed: null,
    where: '',
    ...more,
});
const page = (more: Partial<Schemas['CredentialPage']> = {}): Schemas['CredentialPage'] => ({
    said: '',
    credentials: [line('password', 'S1'), line('second_factor', 'F1')],
    address: 'petra.okonjo@lanternfield.example',
    confirmed: true,
    addressSays: 'an address of the school',
    addressAt: null,
    canSendLink: true,
    canLeave: true,
    ...more,
});
const part = () => show(<CredentialsPart person={person} school="S" />);

describe('the ways to sign in of a person', () => {
    it('are ended one by one, after a question, and what happened is said', async () => {
        serverAnswers({
            'GET /api/people/P1/credentials': page(),
            'POST /api/people/P1/credentials/end': page({ said: 'The password has ended.', credentials: [] }),
        });
        part();
        await userEvent.click(await screen.findByRole('button', { name: 'End: Own password petra.okonjo' }));
        const dialog = screen.getByRole('dialog');
        expect(within(dialog).getByText(/sessions it opened end with the next click/)).toBeTruthy();
        expect(within(dialog).queryByLabelText('Your password')).toBeNull();
        expect(sentTo('POST /api/people/P1/credentials/end')).toEqual([]);
        await userEvent.click(within(dialog).getByRole('button', { name: 'End it' }));
        expect(await screen.findByText('The password has ended.')).toBeTruthy();
        expect(screen.getByText(/None: no password/)).toBeTruthy();
        expect(sentTo('POST /api/people/P1/credentials/end')).toEqual([{ kind: 'password', id: 'S1' }]);
    });

    it('take the password of whoever ends a second factor, and say beside the field when it is wrong', async () => {
        serverAnswers({
            'GET /api/people/P1/credentials': page(),
            'POST /api/people/P1/credentials/end': (body: unknown) =>
                (body as { password?: string }).password === 'right one'
                    ? page({ said: 'The second factor has ended.' })
                    : new Refused(422, 'This takes your password, and this is not it.', {
                          password: ['This takes your password, and this is not it.'],
                      }),
        });
        part();
        await userEvent.click(await screen.findByRole('button', { name: /^End: Second factor/ }));
        const field = screen.getByLabelText('Your password');
        await userEvent.type(field, 'wrong one');
        await userEvent.click(screen.getByRole('button', { name: 'End it' }));
        expect(await screen.findByText('This takes your password, and this is not it.')).toBeTruthy();
        expect(screen.getByRole('dialog')).toBeTruthy();
        await userEvent.clear(field);
        await userEvent.type(field, 'right one');
        await userEvent.click(screen.getByRole('button', { name: 'End it' }));
        expect(await screen.findByText('The second factor has ended.')).toBeTruthy();
        expect(screen.queryByRole('dialog')).toBeNull();
    });

    it('say that an address is not confirmed, and that nothing personal goes there', async () => {
        serverAnswers({ 'GET /api/people/P1/credentials': page({ confirmed: false, addressSays: 'from a list' }) });
        part();
        expect(await screen.findByText('is not confirmed')).toBeTruthy();
        expect(screen.getByText(/nothing personal goes there/)).toBeTruthy();
    });

    it('offer to try again where the server does not answer', async () => {
        part();
        expect(await screen.findByText(/does not answer/)).toBeTruthy();
        serverAnswers({ 'GET /api/people/P1/credentials': page() });
        await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
        expect(await screen.findByText('is confirmed')).toBeTruthy();
    });
});

describe('leaving the staff', () => {
    const plan = (more: object = {}) => ({
        sentence: 'Petra Okonjo leaves the staff today.',
        rows: [
            {
                number: 1,
                verdict: 'ask',
                why: '',
                cells: { Section: { before: '3 Heron', after: '3 Heron' } },
                problems: [],
            },
        ],
        warnings: ['1 section is left without a lead: 3 Heron.'],
        blockers: [],
        seed: 'seed',
        fingerprint: 'f'.repeat(64),
        undoUntil: '2026-12-10',
        ...more,
    });

    it('shows what ends, hands the sections over, and is done as looked at', async () => {
        serverAnswers({
            'GET /api/people/P1/credentials': page(),
            'POST /api/people/P1/off-board/plan': (body: unknown) =>
                (body as { to?: string }).to === 'P2' ? plan({ warnings: [], fingerprint: 'e'.repeat(64) }) : plan(),
            'GET /api/schools/S/staff': {
                people: [
                    { id: 'P2', name: 'Ruben Aske' },
                    { id: 'P1', name: 'Petra Okonjo' },
                ],
            },
            'POST /api/people/P1/off-board': page({ said: 'Petra Okonjo has left.', credentials: [], canLeave: false }),
        });
        part();
        await userEvent.click(await screen.findByRole('button', { name: 'Leaves the staff…' }));
        expect(await screen.findByText(/without a lead/)).toBeTruthy();
        expect(screen.getAllByText('Petra Okonjo leaves the staff today.')).toHaveLength(1);
        await userEvent.type(screen.getByLabelText('Hand the sections they lead to'), 'ru');
        // Nobody hands their sections to themselves.
        expect(await screen.findByRole('button', { name: 'Ruben Aske' })).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Petra Okonjo' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Ruben Aske' }));
        expect(await screen.findByText(/Ruben Aske leads the sections/)).toBeTruthy();
        await userEvent.type(screen.getByLabelText('Your password'), 'a long password');
        await userEvent.click(screen.getByRole('button', { name: /End it all/ }));
        expect(await screen.findByText('Petra Okonjo has left.')).toBeTruthy();
        expect(sentTo('POST /api/people/P1/off-board')).toEqual([
            { to: 'P2', seed: 'seed', fingerprint: 'e'.repeat(64), password: 'a long password' },
        ]);
    });

    it('cannot be done where the plan says why not', async () => {
        serverAnswers({
            'GET /api/people/P1/credentials': page(),
            'POST /api/people/P1/off-board/plan': plan({ blockers: ['Nobody else coordinates this school.'] }),
        });
        part();
        await userEvent.click(await screen.findByRole('button', { name: 'Leaves the staff…' }));
        expect(await screen.findByText('Nobody else coordinates this school.')).toBeTruthy();
        expect((screen.getByRole('button', { name: /End it all/ }) as HTMLButtonElement).disabled).toBe(true);
    });
});
