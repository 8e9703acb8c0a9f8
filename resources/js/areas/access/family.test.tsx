import { act, screen, waitFor } from '@testing-library/react';
import { Suspense } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { show } from '@/testing/page';
import { Refused, sentTo, serverAnswers } from '@/testing/server';
import { FamilyPage } from './FamilyPage';

const guest = { 'GET /api/me': new Refused(401, 'Sign in.') };
const child = { school: 'Lanternfield', student: 'Noor' };

describe('the page a family letter leads to', () => {
    afterEach(() => window.history.replaceState(null, '', '/'));

    it('takes the code along once, and out of the address, though the page is begun twice', async () => {
        serverAnswers({ ...guest, 'POST /api/family/check': child });
        window.history.replaceState(null, '', '/family#RPFT7NW7XS');
        let come: () => void = () => undefined;
        const words = new Promise<void>((resolve) => (come = resolve));
        let here = false;
        // What comes later, such as a language, has all beside it begun anew.
        const Late = () => {
            if (!here) throw words;
            return null;
        };
        show(
            <Suspense>
                <FamilyPage />
                <Late />
            </Suspense>,
        );
        await act(async () => {
            here = true;
            come();
            await words;
        });
        await screen.findByText(/Noor/);
        expect(sentTo('POST /api/family/check')).toEqual([{ code: 'RPF-T7NW-7XS' }]);
        await waitFor(() => expect(window.location.hash).toBe(''));
    });

    it('says at the code what is wrong with it, and keeps it', async () => {
        serverAnswers({
            ...guest,
            'POST /api/family/check': new Refused(422, 'No letter has this code.', {
                code: ['No letter has this code.'],
            }),
        });
        window.history.replaceState(null, '', '/family#RPFT7NW7XS');
        show(<FamilyPage />);
        await screen.findByText('No letter has this code.');
        expect(screen.getByLabelText('Family code')).toHaveProperty('value', 'RPF-T7NW-7XS');
    });
});
