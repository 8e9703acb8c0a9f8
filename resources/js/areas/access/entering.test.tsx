import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { NewcomerSteps } from './NewcomerSteps';
import { SignInPage } from './SignInPage';

const ENTRANCE = {
    stayOwn: true,
    stayShared: false,
    singleSignOn: '',
    note: '',
    secondFactor: false,
};

beforeEach(() => serverAnswers({ 'GET /api/entrance': ENTRANCE }));

const typed = (label: string, text: string) => userEvent.type(screen.getByLabelText(label), text);
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));

describe('signing in', () => {
    it('sends user name and secret, and how long to stay where that was ticked', async () => {
        serverAnswers({ 'POST /api/sign-in': { me: { id: 'm' }, needs: '' } });
        show(<SignInPage />, '/sign-in');
        await userEvent.click(await screen.findByLabelText('This device is mine: stay signed in'));
        await typed('User name', 'ada.quill');
        await typed('Passphrase or password', 'maple otter candy');
        await press('Sign in');
        await vi.waitFor(() => expect(screen.getByTestId('where').textContent).toBe('/'));
        expect(sentTo('POST /api/sign-in')).toEqual([
            { user_name: 'ada.quill', secret: 'maple otter candy', stay: 'own' },
        ]);
    });

    it('shows nothing to press before it is known what stands above the button', async () => {
        let answer: (entrance: unknown) => void = () => undefined;
        serverAnswers({ 'GET /api/entrance': () => new Promise((resolve) => (answer = resolve)) });
        show(<SignInPage />);
        await screen.findByText('One moment…');
        expect(screen.queryByRole('button')).toBeNull();
        answer(ENTRANCE);
        await screen.findByRole('button', { name: 'Sign in' });
        expect(screen.getByLabelText('This device is mine: stay signed in')).toBeTruthy();
    });

    it('can be done where what the page offers did not come', async () => {
        serverAnswers({ 'GET /api/entrance': new Refused(500, 'No.') });
        show(<SignInPage />);
        await screen.findByRole('button', { name: 'Sign in' });
    });

    it('says at the secret why it was refused, and keeps what was typed', async () => {
        serverAnswers({ 'POST /api/sign-in': new Refused(422, 'User name and passphrase do not belong together.') });
        show(<SignInPage />);
        await screen.findByRole('button', { name: 'Sign in' });
        await typed('User name', 'ada.quill');
        await typed('Passphrase or password', 'wrong');
        await press('Sign in');
        const secret = screen.getByLabelText('Passphrase or password');
        await vi.waitFor(() => expect(secret.getAttribute('aria-invalid')).toBe('true'));
        expect(secret).toHaveProperty('value', 'wrong');
        expect(sentTo('POST /api/sign-in')).toEqual([{ user_name: 'ada.quill', secret: 'wrong' }]);
    });

    it('asks for the code of the app, and says what is wrong with it', async () => {
        serverAnswers({
            'POST /api/sign-in': { me: null, needs: 'code' },
            'POST /api/sign-in/code': new Refused(422, 'That code does not fit.', { code: ['no'] }),
        });
        show(<SignInPage />);
        await screen.findByRole('button', { name: 'Sign in' });
        await typed('User name', 'ines');
        await typed('Passphrase or password', 'tern');
        await press('Sign in');
        await userEvent.type(await screen.findByLabelText('Six digits, or a recovery code'), '123456');
        await press('Sign in');
        await screen.findByText('That code does not fit.');
        expect(sentTo('POST /api/sign-in/code')).toEqual([{ code: '123456' }]);
    });
});

describe('coming in without an account', () => {
    const door = {
        section: '3 Heron',
        who: 'approval',
        birthDate: false,
        number: false,
        mail: 'no',
        domains: [],
        password: true,
    };
    const steps = (onIn = vi.fn()) =>
        show(<NewcomerSteps code="KTR7M2C" onIn={onIn} onBack={vi.fn()} onSignIn={vi.fn()} />);

    it('takes the account on the list, once its birth date is shown', async () => {
        const onIn = vi.fn();
        serverAnswers({
            'POST /api/join/door': door,
            'POST /api/join/names': { names: [{ key: 'k1', name: 'Ada Q.' }], check: 'birth_date' },
            'POST /api/join/claim': { section: '3 Heron', already: false, userName: 'ada.quill' },
        });
        steps(onIn);
        await userEvent.type(await screen.findByLabelText('First name'), 'Ada');
        await typed('Last name', 'Quill');
        await press('Go on');
        await userEvent.click(await screen.findByText('Ada Q.'));
        await typed('The day you were born', '2016-03-04');
        await screen.findByText(/At least 8 characters/);
        await typed('A password you will remember', 'otter on maple');
        await press('Come in');
        await vi.waitFor(() => expect(onIn).toHaveBeenCalled());
        expect(sentTo('POST /api/join/claim')).toEqual([
            {
                code: 'KTR7M2C',
                given_name: 'Ada',
                family_name: 'Quill',
                key: 'k1',
                proof: '2016-03-04',
                password: 'otter on maple',
            },
        ]);
    });

    it('asks to come in where no list holds the name, and says a refusal of a name above the form', async () => {
        serverAnswers({
            'POST /api/join/door': door,
            'POST /api/join/names': { names: [], check: 'birth_date' },
            'POST /api/join/ask': new Refused(422, 'Type your name.', { given_name: ['Type your name.'] }),
        });
        steps();
        await userEvent.type(await screen.findByLabelText('First name'), 'Ada');
        await typed('Last name', 'Quill');
        await press('Go on');
        await userEvent.type(await screen.findByLabelText('A password you will remember'), 'otter on maple');
        await press('Ask to come in');
        await screen.findByText('Type your name.');
        expect(sentTo('POST /api/join/ask')).toEqual([
            { code: 'KTR7M2C', given_name: 'Ada', family_name: 'Quill', password: 'otter on maple' },
        ]);
    });
});
