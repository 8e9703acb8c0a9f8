import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { LANGUAGES } from '@/shell/language';
import { useMe, useSignOut } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Instead } from '@/ui/Instead';
import { HomeBoard } from './HomeBoard';
import { Leaf, LeafNote } from './Leaf';
import { useProblem } from './problem';
import { ROOM } from './room';

/** The own page of a student, or of a guardian with the children connected to them. */
export function HomePage() {
    const { t, i18n } = useTranslation();
    const me = useMe();
    const signOut = useSignOut();
    const language = LANGUAGES.find((l) => l.code === i18n.language)?.code ?? 'en';
    const asked = useQuery({
        queryKey: ['home', language],
        queryFn: () => data(api.GET('/api/home', { params: { query: { language } } })),
        placeholderData: (before) => before,
    });
    const home = asked.data;
    const words = useProblem();
    const shown = home?.students.flatMap((s) => [...s.missing, ...s.coming, ...s.new].map((n) => n.id)) ?? [];
    const shownKey = [...new Set(shown)].sort().join(' ');
    // Whoever writes a notice is told how many have seen it; that this is not noted once is no matter.
    useEffect(() => {
        if (shownKey !== '') void api.POST('/api/home/seen', { body: { ids: shownKey.split(' ') } }).catch(() => null);
    }, [shownKey]);
    const [leaving, setLeaving] = useState('');
    const leave = useAct(
        (id: string) => api.POST('/api/own/children/{person}/leave', { params: { path: { person: id } } }),
        { stale: [['home'], ['me']], words, then: () => setLeaving('') },
    );
    if (!home || !me) return <Instead of={asked} />;
    const student = home.kind === 'student';
    const leaves = home.students.find((s) => s.id === leaving);
    const room = me.room !== '' ? sessionStorage.getItem(ROOM) : null;
    const done = async () => {
        await api.POST('/api/sign-out');
        window.location.href = room ? `/room#${room}` : '/';
    };
    if (leaves)
        return (
            <Leaf title={t('Let go of {{name}}?', { name: leaves.givenName })} above={leaves.sections[0]?.school}>
                {leave.error && <LeafNote bad>{leave.error}</LeafNote>}
                <p className="mb-5">
                    {t('You see nothing more of {{name}} and hear nothing more. The school can connect you again.', {
                        name: leaves.givenName,
                    })}
                </p>
                <div className="flex flex-col gap-3">
                    <Button large kind="primary" disabled={leave.busy} onClick={() => leave.run(leaves.id)}>
                        {t('Let go')}
                    </Button>
                    <Button large disabled={leave.busy} onClick={() => setLeaving('')}>
                        {t('Back')}
                    </Button>
                </div>
            </Leaf>
        );
    return (
        <Leaf
            title={
                student ? t('Hello, {{name}}', { name: home.students[0]?.givenName ?? me.name }) : t('Your children')
            }
            above={home.students[0]?.sections[0]?.school}
        >
            {home.waiting.length > 0 && (
                <LeafNote>{t('The school still checks: {{names}}.', { names: home.waiting.join(', ') })}</LeafNote>
            )}
            {home.students.length === 0 && home.waiting.length === 0 && (
                <p className="text-muted">
                    {student
                        ? t('Your account is here.')
                        : t(
                              'No child is connected to you yet. The school connects you once it has checked; ask its office if you have waited more than a week.',
                          )}
                </p>
            )}
            {home.students.map((s) => (
                <section key={s.id} className="mb-7">
                    {!student && <h2 className="mb-3 border-b border-ink pb-1 text-xl">{s.name}</h2>}
                    <HomeBoard board={s} {...(student ? {} : { child: s.name })} />
                    {student ? (
                        <h2 className="mb-1 text-lg">{t('Your sections')}</h2>
                    ) : (
                        <h3 className="mb-1 text-lg">{t('Sections')}</h3>
                    )}
                    {s.sections.length === 0 && (
                        <p className="text-muted">
                            {t('In no section yet.')}
                            {student && ` ${t('Type the code your teacher shows.')}`}
                        </p>
                    )}
                    <ul>
                        {s.sections.map((section) => (
                            <li key={section.name} className="border-b border-rule py-3">
                                <span className="block text-lg">
                                    <bdi>{section.name}</bdi>
                                </span>
                                <span className="text-sm text-muted">
                                    <bdi>{section.teachers.join(', ')}</bdi>
                                </span>
                            </li>
                        ))}
                    </ul>
                    {!student && (
                        <button
                            className="min-h-12 text-sm text-muted underline underline-offset-4"
                            onClick={() => setLeaving(s.id)}
                        >
                            {t('Let go of {{name}}', { name: s.givenName })}
                        </button>
                    )}
                    {student && (
                        <p className="mt-4 text-sm text-muted">
                            {t('Your user name')}:{' '}
                            <span className="font-mono text-ink" dir="ltr">
                                {s.userName}
                            </span>
                        </p>
                    )}
                </section>
            ))}
            <div className="mt-auto flex flex-col gap-3">
                {student && (
                    <Link
                        to="/in"
                        className="flex min-h-12 items-center justify-center rounded-card border border-ink bg-ink px-5 text-lg font-semibold text-paper"
                    >
                        {t('I have a code')}
                    </Link>
                )}
                {me.room ? (
                    <Button large onClick={() => void done()}>
                        {t('I am done')}
                    </Button>
                ) : (
                    <>
                        {!student && (
                            <>
                                <Link
                                    to="/own"
                                    className="flex min-h-12 items-center justify-center underline underline-offset-4"
                                >
                                    {t('How the school reaches you')}
                                </Link>
                                <Link
                                    to="/family"
                                    className="flex min-h-12 items-center justify-center underline underline-offset-4"
                                >
                                    {t('Connect another child')}
                                </Link>
                            </>
                        )}
                        <Link
                            to="/account"
                            className="flex min-h-12 items-center justify-center underline underline-offset-4"
                        >
                            {t('How you sign in')}
                        </Link>
                        <Button large onClick={signOut}>
                            {t('Sign out')}
                        </Button>
                    </>
                )}
            </div>
        </Leaf>
    );
}
