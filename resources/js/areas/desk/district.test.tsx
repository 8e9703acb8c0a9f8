import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { sentTo, serverAnswers } from '@/testing/server';
import { DistrictDeskPage } from './DistrictDeskPage';

const school = (id: string, code: string, name: string): Schemas['DistrictSchool'] => ({
    id,
    code,
    name,
    year: '2026-27',
    students: 500,
    staff: 30,
    sections: 40,
});
const desk = (more: Partial<Schemas['DistrictDesk']> = {}): Schemas['DistrictDesk'] => ({
    schools: [school('S1', 'primary', 'Lanternfield Primary'), school('S2', 'middle', 'Copperbrook Middle')],
    loops: [
        {
            key: 'unplaced',
            title: 'Unplaced students',
            detail: 'in no open section',
            total: 4,
            at: [{ schoolId: 'S2', count: 4, since: null, path: 'roll?problem=unplaced' }],
        },
    ],
    acrossLookAlikes: 0,
    news: [],
    more: 0,
    ...more,
});

describe('the Desk of several schools', () => {
    it('says how much waits, and leads to where it is worked on', async () => {
        serverAnswers({ 'GET /api/schools/all/desks': desk({ acrossLookAlikes: 1 }) });
        show(<DistrictDeskPage />);
        expect(await screen.findByText('1,000 students, 60 staff, 80 sections in 2 schools')).toBeTruthy();
        const row = screen.getByRole('row', { name: /^Unplaced students/ });
        expect(within(row).getAllByRole('cell')[1]?.textContent).toBe('none');
        expect(within(row).getByRole('link').getAttribute('href')).toBe('/s/middle/roll?problem=unplaced');
        expect(screen.getByRole('link', { name: 'Look-alike across schools' }).getAttribute('href')).toBe(
            '/s/all/look-alikes?which=across',
        );
        expect(screen.queryByText(/Done by others/)).toBeNull();
    });

    it('says that nothing waits, and what others have done until it is read', async () => {
        const line = {
            entryId: 'E1',
            title: 'Section Kites',
            actor: 'Oskar Winterbourne',
            at: '2026-11-26T10:00:00Z',
            undone: false,
        };
        serverAnswers({
            'GET /api/schools/all/desks': desk({ loops: [], news: [{ schoolId: 'S2', line }], more: 3 }),
            'POST /api/schools/all/desks/read': undefined,
        });
        show(<DistrictDeskPage />);
        expect(await screen.findByText('Nothing waits')).toBeTruthy();
        expect(screen.getByRole('link', { name: 'Section Kites' }).getAttribute('href')).toBe(
            '/s/middle/ledger?entry=E1',
        );
        expect(screen.getByText(/3 more entries/)).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'I have read this' }));
        expect(sentTo('POST /api/schools/all/desks/read')).toHaveLength(1);
    });
});
