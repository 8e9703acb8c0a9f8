import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { BeforeAfter } from '@/ui/BeforeAfter';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { day, moment } from '@/ui/dates';
import { Downloads } from '@/ui/Downloads';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { SideSheet } from '@/ui/SideSheet';
import { State } from '@/ui/State';
import { UndoDialog } from './UndoDialog';

const AREAS = [
    { value: 'intake', label: 'Intake' },
    { value: 'roll', label: 'Roll' },
    { value: 'look_alikes', label: 'Look-alikes' },
    { value: 'sections', label: 'Sections' },
    { value: 'codes', label: 'Codes and doors' },
    { value: 'staff', label: 'Staff' },
    { value: 'print_room', label: 'Print room' },
    { value: 'accounts', label: 'Accounts' },
    { value: 'year_turn', label: 'Year turn' },
    { value: 'settings', label: 'Settings' },
] as const;
type Area = (typeof AREAS)[number]['value'];
const FILTERS = ['area', 'actor', 'from', 'to', 'about'] as const;

/** What the address asks for, without what it leaves open. */
function asked(search: URLSearchParams): { area?: Area } & Partial<Record<(typeof FILTERS)[number], string>> {
    const area = AREAS.find((a) => a.value === search.get('area'))?.value;
    const rest = FILTERS.filter((name) => name !== 'area' && search.get(name));
    return { ...Object.fromEntries(rest.map((name) => [name, search.get(name)])), ...(area ? { area } : {}) };
}

/** Every change, who made it and when, with its undo. */
export function LedgerPage({ school }: { school: School }) {
    const [search, setSearch] = useSearchParams();
    const say = useNotice();
    const open = search.get('entry');
    const [undoing, setUndoing] = useState(false);
    const filters = asked(search);
    const filtered = Object.keys(filters).length > 0;
    const set = (changes: Record<string, string | null>) => {
        const next = new URLSearchParams(search);
        for (const [name, value] of Object.entries(changes)) {
            if (value) next.set(name, value);
            else next.delete(name);
        }
        setSearch(next, { replace: true });
    };
    const sheet = (as: Record<string, string>) =>
        `/api/schools/${school.id}/ledger/sheet?${new URLSearchParams({ ...filters, ...as })}`;
    const clear = () => set(Object.fromEntries(FILTERS.map((name) => [name, null])));
    useKey('c', 'Clear the filters', clear, filtered);
    const page = useInfiniteQuery({
        queryKey: ['ledger', school.id, filters],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/schools/{school}/ledger', {
                    params: {
                        path: { school: school.id },
                        query: { ...filters, ...(pageParam ? { after: pageParam } : {}) },
                    },
                }),
            ),
        initialPageParam: 0,
        getNextPageParam: (last) => (last.next === null ? undefined : Number(last.next)),
        placeholderData: keepPreviousData,
    });
    const entries = useMemo(() => page.data?.pages.flatMap((p) => p.entries) ?? [], [page.data]);
    const { data: detail } = useQuery({
        queryKey: ['entry', open],
        queryFn: () => data(api.GET('/api/ledger/{entry}', { params: { path: { entry: open ?? '' } } })),
        enabled: open !== null,
    });
    const redo = useAct(
        (id: string) => data(api.POST('/api/ledger/{entry}/redo', { params: { path: { entry: id } } })),
        {
            then: (line) => say(`Done again: ${line.title}.`),
            failed: (said) => say(said, { bad: true }),
        },
    );
    if (!page.data) return <Instead of={page} what="the Ledger" />;
    const actors = page.data.pages[0]?.actors ?? [];
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Ledger</h1>
                    <p className="min-w-0 flex-1 text-sm text-muted">every change, who made it, and its undo</p>
                    <Downloads
                        label={filtered ? 'These as' : 'All as'}
                        href={(format) => sheet({ format })}
                        formats={['xlsx', 'csv']}
                    />
                    <Downloads
                        label="Every field as"
                        href={(format) => sheet({ records: 'true', format })}
                        formats={['csv']}
                    />
                </div>
                <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
                    <Choice
                        label="Area"
                        value={filters.area ?? ''}
                        onChange={(area) => set({ area })}
                        options={[{ value: '', label: 'all' }, ...AREAS]}
                    />
                    <Choice
                        label="Who"
                        value={filters.actor ?? ''}
                        onChange={(actor) => set({ actor })}
                        options={[
                            { value: '', label: 'everybody' },
                            ...actors.map((a) => ({ value: a.id, label: a.name })),
                        ]}
                    />
                    <Day label="From" value={filters.from ?? ''} onChange={(from) => set({ from })} />
                    <Day label="to" value={filters.to ?? ''} onChange={(to) => set({ to })} />
                    {filters.about && (
                        <span className="text-sm">
                            About {page.data.pages[0]?.about}{' '}
                            <button
                                aria-label="About anybody and anything again"
                                className="min-h-6 min-w-6 text-muted"
                                onClick={() => set({ about: null })}
                            >
                                ×
                            </button>
                        </span>
                    )}
                    {filtered && (
                        <Button kind="quiet" onClick={clear}>
                            Clear the filters
                        </Button>
                    )}
                </div>
            </div>
            <div className="split">
                <DataTable
                    label="Ledger"
                    name="ledger"
                    rows={entries}
                    id={(e) => e.id}
                    current={open}
                    onOpen={(e) => set({ entry: e.id })}
                    onEnd={() => page.hasNextPage && !page.isFetchingNextPage && void page.fetchNextPage()}
                    empty={
                        filtered ? (
                            <Empty
                                title="Nothing of that kind"
                                action={<Button onClick={clear}>Clear the filters</Button>}
                            >
                                Nothing was changed that fits all of these.
                            </Empty>
                        ) : (
                            <Empty title="Nothing has been changed yet">
                                Every list, merge, move and year turn will appear here, with its undo.
                            </Empty>
                        )
                    }
                    columns={[
                        {
                            id: 'title',
                            label: 'What',
                            value: (e) => e.title,
                            cell: (e) => (e.undoneAt ? <del>{e.title}</del> : e.title),
                            width: 'minmax(200px, 2.4fr)',
                        },
                        {
                            id: 'changes',
                            label: 'Records',
                            value: (e) => e.changes,
                            cell: (e) => e.changes.toLocaleString('en'),
                            width: '80px',
                        },
                        { id: 'actor', label: 'Who', value: (e) => e.actor, width: 'minmax(110px, 1fr)' },
                        { id: 'at', label: 'When', value: (e) => e.seq, cell: (e) => moment(e.madeAt), width: '160px' },
                        {
                            id: 'state',
                            label: 'Undo',
                            value: (e) => (e.undoneAt ? 2 : e.canUndo ? 0 : 1),
                            cell: (e) =>
                                e.undoneAt ? (
                                    <State name="leaving" word="undone" />
                                ) : e.canUndo ? (
                                    `until ${day(e.undoUntil ?? '')}`
                                ) : (
                                    <State name="locked" word="no more" />
                                ),
                            width: '126px',
                        },
                    ]}
                />
                {open && detail && (
                    <SideSheet
                        title={detail.entry.title}
                        subtitle={`${detail.entry.actor}, ${moment(detail.entry.madeAt)}`}
                        onClose={() => set({ entry: null })}
                    >
                        <p className="text-sm">{detail.entry.sentence}</p>
                        {detail.entry.undoneAt && (
                            <p className="mt-2 text-sm text-muted">Undone {moment(detail.entry.undoneAt)}.</p>
                        )}
                        {detail.entry.kept.length > 0 && (
                            <div className="mt-3 border-l-[3px] border-marigold pl-3 text-sm">
                                <p>Stayed as it is, because it has changed since:</p>
                                <ul>
                                    {detail.entry.kept.map((k) => (
                                        <li key={k}>{k}</li>
                                    ))}
                                </ul>
                            </div>
                        )}
                        {detail.entry.canUndo && (
                            <div className="mt-4">
                                <Button kind="primary" onClick={() => setUndoing(true)}>
                                    Undo all of this…
                                </Button>
                            </div>
                        )}
                        {detail.entry.canRedo && (
                            <div className="mt-4">
                                <Button onClick={() => redo.run(detail.entry.id)}>Do it again</Button>
                            </div>
                        )}
                        {undoing && (
                            <UndoDialog
                                entry={detail.entry.id}
                                title={detail.entry.title}
                                onClose={() => setUndoing(false)}
                                onDone={(said) => {
                                    setUndoing(false);
                                    say(said);
                                }}
                            />
                        )}
                        <h3 className="mb-1 mt-5 border-b border-rule pb-1 text-base">
                            {detail.entry.changes.toLocaleString('en')}{' '}
                            {detail.entry.changes === 1 ? 'record' : 'records'}
                            {detail.changes.length < detail.entry.changes && `, the first ${detail.changes.length}`}
                        </h3>
                        <ul className="text-sm">
                            {detail.changes.map((c, i) => (
                                <li key={i} className="border-b border-rule py-1.5">
                                    <span className="text-muted">{c.what}</span> {c.record}
                                    {c.fields.map((f) => (
                                        <span key={f.field} className="block break-words text-xs">
                                            <span className="text-muted">{f.field}</span>{' '}
                                            <BeforeAfter cell={f.after ? f : { before: f.before, after: 'none' }} />
                                        </span>
                                    ))}
                                </li>
                            ))}
                        </ul>
                    </SideSheet>
                )}
            </div>
        </div>
    );
}

function Day({ label, value, onChange }: { label: string; value: string; onChange: (day: string) => void }) {
    return (
        <label className="flex items-center gap-2 text-sm text-muted">
            {label}
            <input
                type="date"
                value={value}
                onChange={(event) => onChange(event.target.value)}
                className="min-h-8 rounded-card border border-ink/60 bg-paper px-2 text-sm text-ink"
            />
        </label>
    );
}
