import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { day } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import type { GlyphName } from '@/ui/Glyph';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { Progress } from '@/ui/Progress';
import { State } from '@/ui/State';
import { useAddress, useTyped, type Changes } from '@/ui/useAddress';
import { many } from '@/ui/words';
import { InviteDialog, type Whom } from './InviteDialog';
import { TieSheet } from './TieSheet';

export type Tie = Schemas['GuardianLine'];
type Standing = Schemas['StandingCount']['standing'];

const STANDINGS: [Standing, string][] = [
    ['listed', 'listed'],
    ['invited', 'invited'],
    ['unanswered', 'not answered'],
    ['awaiting', 'awaiting check'],
    ['connected', 'connected'],
    ['refused', 'said no'],
    ['ended', 'ended'],
    ['restricted', 'restricted'],
    ['no_address', 'no address'],
];

const GLYPH: Record<string, GlyphName> = {
    connected: 'new',
    invited: 'leaving',
    'awaiting check': 'ask',
    restricted: 'locked',
    'said no': 'cannot',
    ended: 'archived',
};

/** How a guardian stands with a child, in a word or two. */
export function standing(tie: Tie): string {
    if (tie.restriction) return 'restricted';
    if (tie.awaiting) return 'awaiting check';
    if (tie.state === 'refused') return 'said no';
    return tie.state;
}

/** The guardians of a school's students and how each stands: invited, reminded, connected, ended. */
export function GuardiansPage({ school }: { school: School }) {
    const [search, change] = useAddress();
    const say = useNotice();
    const navigate = useNavigate();
    const filters = {
        standing: STANDINGS.find(([key]) => key === search.get('standing'))?.[0] ?? '',
        grade: search.get('grade') ?? '',
        section: search.get('section') ?? '',
        q: search.get('q') ?? '',
    } as const;
    const open = search.get('tie');
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    const [inviting, setInviting] = useState<Whom | null>(null);
    const set = (changes: Changes, keep = false) => {
        change(changes);
        if (!keep) setSelected(new Set());
    };
    const [text, setText] = useTyped(filters.q, set);
    const wanted = Object.fromEntries(Object.entries(filters).filter(([, value]) => value !== '')) as Whom;
    const asked = useInfiniteQuery({
        queryKey: ['guardians', school.id, filters],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/schools/{school}/guardians', {
                    params: { path: { school: school.id }, query: { ...(wanted as object), after: pageParam } },
                }),
            ),
        initialPageParam: 0,
        getNextPageParam: (last) => last.next ?? undefined,
    });
    const tallies = useQuery({
        queryKey: ['guardian-counts', school.id],
        queryFn: () =>
            data(api.GET('/api/schools/{school}/guardians/counts', { params: { path: { school: school.id } } })),
    });
    const sections = useQuery({
        queryKey: ['sections', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
    });
    const runs = useQuery({
        queryKey: ['guardian-runs', school.id],
        queryFn: () =>
            data(api.GET('/api/schools/{school}/guardians/runs', { params: { path: { school: school.id } } })),
        refetchInterval: (query) => (query.state.data?.runs.some(isOnItsWay) ? 1_000 : false),
    });
    const remind = useAct(
        (ids: string[]) =>
            data(
                api.POST('/api/schools/{school}/guardians/remind', {
                    params: { path: { school: school.id } },
                    body: { ids },
                }),
            ),
        {
            stale: [['guardians', school.id]],
            then: ({ said }) => say(said),
            failed: (said) => say(said, { bad: true }),
        },
    );
    const first = asked.data?.pages[0];
    const ties = useMemo(() => asked.data?.pages.flatMap((p) => p.lines) ?? [], [asked.data]);
    const chosen = ties.filter((t) => selected.has(t.id));
    const counts = new Map(tallies.data?.standings.map((c) => [c.standing, c.count]));
    const waiting = tallies.data?.requests ?? 0;
    const all = tallies.data?.all ?? 0;
    const narrowed = filters.q !== '' || filters.section !== '' || filters.grade !== '';
    // How many a filter by name, section or grade finds is known once all of them are here.
    const total = narrowed ? ties.length : filters.standing ? (counts.get(filters.standing) ?? 0) : all;
    const running = runs.data?.runs.find(isOnItsWay);
    const children = new Map(chosen.map((t) => [t.studentId, { id: t.studentId, name: t.student }]));
    const letters = () =>
        void navigate(`/s/${school.code}/print-room?part=letters`, { state: { people: [...children.values()] } });
    useKey('v', 'Invite guardians', () => setInviting(chosen.length > 0 ? { ids: chosen.map((t) => t.id) } : wanted));
    useKey('b', 'Remind those selected', () => remind.run(chosen.map((t) => t.id)), chosen.length > 0);
    useKey('p', 'Letters for those selected', letters, chosen.length > 0);
    const tie = ties.find((t) => t.id === open);
    return (
        <div className="page">
            <div className="flex flex-wrap items-baseline justify-between gap-x-5 gap-y-2 px-6 pb-3 pt-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Guardians</h1>
                    <p role="status" className="text-sm text-muted">
                        {tallies.data && many(all, 'guardian of a student', 'guardians of students')}
                    </p>
                </div>
                <div className="flex flex-wrap items-baseline gap-x-5">
                    {running && <Progress label="Sending invitations" done={running.done} total={running.total} />}
                    <Link
                        to={`/s/${school.code}/guardians/requests`}
                        className={`underline underline-offset-4 ${waiting > 0 ? 'font-semibold' : ''}`}
                    >
                        Requests{waiting > 0 && ` (${waiting})`}
                    </Link>
                    <button
                        className="min-h-9 rounded-card border border-ink bg-ink px-4 font-semibold text-paper disabled:opacity-50"
                        disabled={ties.length === 0}
                        onClick={() => setInviting(chosen.length > 0 ? { ids: chosen.map((t) => t.id) } : wanted)}
                    >
                        {chosen.length > 0 ? `Invite ${chosen.length} selected…` : 'Invite these…'}
                    </button>
                </div>
            </div>
            <div
                className="flex flex-wrap items-center gap-x-4 gap-y-1 px-6 pb-2 text-sm"
                role="group"
                aria-label="How they stand"
            >
                <Tally label="all" count={all} on={filters.standing === ''} set={() => set({ standing: null })} />
                {STANDINGS.map(([key, label]) => (
                    <Tally
                        key={key}
                        label={label}
                        count={counts.get(key) ?? 0}
                        on={filters.standing === key}
                        set={() => set({ standing: filters.standing === key ? null : key })}
                    />
                ))}
            </div>
            <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 pb-3">
                <input
                    type="search"
                    aria-label="Part of a name or address"
                    placeholder="Part of a name or address"
                    value={text}
                    onChange={(event) => setText(event.target.value)}
                    className="min-h-8 w-64 rounded-card border border-ink/60 bg-paper px-2 text-sm placeholder:text-muted"
                />
                <Choice
                    label="Section"
                    value={filters.section}
                    onChange={(value) => set({ section: value || null })}
                    options={[
                        { value: '', label: 'all' },
                        ...(sections.data?.sections ?? []).map((s) => ({ value: s.id, label: s.name })),
                    ]}
                />
                <Choice
                    label="Grade"
                    value={filters.grade}
                    onChange={(value) => set({ grade: value || null })}
                    options={[
                        { value: '', label: 'all' },
                        ...school.grades.map((g) => ({ value: g.code, label: g.short })),
                    ]}
                />
            </div>
            <div className="split">
                <DataTable
                    label="Guardians"
                    name="guardians"
                    rows={ties}
                    id={(t) => t.id}
                    current={open}
                    onOpen={(t) => set({ tie: t.id }, true)}
                    selected={selected}
                    onSelect={setSelected}
                    total={total}
                    sortable={false}
                    marked={(t) => t.awaiting}
                    onEnd={() => asked.hasNextPage && !asked.isFetchingNextPage && void asked.fetchNextPage()}
                    empty={
                        !first ? (
                            <Instead of={asked} what="the guardians" />
                        ) : all === 0 && tallies.data ? (
                            <Empty title="No guardians yet">
                                Bring in a list with guardians beside the students, or rows of their own; or print
                                family letters in the Print room.
                            </Empty>
                        ) : (
                            <Empty title="Nobody">No guardian is like that. Choose another filter.</Empty>
                        )
                    }
                    foot={
                        <span className="flex items-center justify-between">
                            <span>
                                {asked.hasNextPage
                                    ? narrowed
                                        ? `the first ${ties.length.toLocaleString('en')} loaded`
                                        : `${ties.length.toLocaleString('en')} of ${total.toLocaleString('en')} loaded`
                                    : many(ties.length, 'guardian')}
                                {chosen.length > 0 && `, ${chosen.length} selected`}
                            </span>
                            {chosen.length > 0 && (
                                <span className="flex gap-5">
                                    <button
                                        className="underline underline-offset-4"
                                        disabled={remind.busy}
                                        onClick={() => remind.run(chosen.map((t) => t.id))}
                                    >
                                        Remind
                                    </button>
                                    <button className="underline underline-offset-4" onClick={letters}>
                                        Letters
                                    </button>
                                </span>
                            )}
                        </span>
                    }
                    columns={[
                        { id: 'student', label: 'Child', value: (t) => t.student, width: 'minmax(140px, 1.4fr)' },
                        { id: 'grade', label: 'Grade', value: (t) => t.grade, width: '64px' },
                        { id: 'guardian', label: 'Guardian', value: (t) => t.guardian, width: 'minmax(140px, 1.4fr)' },
                        { id: 'relationship', label: 'Is', value: (t) => t.relationship, width: '90px', extra: true },
                        {
                            id: 'email',
                            label: 'Mail address',
                            value: (t) => t.email,
                            cell: (t) => t.email || <span className="text-muted">none</span>,
                            width: 'minmax(160px, 1.6fr)',
                        },
                        { id: 'phone', label: 'Phone', value: (t) => t.phone, width: '130px', extra: true },
                        {
                            id: 'state',
                            label: 'Stands',
                            value: standing,
                            cell: (t) => <State name={GLYPH[standing(t)] ?? 'same'} word={standing(t)} />,
                            width: '128px',
                        },
                        {
                            id: 'since',
                            label: 'Since',
                            value: (t) => t.since ?? '',
                            cell: (t) => (t.since ? day(t.since.slice(0, 10)) : ''),
                            width: '100px',
                        },
                        { id: 'by', label: 'By', value: (t) => t.by, width: '130px', extra: true },
                        {
                            id: 'consent',
                            label: 'Consent',
                            value: (t) => t.consentOn ?? '',
                            cell: (t) => (t.consentOn ? day(t.consentOn) : ''),
                            width: '100px',
                            extra: true,
                        },
                    ]}
                />
                {tie && <TieSheet key={tie.id} tie={tie} school={school} onClose={() => set({ tie: null }, true)} />}
            </div>
            {inviting && (
                <InviteDialog
                    school={school}
                    whom={inviting}
                    onClose={() => setInviting(null)}
                    onDone={() => {
                        setInviting(null);
                        setSelected(new Set());
                        void runs.refetch();
                    }}
                />
            )}
        </div>
    );
}

function isOnItsWay(run: Schemas['InviteRunLine']): boolean {
    return run.state === 'waiting' || run.state === 'working';
}

function Tally({ label, count, on, set }: { label: string; count: number; on: boolean; set: () => void }) {
    if (count === 0 && !on && label !== 'all') return null;
    return (
        <button
            aria-pressed={on}
            onClick={set}
            className={`min-h-7 border-b-[3px] ${on ? 'border-marigold font-semibold' : 'border-unseen hover:border-rule'}`}
        >
            {label} <span className="font-mono text-xs">{count.toLocaleString('en')}</span>
        </button>
    );
}
