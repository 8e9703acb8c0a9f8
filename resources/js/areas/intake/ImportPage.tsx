import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data, type Schemas, sentence } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Empty } from '@/ui/Empty';
import { useNotice } from '@/ui/Notice';
import { PlanView } from '@/ui/PlanView';
import { Progress } from '@/ui/Progress';
import { ColumnNames } from './ColumnNames';

type Detail = Schemas['ImportDetail'];

const LEAVE_OUT = ['Guardians'];
const WIDTHS = { Number: '76px', Grade: '58px', Section: 'minmax(110px, 1.5fr)', Guardians: 'minmax(110px, 2fr)' };

/** One list: how it was read, what it would change, the questions, and the button. */
export function ImportPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [shown, setShown] = useState<string[]>([]);
    const [columns, setColumns] = useState(false);
    const path = { params: { path: { import: id } } };
    const { data: list, error } = useQuery({
        queryKey: ['import', id],
        queryFn: () => data(api.GET('/api/imports/{import}', path)),
        refetchInterval: (query) => (['reading', 'applying'].includes(query.state.data?.state ?? '') ? 400 : false),
    });
    const rows = useInfiniteQuery({
        queryKey: ['import-rows', id, list?.round, list?.fingerprint, shown],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/imports/{import}/rows', {
                    params: {
                        path: { import: id },
                        query: { after: pageParam, ...(shown.length ? { verdict: shown.join(',') } : {}) },
                    },
                }),
            ),
        initialPageParam: 0,
        getNextPageParam: (page) => (page.next === null ? undefined : Number(page.next)),
        enabled: list?.state === 'planned' || list?.state === 'applying' || list?.state === 'applied',
    });
    const loaded = useMemo(() => rows.data?.pages.flatMap((p) => p.rows) ?? [], [rows.data]);
    // When a list is done or planned anew, the counts in the margin and the list of lists follow.
    useEffect(() => {
        if (list?.state === 'applied' || list?.state === 'planned') {
            void queries.invalidateQueries({ queryKey: ['desk'] });
            void queries.invalidateQueries({ queryKey: ['imports'] });
        }
    }, [list?.state, list?.round, queries]);
    const [sending, setSending] = useState(0);
    const send = async (work: () => Promise<Detail>) => {
        // While something said of the list is on its way, the plan on the screen is not the plan any more.
        setSending((n) => n + 1);
        try {
            queries.setQueryData(['import', id], await work());
        } catch (e) {
            say(sentence(e), { bad: true });
            await queries.invalidateQueries({ queryKey: ['import', id] });
        } finally {
            setSending((n) => n - 1);
        }
    };
    const flip = () =>
        void send(() => data(api.POST('/api/imports/{import}/layout', { ...path, body: { family_first: !list?.familyFirst } })));
    useKey('f', 'Turn names round: family or given first', flip, list?.state === 'planned');
    useKey('c', 'Name the columns', () => setColumns(true), list?.state === 'planned');
    const undo = async () => {
        if (!list?.entryId) return;
        try {
            const line = await data(api.POST('/api/ledger/{entry}/undo', { params: { path: { entry: list.entryId } } }));
            await queries.invalidateQueries();
            say(
                line.kept.length
                    ? `Undone, except ${line.kept.length} that changed since; the Ledger lists them.`
                    : 'Undone. The list is a plan again.',
            );
        } catch (e) {
            say(sentence(e), { bad: true });
        }
    };
    const discard = async () => {
        try {
            await api.DELETE('/api/imports/{import}', path);
            await queries.invalidateQueries({ queryKey: ['imports'] });
            void navigate(`/s/${school.code}/intake`);
        } catch (e) {
            say(sentence(e), { bad: true });
        }
    };
    if (error) return <Empty title="This list is not here">It may have been thrown away, or it belongs to another school.</Empty>;
    if (!list) return null;
    if (list.state === 'unreadable') {
        return (
            <Empty
                title={`${list.title} cannot be read`}
                action={
                    <div className="flex gap-3">
                        <Button kind="primary" onClick={() => void navigate(`/s/${school.code}/intake`)}>
                            Bring in another file
                        </Button>
                        {list.columns.length > 0 && <Button onClick={() => setColumns(true)}>Name the columns</Button>}
                        <Button kind="quiet" onClick={() => void discard()}>
                            Throw this list away
                        </Button>
                    </div>
                }
            >
                <p>{list.message} Nothing was changed.</p>
                <NamingDialog list={list} open={columns} onClose={() => setColumns(false)} send={send} id={id} />
            </Empty>
        );
    }
    const applied = list.state === 'applied';
    const named = list.columns.filter((c) => c.field).length;
    const left = (list.verdicts.ask ?? 0) + (list.verdicts.cannot ?? 0);
    const going = list.total - left - (list.verdicts.same ?? 0);
    return (
        <>
            <PlanView
                title={list.title}
                subtitle={
                    <>
                        {list.total.toLocaleString('en')} rows, {list.headerRow ? `header in row ${list.headerRow}` : 'no header'}
                        ,{' '}
                        <button
                            className="underline decoration-rule underline-offset-4 hover:decoration-ink"
                            onClick={flip}
                            disabled={list.state !== 'planned'}
                            title="f"
                        >
                            {list.familyFirst ? 'family name first' : 'given name first'}
                        </button>
                        , additions,{' '}
                        <button
                            className="underline decoration-rule underline-offset-4 hover:decoration-ink"
                            onClick={() => setColumns(true)}
                            disabled={list.state !== 'planned'}
                            title="c"
                        >
                            {named} {named === 1 ? 'column' : 'columns'} named
                        </button>
                    </>
                }
                verdicts={list.verdicts}
                rows={loaded}
                questions={list.questions}
                shown={shown}
                onShow={setShown}
                {...(list.state === 'planned'
                    ? {
                          onAnswer: (question: string, choice: string | null) =>
                              void send(() =>
                                  data(
                                      api.POST('/api/imports/{import}/answers', {
                                          ...path,
                                          body: { answers: { [question]: choice } },
                                      }),
                                  ),
                              ),
                      }
                    : {})}
                onEnd={() => rows.hasNextPage && !rows.isFetchingNextPage && void rows.fetchNextPage()}
                widths={WIDTHS}
                leaveOut={LEAVE_OUT}
                notes={
                    (list.message || list.warnings.length > 0) && (
                        <ul className="px-6 pb-2 text-sm">
                            {list.message && <li className="border-l-[3px] border-marigold pl-3">{list.message}</li>}
                            {list.warnings.map((w) => (
                                <li key={w} className="border-l-[3px] border-rule pl-3">
                                    {w}
                                </li>
                            ))}
                        </ul>
                    )
                }
                waiting={
                    list.state === 'reading' && loaded.length === 0 ? (
                        <p className="px-6 py-8 text-muted" role="status">
                            Reading the list and looking for everyone in it. You can leave this page and come back.
                        </p>
                    ) : undefined
                }
                bar={
                    applied ? (
                        <footer className="flex items-center justify-between gap-6 border-t border-ink px-6 py-3">
                            <p className="text-sm">
                                Applied. <span className="text-muted">The people are in the Roll and in their sections.</span>
                            </p>
                            <div className="flex items-center gap-4">
                                <Link
                                    className="text-sm underline decoration-rule underline-offset-4"
                                    to={`/s/${school.code}/roll`}
                                >
                                    See the Roll
                                </Link>
                                <Button className="min-h-10" onClick={() => void undo()}>
                                    Undo the whole list
                                </Button>
                            </div>
                        </footer>
                    ) : list.state === 'applying' ? (
                        <footer className="flex items-center justify-between gap-6 border-t border-ink px-6 py-3">
                            <p className="text-sm">Being applied, whole or not at all. You can leave this page.</p>
                            <Progress label="Writing" done={list.done} total={list.total} />
                        </footer>
                    ) : (
                        <ApplyBar
                            sentence={list.blockers[0] ?? list.sentence}
                            undoUntil={list.undoUntil}
                            button={left > 0 && going > 0 ? `Apply the other ${going.toLocaleString('en')}` : 'Apply'}
                            disabled={sending > 0 || list.state !== 'planned' || list.changes === 0 || list.blockers.length > 0}
                            onApply={() =>
                                send(() =>
                                    data(
                                        api.POST('/api/imports/{import}/apply', {
                                            ...path,
                                            body: { fingerprint: list.fingerprint ?? '' },
                                        }),
                                    ),
                                )
                            }
                        >
                            {(list.verdicts.ask ?? 0) > 0 && (
                                <span className="text-sm">
                                    <kbd className="border border-rule px-1.5 font-mono text-xs">]</kbd> next question
                                </span>
                            )}
                            <Button kind="quiet" onClick={() => void discard()}>
                                Throw away
                            </Button>
                        </ApplyBar>
                    )
                }
            />
            <NamingDialog list={list} open={columns} onClose={() => setColumns(false)} send={send} id={id} />
        </>
    );
}

function NamingDialog({
    list,
    open,
    onClose,
    send,
    id,
}: {
    list: Detail;
    open: boolean;
    onClose: () => void;
    send: (work: () => Promise<Detail>) => Promise<void>;
    id: string;
}) {
    return (
        <Dialog open={open} onClose={onClose} title="What the columns hold" wide>
            <ColumnNames
                list={list}
                onName={(index, field) =>
                    void send(() =>
                        data(
                            api.POST('/api/imports/{import}/layout', {
                                params: { path: { import: id } },
                                body: { columns: { [index]: field } },
                            }),
                        ),
                    )
                }
            />
            <div className="mt-4 text-right">
                <Button kind="primary" onClick={onClose}>
                    Back to the plan
                </Button>
            </div>
        </Dialog>
    );
}
