import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import { Joined } from './Joined';
import { Leaf } from './Leaf';
import { usePasswordHint } from './problem';
import { SetPassword } from './SetPassword';
import { useToken } from './token';

/** Waiting to be let in: asks again every few seconds, and is in as soon as somebody has said yes. */
export function WaitPage({
    asked,
    onIn,
}: {
    asked: Schemas['JoinRequestView'];
    onIn: (joined: Schemas['Joined']) => void;
}) {
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
        if (now.state === 'approved' && now.how === '')
            onIn({ section: now.section, already: false, userName: now.userName });
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
    if (now.state === 'approved')
        return (
            <Leaf title={t('You are in {{section}}', { section: now.section })}>
                <p className="mb-6">
                    {now.how === 'mail'
                        ? t(
                              'The mail has been answered. Sign in with the user name and the password that were chosen there.',
                          )
                        : now.how === 'password'
                          ? t('Sign in with the user name {{name}} and the password you chose.', {
                                name: now.userName,
                            })
                          : t(
                                'Sign in with your card or your own password. If you have neither, ask your teacher for a card.',
                            )}
                </p>
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('Sign in')}
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
    const token = useToken();
    const queries = useQueryClient();
    const [joined, setJoined] = useState<Schemas['Joined'] | null>(null);
    const hint = usePasswordHint('student');
    const confirm = async (password: string) => {
        setJoined(await data(api.POST('/api/join/confirm', { body: { token, password } })));
        await queries.invalidateQueries();
    };
    if (joined) return <Joined joined={joined} />;
    return (
        <Leaf title={t('Is this your address?')}>
            <p className="mb-6">
                {t('If you asked to come into a section, choose a password: your account is made and you are in.')}
            </p>
            <SetPassword hint={hint} onSet={confirm} />
        </Leaf>
    );
}
