import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link, useNavigate } from 'react-router';
import { api, data } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { Leaf, LeafNote } from './Leaf';
import { useProblem } from './problem';
import { SetPassword } from './SetPassword';
import { useToken } from './token';

/** Asking for a link to set a new password. The answer is the same whether there is such an account or not. */
export function ForgottenPage() {
    const { t } = useTranslation();
    const [sent, setSent] = useState(false);
    const form = useSentForm({
        start: { user_name: '' },
        send: (body) => api.POST('/api/forgotten', { body }),
        stale: [],
        home: 'user_name',
        words: useProblem(),
        then: () => setSent(true),
    });
    return (
        <Leaf title={t('I forgot my password')}>
            {sent ? (
                <>
                    <p className="mb-6">
                        {t(
                            'If there is an account with a confirmed mail address, a link is on its way to it. It works for one hour.',
                        )}
                    </p>
                    <p className="mb-6 text-muted">
                        {t('Students without a mail address: ask your teacher for a new card.')}
                    </p>
                    <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                        {t('Sign in')}
                    </Link>
                </>
            ) : (
                <form className="flex flex-col gap-5" onSubmit={form.submit}>
                    <Field
                        large
                        mono
                        label={t('User name')}
                        required
                        autoFocus
                        autoCapitalize="none"
                        autoComplete="username"
                        dir="ltr"
                        {...form.field('user_name')}
                        hint={t('Staff and guardians: your mail address.')}
                    />
                    <Button large kind="primary" type="submit" disabled={form.busy}>
                        {t('Send me a link')}
                    </Button>
                </form>
            )}
        </Leaf>
    );
}

/** What the link of that mail opens. */
export function NewPasswordPage() {
    const { t } = useTranslation();
    const token = useToken();
    const navigate = useNavigate();
    const { data: reset, error: missing } = useQuery({
        queryKey: ['new-password', token],
        queryFn: () => data(api.POST('/api/new-password/check', { body: { token } })),
    });
    if (missing)
        return (
            <Leaf title={t('This link does not work any more')}>
                <LeafNote>{t('It works once, for one hour. Ask for a new one.')}</LeafNote>
                <Link to="/forgotten" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('I forgot my password')}
                </Link>
            </Leaf>
        );
    if (!reset) return null;
    return (
        <Leaf title={t('A new password')}>
            <p className="mb-5">
                {t('User name')}: <span className="break-words font-mono">{reset.userName}</span>
            </p>
            <SetPassword
                hint={t('Several words are easiest. All devices that are signed in are signed out.')}
                onSet={async (password) => {
                    await api.POST('/api/new-password', { body: { token, password } });
                    void navigate('/?card=password', { replace: true });
                }}
            />
        </Leaf>
    );
}
