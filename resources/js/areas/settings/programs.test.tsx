import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { ProgramsPart } from './ProgramsPart';

const school = { id: 's', code: 'LF', name: 'Lanternfield' } as School;
const at = '/api/schools/s/roster-keys';
const key = {
    id: 'k1',
    name: 'Library',
    reads: ['birth dates'],
    madeAt: '2026-09-01T10:00:00Z',
    madeBy: 'Ines Halloran',
    lastUsedAt: null,
    lastUsedFor: '',
    endedAt: null as string | null,
};
const page = { keys: [key], base: 'https://s.example/ims', token: 'https://s.example/token', secret: '', made: '' };

describe('programs that read the rosters', () => {
    it('get a key for what they may read, whose secret is shown this once', async () => {
        serverAnswers({
            [`GET ${at}`]: { ...page, keys: [] },
            [`POST ${at}`]: { ...page, secret: 'a secret', made: 'k1' },
        });
        show(<ProgramsPart school={school} />);
        await screen.findByText('No program has a key.');
        await userEvent.type(screen.getByLabelText('A key for'), 'Library');
        await userEvent.click(screen.getByLabelText(/^Sections/));
        expect(screen.getByRole('button', { name: 'Make a key' })).toHaveProperty('disabled', true);
        await userEvent.click(screen.getByLabelText('Birth dates'));
        await userEvent.click(screen.getByRole('button', { name: 'Make a key' }));
        await screen.findByText('a secret');
        await screen.findByText(/never used/);
        expect(sentTo(`POST ${at}`)).toEqual([{ name: 'Library', scopes: ['demographics'] }]);
    });

    it('lose it after a second press, and not before', async () => {
        serverAnswers({
            [`GET ${at}`]: page,
            [`DELETE ${at}/k1`]: { ...page, keys: [{ ...key, endedAt: '2026-09-02T10:00:00Z' }] },
        });
        show(<ProgramsPart school={school} />);
        await userEvent.click(await screen.findByRole('button', { name: 'End the key of Library' }));
        expect(sentTo(`DELETE ${at}/k1`)).toEqual([]);
        await userEvent.click(screen.getByRole('button', { name: 'End it now' }));
        await screen.findByText(/ended 2 Sep/);
    });

    it('are told at the name what is wrong with it', async () => {
        serverAnswers({
            [`GET ${at}`]: page,
            [`POST ${at}`]: new Refused(422, 'Give the program a name.', { name: ['Give the program a name.'] }),
        });
        show(<ProgramsPart school={school} />);
        await userEvent.type(await screen.findByLabelText('A key for'), ' ');
        await userEvent.click(screen.getByRole('button', { name: 'Make a key' }));
        await screen.findByText('Give the program a name.');
        expect(screen.getByLabelText('A key for').getAttribute('aria-invalid')).toBe('true');
    });
});
