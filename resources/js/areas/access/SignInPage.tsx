import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { canPasskeys, showPasskey } from '@/api/passkey';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { CardPicture } from './CardPicture';
import { Leaf, LeafNote } from './Leaf';
import { useEntrance, useProblem } from './problem';

const CARD_NOTES: Record<string, string> = {
    ended: 'That card does not work any more. Ask for a new one, or type the user name and passphrase of a newer card.',
    wait: 'There have been too many tries. Wait a while, then try again.',
    password: 'Your new password is set. Sign in with it.',
};

type SignIn = { user_name: string; secret: string; stay: '' | 'own' | 'shared' };

/** Signing in by typing; a card's QR leads past this page. */
export function SignInPage({
    note,
    then,
    entered,
}: {
    note?: string;
    then?: string;
    /** What comes of it where that is not the next page. */
    entered?: (me: Schemas['Me']) => void;
}) {
    const { t } = useTranslation();
    const [search] = useSearchParams();
    const queries = useQueryClient();
    const navigate = useNavigate();
    const words = useProblem();
    const [coding, setCoding] = useState<{ passkey: boolean } | null>(null);
    const [back, setBack] = useState(false);
    const asked = useEntrance();
    const entrance = asked.data;
    const said = note ?? (entrance?.note ? t(entrance.note) : t(CARD_NOTES[search.get('card') ?? ''] ?? ''));
    const enter = (me: Schemas['Me']) => {
        if (entered) {
            entered(me);
            return;
        }
        queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'me' && query.queryKey[0] !== 'invited' });
        queries.setQueryData(['me'], me);
        void navigate(then ?? '/', { replace: true });
    };
    const signIn = useSentForm<SignIn, Schemas['SignedIn']>({
        start: { user_name: '', secret: '', stay: '' },
        send: ({ stay, ...who }) => data(api.POST('/api/sign-in', { body: { ...who, ...(stay ? { stay } : {}) } })),
        stale: [],
        home: 'secret',
        words,
        then: (answer) => {
            if (answer.me) enter(answer.me);
            else {
                setBack(false);
                setCoding({ passkey: answer.passkey });
            }
        },
    });
    const complete = useSentForm({
        start: { code: '' },
        send: (body) => data(api.POST('/api/sign-in/code', { body })),
        stale: [],
        home: 'code',
        words,
        then: enter,
    });
    const passkey = useAct(
        async () => {
            const question = await data(api.POST('/api/sign-in/passkey/ask'));
            return data(api.POST('/api/sign-in/passkey', { body: await showPasskey(question) }));
        },
        { stale: [], words, then: enter },
    );
    // What the answer decides stands above the button: a form shown before it would move under the finger. Without an
    // answer one can still sign in, and while it is asked for once more.
    const [begun, setBegun] = useState(false);
    if (!begun && !asked.isPending) setBegun(true);
    if (!begun) return <Instead of={asked} />;
    const half = coding ?? (entrance?.secondFactor && !back ? { passkey: entrance.passkey } : null);
    if (half)
        return (
            <Leaf title={half.passkey ? t('Your second factor') : t('The code of your app')}>
                {passkey.error && <LeafNote bad>{passkey.error}</LeafNote>}
                {half.passkey && canPasskeys() && (
                    <div className="mb-7 flex flex-col">
                        <Button large kind="primary" disabled={passkey.busy} onClick={() => passkey.run()}>
                            {t('Use your passkey')}
                        </Button>
                    </div>
                )}
                <form className="flex flex-col gap-5" onSubmit={complete.submit}>
                    <Field
                        large
                        mono
                        label={t('Six digits, or a recovery code')}
                        required
                        autoFocus={!half.passkey}
                        autoComplete="one-time-code"
                        spellCheck={false}
                        {...complete.field('code')}
                    />
                    <Button
                        large
                        kind={half.passkey && canPasskeys() ? 'plain' : 'primary'}
                        type="submit"
                        disabled={complete.busy}
                    >
                        {t('Sign in')}
                    </Button>
                    <Button large kind="quiet" onClick={() => (passkey.clear(), setCoding(null), setBack(true))}>
                        {t('Back')}
                    </Button>
                </form>
            </Leaf>
        );
    const device = (kind: 'own' | 'shared', label: string) => (
        <label className="flex min-h-12 items-center gap-3">
            <input
                type="checkbox"
                className="size-6 shrink-0 accent-ink"
                checked={signIn.values.stay === kind}
                onChange={(event) => signIn.set('stay', event.target.checked ? kind : '')}
            />
            {label}
        </label>
    );
    return (
        <Leaf title={t('Sign in')}>
            {said && <LeafNote>{said}</LeafNote>}
            {passkey.error && <LeafNote bad>{passkey.error}</LeafNote>}
            <form className="flex flex-col gap-5" onSubmit={signIn.submit}>
                <Field
                    large
                    mono
                    label={t('User name')}
                    required
                    autoFocus
                    autoComplete="username"
                    autoCapitalize="none"
                    spellCheck={false}
                    dir="ltr"
                    {...signIn.field('user_name')}
                />
                <Field
                    large
                    label={t('Passphrase or password')}
                    type="password"
                    required
                    autoComplete="current-password"
                    dir="ltr"
                    {...signIn.field('secret')}
                />
                {(entrance?.stayOwn || entrance?.stayShared) && (
                    <div>
                        {entrance.stayOwn && device('own', t('This device is mine: stay signed in'))}
                        {entrance.stayShared &&
                            device('shared', t('This device is shared: stay signed in all the same'))}
                    </div>
                )}
                <Button large kind="primary" type="submit" disabled={signIn.busy}>
                    {t('Sign in')}
                </Button>
            </form>
            {entrance?.singleSignOn && (
                <a
                    href="/school-sign-on"
                    {...(entered ? { target: '_blank', rel: 'noopener' } : {})}
                    className="mt-4 flex min-h-12 items-center justify-center rounded-card border border-ink/40 px-5 text-lg font-semibold"
                >
                    {t(entrance.singleSignOn)}
                </a>
            )}
            {!entered && (
                <>
                    <div className="mt-9 flex items-center gap-5 border-t border-rule pt-6">
                        <CardPicture />
                        <p className="text-sm text-muted">
                            {t('Both are on your card. Or point a camera at the square on it: no typing.')}
                        </p>
                    </div>
                    <p className="mt-6 flex flex-wrap gap-x-8">
                        <Link
                            to="/in"
                            className="inline-flex min-h-12 items-center underline decoration-rule underline-offset-4"
                        >
                            {t('I have a code from the wall')}
                        </Link>
                        <Link
                            to="/forgotten"
                            className="inline-flex min-h-12 items-center underline decoration-rule underline-offset-4"
                        >
                            {t('I forgot my password')}
                        </Link>
                        {canPasskeys() && (
                            <button
                                type="button"
                                className="inline-flex min-h-12 items-center underline decoration-rule underline-offset-4"
                                disabled={passkey.busy}
                                onClick={() => passkey.run()}
                            >
                                {t('For staff: use a passkey')}
                            </button>
                        )}
                    </p>
                </>
            )}
        </Leaf>
    );
}
