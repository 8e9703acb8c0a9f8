import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useTranslation } from 'react-i18next';
import { Navigate, useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, ApiError, data } from '@/api/client';
import { Button } from '@/ui/Button';
import { Leaf, LeafNote } from './Leaf';
import { problem, useProblem } from './problem';
import { useToken } from './token';

/**
 * What the square on a card opens. Whoever is signed in on the device already is asked before somebody else takes their
 * place.
 */
export function CardPage() {
    const { t } = useTranslation();
    const token = useToken();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const enter = (me: unknown) => {
        queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'me' && query.queryKey[0] !== 'card' });
        queries.setQueryData(['me'], me);
    };
    const { data: answer, error: refused } = useQuery({
        queryKey: ['card', token],
        queryFn: async () => {
            const signedIn = await data(api.POST('/api/sign-in/card', { body: { token } }));
            if (signedIn.needs === '') enter(signedIn.me);
            return signedIn;
        },
        staleTime: Infinity,
        retry: false,
    });
    const instead = useAct(() => data(api.POST('/api/sign-in/card', { body: { token, instead: true } })), {
        stale: [],
        words: useProblem(),
        then: ({ me }) => {
            enter(me);
            void navigate('/', { replace: true });
        },
    });
    if (refused) {
        const ended = refused instanceof ApiError && refused.status === 422;
        const wait = refused instanceof ApiError && refused.status === 429;
        if (ended || wait) return <Navigate replace to={`/?card=${ended ? 'ended' : 'wait'}`} />;
        return (
            <Leaf title={t('Sign in')}>
                <LeafNote bad>{problem(refused, t)}</LeafNote>
                <Button large onClick={() => void queries.invalidateQueries({ queryKey: ['card', token] })}>
                    {t('Try again')}
                </Button>
            </Leaf>
        );
    }
    if (!answer) {
        return (
            <Leaf busy title={t('Sign in')}>
                {null}
            </Leaf>
        );
    }
    if (answer.needs === '') return <Navigate replace to="/" />;
    return (
        <Leaf title={t('Somebody is signed in here')}>
            {instead.error && <LeafNote bad>{instead.error}</LeafNote>}
            <p className="mb-6">
                {t('{{name}} is signed in on this device. Sign them out and go on with the card?', {
                    name: answer.me?.name ?? '',
                })}
            </p>
            <div className="flex flex-col gap-3">
                <Button large kind="primary" disabled={instead.busy} onClick={() => instead.run()}>
                    {t('Go on with the card')}
                </Button>
                <Button large onClick={() => void navigate('/', { replace: true })}>
                    {t('No, stay signed in')}
                </Button>
            </div>
        </Leaf>
    );
}
