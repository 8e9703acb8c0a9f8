import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { FamilyPage } from '../access/FamilyPage';
import { ClaimsPage } from './ClaimsPage';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const sought = {
    id: 'f1',
    name: 'Omar Haddad',
    email: 'omar@shoremail.example',
    phone: '',
    signedIn: false,
    child: 'Nour Haddad',
    childBorn: '2017-05-04',
    askedAt: '2026-08-24T09:00:00Z',
};
const claim = (more: object = {}) => ({
    id: 'c1',
    name: 'Layla Haddad',
    email: 'layla@shoremail.example',
    phone: '',
    signedIn: false,
    student: 'Noor Haddad',
    state: 'waiting',
    reason: '',
    askedAt: '2026-08-24T09:00:00Z',
    answeredAt: null,
    record: [
        {
            id: 'g1',
            name: 'Layla Haddad',
            email: '',
            phone: '+12025550111',
            state: 'listed',
            restriction: '',
            alike: ['name'],
            unlike: [],
        },
        {
            id: 'g2',
            name: 'Omar Haddad',
            email: 'omar@shoremail.example',
            phone: '',
            state: 'listed',
            restriction: '',
            alike: [],
            unlike: ['name'],
        },
    ],
    suggested: 'g1',
    clear: false,
    ...more,
});

describe('guardians who ask', () => {
    it('are connected as whom they seem to be on record', async () => {
        serverAnswers({
            'GET /api/schools/s/claims': { claims: [claim()], sought: [], said: '' },
            'POST /api/schools/s/claims/c1/approve': {
                claims: [claim({ state: 'approved', answeredAt: '2026-08-24T10:00:00Z', record: [] })],
                sought: [],
                said: 'Layla Haddad is connected with Noor Haddad.',
            },
        });
        show(<ClaimsPage school={school} />);
        expect(await screen.findByLabelText(/^Layla Haddad, listed/)).toHaveProperty('checked', true);
        await screen.findByText(/The same: name/);
        await userEvent.click(screen.getByRole('button', { name: 'Connect' }));
        await screen.findByText('Layla Haddad is connected with Noor Haddad.');
        await screen.findByText(/Layla Haddad for Noor Haddad: connected/);
        expect(sentTo('POST /api/schools/s/claims/c1/approve')).toEqual([{ guardian: 'g1' }]);
    });

    it('are connected as nobody until it is said who they are, where nothing is the same', async () => {
        serverAnswers({
            'GET /api/schools/s/claims': { claims: [claim({ suggested: null })], sought: [], said: '' },
            'POST /api/schools/s/claims/c1/approve': new Refused(422, 'Somebody signs in with it already.'),
        });
        show(<ClaimsPage school={school} />);
        expect(await screen.findByRole('button', { name: 'Connect' })).toHaveProperty('disabled', true);
        await userEvent.click(screen.getByLabelText(/Someone not on record/));
        await userEvent.click(screen.getByRole('button', { name: 'Connect' }));
        await screen.findByText('Somebody signs in with it already.');
        expect(sentTo('POST /api/schools/s/claims/c1/approve')).toEqual([{}]);
    });

    it('are turned down with a reason', async () => {
        serverAnswers({
            'GET /api/schools/s/claims': { claims: [claim({ signedIn: true, record: [] })], sought: [], said: '' },
            'POST /api/schools/s/claims/c1/refuse': {
                claims: [claim({ state: 'refused', reason: 'An aunt', record: [] })],
                sought: [],
                said: 'Layla Haddad is not connected: An aunt',
            },
        });
        show(<ClaimsPage school={school} />);
        await userEvent.click(await screen.findByRole('button', { name: 'Turn down…' }));
        const dialog = within(await screen.findByRole('dialog'));
        expect(dialog.getByRole('button', { name: 'Turn down' })).toHaveProperty('disabled', true);
        await userEvent.type(dialog.getByLabelText('Reason'), 'An aunt');
        await userEvent.click(dialog.getByRole('button', { name: 'Turn down' }));
        await screen.findByText(/turned down, An aunt/);
        expect(sentTo('POST /api/schools/s/claims/c1/refuse')).toEqual([{ reason: 'An aunt' }]);
    });
});

describe('requests that are clear', () => {
    it('are connected together, and nobody who is kept away can be chosen', async () => {
        const kept = claim({
            id: 'c3',
            record: [{ ...claim().record[0], restriction: 'court order' }],
        });
        serverAnswers({
            'GET /api/schools/s/claims': {
                claims: [claim({ clear: true }), claim({ id: 'c2', clear: true }), kept],
                sought: [],
                said: '',
            },
            'POST /api/schools/s/claims/approve': { claims: [kept], sought: [], said: '2 guardians are connected.' },
        });
        show(<ClaimsPage school={school} />);
        await userEvent.click(await screen.findByRole('button', { name: 'Connect these 2' }));
        await screen.findByText('2 guardians are connected.');
        expect(sentTo('POST /api/schools/s/claims/approve')).toEqual([{ ids: ['c1', 'c2'] }]);
        await screen.findByText(/Contact is restricted: court order/);
        expect(screen.getByLabelText(/^Layla Haddad, listed/)).toHaveProperty('disabled', true);
        expect(screen.getByRole('button', { name: 'Connect' })).toHaveProperty('disabled', true);
    });
});

describe('guardians without a letter', () => {
    it('are answered once their child is found, among those it may be or by number', async () => {
        const page = { claims: [], sought: [sought], said: '' };
        serverAnswers({
            'GET /api/schools/s/claims': page,
            'GET /api/schools/s/sought/f1': {
                students: [
                    { id: 'n', name: 'Noor Haddad', born: '2017-05-04', grade: '4', number: '020417', fits: true },
                    { id: 'o', name: 'Nour Halabi', born: '', grade: '5', number: '', fits: false },
                ],
            },
            'POST /api/schools/s/people/named': { people: [], nobody: ['020499'], several: [] },
            'POST /api/schools/s/sought/f1/found': { claims: [claim()], sought: [], said: 'Look, and answer.' },
        });
        show(<ClaimsPage school={school} />);
        await screen.findByText(/born May 4, 2017|born 4 May 2017/);
        await userEvent.type(await screen.findByLabelText(/^Somebody else/), '020499');
        await userEvent.click(screen.getByRole('button', { name: 'Take them' }));
        await screen.findByText('No student here has that number or name.');
        await userEvent.click(screen.getByRole('button', { name: 'It is Noor Haddad' }));
        await screen.findByText('Look, and answer.');
        expect(sentTo('POST /api/schools/s/sought/f1/found')).toEqual([{ student: 'n' }]);
        await screen.findByText('Layla Haddad');
    });

    it('are turned down with a reason', async () => {
        serverAnswers({
            'GET /api/schools/s/claims': { claims: [], sought: [sought], said: '' },
            'GET /api/schools/s/sought/f1': { students: [] },
            'POST /api/schools/s/sought/f1/refuse': { claims: [], sought: [], said: 'Turned down.' },
        });
        show(<ClaimsPage school={school} />);
        await screen.findByText('Nobody on the Roll is called so or was born that day.');
        await userEvent.click(screen.getByRole('button', { name: 'Turn down…' }));
        const dialog = within(await screen.findByRole('dialog'));
        await dialog.findByText(/not connected with Nour Haddad/);
        await userEvent.type(dialog.getByLabelText('Reason'), 'Unknown here');
        await userEvent.click(dialog.getByRole('button', { name: 'Turn down' }));
        await screen.findByText('Nobody asks to be connected');
        expect(sentTo('POST /api/schools/s/sought/f1/refuse')).toEqual([{ reason: 'Unknown here' }]);
    });

    it('ask which school, and are told the same whatever is found', async () => {
        serverAnswers({
            'GET /api/me': new Refused(401, 'Nobody is signed in.'),
            'GET /api/family/schools': {
                schools: [
                    { id: 's', name: 'Lanternfield' },
                    { id: 't', name: 'Tidewater' },
                ],
            },
            'POST /api/family/seek': null,
        });
        show(<FamilyPage />, '/family');
        await userEvent.click(await screen.findByRole('button', { name: 'I have no letter' }));
        await userEvent.selectOptions(await screen.findByLabelText('School'), 't');
        await userEvent.type(screen.getByLabelText('First name of the child'), 'Noor');
        await userEvent.type(screen.getByLabelText('Last name of the child'), 'Haddad');
        await userEvent.type(screen.getByLabelText('The day it was born'), '2017-05-04');
        await userEvent.type(screen.getByLabelText('First name'), 'Omar');
        await userEvent.type(screen.getByLabelText('Your mail address'), 'omar@shoremail.example');
        await userEvent.click(screen.getByRole('button', { name: 'Ask the school' }));
        await screen.findByText(/If what you wrote fits/);
        expect(sentTo('POST /api/family/seek')).toEqual([
            {
                school: 't',
                child_given_name: 'Noor',
                child_family_name: 'Haddad',
                birth_date: '2017-05-04',
                given_name: 'Omar',
                family_name: '',
                email: 'omar@shoremail.example',
                phone: '',
            },
        ]);
    });
});

describe('a family letter’s page', () => {
    it('takes the code, then who somebody is, and says what comes next', async () => {
        serverAnswers({
            'GET /api/me': new Refused(401, 'Nobody is signed in.'),
            'POST /api/family/check': { school: 'Lanternfield', student: 'Noor' },
            'POST /api/family/ask': null,
        });
        show(<FamilyPage />, '/family');
        await userEvent.type(await screen.findByLabelText('Family code'), 'kdm4x7rtbc');
        expect(screen.getByLabelText('Family code')).toHaveProperty('value', 'KDM-4X7R-TBC');
        await userEvent.click(screen.getByRole('button', { name: 'Go on' }));
        await screen.findByRole('heading', { name: 'Are you a guardian of Noor?' });
        await userEvent.type(screen.getByLabelText('First name'), 'Layla');
        await userEvent.type(screen.getByLabelText('Your mail address'), 'layla@shoremail.example');
        await userEvent.click(screen.getByRole('button', { name: 'Ask the school' }));
        await screen.findByRole('heading', { name: 'The school will check' });
        await screen.findByText(/A link comes by mail/);
        expect(sentTo('POST /api/family/ask')).toEqual([
            {
                code: 'KDM-4X7R-TBC',
                given_name: 'Layla',
                family_name: '',
                email: 'layla@shoremail.example',
                phone: '',
            },
        ]);
    });

    it('says at the field what is wrong with a code', async () => {
        serverAnswers({
            'GET /api/me': new Refused(401, 'Nobody is signed in.'),
            'POST /api/family/check': new Refused(422, 'That is another code.', { code: ['That is another code.'] }),
        });
        show(<FamilyPage />, '/family');
        await userEvent.type(await screen.findByLabelText('Family code'), 'kdm4x7r');
        await userEvent.click(screen.getByRole('button', { name: 'Go on' }));
        await screen.findByText('That is another code.');
        expect(screen.getByLabelText('Family code').getAttribute('aria-invalid')).toBe('true');
    });
});
