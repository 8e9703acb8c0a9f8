import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link, useParams } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Joined } from './Joined';
import { Leaf, LeafNote } from './Leaf';
import { problem } from './problem';

/** Waiting to be let in: asks again every few seconds, and is in as soon as somebody has said yes. */
export function WaitPage({ asked, onIn }: { asked: Schemas['Asked']; onIn: (joined: Schemas['Joined']) => void }) {
    const { t } = useTranslation();
    const { data: now } = useQuery({
        queryKey: ['asked'],
        queryFn: () => data(api.POST('/api/join/asked')),
        initialData: asked,
        staleTime: 0,
        gcTime: 0,
        refetchInterval: (query) => (['waiting', 'mail'].includes(query.state.data?.state ?? '') ? 3_000 : false),
    });
    useEffect(() => {
        if (now.state === 'approved') onIn({ section: now.section, already: false, userName: now.userName });
    }, [now, onIn]);
    if (now.state === 'refused' || now.state === 'none')
        return (
            <Leaf title={t('Your teacher did not let you in')} above={asked.section}>
                <p className="mb-6">{t('Perhaps it was the wrong code. Speak with your teacher.')}</p>
                <Link to="/in" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('Type another code')}
                </Link>
            </Leaf>
        );
    if (now.state === 'mail')
        return (
            <Leaf title={t('Look at your mail')} above={asked.section}>
                <p>{t('A link is on its way to your school address. Open it to come in.')}</p>
            </Leaf>
        );
    return (
        <Leaf title={t('You have asked to come in')} above={asked.section}>
            <p className="mb-4" role="status">
                {t('Wait here: as soon as your teacher lets you in, this page goes on by itself.')}
            </p>
            <p className="text-muted">{t('You can also come back later and sign in with your name and password.')}</p>
        </Leaf>
    );
}

/** What the link of the mail to a school address opens. */
export function ConfirmPage() {
    const { t } = useTranslation();
    const { token = '' } = useParams();
    const queries = useQueryClient();
    const [joined, setJoined] = useState<Schemas['Joined'] | null>(null);
    const [error, setError] = useState('');
    const confirm = async () => {
        setError('');
        try {
            setJoined(await data(api.POST('/api/join/confirm/{token}', { params: { path: { token } } })));
            await queries.invalidateQueries();
        } catch (e) {
            setError(problem(e, t).text);
        }
    };
    if (joined) return <Joined joined={joined} />;
    return (
        <Leaf title={t('Is this your address?')}>
            {error && <LeafNote bad>{error}</LeafNote>}
            <p className="mb-6">{t('If you asked to come into a section, go on: your account is made and you are in.')}</p>
            <Button large kind="primary" onClick={() => void confirm()}>
                {t('Yes, let me in')}
            </Button>
        </Leaf>
    );
}
