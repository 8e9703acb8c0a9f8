import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { LostCard } from './LostCard';

const person = { id: 'P1', name: 'Noor Castell' } as Schemas['PersonDetail'];
const wish = { person_ids: ['P1'], layout: 'holder-a4', order: 'reading', lost: true };

describe('a lost card', () => {
    beforeEach(() => {
        vi.spyOn(window, 'open').mockReturnValue({ location: { href: '' }, close: vi.fn() } as unknown as Window);
    });

    it('is replaced in two keys', async () => {
        serverAnswers({ 'POST /api/schools/S/cards': { id: 'p1', state: 'done', done: 1, total: 1 } });
        show(
            <>
                <LostCard person={person} school="S" />
            </>,
        );
        await userEvent.keyboard('n');
        await screen.findByRole('dialog', { name: 'A new card for Noor Castell' });
        await userEvent.keyboard('{Enter}');
        await screen.findByText('The lost card of Noor Castell no longer works. The new one opened in another window.');
        expect(sentTo('POST /api/schools/S/cards')).toEqual([wish]);
        expect(screen.queryByRole('dialog')).toBeNull();
    });

    it('stays as it was where the print is refused', async () => {
        serverAnswers({ 'POST /api/schools/S/cards': new Refused(422, 'What is on the card does not fit.') });
        show(<LostCard person={person} school="S" />);
        await userEvent.click(screen.getByRole('button', { name: 'Replace lost card…' }));
        await userEvent.click(screen.getByRole('button', { name: 'Print new card' }));
        await screen.findByText('What is on the card does not fit.');
        expect(screen.getByRole('dialog')).toBeTruthy();
    });
});
