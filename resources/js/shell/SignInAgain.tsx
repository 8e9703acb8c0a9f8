import { useQueryClient } from '@tanstack/react-query';
import { Dialog as Radix } from 'radix-ui';
import { useCallback, useEffect } from 'react';
import { api, data } from '@/api/client';
import { SignInPage } from '@/areas/access/SignInPage';
import { KeyScope } from './keys';
import type { Me } from './session';

/**
 * Somebody of the staff whose session has ended signs in on top of the page they were on, so that what they have typed
 * is there when they go on. The page behind is covered: whoever sits down next reads nothing of it.
 */
export function SignInAgain({ who, done }: { who: Me; done: () => void }) {
    const queries = useQueryClient();
    const enter = useCallback(
        (me: Me) => {
            // Another account begins with nothing of the first on the screen.
            if (me.id !== who.id || me.must !== '') {
                window.location.href = '/';
                return;
            }
            queries.setQueryData(['me'], me);
            done();
            void queries.invalidateQueries();
        },
        [who, done, queries],
    );
    useEffect(() => {
        // A new token for the form: the old one went with the session.
        void api.GET('/api/entrance').catch(() => undefined);
        // Signed in meanwhile in another window, by the school's sign-on perhaps.
        const look = () =>
            void data(api.GET('/api/me'))
                .then(enter)
                .catch(() => undefined);
        window.addEventListener('focus', look);
        return () => window.removeEventListener('focus', look);
    }, [enter]);
    return (
        <Radix.Root open>
            <Radix.Portal>
                <Radix.Content
                    aria-describedby={undefined}
                    onEscapeKeyDown={(event) => event.preventDefault()}
                    onPointerDownOutside={(event) => event.preventDefault()}
                    className="fixed inset-0 z-50 overflow-auto bg-paper"
                >
                    <Radix.Title className="sr-only">Sign in again</Radix.Title>
                    <KeyScope>
                        <SignInPage
                            note={`You are signed out, ${who.name}. Sign in again and go on where you were: what you typed is still there.`}
                            entered={enter}
                        />
                    </KeyScope>
                </Radix.Content>
            </Radix.Portal>
        </Radix.Root>
    );
}
