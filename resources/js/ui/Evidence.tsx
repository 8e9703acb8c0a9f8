import type { Schemas } from '@/api/client';
import { levelInWords } from './words';

const FULL = 12;

function words(e: Schemas['Evidence']): string {
    // Teachers are told how fields agree and not what stands in them.
    if (e.left === '' && e.right === '') return levelInWords(e.level);
    if (e.level === 'not known') return `one side only: ${e.left || e.right}`;
    if (e.level === 'alike') return e.left === e.right ? `alike: ${e.left}` : `alike: ${e.left} / ${e.right}`;
    return `${e.left} / ${e.right}: ${levelInWords(e.level)}`;
}

/**
 * What speaks for and against two records being one person, as signed bars around a centre line. Weights are in bits.
 */
export function EvidenceBars({
    evidence,
    probability,
}: {
    evidence: Schemas['Evidence'][];
    probability: number | null;
}) {
    const silent = evidence.filter((e) => e.weight === 0);
    return (
        <div>
            <ul>
                {evidence
                    .filter((e) => e.weight !== 0)
                    .map((e) => {
                        const width = Math.min(1, Math.abs(e.weight) / FULL) * 50;
                        const spoken =
                            e.weight === 0
                                ? 'no bearing'
                                : `${e.weight > 0 ? 'supports a match' : 'speaks against a match'}, weight ${Math.abs(e.weight).toFixed(1)}`;
                        return (
                            <li key={e.field} className="flex items-center gap-3 border-b border-rule py-1.5">
                                <div className="min-w-0 flex-1">
                                    <div className="text-sm first-letter:uppercase">{e.field}</div>
                                    <div className="truncate text-xs text-muted" title={words(e)}>
                                        {words(e)}
                                        <span className="sr-only">, {spoken}</span>
                                    </div>
                                </div>
                                <svg width="96" height="16" viewBox="0 0 96 16" aria-hidden="true" className="shrink-0">
                                    <line x1="48" x2="48" y1="1" y2="15" stroke="var(--ink)" />
                                    {e.weight > 0 && (
                                        <rect x="48" y="4" width={width * 0.92} height="8" fill="var(--ink)" />
                                    )}
                                    {e.weight < 0 && (
                                        <>
                                            <defs>
                                                <pattern
                                                    id="against"
                                                    width="4"
                                                    height="4"
                                                    patternUnits="userSpaceOnUse"
                                                    patternTransform="rotate(45)"
                                                >
                                                    <rect width="2" height="4" fill="var(--madder)" />
                                                </pattern>
                                            </defs>
                                            <rect
                                                x={48 - width * 0.92}
                                                y="4"
                                                width={width * 0.92}
                                                height="8"
                                                fill="url(#against)"
                                                stroke="var(--madder)"
                                            />
                                        </>
                                    )}
                                </svg>
                                <span aria-hidden="true" className="w-11 shrink-0 text-right font-mono text-sm">
                                    {e.weight > 0 ? '+' : '−'}
                                    {Math.abs(e.weight).toFixed(1)}
                                </span>
                            </li>
                        );
                    })}
            </ul>
            {silent.length > 0 && (
                <p className="pt-2 text-xs text-muted">
                    No bearing: {silent.map((e) => `${e.field} (${words(e)})`).join(', ')}.
                </p>
            )}
            {probability !== null && (
                <p className="flex items-baseline justify-between py-3">
                    <span className="text-sm">Chance it is the same person</span>
                    <span className="font-serif text-xl font-semibold">{percent(probability)}</span>
                </p>
            )}
        </div>
    );
}

/** Never rounded up to certainty: 99.97 % reads "over 99.9 %". */
export function percent(probability: number): string {
    if (probability > 0.999) return 'over 99.9 %';
    return `${(probability * 100).toFixed(probability > 0.99 ? 1 : 0)} %`;
}
