import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { TransfersPage } from './TransfersPage';

const line = (more: Partial<Schemas['TransferLine']> = {}): Schemas['TransferLine'] => ({
    id: 'T1',
    ours: true,
    kind: 'transfer',
    state: 'waiting',
    school: 'Copperbrook Middle',
    said: 'Esme Kerridge, grade 6',
    sections: ['6 Sable'],
    student: 'Esme Kerridge, grade 5',
    studentId: 'P1',
    probability: 0.999,
    evidence: [{ field: 'birth date', left: '2016-07-21', right: '2016-07-21', level: 'alike', weight: 10.2 }],
    askedBy: 'Saskia Thorne',
    askedAt: '2026-11-26T01:51:00Z',
    answeredAt: null,
    ...more,
});
const page = (requests: Schemas['TransferLine'][], said = '') => ({ requests, said });
const part = () => show(<TransfersPage school={{ id: 'S', code: 'primary' } as School} />);

describe('requests between schools', () => {
    it('say what they are for while there are none', async () => {
        serverAnswers({ 'GET /api/schools/S/transfers': page([]) });
        part();
        expect(await screen.findByText('Nobody has asked')).toBeTruthy();
    });

    it('are answered by the school the student is at, with what follows from it in words', async () => {
        serverAnswers({
            'GET /api/schools/S/transfers': page([line()]),
            'POST /api/schools/S/transfers/T1/accept': page([line({ state: 'accepted' })], 'Esme Kerridge goes.'),
        });
        part();
        expect(await screen.findByText(/their sections here end today/)).toBeTruthy();
        expect(screen.getByText('alike: 2016-07-21')).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'Let them go' }));
        expect(await screen.findByText('Esme Kerridge goes.')).toBeTruthy();
        expect(screen.getByText(/: accepted/)).toBeTruthy();
        expect(sentTo('POST /api/schools/S/transfers/T1/accept')).toHaveLength(1);
    });

    it('of one’s own can only be taken back', async () => {
        serverAnswers({
            'GET /api/schools/S/transfers': page([line({ ours: false, student: '', studentId: null, evidence: [] })]),
            'POST /api/schools/S/transfers/T1/withdraw': new Refused(409, 'It has been answered in the meantime.'),
        });
        part();
        expect(await screen.findByText(/has not answered yet/)).toBeTruthy();
        expect(screen.queryByRole('button', { name: 'Let them go' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Take back' }));
        expect(await screen.findByText('It has been answered in the meantime.')).toBeTruthy();
        // What stands there now is asked for again.
        expect(sentTo('GET /api/schools/S/transfers').length).toBeGreaterThan(1);
    });
});
