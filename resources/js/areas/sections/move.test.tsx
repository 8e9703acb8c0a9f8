import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { MoveDialog } from './MoveDialog';

const school = { id: 'S', name: 'Lanternfield Primary', code: 'primary' } as School;
const section = { id: 'HERON', name: '3 Heron', asOf: '2026-11-26' } as Schemas['SectionDetail'];
const line = (id: string, name: string, more = {}) => ({ id, name, state: 'open', students: 20, seats: 24, ...more });
const plan = (more: Partial<Schemas['PlanView']> = {}) => ({
    title: 'From 3 Heron to 3 Tern',
    sentence: '2 students move from 3 Heron to 3 Tern on 26 November.',
    seed: '01K3CNQ0000000000000000000',
    fingerprint: 'a'.repeat(64),
    rows: [],
    warnings: [],
    blockers: [],
    tallies: [],
    changes: 4,
    undoUntil: '2026-12-10T00:00:00Z',
    ...more,
});
const sections = {
    'GET /api/schools/S/sections': {
        sections: [line('HERON', '3 Heron'), line('TERN', '3 Tern'), line('OLD', '3 Old', { state: 'archived' })],
    },
};

describe('moving students', () => {
    const dialog = () => {
        const done = vi.fn();
        show(
            <MoveDialog
                school={school}
                section={section}
                people={['A', 'B']}
                onClose={() => undefined}
                onDone={done}
            />,
        );
        return done;
    };

    it('shows the plan as soon as it is clear where to, and applies what was looked at, once', async () => {
        serverAnswers({
            ...sections,
            'POST /api/sections/HERON/place/plan': plan(),
            'POST /api/sections/HERON/place': {},
        });
        const done = dialog();
        const button = screen.getByRole('button', { name: 'Move 2 students' }) as HTMLButtonElement;
        expect(button.disabled).toBe(true);
        expect(await screen.findByRole('option', { name: '3 Tern (20 of 24)' })).toBeTruthy();
        expect(screen.queryByRole('option', { name: /3 Old|3 Heron/ })).toBeNull();
        await userEvent.selectOptions(screen.getByLabelText('Section'), 'TERN');
        expect(await screen.findByText(/2 students move/)).toBeTruthy();
        await userEvent.dblClick(button);
        await vi.waitFor(() => expect(done).toHaveBeenCalledTimes(1));
        expect(sentTo('POST /api/sections/HERON/place')).toEqual([
            {
                kind: 'move',
                people: ['A', 'B'],
                day: '2026-11-26',
                to: 'TERN',
                seed: plan().seed,
                fingerprint: plan().fingerprint,
            },
        ]);
    });

    it('plans anew for another day or section', async () => {
        serverAnswers({
            ...sections,
            'POST /api/sections/HERON/place/plan': (body: unknown) =>
                plan({ sentence: `as of ${(body as { day: string }).day}` }),
        });
        dialog();
        await screen.findByRole('option', { name: /3 Tern/ });
        await userEvent.selectOptions(screen.getByLabelText('Section'), 'TERN');
        expect(await screen.findByText('as of 2026-11-26')).toBeTruthy();
        await userEvent.clear(screen.getByLabelText('First day there'));
        await userEvent.type(screen.getByLabelText('First day there'), '2026-12-01');
        expect(await screen.findByText('as of 2026-12-01')).toBeTruthy();
    });

    it('says what has changed since it was looked at, and plans again', async () => {
        let looked = 0;
        serverAnswers({
            ...sections,
            'POST /api/sections/HERON/place/plan': () => plan({ sentence: `looked at ${++looked} times` }),
            'POST /api/sections/HERON/place': new Refused(409, 'What this plan was made from has changed since.'),
        });
        const done = dialog();
        await screen.findByRole('option', { name: /3 Tern/ });
        await userEvent.selectOptions(screen.getByLabelText('Section'), 'TERN');
        expect(await screen.findByText('looked at 1 times')).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Move 2 students' }));
        expect(await screen.findByText('What this plan was made from has changed since.')).toBeTruthy();
        expect(await screen.findByText('looked at 2 times')).toBeTruthy();
        expect(done).not.toHaveBeenCalled();
    });

    it('says why no plan could be made, and takes out without a place to go to', async () => {
        serverAnswers({ ...sections, 'POST /api/sections/HERON/place/plan': new Refused(422, '3 Tern is archived.') });
        dialog();
        await screen.findByRole('option', { name: /3 Tern/ });
        await userEvent.selectOptions(screen.getByLabelText('Section'), 'TERN');
        expect(await screen.findByText('3 Tern is archived.')).toBeTruthy();
        serverAnswers({ 'POST /api/sections/HERON/place/plan': plan({ sentence: '2 students leave 3 Heron.' }) });
        await userEvent.selectOptions(screen.getByLabelText('What'), 'remove');
        expect(await screen.findByText('2 students leave 3 Heron.')).toBeTruthy();
        expect((screen.getByRole('button', { name: 'Take out 2 students' }) as HTMLButtonElement).disabled).toBe(false);
    });
});
