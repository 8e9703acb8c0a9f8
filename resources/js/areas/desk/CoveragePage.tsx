import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { type Column, DataTable } from '@/ui/DataTable';
import { Downloads } from '@/ui/Downloads';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { CoverageChart } from './CoverageChart';

type Line = Schemas['CoverageLine'];

/** How many have signed in, have a card, have a guardian connected: over the weeks, and by grade and section. */
export function CoveragePage({ school }: { school: School }) {
    const [search, setSearch] = useSearchParams();
    const part = search.get('part') ?? '';
    const asked = useQuery({
        queryKey: ['coverage', school.id, part],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/coverage', {
                    params: { path: { school: school.id }, query: part ? { part } : {} },
                }),
            ),
        placeholderData: keepPreviousData,
    });
    const columns = useMemo(
        (): Column<Line>[] => [
            {
                id: 'name',
                label: 'Of',
                value: (l) => l.name,
                cell: (l) => <span className={l.kind === 'school' ? 'font-semibold' : ''}>{l.name}</span>,
                width: 'minmax(140px, 1.4fr)',
            },
            { id: 'students', label: 'Students', value: (l) => l.students, width: '78px' },
            share('signedIn', 'Signed in'),
            share('carded', 'With a card'),
            share('connected', 'Guardian connected'),
        ],
        [],
    );
    const page = asked.data;
    if (!page) return <Instead of={asked} what="the coverage" />;
    const shown = page.lines.find((l) => l.id === part) ?? page.lines[0];
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Coverage</h1>
                    <p className="min-w-0 flex-1 text-sm text-muted">
                        how far the accounts of the students have come; in small, points more than four weeks ago
                    </p>
                    <Downloads
                        label="As a sheet"
                        href={(format) => `/api/schools/${school.id}/coverage/sheet?format=${format}`}
                        formats={['xlsx', 'ods', 'csv']}
                    />
                </div>
                {shown && <CoverageChart line={shown} weeks={page.weeks} />}
            </div>
            <DataTable
                label="Coverage by grade and section"
                name="coverage"
                rows={page.lines}
                id={(l) => l.id || 'school'}
                current={part || 'school'}
                onOpen={(l) => setSearch(l.id ? { part: l.id } : {}, { replace: true })}
                columns={columns}
                empty={<Empty title="No students yet">Bring a list in; then this shows how many have come.</Empty>}
            />
        </div>
    );
}

function share(of: 'signedIn' | 'carded' | 'connected', label: string): Column<Line> {
    return {
        id: of,
        label,
        value: (l) => l[of] / l.students,
        cell: (l) => {
            const now = Math.round((100 * l[of]) / l.students);
            const before =
                l.before && l.before.students > 0 ? Math.round((100 * l.before[of]) / l.before.students) : null;
            const more = before === null ? 0 : now - before;
            return (
                <span className="flex items-center gap-2">
                    <svg width="84" height="10" viewBox="0 0 84 10" aria-hidden="true" className="shrink-0">
                        <rect width="84" height="10" fill="var(--rule)" opacity="0.5" />
                        <rect width={(84 * l[of]) / l.students} height="10" fill="var(--ink)" />
                    </svg>
                    <span className="font-mono">{now} %</span>
                    {more !== 0 && (
                        <span className="truncate text-xs text-muted">
                            {more > 0 ? `+${more}` : `−${-more}`}
                            <span className="sr-only"> points in four weeks</span>
                        </span>
                    )}
                </span>
            );
        },
        width: 'minmax(170px, 1.3fr)',
    };
}
