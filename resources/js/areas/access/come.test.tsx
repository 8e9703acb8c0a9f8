import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { ComePage } from './ComePage';

const view = {
    school: 'Lanternfield',
    section: '3 Heron',
    name: 'Noor',
    family: false,
    asksBirthDate: true,
    asksNumber: false,
};
const guest = { 'GET /api/me': new Refused(401, 'Sign in.') };
const come = () => show(<ComePage />, '/come#abc');

describe('the link of an invitation into a section', () => {
    it('brings a student on record in with one touch, and says how to sign in', async () => {
        serverAnswers({
            ...guest,
            'POST /api/come': view,
            'POST /api/come/accept': { section: '3 Heron', already: false, userName: '' },
        });
        come();
        await screen.findByText(/This link is for Noor/);
        await userEvent.click(screen.getByRole('button', { name: 'Come in' }));
        await screen.findByRole('heading', { name: 'You are in 3 Heron' });
        expect(sentTo('POST /api/come/accept')).toEqual([{ token: 'abc' }]);
        expect(screen.getByRole('link', { name: 'Sign in' })).toBeTruthy();
    });

    it('asks a family about their child, or takes a no', async () => {
        serverAnswers({ ...guest, 'POST /api/come': { ...view, family: true }, 'POST /api/come/decline': null });
        come();
        await screen.findByRole('heading', { name: 'A place for Noor in 3 Heron' });
        expect(screen.getByRole('button', { name: 'Yes, Noor comes in' })).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'This is not for me' }));
        await screen.findByRole('heading', { name: 'Thank you for telling us' });
        expect(sentTo('POST /api/come/decline')).toEqual([{ token: 'abc' }]);
    });

    it('asks whoever is not on record who they are, keeps what was typed, and waits', async () => {
        let tries = 0;
        serverAnswers({
            ...guest,
            'POST /api/come': { ...view, name: '' },
            'POST /api/come/ask': () =>
                ++tries === 1
                    ? new Refused(422, 'Type the day you were born.', { birth_date: ['Type the day you were born.'] })
                    : { state: 'waiting', section: '3 Heron', userName: '', how: '' },
            'POST /api/join/asked': { state: 'waiting', section: '3 Heron', userName: '', how: '' },
        });
        come();
        await userEvent.type(await screen.findByLabelText('First name'), 'Marlo');
        await userEvent.type(screen.getByLabelText('Last name'), 'Quill');
        await userEvent.type(screen.getByLabelText('The day you were born'), '2010-05-04');
        await userEvent.type(screen.getByLabelText('A password you will remember'), 'otter on maple');
        await userEvent.click(screen.getByRole('button', { name: 'Ask to come in' }));
        await screen.findByText('Type the day you were born.');
        expect(screen.getByLabelText('First name')).toHaveProperty('value', 'Marlo');
        await userEvent.click(screen.getByRole('button', { name: 'Ask to come in' }));
        await screen.findByRole('heading', { name: 'You have asked to come in' });
        expect(sentTo('POST /api/come/ask')[1]).toEqual({
            token: 'abc',
            given_name: 'Marlo',
            family_name: 'Quill',
            birth_date: '2010-05-04',
            password: 'otter on maple',
        });
    });

    it('lets a student who is signed in come in as themselves', async () => {
        serverAnswers({
            ...guest,
            'GET /api/me': { kind: 'student', name: 'Ada Bell', must: '', schools: [] },
            'POST /api/come': { ...view, name: '' },
            'POST /api/come/accept': { section: '3 Heron', already: false, userName: '' },
        });
        come();
        await screen.findByText('You are signed in as Ada Bell.');
        await userEvent.click(screen.getByRole('button', { name: 'Come in' }));
        await screen.findByRole('link', { name: 'My sections' });
    });

    it('says why a link opens nothing', async () => {
        serverAnswers({ ...guest, 'POST /api/come': new Refused(422, 'This link is too old.') });
        come();
        await screen.findByText('This link is too old.');
    });
});
