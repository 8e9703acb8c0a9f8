import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { RecordPart } from '../settings/RecordPart';
import { RecordBar } from './RecordBar';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const at = '/api/schools/s/record';
const record = {
    there: true,
    baseUrl: 'https://records.example/ims',
    tokenUrl: 'https://records.example/token',
    clientId: 'vantrel',
    nightly: false,
    mostNew: 30,
    mostChanged: 200,
    pulledAt: null as string | null,
    pulledWholeAt: null,
    said: '',
    hosts: ['records.example'],
    asking: '',
    list: null as string | null,
};
const bar = () =>
    show(
        <>
            <RecordBar school={school} />
        </>,
    );

describe('the school’s record', () => {
    it('brings in one student by number in one key, and says at the field where there is none', async () => {
        serverAnswers({
            [`GET ${at}`]: record,
            [`POST ${at}/pull`]: new Refused(422, 'The record has no such student.', {
                number: ['The record has no such student.'],
            }),
        });
        bar();
        await screen.findByText(/not asked yet/);
        await userEvent.keyboard('n');
        const dialog = within(await screen.findByRole('dialog'));
        await userEvent.type(dialog.getByLabelText('Student number'), '031902{Enter}');
        await dialog.findByText('The record has no such student.');
        expect(sentTo(`POST ${at}/pull`)).toEqual([{ what: 'one', number: '031902' }]);
    });

    it('says where nothing has changed', async () => {
        serverAnswers({
            [`GET ${at}`]: { ...record, pulledAt: '2026-09-01T10:00:00Z', nightly: true },
            [`POST ${at}/pull`]: { intake: null, said: 'Nothing has changed since the last pull.', asking: false },
        });
        bar();
        await screen.findByText(/and every night/);
        await userEvent.click(screen.getByRole('button', { name: 'Bring in the changes' }));
        await screen.findByText('Nothing has changed since the last pull.');
    });

    it('is asked while one may do something else, and opens what came of it', async () => {
        let now = record;
        serverAnswers({
            [`GET ${at}`]: () => now,
            [`POST ${at}/pull`]: () => {
                now = { ...record, asking: 'whole' };
                return { intake: null, said: '', asking: true };
            },
        });
        bar();
        await userEvent.click(await screen.findByRole('button', { name: 'All of it' }));
        await screen.findByText(/Being asked for all of it/);
        expect(screen.getByRole('button', { name: 'All of it' }).hasAttribute('disabled')).toBe(true);
        now = { ...record, list: 'l1' };
        await vi.waitFor(() => expect(screen.getByTestId('where').textContent).toBe('/s/LF/intake/l1'), 4000);
    });

    it('is not spoken of where there is none', async () => {
        serverAnswers({ [`GET ${at}`]: { ...record, there: false } });
        const { container } = bar();
        await new Promise((done) => setTimeout(done, 50));
        expect(container.textContent).not.toContain('record');
    });
});

describe('its settings', () => {
    it('say who may name systems, where none is named', async () => {
        serverAnswers({ [`GET ${at}`]: { ...record, there: false, hosts: [] } });
        show(<RecordPart school={school} />);
        await screen.findByText(/VANTREL_RECORD_HOSTS/);
        expect(screen.queryByLabelText('Address')).toBeNull();
    });

    it('keep the secret unless another is typed', async () => {
        serverAnswers({ [`GET ${at}`]: record, [`POST ${at}`]: { ...record, nightly: true } });
        show(<RecordPart school={school} />);
        await userEvent.click(await screen.findByLabelText(/every night/));
        await userEvent.click(screen.getByRole('button', { name: 'Save the record' }));
        await screen.findByText('The record answers, and is kept.');
        expect(sentTo(`POST ${at}`)).toEqual([
            {
                base_url: 'https://records.example/ims',
                token_url: 'https://records.example/token',
                client_id: 'vantrel',
                nightly: true,
                most_new: 30,
                most_changed: 200,
            },
        ]);
    });
});
