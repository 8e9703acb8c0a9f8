import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link, useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { useAskedMe } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Instead } from '@/ui/Instead';
import { Leaf, LeafNote } from './Leaf';
import { usePasswordHint, useProblem } from './problem';
import { SetPassword } from './SetPassword';
import { useToken } from './token';

/** What the link in a school's invitation opens: connect with the children, or say that they are not one's own. */
export function GuardianPage() {
    const { t } = useTranslation();
    const token = useToken();
    const queries = useQueryClient();
    const navigate = useNavigate();
    const words = useProblem();
    const hint = usePasswordHint('guardian');
    const asked = useAskedMe();
    const me = asked.data;
    const [done, setDone] = useState<Schemas['LinkAnswer'] | 'no' | null>(null);
    const [agreed, setAgreed] = useState(false);
    const link = useQuery({
        queryKey: ['guardian-link', token],
        queryFn: () => data(api.POST('/api/guardian/check', { body: { token } })),
        // Answered, the link works no more: what it showed stays.
        enabled: done === null,
        staleTime: Infinity,
    });
    const came = async (answer: Schemas['LinkAnswer']) => {
        setDone(answer);
        if (answer.signedIn) {
            await queries.invalidateQueries({ queryKey: ['me'] });
            if (!answer.waits) void navigate('/', { replace: true });
        }
    };
    const accept = useAct(() => data(api.POST('/api/guardian/accept', { body: { token } })), {
        stale: [],
        words,
        then: came,
    });
    const connect = useAct(() => data(api.POST('/api/guardian/connect', { body: { token } })), {
        stale: [],
        words,
        then: came,
    });
    const decline = useAct(() => api.POST('/api/guardian/decline', { body: { token } }), {
        stale: [],
        words,
        then: () => setDone('no'),
    });
    if (link.error && done === null)
        return (
            <Leaf title={t('This link does not work any more')}>
                <LeafNote>{words(link.error)}</LeafNote>
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('Sign in')}
                </Link>
            </Leaf>
        );
    const view = link.data;
    if (!view || me === undefined) return <Instead of={view ? asked : link} />;
    const names = view.students.join(', ');
    if (done === 'no')
        return (
            <Leaf title={t('Thank you for telling us')} above={view.school}>
                <p>{t('Nothing more comes to you about this.')}</p>
            </Leaf>
        );
    if (done)
        return (
            <Leaf title={done.waits ? t('The school will check') : t('You are connected')} above={view.school}>
                <p className="mb-5">
                    {done.waits
                        ? t('Once it has, {{name}} appears in your account.', { name: names })
                        : t('Sign in as you do otherwise: {{name}} is in your account.', { name: names })}
                </p>
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {done.signedIn ? t('Your children') : t('Sign in')}
                </Link>
            </Leaf>
        );
    const other = me !== null && me.kind !== 'student';
    return (
        <Leaf title={t('Are you a guardian of {{name}}?', { name: names })} above={view.school}>
            {(accept.error || connect.error || decline.error) && (
                <LeafNote bad>{accept.error || connect.error || decline.error}</LeafNote>
            )}
            {other ? (
                <>
                    <p className="mb-5">{t('You are signed in as {{name}}.', { name: me.name })}</p>
                    <Button large kind="primary" disabled={connect.busy} onClick={() => connect.run()}>
                        {t('Yes, connect us')}
                    </Button>
                </>
            ) : view.opens && agreed ? (
                <>
                    <p className="mb-5">
                        {t('Your user name')}:{' '}
                        <span className="break-words font-mono" dir="ltr">
                            {view.userName}
                        </span>
                    </p>
                    <SetPassword
                        hint={hint}
                        onSet={async (password) =>
                            came(await data(api.POST('/api/guardian/accept', { body: { token, password } })))
                        }
                    />
                </>
            ) : (
                <Button
                    large
                    kind="primary"
                    disabled={accept.busy}
                    onClick={() => (view.opens ? setAgreed(true) : accept.run())}
                >
                    {t('Yes, connect us')}
                </Button>
            )}
            {!agreed && (
                <button
                    className="mt-4 min-h-12 text-start underline underline-offset-4"
                    disabled={decline.busy}
                    onClick={() => decline.run()}
                >
                    {t('No, this is not my child')}
                </button>
            )}
        </Leaf>
    );
}
