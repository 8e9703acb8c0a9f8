import type { Schemas } from '@/api/client';
import { many } from '@/ui/words';

const STEP = 92;
const HEIGHT = 92;

/** This year's grades flowing into next year's: width of a band is the number of students. */
export function GradeFlow({
    grades,
    year,
    nextName,
}: {
    grades: Schemas['GradeCount'][];
    year: string;
    nextName: string;
}) {
    const most = Math.max(1, ...grades.map((g) => g.students));
    const band = (n: number) => (n / most) * 30;
    const total = grades.reduce((n, g) => n + g.students, 0);
    const words = grades
        .map(
            (g) =>
                `${many(g.students, 'student')} of ${gradeInWords(g.grade)} ${g.next === null ? 'leave' : `move to ${gradeInWords(g.next)}`}`,
        )
        .join(', ');
    return (
        <svg
            role="img"
            aria-label={`${many(total, 'student')}: ${words}`}
            viewBox={`0 0 ${(grades.length + 1) * STEP + 90} ${HEIGHT + 8}`}
            className="h-24 w-full px-6"
            preserveAspectRatio="xMinYMid meet"
        >
            <text x="0" y="20" fontSize="12.5" fill="var(--muted)">
                {year}
            </text>
            <text x="0" y={HEIGHT - 6} fontSize="12.5" fill="var(--muted)">
                {nextName}
            </text>
            {grades.map((g, i) => {
                const x = 110 + i * STEP;
                const to = x + STEP;
                const w = Math.max(1, band(g.students));
                const leaves = g.next === null;
                return (
                    <g key={g.order}>
                        <path
                            d={`M${x - w / 2} 27 C${x - w / 2} 48 ${to - w / 2} 46 ${to - w / 2} 67 H${to + w / 2} C${to + w / 2} 46 ${x + w / 2} 48 ${x + w / 2} 27 Z`}
                            fill={leaves ? 'var(--marigold)' : 'var(--ink)'}
                            fillOpacity={leaves ? 0.9 : 0.22}
                        />
                        <text x={x} y="20" fontSize="13.5" textAnchor="middle" fill="var(--ink)">
                            {g.grade} <tspan fill="var(--muted)">{g.students}</tspan>
                        </text>
                        <text x={to} y={HEIGHT - 6} fontSize="13.5" textAnchor="middle" fill="var(--ink)">
                            {g.next ?? 'leave'} <tspan fill="var(--muted)">{g.students}</tspan>
                        </text>
                    </g>
                );
            })}
        </svg>
    );
}

function gradeInWords(grade: string): string {
    return { PK: 'pre-kindergarten', K: 'kindergarten' }[grade] ?? `grade ${grade}`;
}
