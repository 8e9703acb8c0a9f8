import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { day, moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { SideSheet } from '@/ui/SideSheet';
import { State } from '@/ui/State';
import { UndoDialog } from './UndoDialog';

/** Every change, who made it and when, with its undo. */
export function LedgerPage({ school }: { school: School }) {
    const [search, setSearch] = useSearchParams();
    const say = useNotice();
    const open = search.get('entry');
    const [undoing, setUndoing] = useState(false);
    const page = useInfiniteQuery({
        queryKey: ['ledger', school.id],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/schools/{school}/ledger', {
                    params: { path: { school: school.id }, ...(pageParam ? { query: { after: pageParam } } : {}) },
                }),
            ),
        initialPageParam: 0,
        getNextPageParam: (last) => (last.next === null ? undefined : Number(last.next)),
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
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Ledger</h1>
                    <p className="text-sm text-muted">every change, who made it, and its undo</p>
                </div>
            </div>
            <div className="split">
                <DataTable
                    label="Ledger"
                    name="ledger"
                    rows={entries}
                    id={(e) => e.id}
                    current={open}
                    onOpen={(e) => setSearch({ entry: e.id }, { replace: true })}
                    onEnd={() => page.hasNextPage && !page.isFetchingNextPage && void page.fetchNextPage()}
                    empty={
                        <Empty title="Nothing has been changed yet">
                            Every list, merge, move and year turn will appear here, with its undo.
                        </Empty>
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
                        onClose={() => setSearch({}, { replace: true })}
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
                                    <span className="block break-words text-xs text-muted">
                                        {c.before && <del>{c.before}</del>} {c.after}
                                    </span>
                                </li>
                            ))}
                        </ul>
                    </SideSheet>
                )}
            </div>
        </div>
    );
}
