import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { since } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { many } from '@/ui/words';

/** What waits, counted, oldest first; each one click from where it is worked on. */
export function DeskPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const asked = useQuery({
        queryKey: ['desk', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/desk', { params: { path: { school: school.id } } })),
    });
    const desk = asked.data;
    if (!desk) return <Instead of={asked} what="the Desk" />;
    const people = desk.counts;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <div className="flex flex-wrap items-baseline gap-x-5">
                <h1 className="text-2xl">Desk</h1>
                <p className="text-sm text-muted">
                    {many(people.students ?? 0, 'student')}, {many(people.guardians ?? 0, 'guardian')},{' '}
                    {people.staff ?? 0} staff, {many(people.sections ?? 0, 'section')}
                </p>
            </div>
            {(people.students ?? 0) === 0 ? (
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
                    Every list is applied, every student is placed, every invitation answered.
                </Empty>
            ) : (
                <table className="mt-5 w-full max-w-4xl border-collapse text-left">
                    <thead>
                        <tr className="border-b border-ink text-xs text-muted">
                            <th className="w-20 py-2 pr-5 text-right font-normal">How many</th>
                            <th className="py-2 font-normal">What waits</th>
                            <th className="w-32 py-2 font-normal">Since</th>
                        </tr>
                    </thead>
                    <tbody>
                        {desk.loops.map((loop) => (
                            <tr key={loop.key} className="group border-b border-rule hover:bg-tint">
                                <td className="py-2 pr-5 text-right font-serif text-2xl font-semibold">
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
                            </tr>
                        ))}
                    </tbody>
                </table>
            )}
        </div>
    );
}
