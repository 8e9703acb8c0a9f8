import type { Schemas } from '@/api/client';
import { day } from '@/ui/dates';

const KINDS = [
    { of: 'signedIn', label: 'signed in', dash: '' },
    { of: 'carded', label: 'with a card', dash: '6 4' },
    { of: 'connected', label: 'guardian connected', dash: '1.5 3.5' },
] as const;
const WIDTH = 860;
const HEIGHT = 150;
const LEFT = 40;
const RIGHT = 190;

/** Three shares over the weeks, told apart by their strokes and named where they end. */
export function CoverageChart({ line, weeks }: { line: Schemas['CoverageLine']; weeks: Schemas['CoverageWeek'][] }) {
    const known = weeks.filter((w) => w.students > 0);
    if (known.length < 2)
        return (
            <p className="mt-3 text-sm text-muted">
                {known.length === 0 ? 'No week of this has been kept yet.' : 'One week has been kept so far.'} From next
                week on the picture shows how it goes.
            </p>
        );
    const x = (i: number) => LEFT + (i * (WIDTH - LEFT - RIGHT)) / (known.length - 1);
    const y = (share: number) => 10 + (1 - share) * (HEIGHT - 34);
    const ends = places(KINDS.map(({ of }) => y(last(known)[of] / last(known).students)));
    return (
        <figure className="mt-3">
            <figcaption className="text-sm">
                {line.name}, {known.length} weeks from {day(known[0]?.week ?? '')}
            </figcaption>
            <svg
                viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
                className="mt-1 h-auto w-full max-w-[860px]"
                role="img"
                aria-label={KINDS.map(
                    ({ of, label }) =>
                        `${label}: ${percent(known[0], of)} in the first week, ${percent(last(known), of)} in the last`,
                ).join('; ')}
            >
                {[0, 0.5, 1].map((share) => (
                    <g key={share}>
                        <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(share)} y2={y(share)} stroke="var(--rule)" />
                        <text x={LEFT - 6} y={y(share) + 4} textAnchor="end" fontSize="11" fill="var(--muted)">
                            {share * 100} %
                        </text>
                    </g>
                ))}
                {[0, known.length - 1].map((i) => (
                    <text
                        key={i}
                        x={x(i)}
                        y={HEIGHT - 4}
                        textAnchor={i === 0 ? 'start' : 'end'}
                        fontSize="11"
                        fill="var(--muted)"
                    >
                        {day(known[i]?.week ?? '')}
                    </text>
                ))}
                {KINDS.map(({ of, label, dash }, n) => (
                    <g key={of}>
                        <polyline
                            points={known.map((w, i) => `${x(i)},${y(w[of] / w.students)}`).join(' ')}
                            fill="none"
                            stroke="var(--ink)"
                            strokeWidth="2"
                            strokeDasharray={dash}
                        />
                        <text x={WIDTH - RIGHT + 8} y={(ends[n] ?? 0) + 4} fontSize="12" fill="var(--ink)">
                            {label} {percent(last(known), of)}
                        </text>
                    </g>
                ))}
            </svg>
        </figure>
    );
}

function last(weeks: Schemas['CoverageWeek'][]): Schemas['CoverageWeek'] {
    return weeks.at(-1) as Schemas['CoverageWeek'];
}

function percent(week: Schemas['CoverageWeek'] | undefined, of: (typeof KINDS)[number]['of']): string {
    return week ? `${Math.round((100 * week[of]) / week.students)} %` : '';
}

/** The heights of labels moved apart where they would lie on each other. */
function places(heights: number[]): number[] {
    const order = heights.map((at, i) => ({ at, i })).sort((a, b) => a.at - b.at);
    for (let n = 1; n < order.length; n++) {
        const [above, here] = [order[n - 1], order[n]];
        if (above && here) here.at = Math.max(here.at, above.at + 15);
    }
    return heights.map((_, i) => order.find((o) => o.i === i)?.at ?? 0);
}
