import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { CardPage } from './CardPage';
import { useToken } from './token';

const where = () => screen.getByTestId('where').textContent;
const card = (token = 'abc') => show(<CardPage />, `/b#${token}`, '/b');

describe('the secret of a link', () => {
    function Token() {
        return <p>{useToken() || 'none'}</p>;
    }
    it.each([
        ['/room#aB_-9', '/room/:token?', 'aB_-9'],
        ['/room/older', '/room/:token?', 'older'],
        ['/room/older#newer', '/room/:token?', 'newer'],
        ['/room#with space', '/room/:token?', 'none'],
        [`/room#${'x'.repeat(65)}`, '/room/:token?', 'none'],
        ['/room', '/room/:token?', 'none'],
    ])('of %s is read', (address, path, token) => {
        show(<Token />, address, path);
        expect(screen.getByText(token)).toBeTruthy();
    });
});

describe('a card', () => {
    it('signs in and goes on', async () => {
        serverAnswers({ 'POST /api/sign-in/card': { me: { id: 'P1', name: 'Ada' }, needs: '' } });
        card();
        await waitFor(() => expect(where()).toBe('/'));
        expect(sentTo('POST /api/sign-in/card')).toEqual([{ token: 'abc' }]);
    });

    it('takes nobody’s session away without a question', async () => {
        serverAnswers({ 'POST /api/sign-in/card': { me: { id: 'P2', name: 'Ines Halloran' }, needs: 'instead' } });
        card();
        expect(await screen.findByText(/Ines Halloran is signed in on this device/)).toBeTruthy();
        await userEvent.click(screen.getByRole('button', { name: 'No, stay signed in' }));
        await waitFor(() => expect(where()).toBe('/'));
        expect(sentTo('POST /api/sign-in/card')).toEqual([{ token: 'abc' }]);
    });

    it('goes on instead of somebody where that is said', async () => {
        serverAnswers({
            'POST /api/sign-in/card': (body: unknown) =>
                (body as { instead?: boolean }).instead
                    ? { me: { id: 'P1', name: 'Ada' }, needs: '' }
                    : { me: { id: 'P2', name: 'Ines Halloran' }, needs: 'instead' },
        });
        card();
        await userEvent.click(await screen.findByRole('button', { name: 'Go on with the card' }));
        await waitFor(() => expect(where()).toBe('/'));
        expect(sentTo('POST /api/sign-in/card')).toEqual([{ token: 'abc' }, { token: 'abc', instead: true }]);
    });

    it.each([
        [422, '/?card=ended'],
        [429, '/?card=wait'],
    ])('that is refused with %i leads to the page that says so', async (status, address) => {
        serverAnswers({ 'POST /api/sign-in/card': new Refused(status, 'no') });
        card();
        await waitFor(() => expect(where()).toBe(address));
    });

    it('is not called lost where the server does not answer', async () => {
        card();
        expect(await screen.findByRole('button', { name: 'Try again' })).toBeTruthy();
        serverAnswers({ 'POST /api/sign-in/card': { me: { id: 'P1', name: 'Ada' }, needs: '' } });
        await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
        await waitFor(() => expect(where()).toBe('/'));
    });
});
