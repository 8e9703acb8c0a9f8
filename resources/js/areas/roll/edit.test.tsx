import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { EditPerson } from './EditPerson';

const school = {
    id: 'S1',
    code: 'primary',
    grades: [
        { code: '02', short: '2' },
        { code: '03', short: '3' },
    ],
} as unknown as School;
const person = {
    id: 'P1',
    version: 7,
    name: 'Noor Castell',
    given: 'Noor',
    family: 'Castell',
    preferred: '',
    kind: 'student',
    state: 'active',
    grade: '3',
    gradeCode: '03',
    number: '020417',
    birthDate: '2015-08-03',
    email: '',
    phone: '',
    language: '',
    nameShown: null,
} as unknown as Schemas['PersonDetail'];
const family = () => screen.getByLabelText('Family name');

describe('changing one person', () => {
    it('sends all of the form with the version that was looked at, and says that it can be undone', async () => {
        const close = vi.fn();
        serverAnswers({ 'POST /api/people/P1': { id: 'E1', title: 'Noor Castell' } });
        show(<EditPerson person={person} school={school} onClose={close} />);
        await userEvent.clear(family());
        await userEvent.type(family(), 'Roig');
        await userEvent.clear(screen.getByLabelText('Number'));
        await userEvent.selectOptions(screen.getByLabelText('Grade'), '02');
        await userEvent.click(screen.getByRole('button', { name: 'Keep the changes' }));
        await waitFor(() => expect(close).toHaveBeenCalled());
        expect(sentTo('POST /api/people/P1')).toEqual([
            {
                version: 7,
                given: 'Noor',
                family: 'Roig',
                preferred: '',
                birth_date: '2015-08-03',
                number: '',
                grade: '02',
                email: '',
                phone: '',
                language: '',
                name_shown: '',
            },
        ]);
        expect(screen.getByText('Noor Castell: changed.')).toBeTruthy();
        expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
    });

    it('puts a refusal at its field and keeps what was typed', async () => {
        const close = vi.fn();
        serverAnswers({
            'POST /api/people/P1': new Refused(422, 'Kai Roig has this number.', {
                number: ['Kai Roig has this number.'],
            }),
        });
        show(<EditPerson person={person} school={school} onClose={close} />);
        await userEvent.type(family(), '-Roig');
        await userEvent.click(screen.getByRole('button', { name: 'Keep the changes' }));
        expect(await screen.findByText('Kai Roig has this number.')).toBeTruthy();
        expect(screen.getByLabelText('Number').getAttribute('aria-invalid')).toBe('true');
        expect((family() as HTMLInputElement).value).toBe('Castell-Roig');
        expect(close).not.toHaveBeenCalled();
    });

    it('asks nothing of a guardian that only a student has', () => {
        show(
            <EditPerson
                person={{ ...person, kind: 'guardian', gradeCode: '', grade: '' }}
                school={school}
                onClose={() => {}}
            />,
        );
        expect(screen.queryByLabelText('Grade')).toBeNull();
        expect(screen.queryByLabelText('Born')).toBeNull();
        expect(screen.getByText(/has to be confirmed by whoever reads its mail/)).toBeTruthy();
    });

    it('keeps a grade that the school teaches no more', () => {
        show(<EditPerson person={{ ...person, gradeCode: '09', grade: '9' }} school={school} onClose={() => {}} />);
        expect((screen.getByLabelText('Grade') as HTMLSelectElement).value).toBe('09');
    });
});
