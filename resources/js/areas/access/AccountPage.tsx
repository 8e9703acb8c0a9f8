import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { Me } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { Leaf, LeafNote } from './Leaf';
import { PasskeysPart } from './PasskeysPart';
import { useProblem } from './problem';
import { SecondFactorSetup } from './SecondFactorSetup';
import { SetPassword } from './SetPassword';

/** How one signs in, and where one is signed in. */
export function AccountPage({ me }: { me: Me }) {
    const { t } = useTranslation();
    return (
        <Leaf title={t('How you sign in')} above={me.name}>
            {/* Above what comes with an answer: how long that is nobody knows before. */}
            <p className="mb-6 flex flex-wrap gap-x-8">
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('Back')}
                </Link>
                {me.kind === 'staff' && me.children > 0 && (
                    <Link to="/children" className="inline-flex min-h-12 items-center underline underline-offset-4">
                        {t('Your children')}
                    </Link>
                )}
            </p>
            {me.ownPassword && <PasswordPart />}
            {me.kind === 'staff' && <PasskeysPart />}
            {me.kind === 'staff' && <SecondFactorPart />}
            <SessionsPart />
        </Leaf>
    );
}

function PasswordPart() {
    const { t } = useTranslation();
    const [done, setDone] = useState(false);
    return (
        <section className="mb-9">
            <h2 className="mb-3 text-lg">{t('Password')}</h2>
            {done && (
                <p className="mb-3" role="status">
                    {t('Your new password is set. All other devices are signed out.')}
                </p>
            )}
            <SetPassword
                change
                onSet={async (password, current) => {
                    setDone(false);
                    await api.POST('/api/password', { body: { password, current } });
                    setDone(true);
                }}
            />
        </section>
    );
}

function SecondFactorPart() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const [setting, setSetting] = useState(false);
    const asked = useQuery({
        queryKey: ['second-factor'],
        queryFn: () => data(api.GET('/api/second-factor')),
    });
    const words = useProblem();
    const refresh = () => queries.invalidateQueries({ queryKey: ['second-factor'] });
    const remove = useSentForm({
        start: { code: '' },
        send: (body) => api.DELETE('/api/second-factor', { body }),
        stale: [['second-factor']],
        home: 'code',
        forget: ['code'],
        words,
    });
    const factor = asked.data;
    if (!factor) return <Instead of={asked} size="part" />;
    return (
        <section className="mb-9">
            <h2 className="mb-3 text-lg">{t('Second factor')}</h2>
            {setting ? (
                <SecondFactorSetup
                    onDone={() => {
                        setSetting(false);
                        void refresh();
                    }}
                />
            ) : factor.on ? (
                <form className="flex flex-col gap-4" onSubmit={remove.submit}>
                    <p>
                        {factor.recoveryLeft === 1
                            ? t('It is on. 1 recovery code is left.')
                            : t('It is on. {{count}} recovery codes are left.', { count: factor.recoveryLeft })}
                    </p>
                    {factor.app && (!factor.asked || factor.passkeys) && (
                        <>
                            <Field
                                large
                                mono
                                label={t('Six digits, or a recovery code')}
                                required
                                {...remove.field('code')}
                            />
                            <Button large type="submit" disabled={remove.busy}>
                                {factor.passkeys ? t('Switch the app off') : t('Switch it off')}
                            </Button>
                        </>
                    )}
                    {!factor.app && (
                        <div>
                            <Button large onClick={() => setSetting(true)}>
                                {t('Set up an app for codes too')}
                            </Button>
                        </div>
                    )}
                </form>
            ) : (
                <>
                    <p className="mb-4">{t('It is off. With it, nobody gets in with your password alone.')}</p>
                    <Button large onClick={() => setSetting(true)}>
                        {t('Set it up')}
                    </Button>
                </>
            )}
        </section>
    );
}

function SessionsPart() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const asked = useQuery({ queryKey: ['sessions'], queryFn: () => data(api.GET('/api/sessions')) });
    const words = useProblem();
    // One of them by its key, or all others.
    const end = useAct(
        (key: string) =>
            key === ''
                ? api.DELETE('/api/sessions')
                : api.DELETE('/api/sessions/{session}', { params: { path: { session: key } } }),
        {
            stale: [['sessions']],
            words,
            failed: () => void queries.invalidateQueries({ queryKey: ['sessions'] }),
        },
    );
    const page = asked.data;
    if (!page) return <Instead of={asked} size="part" />;
    return (
        <section>
            <h2 className="mb-2 text-lg">{t('Where you are signed in')}</h2>
            {end.error && <LeafNote bad>{end.error}</LeafNote>}
            <ul>
                {page.sessions.map((s) => (
                    <li
                        key={s.key}
                        className="flex min-h-12 items-center justify-between gap-4 border-b border-rule py-2"
                    >
                        <span>
                            {t(s.device)}
                            <span className="block text-sm text-muted">
                                {s.thisOne ? t('this device') : `${s.from}, ${moment(s.seenAt)}`}
                            </span>
                        </span>
                        {!s.thisOne && (
                            <Button large kind="quiet" disabled={end.busy} onClick={() => end.run(s.key)}>
                                {t('Sign it out')}
                            </Button>
                        )}
                    </li>
                ))}
            </ul>
            {page.sessions.length > 1 && (
                <div className="mt-4">
                    <Button large disabled={end.busy} onClick={() => end.run('')}>
                        {t('Sign all others out')}
                    </Button>
                </div>
            )}
        </section>
    );
}
