import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { sentTo, serverAnswers } from '@/testing/server';
import { CoveragePage } from './CoveragePage';

const school = { id: 'S1', code: 'primary' } as unknown as School;
const week = (week: string, signedIn: number): Schemas['CoverageWeek'] => ({
    week,
    students: 20,
    signedIn,
    carded: 10,
    connected: 5,
});
const line = (id: string, name: string, more: Partial<Schemas['CoverageLine']> = {}): Schemas['CoverageLine'] => ({
    id,
    name,
    kind: id === '' ? 'school' : 'grade',
    students: 20,
    signedIn: 15,
    carded: 10,
    connected: 5,
    before: null,
    ...more,
});
const COVERAGE = 'GET /api/schools/S1/coverage';

describe('coverage', () => {
    // Nothing is laid out here: the box is as high as this says.
    beforeAll(() => {
        Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, get: () => 340 });
        Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 800 });
        Element.prototype.scrollTo = () => undefined;
    });

    it('says how it went over the weeks, and how much more it is than four weeks ago', async () => {
        serverAnswers({
            [COVERAGE]: {
                lines: [line('', 'The whole school', { before: week('2026-10-26', 8) }), line('03', 'Grade 3')],
                weeks: [week('2026-11-16', 10), week('2026-11-23', 15)],
            },
            [`${COVERAGE}?part=03`]: { lines: [line('', 'The whole school'), line('03', 'Grade 3')], weeks: [] },
        });
        show(<CoveragePage school={school} />);
        const chart = await screen.findByRole('img');
        expect(chart.getAttribute('aria-label')).toBe(
            'signed in: 50 % in the first week, 75 % in the last; with a card: 50 % in the first week, 50 % in the ' +
                'last; guardian connected: 25 % in the first week, 25 % in the last',
        );
        expect(screen.getByRole('row', { name: /The whole school/ }).textContent).toContain(
            '75 %+35 points in four weeks',
        );
        await userEvent.click(screen.getByText('Grade 3'));
        expect(await screen.findByText(/^No week of this has been kept yet/)).toBeTruthy();
        expect(sentTo(`${COVERAGE}?part=03`)).toHaveLength(1);
    });
});
