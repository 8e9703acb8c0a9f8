import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { BeforeAfter } from './BeforeAfter';
import { Button } from './Button';
import { State } from './State';
import { verdictInWords } from './words';

const WORDS: Record<string, string> = {
    update: 'changes',
    same: 'stays',
    leaving: 'leaves',
};

/** More rows than a dialog is scrolled through are shown when they are asked for. */
const AT_FIRST = 200;

/** A small plan inside a dialog: every row with before and after, and what to think of first. */
export function PlanSummary({ plan, words = {} }: { plan: Schemas['PlanView']; words?: Record<string, string> }) {
    const headings = Object.keys(plan.rows[0]?.cells ?? {});
    const [all, setAll] = useState(false);
    const rows = all ? plan.rows : plan.rows.slice(0, AT_FIRST);
    return (
        <div>
            {[...plan.blockers, ...plan.warnings].map((line) => (
                <p key={line} className="mb-1 border-l-[3px] border-marigold pl-3 text-sm">
                    {line}
                </p>
            ))}
            {plan.rows.length > 0 && (
                <div
                    className="mt-3 max-h-[38vh] overflow-auto border-y border-rule"
                    tabIndex={0}
                    role="region"
                    aria-label="The plan"
                >
                    <table className="w-full border-collapse text-left text-sm">
                        <thead className="sticky top-0 bg-paper">
                            <tr className="border-b border-ink text-xs text-muted">
                                <th className="w-24 py-1 font-normal">Verdict</th>
                                {headings.map((heading) => (
                                    <th key={heading} className="py-1 pr-4 font-normal">
                                        {heading}
                                    </th>
                                ))}
                                <th className="py-1 font-normal">Note</th>
                            </tr>
                        </thead>
                        <tbody>
                            {rows.map((row) => (
                                <tr key={row.number} className="border-b border-rule align-top">
                                    <td className="py-1">
                                        <State
                                            name={row.verdict}
                                            word={
                                                words[row.verdict] ?? WORDS[row.verdict] ?? verdictInWords(row.verdict)
                                            }
                                        />
                                    </td>
                                    {headings.map((heading, place) => (
                                        <td
                                            key={heading}
                                            className={`py-1 pr-4 ${place === 0 ? 'whitespace-nowrap' : ''}`}
                                        >
                                            <BeforeAfter cell={row.cells[heading]} />
                                        </td>
                                    ))}
                                    <td className="py-1 text-muted">
                                        {[row.why, ...row.problems.map((p) => p.message)].filter(Boolean).join(' ')}
                                    </td>
                                </tr>
                            ))}
                        </tbody>
                    </table>
                </div>
            )}
            {rows.length < plan.rows.length && (
                <p className="mt-2 text-sm">
                    <Button onClick={() => setAll(true)}>Show all {plan.rows.length.toLocaleString('en')} rows</Button>
                </p>
            )}
            <p className="mt-3">{plan.sentence}</p>
        </div>
    );
}
