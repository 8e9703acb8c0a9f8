import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { ClusterPage } from './ClusterPage';
import { LookAlikesPage } from './LookAlikesPage';

const school = { id: 'S1', code: 'primary' } as unknown as School;
const side = (id: string, name: string, survives = false): Schemas['AccountSide'] => ({
    id,
    name,
    survives,
    sections: [`${name}’s section`],
    userNames: [`${id}.user`],
    relatives: [],
    lastSignedIn: null,
});
const plan = { sentence: 'The three become one.', fingerprint: 'print', undoUntil: '2026-12-10', seed: 'seed' };
const cluster = (...sides: Schemas['AccountSide'][]): Schemas['ClusterDetail'] => ({
    kind: 'student',
    accounts: sides,
    why: 'in more sections',
    fields: [
        {
            column: 'given_name',
            label: 'Given name',
            values: { A: 'Noor', B: 'Noor Amal', C: 'Noor' },
            stays: 'Noor Amal',
            why: 'the fuller name',
        },
        { column: 'number', label: 'Student number', values: { A: '041001', B: '', C: '' }, stays: '041001', why: '' },
    ],
    evidence: [
        { leftId: 'A', rightId: 'B', probability: 0.999, caution: '', evidence: [] },
        { leftId: 'B', rightId: 'C', probability: 0.9, caution: 'the given name is another', evidence: [] },
    ],
    plan: plan as unknown as Schemas['PlanView'],
});
const three = cluster(side('A', 'Noor C', true), side('B', 'Noor Amal C'), side('C', 'Noor D'));
const at = 'GET /api/schools/S1/look-alikes';

describe('accounts side by side', () => {
    const open = (accounts = 'A-B-C') => show(<ClusterPage school={school} />, `/${accounts}`, ':accounts');

    it('says which stays and why, marks what differs, and sends what was chosen', async () => {
        serverAnswers({ [`${at}/A-B-C`]: three, 'POST /api/schools/S1/look-alikes/A-B-C/merge': { id: 'E1' } });
        open();
        expect(await screen.findByText(/^the given name is another; the account used more stays/)).toBeTruthy();
        const names = screen.getByRole('row', { name: /^Given name/ });
        expect((within(names).getByLabelText('Noor Amal') as HTMLInputElement).checked).toBe(true);
        expect(within(names).getByText('the fuller name')).toBeTruthy();
        expect(within(screen.getByRole('row', { name: /^Student number/ })).queryByRole('radio')).toBeNull();
        await userEvent.click(within(names).getAllByRole('radio')[0] as HTMLElement);
        await userEvent.click(screen.getByRole('button', { name: 'Merge the three' }));
        await screen.findByText('Merged. All old cards go on working.');
        expect(sentTo('POST /api/schools/S1/look-alikes/A-B-C/merge')).toEqual([
            { fingerprint: 'print', picks: { given_name: 'A' } },
        ]);
        expect(screen.getByTestId('where').textContent).toBe('/s/primary/look-alikes');
    });

    it('lets one go as somebody else, and stays with the others', async () => {
        serverAnswers({ [`${at}/A-B-C`]: three, 'POST /api/schools/S1/look-alikes/A-B-C/apart': { id: 'E1' } });
        open();
        await userEvent.click(await screen.findByRole('button', { name: 'Noor D is somebody else' }));
        await screen.findByText('Noted: somebody else. The others stay here.');
        expect(sentTo('POST /api/schools/S1/look-alikes/A-B-C/apart')).toEqual([{ who: 'C' }]);
        expect(screen.getByTestId('where').textContent).toBe('/s/primary/look-alikes/A-B');
    });

    it('says that two are two people', async () => {
        serverAnswers({
            [`${at}/A-B`]: cluster(side('A', 'Noor C', true), side('B', 'Noor Amal C')),
            'POST /api/schools/S1/look-alikes/A-B/apart': { id: 'E1' },
        });
        open('A-B');
        expect(screen.queryByText('somebody else')).toBeNull();
        await userEvent.click(await screen.findByRole('button', { name: 'They are two people' }));
        await screen.findByText(/^Noted\. They are asked about again/);
    });

    it('says why they cannot be held against each other any more', async () => {
        serverAnswers({ [`${at}/A-B-C`]: new Refused(422, 'Noor D has been merged already.') });
        open();
        expect(await screen.findByText('Noor D has been merged already.')).toBeTruthy();
    });
});

describe('the look-alikes', () => {
    const line = (id: string, clear: boolean): Schemas['ClusterLine'] => ({
        id,
        kind: 'student',
        accounts: [
            { id: id.slice(0, 1), name: `Noor ${id}`, schoolId: 'S1', detail: 'grade 4' },
            { id: id.slice(2, 3), name: `Noor ${id}`, schoolId: 'S1', detail: '' },
        ],
        probability: clear ? 0.9999 : 0.7,
        why: clear ? '' : 'the given name is another',
        clear,
    });

    it('merges the clear ones once they have been looked at', async () => {
        serverAnswers({
            [at]: { clusters: [line('A-B', true), line('C-D', false), line('E-F', true)], waiting: 0 },
            'POST /api/schools/S1/look-alikes/many/plan': { ...plan, rows: [], blockers: [], warnings: [] },
            'POST /api/schools/S1/look-alikes/many': { ...plan, title: '2 merges' },
        });
        show(<LookAlikesPage school={school} />);
        expect(await screen.findByText('3 people with several accounts')).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Merge those selected' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Select the 2 clear ones' }));
        await userEvent.click(screen.getByRole('button', { name: 'Merge those selected' }));
        const go = await screen.findByRole('button', { name: 'Merge 2 people' });
        await vi.waitFor(() => expect((go as HTMLButtonElement).disabled).toBe(false));
        await userEvent.click(go);
        await screen.findByText('Done: 2 merges. Each can be undone in the Ledger.');
        expect(sentTo('POST /api/schools/S1/look-alikes/many')).toEqual([
            { clusters: ['A-B', 'E-F'], seed: 'seed', fingerprint: 'print' },
        ]);
    });
});
