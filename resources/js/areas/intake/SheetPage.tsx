import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import { Choice } from '@/ui/Choice';
import { Instead } from '@/ui/Instead';
import { State } from '@/ui/State';
import { many, verdictInWords } from '@/ui/words';
import { ListQuestions } from './ListNotes';
import { SheetGrid } from './SheetGrid';
import { useIntake } from './useIntake';

const VERDICTS = ['new', 'update', 'same', 'leaving', 'ask', 'cannot'] as const;

/** The sheet cell for cell as it came, with the reading drawn over it; every band of it can be said otherwise. */
export function SheetPage() {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const [source, setSource] = useState(0);
    const { list, asked: detail, tell, sending } = useIntake(id);
    const pages = useInfiniteQuery({
        queryKey: ['intake-sheet', id, source, list?.round, list?.state === 'reading'],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/intakes/{intake}/sheet', {
                    params: { path: { intake: id }, query: { sheet: source, after: pageParam } },
                }),
            ),
        initialPageParam: 0,
        getNextPageParam: (page) => page.next ?? undefined,
        // The sheet stays in view while what was said of it is read into it.
        placeholderData: keepPreviousData,
        enabled: list !== undefined && list.state !== 'reading',
    });
    const rows = useMemo(() => pages.data?.pages.flatMap((p) => p.rows) ?? [], [pages.data]);
    useKey('Escape', 'Back to the plan', () => void navigate('..', { relative: 'path' }));
    if ((detail.error && !list) || (pages.error && !pages.data)) {
        return (
            <Instead
                of={detail.error ? detail : pages}
                what="the sheet"
                gone="It is not kept any more."
                way={
                    <Link className="underline" to=".." relative="path">
                        Back to the list
                    </Link>
                }
            />
        );
    }
    const sheets = pages.data?.pages[0]?.sheets ?? [];
    const name = sheets[source];
    if (!list || !name) {
        return (
            <p className="px-6 py-8 text-muted" role="status">
                Reading the sheet.
            </p>
        );
    }
    const busy = sending || list.state === 'reading';
    const asked = list.questions.filter((q) => q.row === null && q.answer === null);
    const open = list.state === 'planned' || list.state === 'unreadable';
    return (
        <div className="page">
            <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 px-6 pb-3 pt-4">
                <div>
                    <h1 className="text-2xl">{list.title}, as it was read</h1>
                    <p className="mt-1 text-sm text-muted">
                        {many(name.rows, 'row')} of {many(name.width, 'column')}.{' '}
                        {open
                            ? 'Choose the number of a row, or the head of a column, to say otherwise.'
                            : 'The list is closed; the sheet can be looked at.'}
                    </p>
                </div>
                <div className="flex flex-wrap items-center gap-x-6 gap-y-2 text-sm">
                    {sheets.length > 1 && (
                        <Choice
                            label="Sheet"
                            value={String(source)}
                            options={sheets.map((s, i) => ({ value: String(i), label: s.label }))}
                            onChange={(chosen) => setSource(Number(chosen))}
                        />
                    )}
                    <ul aria-label="How cells are marked" className="flex items-center gap-3 text-xs">
                        <li className="cell-mended px-1">corrected</li>
                        <li className="cell-asked px-1">asked</li>
                        <li className="cell-left px-1">nothing made of it</li>
                    </ul>
                </div>
            </header>
            {list.message && (
                <p className="mx-6 mb-3 border-l-[3px] border-madder pl-3 text-sm" role="alert">
                    {list.message}
                </p>
            )}
            {asked.length > 0 && (
                <ul className="px-6 pb-2 text-sm">
                    <ListQuestions questions={asked} open={list.state === 'planned'} onTell={tell} />
                </ul>
            )}
            <SheetGrid
                list={list}
                source={source}
                width={name.width}
                total={name.rows}
                rows={rows}
                busy={busy}
                open={open}
                onSay={tell}
                onEnd={() => {
                    if (pages.hasNextPage && !pages.isFetchingNextPage) void pages.fetchNextPage();
                }}
            />
            <footer className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1 border-t border-ink px-6 py-2.5 text-sm">
                <div role="status" className="flex flex-wrap items-center gap-x-5">
                    {busy
                        ? 'Reading it again.'
                        : VERDICTS.filter((v) => (list.verdicts[v] ?? 0) > 0).map((v) => (
                              <span key={v} className="flex items-center gap-1.5">
                                  <strong>{(list.verdicts[v] ?? 0).toLocaleString('en')}</strong>{' '}
                                  <State name={v} word={verdictInWords(v, list.verdicts[v])} />
                              </span>
                          ))}
                </div>
                <Link className="underline decoration-rule underline-offset-4" to=".." relative="path">
                    Back to the plan
                </Link>
            </footer>
        </div>
    );
}
