import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, ApiError, data, type Schemas } from '@/api/client';
import { Instead } from '@/ui/Instead';
import { HearsChoice } from './HearsChoice';
import { Leaf, LeafNote } from './Leaf';
import { useToken } from './token';

/** Where the link of a digest leads: how often it comes, chosen without signing in. */
export function HearsPage() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const token = useToken();
    const [saved, setSaved] = useState(false);
    const key = ['hears', token];
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.POST('/api/hears', { body: { token } })),
        retry: false,
    });
    if (asked.error instanceof ApiError && asked.error.status === 404)
        return (
            <Leaf title={t('How the school reaches you')}>
                <LeafNote bad>{t('This link does not work any more. Ask the school for another one.')}</LeafNote>
            </Leaf>
        );
    if (!asked.data) return <Instead of={asked} />;
    return (
        <Leaf title={t('How the school reaches you')} above={asked.data.school}>
            {saved && <LeafNote>{t('Saved.')}</LeafNote>}
            <HearsChoice
                kept={asked.data}
                send={(wish) => data(api.POST('/api/hears/choose', { body: { ...wish, token } }))}
                then={(kept: Schemas['HearsView']) => {
                    queries.setQueryData(key, kept);
                    setSaved(true);
                }}
            />
        </Leaf>
    );
}
