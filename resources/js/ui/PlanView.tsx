import { type ReactNode, useEffect, useMemo, useState } from 'react';
import type { Schemas } from '@/api/client';
import { useKey } from '@/shell/keys';
import { BeforeAfter } from './BeforeAfter';
import { Button } from './Button';
import { type Column, DataTable } from './DataTable';
import { EvidenceBars } from './Evidence';
import { Glyph, type GlyphName } from './Glyph';
import { SideSheet } from './SideSheet';
import { State } from './State';
import { verdictInWords } from './words';

type PlanRow = Schemas['PlanRow'];
type Question = Schemas['Question'];

interface Props {
    title: string;
    subtitle: ReactNode;
    verdicts: Record<string, number>;
    /** Word for each verdict, where the plain one would not do. */
    words?: Record<string, string>;
    rows: PlanRow[];
    questions: Question[];
    shown: string[];
    onShow: (verdicts: string[]) => void;
    /** Question to key of its choice, null to take an answer back; other keys say how a cell is to be read. */
    onAnswer?: (answers: Record<string, string | null>) => void;
    onEnd?: () => void;
    /** Headings that give way while the sheet is open. */
    leaveOut?: string[];
    /** Widths by heading; the rest share the room. */
    widths?: Record<string, string>;
    numbered?: string;
    notes?: ReactNode;
    picture?: ReactNode;
    /** Rendered in place of rows while the plan is being worked out. */
    waiting?: ReactNode;
    bar: ReactNode;
    sheet?: (row: PlanRow) => ReactNode;
}

const NONE: Record<string, string> = {};
const NOTHING: string[] = [];
const ORDER: GlyphName[] = ['new', 'update', 'same', 'leaving', 'archived', 'ask', 'cannot'];

/**
 * The one view of every plan: tallies that filter, rows with before and after in one cell, evidence and questions at
 * the right.
 */
export function PlanView(props: Props) {
    const {
        title,
        subtitle,
        verdicts,
        words = NONE,
        rows,
        questions,
        shown,
        onShow,
        onAnswer,
        onEnd,
        widths = NONE,
        leaveOut = NOTHING,
        numbered = 'Row',
        notes,
        picture,
        waiting,
        bar,
        sheet,
    } = props;
    const [current, setCurrent] = useState<string | null>(null);
    const [seeking, setSeeking] = useState(false);
    const [alike, setAlike] = useState(false);
    const sheets = useMemo(() => rows.some((r) => r.sheet !== ''), [rows]);
    const headings = useMemo(() => Object.keys(rows[0]?.cells ?? {}), [rows]);
    const byId = useMemo(() => new Map(questions.map((q) => [q.id, q])), [questions]);
    const narrow = current !== null;
    const columns = useMemo<Column<PlanRow>[]>(
        () => [
            {
                id: 'number',
                label: numbered,
                value: (r) => r.number,
                cell: (r) => <span className="font-mono text-muted">{r.number || ''}</span>,
                width: '50px',
            },
            ...(sheets && !narrow
                ? [
                      {
                          id: 'sheet',
                          label: 'Sheet',
                          value: (r: PlanRow) => r.sheet,
                          cell: (r: PlanRow) => <span className="text-muted">{r.sheet}</span>,
                          width: 'minmax(70px, 1fr)',
                      },
                  ]
                : []),
            {
                id: 'verdict',
                label: 'Verdict',
                value: (r) => r.verdict,
                cell: (r) => <State name={r.verdict} word={words[r.verdict] ?? verdictInWords(r.verdict)} />,
                width: '134px',
            },
            ...headings
                .filter((heading) => !(narrow && leaveOut.includes(heading)))
                .map((heading) => ({
                    id: heading,
                    label: heading,
                    value: (r: PlanRow) => r.cells[heading]?.after ?? '',
                    cell: (r: PlanRow) => (
                        <BeforeAfter
                            cell={r.cells[heading]}
                            bad={r.problems.some(
                                (p) =>
                                    p.stops &&
                                    p.column !== '' &&
                                    heading.toLowerCase().startsWith(p.column.toLowerCase()),
                            )}
                        />
                    ),
                    width: widths[heading] ?? 'minmax(140px, 3fr)',
                })),
            {
                id: 'why',
                label: 'Why',
                value: (r: PlanRow) => r.why,
                cell: (r: PlanRow) => <span className="text-muted">{r.why}</span>,
                width: 'minmax(120px, 2fr)',
            },
        ],
        [headings, leaveOut, narrow, numbered, sheets, widths, words],
    );
    const row = rows.find((r) => idOf(r) === current) ?? null;
    const question = row?.question
        ? (byId.get(row.question) ?? null)
        : (questions.find((q) => row !== null && q.row === row.number && q.sheet === row.sheet) ?? null);
    const sameKind = question?.pattern
        ? questions.filter((q) => q.pattern === question.pattern && (q.answer === null || q.id === question.id))
        : [];
    const asked = rows.filter((r) => r.verdict === 'ask');
    const step = (by: number) => {
        if (asked.length < (verdicts.ask ?? 0)) {
            // Some questions are further down than what is loaded: show the questions alone, then go to the first.
            setSeeking(true);
            onShow(['ask']);
            return;
        }
        const at = asked.findIndex((r) => idOf(r) === current);
        const next = asked[at < 0 ? (by > 0 ? 0 : asked.length - 1) : (at + by + asked.length) % asked.length];
        if (next) setCurrent(idOf(next));
    };
    const firstAsked = asked[0];
    useEffect(() => {
        if (seeking && firstAsked) {
            setSeeking(false);
            setCurrent(idOf(firstAsked));
        }
    }, [seeking, firstAsked]);
    const answer = (n: number) => {
        const choice = question?.choices[n];
        if (!question || !choice || !onAnswer) return;
        if (question.answer === choice.key) {
            onAnswer({ [question.id]: null });
            return;
        }
        const answers: Record<string, string | null> = { [question.id]: choice.key };
        for (const other of alike && choice.kind ? sameKind : []) {
            const same = other.choices.find((c) => c.kind === choice.kind);
            if (same && other.id !== question.id) answers[other.id] = same.key;
        }
        onAnswer(answers);
        setAlike(false);
    };
    useKey(']', 'Next question', () => step(1), (verdicts.ask ?? 0) > 0, { repeats: true });
    useKey('[', 'Question before', () => step(-1), (verdicts.ask ?? 0) > 0, { repeats: true });
    useKey('l', 'Answer all questions of this kind alike', () => setAlike((on) => !on), sameKind.length > 1);
    useKey('a', 'Show all rows', () => onShow([]));
    useKey('1', 'First answer', () => answer(0), Boolean(question && onAnswer));
    useKey('2', 'Second answer', () => answer(1), Boolean(question && onAnswer));
    useKey('3', 'Third answer', () => answer(2), Boolean(question && onAnswer));
    useKey('4', 'Fourth answer', () => answer(3), Boolean(question && onAnswer));
    useKey('5', 'Fifth answer', () => answer(4), Boolean(question && onAnswer));

    return (
        <div className="page">
            <header className="px-6 pt-4">
                <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
                    <h1 className="text-2xl">{title}</h1>
                    <div className="text-sm text-muted">{subtitle}</div>
                </div>
                <div className="flex items-end justify-between gap-4">
                    <div role="group" aria-label="Show rows by verdict" className="mt-2 flex flex-wrap gap-x-9">
                        {ORDER.filter((v) => v in verdicts).map((v) => (
                            <button
                                key={v}
                                aria-pressed={shown.includes(v)}
                                onClick={(event) =>
                                    onShow(
                                        event.ctrlKey || event.shiftKey
                                            ? shown.includes(v)
                                                ? shown.filter((s) => s !== v)
                                                : [...shown, v]
                                            : shown.length === 1 && shown[0] === v
                                              ? []
                                              : [v],
                                    )
                                }
                                className={`flex items-baseline gap-2 border-b-[3px] pb-1 pr-2 ${shown.includes(v) ? 'border-marigold' : 'border-unseen hover:border-rule'}`}
                            >
                                <span className="font-serif text-2xl font-semibold">
                                    {(verdicts[v] ?? 0).toLocaleString('en')}
                                </span>
                                <span
                                    className={`flex items-center gap-1.5 text-sm ${v === 'ask' || v === 'cannot' ? '' : 'text-muted'}`}
                                >
                                    <Glyph name={v} />
                                    {words[v] ?? verdictInWords(v, verdicts[v])}
                                </span>
                            </button>
                        ))}
                    </div>
                    {shown.length > 0 && (
                        <button className="pb-2 text-sm text-muted" onClick={() => onShow([])}>
                            Show all <kbd className="border border-rule px-1 font-mono text-xs">a</kbd>
                        </button>
                    )}
                </div>
            </header>
            <div className="border-b border-rule">
                {notes}
                {picture}
            </div>
            <div className="split">
                {waiting || (
                    <DataTable
                        label={`Rows of ${title}`}
                        name="plan"
                        columns={columns}
                        rows={rows}
                        id={idOf}
                        current={current}
                        onOpen={(r) => setCurrent(idOf(r))}
                        {...(onEnd ? { onEnd } : {})}
                        sortable={false}
                        empty={<p className="px-6 py-8 text-muted">No rows with this verdict.</p>}
                    />
                )}
                {row && !waiting && (
                    <SideSheet
                        title={
                            question
                                ? question.text
                                : row.number
                                  ? `${numbered} ${row.number}${row.sheet ? ` of ${row.sheet}` : ''}`
                                  : (row.cells['Name']?.before ?? '')
                        }
                        subtitle={question ? question.detail : row.why || undefined}
                        onClose={() => setCurrent(null)}
                    >
                        {row.problems.map((p) => (
                            <p
                                key={p.column + p.message}
                                className={`mb-3 border-l-[3px] pl-3 text-sm ${p.stops ? 'border-madder' : 'border-marigold'}`}
                            >
                                {p.column && <strong className="block">{p.column}</strong>}
                                {p.message}
                            </p>
                        ))}
                        {(question?.evidence.length ?? 0) > 0 && question ? (
                            <EvidenceBars evidence={question.evidence} probability={question.probability} />
                        ) : (
                            !question &&
                            row.evidence.length > 0 && (
                                <EvidenceBars evidence={row.evidence} probability={row.probability} />
                            )
                        )}
                        {question && onAnswer && (
                            <div role="group" aria-label="Answers" className="mt-1 flex flex-col gap-1.5">
                                {question.choices.map((choice, i) => (
                                    <button
                                        key={choice.key}
                                        aria-pressed={question.answer === choice.key}
                                        onClick={() => answer(i)}
                                        className={`flex gap-3 rounded-card border px-2.5 py-1.5 text-left ${question.answer === choice.key ? 'border-ink bg-tint' : 'border-rule hover:border-ink'}`}
                                    >
                                        <kbd className="h-5 shrink-0 border border-rule px-1.5 font-mono text-xs leading-5">
                                            {i + 1}
                                        </kbd>
                                        <span>
                                            <span className="block text-sm">{choice.label}</span>
                                            {choice.consequence && (
                                                <span className="block text-xs text-muted">{choice.consequence}</span>
                                            )}
                                        </span>
                                    </button>
                                ))}
                                {sameKind.length > 1 && (
                                    <label className="flex items-center gap-2 py-1 text-sm">
                                        <input
                                            type="checkbox"
                                            checked={alike}
                                            onChange={(event) => setAlike(event.target.checked)}
                                        />
                                        Answer all {sameKind.length} of this kind alike
                                        <kbd className="border border-rule px-1 font-mono text-xs">l</kbd>
                                    </label>
                                )}
                            </div>
                        )}
                        {!question && (
                            <dl className="mt-3 border-t border-rule text-sm">
                                {Object.entries(row.cells)
                                    .filter(([, cell]) => cell.before || cell.after)
                                    .map(([heading, cell]) => (
                                        <div key={heading} className="flex gap-3 border-b border-rule py-1">
                                            <dt className="w-24 shrink-0 text-muted">{heading}</dt>
                                            <dd>
                                                <BeforeAfter cell={cell} />
                                            </dd>
                                        </div>
                                    ))}
                            </dl>
                        )}
                        {row.repairs.length > 0 && (
                            <section className="mt-4">
                                <h3 className="mb-1 text-sm font-semibold">Corrected in this row</h3>
                                <ul>
                                    {row.repairs.map((r) => (
                                        <li
                                            key={r.key + r.kind}
                                            className="flex items-center justify-between gap-3 border-b border-rule py-1 text-sm"
                                        >
                                            <span className="min-w-0">
                                                <span className="block text-xs text-muted">
                                                    {r.column}: {r.kind}
                                                </span>
                                                <del>{r.before}</del> {r.after}
                                            </span>
                                            {onAnswer && (
                                                <Button
                                                    kind="quiet"
                                                    className="shrink-0"
                                                    onClick={() => onAnswer({ [r.key]: 'yes' })}
                                                >
                                                    Keep as written
                                                </Button>
                                            )}
                                        </li>
                                    ))}
                                </ul>
                            </section>
                        )}
                        {sheet?.(row)}
                    </SideSheet>
                )}
            </div>
            {bar}
        </div>
    );
}

/** Rows of several sheets share numbers; people who are in no row have none. */
function idOf(row: PlanRow): string {
    return `${row.sheet}#${row.number || (row.matchId ?? '')}`;
}
