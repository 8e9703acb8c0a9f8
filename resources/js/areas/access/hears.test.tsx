import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { HearsPage } from './HearsPage';

describe('how often somebody hears, by the link of a digest', () => {
    it('is chosen without signing in, and kept as it is touched', async () => {
        serverAnswers({
            'POST /api/hears': { school: 'Lanternfield', often: 'weekly', hour: 17 },
            'POST /api/hears/choose': { school: 'Lanternfield', often: 'off', hour: 17 },
        });
        show(<HearsPage />, '/hears#abc');
        expect(await screen.findByLabelText('Once a week')).toHaveProperty('checked', true);
        await userEvent.click(screen.getByLabelText('Only what is urgent'));
        await screen.findByText('Saved.');
        expect(sentTo('POST /api/hears')).toEqual([{ token: 'abc' }]);
        expect(sentTo('POST /api/hears/choose')).toEqual([{ token: 'abc', often: 'off', hour: 17 }]);
        expect(screen.queryByLabelText('At what hour')).toBeNull();
    });

    it('says so where the link is none', async () => {
        serverAnswers({ 'POST /api/hears': new Refused(404, 'It is not there.') });
        show(<HearsPage />, '/hears#abc');
        await screen.findByText('This link does not work any more. Ask the school for another one.');
    });

    it('stays as it was where it could not be kept', async () => {
        serverAnswers({
            'POST /api/hears': { school: 'Lanternfield', often: 'weekly', hour: 17 },
            'POST /api/hears/choose': new Refused(422, 'Not now.'),
        });
        show(<HearsPage />, '/hears#abc');
        await userEvent.click(await screen.findByLabelText('Every school day'));
        await screen.findByText('Not now.');
        expect(screen.getByLabelText('Once a week')).toHaveProperty('checked', true);
    });
});
