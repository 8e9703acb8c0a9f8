import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, ApiError, data, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { CardPicture } from './CardPicture';
import { Leaf } from './Leaf';

const CARD_NOTES: Record<string, string> = {
    ended: 'That card does not work any more. Ask for a new one, or type the user name and passphrase of a newer card.',
    wait: 'There have been too many tries from here. Wait a few minutes, then point the camera again.',
};

/** Signing in by typing; a card's QR leads past this page. */
export function SignInPage({ note, then }: { note?: string; then?: string }) {
    const [search] = useSearchParams();
    const queries = useQueryClient();
    const navigate = useNavigate();
    const [userName, setUserName] = useState('');
    const [secret, setSecret] = useState('');
    const [error, setError] = useState('');
    const [busy, setBusy] = useState(false);
    const said = note ?? CARD_NOTES[search.get('card') ?? ''];
    const signIn = async () => {
        setBusy(true);
        setError('');
        try {
            const me = await data(api.POST('/api/sign-in', { body: { user_name: userName, secret } }));
            queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'me' && query.queryKey[0] !== 'invited' });
            queries.setQueryData(['me'], me);
            void navigate(then ?? '/', { replace: true });
        } catch (e) {
            setError(
                e instanceof ApiError && e.status === 429
                    ? 'There have been too many tries. Wait a few minutes, then try again.'
                    : sentence(e),
            );
            setBusy(false);
        }
    };
    return (
        <Leaf title="Sign in">
            {said && <p className="mb-5 border-l-[3px] border-marigold pl-3">{said}</p>}
            <form
                className="flex flex-col gap-5"
                onSubmit={(event) => {
                    event.preventDefault();
                    void signIn();
                }}
            >
                <Field
                    large
                    mono
                    label="User name"
                    required
                    autoFocus
                    autoComplete="username"
                    autoCapitalize="none"
                    spellCheck={false}
                    value={userName}
                    onChange={(event) => setUserName(event.target.value)}
                />
                <Field
                    large
                    label="Passphrase or password"
                    type="password"
                    required
                    autoComplete="current-password"
                    value={secret}
                    onChange={(event) => setSecret(event.target.value)}
                    error={error || undefined}
                />
                <Button large kind="primary" type="submit" disabled={busy}>
                    Sign in
                </Button>
            </form>
            <div className="mt-9 flex items-center gap-5 border-t border-rule pt-6">
                <CardPicture />
                <p className="text-sm text-muted">Both stand on your card. Or point a camera at the square on it: no typing.</p>
            </div>
            <p className="mt-6">
                <Link to="/in" className="inline-flex min-h-12 items-center underline decoration-rule underline-offset-4">
                    I have a code from the wall
                </Link>
            </p>
        </Leaf>
    );
}
