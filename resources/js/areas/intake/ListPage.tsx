import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { PlanView } from '@/ui/PlanView';
import { Progress } from '@/ui/Progress';
import { UndoDialog } from '@/areas/ledger/UndoDialog';
import { many } from '@/ui/words';
import { ColumnNames } from './ColumnNames';
import { ListNotes } from './ListNotes';
import { LeaveWithPassword } from './LeaveWithPassword';
import { MatchWeights } from './MatchWeights';
import { RepairList } from './RepairList';
import { useIntake } from './useIntake';
import { WhoseList } from './WhoseList';

const LEAVE_OUT = ['Guardians'];
/** Seconds without news after which the page says so. */
const QUIET = 45;
const WIDTHS = { Number: '76px', Grade: '58px', Section: 'minmax(110px, 1.5fr)', Guardians: 'minmax(110px, 2fr)' };

/** One list: how it was read, what it would change, the questions, and the button. */
export function ListPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [shown, setShown] = useState<string[]>([]);
    const [dialog, setDialog] = useState<
        '' | 'columns' | 'repairs' | 'whose' | 'weights' | 'password' | 'undo' | 'away'
    >('');
    const { list, asked, path, send, tell, sending } = useIntake(id);
    const rows = useInfiniteQuery({
        queryKey: ['intake-rows', id, list?.round, list?.fingerprint, shown],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/intakes/{intake}/rows', {
                    params: {
                        path: { intake: id },
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
            void queries.invalidateQueries({ queryKey: ['intakes'] });
        }
    }, [list?.state, list?.round, queries]);
    const readAs = (everyone: string | null, words = '') => {
        setDialog('');
        void send(() => data(api.POST('/api/intakes/{intake}/everyone', { ...path, body: { everyone, words } })));
    };
    const named = list?.sheets.find((s) => s.hasFullNames);
    const flip = () => named && tell({ [`t${named.index}.names`]: named.familyFirst ? 'given' : 'family' });
    const planned = list?.state === 'planned';
    useKey('f', 'Swap name order (family/given first)', flip, planned && named !== undefined);
    useKey('s', 'See the sheet as it was read', () => void navigate('sheet'), Boolean(list?.sheets.length));
    useKey('c', 'Name the columns', () => setDialog('columns'), planned);
    useKey('m', 'See what was corrected', () => setDialog('repairs'), planned);
    useKey('w', 'Say whose list it is', () => setDialog('whose'), planned);
    useKey('e', 'See what matches are judged by', () => setDialog('weights'), planned);
    const discard = useAct(() => api.DELETE('/api/intakes/{intake}', path), {
        stale: [['intakes']],
        then: () => void navigate(`/s/${school.code}/intake`),
        failed: (said) => say(said, { bad: true }),
    });
    if (!list)
        return <Instead of={asked} what="the list" gone="It has been discarded, or it belongs to another school." />;
    if (list.state === 'unreadable') {
        return (
            <Empty
                title={`${list.title} cannot be read`}
                action={
                    <div className="flex gap-3">
                        <Button kind="primary" onClick={() => void navigate(`/s/${school.code}/intake`)}>
                            Bring in another file
                        </Button>
                        <Button onClick={() => void navigate('sheet')}>See the sheet as it was read</Button>
                        {list.sheets.length > 0 && (
                            <Button onClick={() => setDialog('columns')}>Name the columns</Button>
                        )}
                        <Button kind="quiet" onClick={() => discard.run()}>
                            Discard this list
                        </Button>
                    </div>
                }
            >
                <p>{list.message} Nothing was changed.</p>
                <Dialog open={dialog === 'columns'} onClose={() => setDialog('')} title="What the columns hold" wide>
                    <ColumnNames list={list} onSay={tell} />
                </Dialog>
            </Empty>
        );
    }
    const applied = list.state === 'applied';
    const columns = list.sheets.flatMap((s) => s.columns).filter((c) => c.field).length;
    const mended = list.repairs.reduce((n, r) => n + r.count, 0);
    const layoutQuestions = list.questions.filter((q) => q.row === null && q.answer === null);
    const apply = (secret?: string) =>
        data(
            api.POST('/api/intakes/{intake}/apply', {
                ...path,
                body: { fingerprint: list.fingerprint ?? '', ...(secret === undefined ? {} : { password: secret }) },
            }),
        );
    const { waiting: left, going } = list;
    return (
        <>
            <PlanView
                title={list.title}
                subtitle={
                    <>
                        {many(list.rows, 'row')}
                        {list.sheets.length > 1
                            ? `, ${list.sheets.length} sheets`
                            : list.sheets[0] &&
                              `, ${list.sheets[0].headerRow ? `header in row ${list.sheets[0].headerRow}` : 'no header'}`}
                        ,{' '}
                        <Said
                            onClick={() => void navigate('sheet')}
                            off={false}
                            hint="s"
                            label="the sheet as it was read"
                        />
                        {named && (
                            <>
                                ,{' '}
                                <Said
                                    onClick={flip}
                                    off={!planned}
                                    hint="f"
                                    label={named.familyFirst ? 'family name first' : 'given name first'}
                                />
                            </>
                        )}
                        ,{' '}
                        <Said
                            onClick={() => setDialog('whose')}
                            off={!planned}
                            hint="w"
                            label={scopeWords(list.everyone, school)}
                        />
                        ,{' '}
                        <Said
                            onClick={() => setDialog('columns')}
                            off={!planned}
                            hint="c"
                            label={`${many(columns, 'column')} named`}
                        />
                        , <Said onClick={() => setDialog('weights')} off={!planned} hint="e" label="matching rules" />
                        {(mended > 0 || list.kept.length > 0) && (
                            <>
                                ,{' '}
                                <Said
                                    onClick={() => setDialog('repairs')}
                                    off={!planned}
                                    hint="m"
                                    label={`${many(mended, 'cell')} corrected`}
                                />
                            </>
                        )}
                    </>
                }
                verdicts={list.verdicts}
                rows={loaded}
                questions={list.questions}
                shown={shown}
                onShow={setShown}
                {...(list.state === 'planned'
                    ? {
                          onAnswer: tell,
                      }
                    : {})}
                onEnd={() => rows.hasNextPage && !rows.isFetchingNextPage && void rows.fetchNextPage()}
                widths={WIDTHS}
                leaveOut={LEAVE_OUT}
                notes={
                    <ListNotes
                        list={list}
                        school={school}
                        questions={layoutQuestions}
                        onTell={tell}
                        onReadAs={readAs}
                        onDomain={(domain) =>
                            void send(() =>
                                data(api.POST('/api/intakes/{intake}/domain', { ...path, body: { domain } })),
                            )
                        }
                    />
                }
                waiting={
                    list.state === 'reading' && loaded.length === 0 ? (
                        <p className="px-6 py-8 text-muted" role="status">
                            {list.quiet < QUIET
                                ? 'Reading the list and looking for everyone in it. You can leave this page and come back.'
                                : `Still reading, for ${list.quiet} seconds. If it was cut off, it begins again by itself within a few minutes.`}
                        </p>
                    ) : undefined
                }
                bar={
                    applied ? (
                        <footer className="flex items-center justify-between gap-6 border-t border-ink px-6 py-3">
                            <p className="text-sm">
                                Applied.{' '}
                                <span className="text-muted">The people are in the Roll and in their sections.</span>
                            </p>
                            <div className="flex items-center gap-4">
                                <Link
                                    className="text-sm underline decoration-rule underline-offset-4"
                                    to={`/s/${school.code}/roll`}
                                >
                                    See the Roll
                                </Link>
                                <Button className="min-h-10" onClick={() => setDialog('undo')}>
                                    Undo the whole list…
                                </Button>
                            </div>
                        </footer>
                    ) : list.state === 'applying' ? (
                        <footer className="flex items-center justify-between gap-6 border-t border-ink px-6 py-3">
                            <p className="text-sm">
                                {list.quiet < QUIET
                                    ? 'Applying: all rows or none. You can leave this page.'
                                    : `No news for ${list.quiet} seconds. Nothing of it counts yet. If it was cut off, it begins again by itself within a few minutes.`}
                            </p>
                            <Progress label="Prepared" done={list.done} total={list.total} />
                        </footer>
                    ) : (
                        <ApplyBar
                            sentence={list.sentence}
                            undoUntil={list.undoUntil}
                            button={left > 0 && going > 0 ? `Apply the other ${going.toLocaleString('en')}` : 'Apply'}
                            disabled={
                                sending || list.state !== 'planned' || list.changes === 0 || list.blockers.length > 0
                            }
                            danger={list.leaving > 0}
                            onApply={() => (list.password ? setDialog('password') : void send(() => apply()))}
                        >
                            {left > 0 && (
                                <a
                                    className="text-sm underline decoration-rule underline-offset-4"
                                    href={`/api/intakes/${id}/rows-to-mend`}
                                    download
                                >
                                    Download the rows to fix
                                </a>
                            )}
                            {(list.verdicts.ask ?? 0) > 0 && (
                                <span className="text-sm">
                                    <kbd className="border border-rule px-1.5 font-mono text-xs">]</kbd> next question
                                </span>
                            )}
                            <Button kind="quiet" onClick={() => setDialog('away')}>
                                Discard list…
                            </Button>
                        </ApplyBar>
                    )
                }
            />
            <Dialog open={dialog === 'columns'} onClose={() => setDialog('')} title="What the columns hold" wide>
                <ColumnNames list={list} onSay={tell} />
                <div className="mt-4 text-right">
                    <Button kind="primary" onClick={() => setDialog('')}>
                        Back to the plan
                    </Button>
                </div>
            </Dialog>
            {dialog === 'undo' && list.entryId && (
                <UndoDialog
                    entry={list.entryId}
                    title={list.title}
                    onClose={() => setDialog('')}
                    onDone={(said) => {
                        setDialog('');
                        say(said);
                    }}
                />
            )}
            <Dialog open={dialog === 'away'} onClose={() => setDialog('')} title={`Discard ${list.title}?`}>
                <p className="mb-5 text-sm">
                    The list and all you have answered about it are deleted. Nobody’s account is changed. To plan it
                    again, bring the file in again.
                </p>
                <div className="flex gap-3">
                    <Button kind="danger" disabled={discard.busy} onClick={() => discard.run()}>
                        Discard the list
                    </Button>
                    <Button onClick={() => setDialog('')}>Keep it</Button>
                </div>
            </Dialog>
            <Dialog open={dialog === 'repairs'} onClose={() => setDialog('')} title="What was corrected" wide>
                <RepairList list={list} onSay={tell} />
            </Dialog>
            <Dialog open={dialog === 'weights'} onClose={() => setDialog('')} title="How matches are scored" wide>
                <MatchWeights school={school} id={id} onChanged={() => tell({ weights: null })} />
            </Dialog>
            <Dialog open={dialog === 'whose'} onClose={() => setDialog('')} title="Whose list is it?">
                <WhoseList school={school} list={list} onSet={(everyone) => readAs(everyone)} />
            </Dialog>
            {dialog === 'password' && (
                <LeaveWithPassword
                    list={list}
                    onClose={() => setDialog('')}
                    onApply={async (password) => {
                        queries.setQueryData(['intake', id], await apply(password));
                    }}
                />
            )}
        </>
    );
}

/** Something said of the list that can be said otherwise. */
function Said({ label, onClick, off, hint }: { label: string; onClick: () => void; off: boolean; hint: string }) {
    return (
        <button
            className="underline decoration-rule underline-offset-4 hover:decoration-ink"
            onClick={onClick}
            disabled={off}
            title={hint}
        >
            {label}
        </button>
    );
}

function scopeWords(everyone: string | null, school: School): string {
    if (everyone === null) return 'additions';
    if (everyone.startsWith('section:')) return 'everyone in one section';
    const grade = school.grades.find((g) => everyone === `grade:${g.code}`);
    return grade ? `everyone in ${grade.label}` : `everyone at ${school.name}`;
}
