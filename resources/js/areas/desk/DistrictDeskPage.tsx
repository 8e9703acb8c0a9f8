import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { ALL } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment, since } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { many } from '@/ui/words';

const REALM = { params: { path: { realm: ALL } } };

/** What waits at all schools one coordinates: where it waits, each one click from where it is worked on. */
export function DistrictDeskPage() {
    const asked = useQuery({
        queryKey: ['desks'],
        queryFn: () => data(api.GET('/api/schools/{realm}/desks', REALM)),
    });
    const desk = asked.data;
    if (!desk) return <Instead of={asked} what="the Desk" />;
    const sum = (of: 'students' | 'staff' | 'sections') => desk.schools.reduce((n, s) => n + s[of], 0);
    const nothing = desk.loops.length === 0 && desk.acrossLookAlikes === 0;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <div className="flex flex-wrap items-baseline gap-x-5">
                <h1 className="text-2xl">Desk</h1>
                <p className="text-sm text-muted">
                    {many(sum('students'), 'student')}, {sum('staff').toLocaleString('en')} staff,{' '}
                    {many(sum('sections'), 'section')} in {many(desk.schools.length, 'school')}
                </p>
            </div>
            <div className="mt-5 overflow-x-auto">
                <table className="border-collapse text-left">
                    <thead>
                        <tr className="border-b border-ink align-bottom text-xs text-muted">
                            <th className="min-w-64 py-2 pr-6 font-normal">What waits</th>
                            <th className="px-4 py-2 text-right font-normal">All</th>
                            {desk.schools.map((s) => (
                                <th key={s.id} className="min-w-36 px-4 py-2 text-right font-normal">
                                    <Link
                                        to={`/s/${s.code}/desk`}
                                        className="block min-h-6 font-serif text-base font-semibold text-ink underline decoration-rule underline-offset-4"
                                    >
                                        {s.name}
                                    </Link>
                                    {many(s.students, 'student')}
                                </th>
                            ))}
                        </tr>
                    </thead>
                    <tbody>
                        {desk.acrossLookAlikes > 0 && (
                            <tr className="border-b border-rule hover:bg-tint">
                                <th scope="row" className="py-2 pr-6 font-normal">
                                    <Link
                                        to={`/s/${ALL}/look-alikes?which=across`}
                                        className="font-semibold underline decoration-rule underline-offset-4"
                                    >
                                        {desk.acrossLookAlikes === 1
                                            ? 'Look-alike across schools'
                                            : 'Look-alikes across schools'}
                                    </Link>
                                    <span className="block text-sm text-muted">
                                        perhaps one child who has changed school
                                    </span>
                                </th>
                                <Total count={desk.acrossLookAlikes} />
                                <td colSpan={desk.schools.length} />
                            </tr>
                        )}
                        {desk.loops.map((loop) => (
                            <LoopRow key={loop.key} loop={loop} schools={desk.schools} />
                        ))}
                    </tbody>
                </table>
            </div>
            {nothing && (
                <Empty title="Nothing waits">
                    At none of these schools does anything wait that is not put off there.
                </Empty>
            )}
            <News desk={desk} />
        </div>
    );
}

function Total({ count }: { count: number }) {
    return <td className="px-4 py-2 text-right font-serif text-2xl font-semibold">{count.toLocaleString('en')}</td>;
}

function LoopRow({ loop, schools }: { loop: Schemas['DistrictLoop']; schools: Schemas['DistrictSchool'][] }) {
    return (
        <tr className="border-b border-rule hover:bg-tint">
            <th scope="row" className="py-2 pr-6 font-normal">
                <span className="font-semibold">{loop.title}</span>
                <span className="block text-sm text-muted">{loop.detail}</span>
            </th>
            <Total count={loop.total} />
            {schools.map((school) => {
                const at = loop.at.find((a) => a.schoolId === school.id);
                return (
                    <td key={school.id} className="px-4 py-2 text-right">
                        {at ? (
                            <>
                                <Link
                                    to={`/s/${school.code}/${at.path}`}
                                    aria-label={`${loop.title} at ${school.name}: ${at.count}`}
                                    className="inline-block min-h-6 min-w-6 font-mono underline decoration-rule underline-offset-4"
                                >
                                    {at.count.toLocaleString('en')}
                                </Link>
                                {at.since && <span className="block text-xs text-muted">{since(at.since)}</span>}
                            </>
                        ) : (
                            <span className="text-muted">none</span>
                        )}
                    </td>
                );
            })}
        </tr>
    );
}

/** What others have done at these schools since one was last there. */
function News({ desk }: { desk: Schemas['DistrictDesk'] }) {
    const read = useAct(() => api.POST('/api/schools/{realm}/desks/read', REALM), { stale: [['desks'], ['desk']] });
    if (desk.news.length === 0) return null;
    const school = (id: string) => desk.schools.find((s) => s.id === id);
    return (
        <section aria-labelledby="news" className="mt-6 max-w-4xl border-t border-rule pt-3">
            <div className="flex flex-wrap items-baseline justify-between gap-x-5">
                <h2 id="news" className="text-lg">
                    Done by others since you were last there
                </h2>
                <Button kind="quiet" onClick={() => read.run()} disabled={read.busy}>
                    I have read this
                </Button>
            </div>
            <ul className="mt-1 text-sm">
                {desk.news.map(({ schoolId, line }) => (
                    <li key={line.entryId} className="py-0.5">
                        <Link
                            className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            to={`/s/${school(schoolId)?.code ?? ''}/ledger?entry=${line.entryId}`}
                        >
                            {line.title}
                        </Link>{' '}
                        <span className="text-muted">
                            {school(schoolId)?.name}, {line.actor}, {moment(line.at)}
                            {line.undone && ', undone'}
                        </span>
                    </li>
                ))}
                {desk.more > 0 && (
                    <li className="py-0.5 text-muted">
                        and {many(desk.more, 'more entry', 'more entries')} in the Ledgers of the schools
                    </li>
                )}
            </ul>
        </section>
    );
}
