import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { day, since } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { News } from './News';
import { PutOffDialog } from './PutOffDialog';

/** What waits, counted, oldest first; each one click from where it is worked on. */
export function DeskPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const asked = useQuery({
        queryKey: ['desk', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/desk', { params: { path: { school: school.id } } })),
    });
    const { data: people } = useQuery({
        queryKey: ['desk-counts', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/desk/counts', { params: { path: { school: school.id } } })),
    });
    const [later, setLater] = useState<Schemas['Loop'] | null>(null);
    const say = useNotice();
    const back = useAct(
        (loop: string) =>
            api.POST('/api/schools/{school}/desk/take-back', {
                params: { path: { school: school.id } },
                body: { loop },
            }),
        { stale: [['desk', school.id]], failed: (said) => say(said, { bad: true }) },
    );
    const desk = asked.data;
    if (!desk) return <Instead of={asked} what="the Desk" />;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <div className="flex flex-wrap items-baseline gap-x-5">
                <h1 className="text-2xl">Desk</h1>
                {people && (
                    <p className="text-sm text-muted">
                        {[
                            many(people.students, 'student'),
                            many(people.guardians, 'guardian'),
                            `${people.staff} staff`,
                            many(people.sections, 'section'),
                        ].join(', ')}
                    </p>
                )}
                <Link
                    className="min-h-6 text-sm leading-6 underline decoration-rule underline-offset-4"
                    to={`/s/${school.code}/desk/coverage`}
                >
                    Coverage
                </Link>
            </div>
            {people?.students === 0 ? (
                <Empty
                    title="Nobody is here yet"
                    action={
                        <Button kind="primary" onClick={() => void navigate(`/s/${school.code}/intake`)}>
                            Bring a list in
                        </Button>
                    }
                >
                    Start with the list of students: a spreadsheet with a name in each row is enough. You see what it
                    would change before anything is changed.
                </Empty>
            ) : desk.loops.length === 0 ? (
                <Empty title="Nothing waits">
                    {desk.putOff.length > 0
                        ? 'Nothing but what is put off.'
                        : 'Every list is applied, every student is placed, every invitation answered.'}
                </Empty>
            ) : (
                <table className="mt-5 w-full max-w-4xl border-collapse text-left">
                    <thead>
                        <tr className="border-b border-ink text-xs text-muted">
                            <th className="w-12 py-2 pr-4 text-right font-normal roomy:w-20 roomy:pr-5">How many</th>
                            <th className="py-2 font-normal">What waits</th>
                            <th className="w-20 py-2 font-normal roomy:w-32">Since</th>
                            <th className="w-14 py-2 font-normal roomy:w-24">
                                <span className="sr-only">Put off</span>
                            </th>
                        </tr>
                    </thead>
                    <tbody>
                        {desk.loops.map((loop) => (
                            <tr key={loop.key} className="group border-b border-rule hover:bg-tint">
                                <td className="py-2 pr-4 text-right font-serif roomy:pr-5 text-2xl font-semibold">
                                    {loop.count.toLocaleString('en')}
                                </td>
                                <td className="py-2">
                                    <Link
                                        to={`/s/${school.code}/${loop.path}`}
                                        className="font-semibold underline decoration-rule underline-offset-4 group-hover:decoration-ink"
                                    >
                                        {loop.title}
                                    </Link>
                                    <span className="block text-sm text-muted">{loop.detail}</span>
                                </td>
                                <td className="py-2 text-sm text-muted">{loop.since ? since(loop.since) : ''}</td>
                                <td className="py-2 text-right">
                                    <Button
                                        kind="quiet"
                                        aria-label={`Put off: ${loop.title}`}
                                        onClick={() => setLater(loop)}
                                    >
                                        put off
                                    </Button>
                                </td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            )}
            {desk.putOff.length > 0 && (
                <section aria-labelledby="put-off" className="mt-6 max-w-4xl border-t border-rule pt-3">
                    <h2 id="put-off" className="text-lg">
                        Put off
                    </h2>
                    <ul className="mt-1 text-sm">
                        {desk.putOff.map((p) => (
                            <li key={p.key} className="flex flex-wrap items-baseline justify-between gap-x-5 py-0.5">
                                <span>
                                    {p.count.toLocaleString('en')} {p.title.toLowerCase()}, until {day(p.until)}:{' '}
                                    {p.reason} <span className="text-muted">({p.by})</span>
                                </span>
                                <Button
                                    kind="quiet"
                                    aria-label={`Have back: ${p.title}`}
                                    disabled={back.busy}
                                    onClick={() => back.run(p.key)}
                                >
                                    have it back
                                </Button>
                            </li>
                        ))}
                    </ul>
                </section>
            )}
            <News news={desk.news} school={school} />
            {later && <PutOffDialog loop={later} school={school} onClose={() => setLater(null)} />}
        </div>
    );
}
