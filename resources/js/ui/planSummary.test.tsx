import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { PlanSummary } from './PlanSummary';

it('shows the first rows of a large plan, and all once they are asked for', async () => {
    const rows = Array.from({ length: 250 }, (_, i) => ({
        number: i + 1,
        verdict: 'new',
        cells: { Work: { before: '', after: `Work ${String(i + 1)}` } },
        why: '',
        problems: [],
    }));
    show(
        <PlanSummary
            plan={
                {
                    rows,
                    warnings: ['Row 3 is left out.'],
                    blockers: [],
                    sentence: '250 new.',
                } as unknown as Schemas['PlanView']
            }
        />,
    );
    expect(screen.getByText('Row 3 is left out.')).toBeTruthy();
    expect(screen.queryByText('Work 201')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Show all 250 rows' }));
    expect(screen.getByText('Work 250')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
});
