import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { LetterDialog } from './LetterDialog';

/** Letters to many: what was written to whom, and what has become of it. */
export function LettersPage({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    // The Roll leads here with those chosen there.
    const { state } = useLocation() as { state: { people?: { id: string; name: string }[] } | null };
    const [writing, setWriting] = useState(state?.people !== undefined);
    const [chosen, setChosen] = useState(state?.people);
    const key = ['mailings', school.id];
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/schools/{school}/mailings', { params: { path: { school: school.id } } })),
        refetchInterval: (query) => (query.state.data?.mailings.some((m) => m.waiting > 0) ? 3_000 : false),
    });
    const settled = (page: Schemas['MailingPage']) => {
        queries.setQueryData(key, page);
        setWriting(false);
        setChosen(undefined);
        say(page.said);
    };
    const stop = useAct(
        (mailing: string) =>
            data(
                api.POST('/api/schools/{school}/mailings/{mailing}/stop', {
                    params: { path: { school: school.id, mailing } },
                }),
            ),
        { stale: [['messages', school.id]], then: settled, failed: (said) => say(said, { bad: true }) },
    );
    const page = asked.data;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <p className="text-sm">
                <Link className="underline decoration-rule underline-offset-4" to={`/s/${school.code}/mailroom`}>
                    Back to the Mailroom
                </Link>
            </p>
            <div className="flex max-w-3xl flex-wrap items-baseline justify-between gap-x-5 gap-y-2">
                <h1 className="text-2xl">Letters to many</h1>
                <Button kind="primary" onClick={() => setWriting(true)}>
                    Write one
                </Button>
            </div>
            <p className="mb-5 text-sm text-muted">
                Everyone gets one of their own, and nobody sees another’s address.
            </p>
            {!page ? (
                <Instead of={asked} what="the letters" size="part" />
            ) : page.mailings.length === 0 ? (
                <Empty title="No letter has been written">
                    To guardians, students or staff; of the school, a grade, a section, or those chosen in the Roll.
                </Empty>
            ) : (
                <ul className="max-w-3xl">
                    {page.mailings.map((m) => (
                        <li key={m.id} className="border-b border-rule py-3">
                            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                                <h2 className="text-lg">{m.subject}</h2>
                                <span className="text-sm text-muted">
                                    {m.texts === m.count
                                        ? many(m.count, 'text')
                                        : many(m.count, 'letter') +
                                          (m.texts > 0 ? `, ${String(m.texts)} of them as a text,` : '')}{' '}
                                    to {m.whom}
                                </span>
                            </div>
                            <p className="text-xs text-muted">
                                {[
                                    `${m.by}, ${moment(m.madeAt)}`,
                                    m.waiting > 0 &&
                                        (new Date(m.goesAt) > new Date()
                                            ? `${String(m.waiting)} go out ${moment(m.goesAt)}`
                                            : `${String(m.waiting)} on the way`),
                                    m.amiss > 0 && `${String(m.amiss)} did not arrive`,
                                    m.stopped > 0 && `${String(m.stopped)} stopped`,
                                ]
                                    .filter(Boolean)
                                    .join('; ')}
                            </p>
                            <p className="mt-2 flex flex-wrap items-center gap-4 text-sm">
                                {m.waiting > 0 && (
                                    <Button disabled={stop.busy} onClick={() => stop.run(m.id)}>
                                        Stop what has not gone
                                    </Button>
                                )}
                                <Link
                                    className="underline decoration-rule underline-offset-4"
                                    to={`/s/${school.code}/mailroom?mailing=${m.id}`}
                                    aria-label={`Each message of “${m.subject}”`}
                                >
                                    Each message
                                </Link>
                            </p>
                        </li>
                    ))}
                </ul>
            )}
            {writing && (
                <LetterDialog
                    school={school}
                    {...(chosen ? { chosen } : {})}
                    onClose={() => {
                        setWriting(false);
                        setChosen(undefined);
                    }}
                    onDone={settled}
                />
            )}
        </div>
    );
}
