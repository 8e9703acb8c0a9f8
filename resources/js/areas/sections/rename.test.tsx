import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { RenameDialog } from './RenameDialog';

const school = { id: 'S1', code: 'primary', yearId: 'Y1', years: [] } as unknown as School;
const plan = (rows: [string, string][]): Partial<Schemas['PlanView']> => ({
    title: 'Renamed',
    sentence: rows.length ? 'Renames 1 section.' : 'No open section of this year has “Owl” in its name.',
    seed: 'SEED',
    fingerprint: 'F1',
    blockers: [],
    warnings: [],
    questions: [],
    tallies: [{ key: 'sections', count: rows.length, label: 'sections renamed' }],
    rows: rows.map(([before, after], i) => ({
        number: i + 1,
        verdict: 'update',
        cells: { Section: { before, after } },
        why: '',
        problems: [],
    })) as unknown as Schemas['PlanView']['rows'],
});
const button = (name: string) => screen.getByRole('button', { name }) as HTMLButtonElement;
const type = async (words: string, instead: string) => {
    await userEvent.type(screen.getByLabelText('In the names now'), words);
    await userEvent.type(screen.getByLabelText('From now on'), instead);
};

describe('renaming sections', () => {
    it('shows what is renamed, and renames it as looked at', async () => {
        const close = vi.fn();
        serverAnswers({
            'POST /api/schools/S1/rename-sections/plan': plan([['3 Heron', '3 Tern']]),
            'POST /api/schools/S1/rename-sections': plan([['3 Heron', '3 Tern']]),
        });
        show(<RenameDialog school={school} year="Y1" onClose={close} />);
        expect(button('Rename 0 sections').disabled).toBe(true);
        await type('3 Heron', '3 Tern');
        expect(await screen.findByText('3 Tern')).toBeTruthy();
        await userEvent.click(await screen.findByRole('button', { name: 'Rename 1 section' }));
        await waitFor(() => expect(close).toHaveBeenCalled());
        expect(sentTo('POST /api/schools/S1/rename-sections').at(-1)).toMatchObject({
            words: '3 Heron',
            instead: '3 Tern',
            year: 'Y1',
            seed: 'SEED',
            fingerprint: 'F1',
        });
    });

    it('says where nothing bears the name, and why something could not be done', async () => {
        serverAnswers({ 'POST /api/schools/S1/rename-sections/plan': plan([]) });
        show(<RenameDialog school={school} year="" onClose={() => {}} />);
        await type('Owl', 'Tern');
        expect(await screen.findByText(/No open section of this year/)).toBeTruthy();
        expect(button('Rename 0 sections').disabled).toBe(true);
        serverAnswers({ 'POST /api/schools/S1/rename-sections/plan': new Refused(422, 'That cannot be.') });
        await userEvent.type(screen.getByLabelText('From now on'), 's');
        expect(await screen.findByText('That cannot be.')).toBeTruthy();
    });
});
