import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, serverAnswers } from '@/testing/server';
import { CodePanel } from './CodePanel';

const section = { id: 'c1', name: '3 Heron', hasCode: true } as Schemas['SectionDetail'];
const code = {
    written: 'KDM-4X7-RTB',
    qr: 'M0 0h1v1z',
    qrSize: 25,
    link: 'http://a.example/in/KDM4X7RTB',
    place: 'a.example/in',
    guessPerDay: 0.001,
    arrived: [],
};

describe('the code of a section', () => {
    it('is shown when it is asked for, and says why where it does not come', async () => {
        serverAnswers({ 'GET /api/sections/c1/code': new Refused(500, 'Something went wrong here.') });
        show(<CodePanel section={section} onChange={() => Promise.resolve()} />);
        expect(screen.queryByTestId('join-code')).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Show it here' }));
        await screen.findByText('That could not be loaded.');
        serverAnswers({ 'GET /api/sections/c1/code': code });
        await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
        expect((await screen.findByTestId('join-code')).textContent).toBe('KDM-4X7-RTB');
        await userEvent.click(screen.getByRole('button', { name: 'hide' }));
        expect(screen.queryByTestId('join-code')).toBeNull();
    });
});
