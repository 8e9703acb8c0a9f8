import type { Schemas } from '@/api/client';

const WORDS: Record<Schemas['FaceLinePreview']['what'], string> = {
    name: 'Name',
    place: 'section',
    user_label: 'User name',
    user_name: 'user.name',
    secret_label: 'Passphrase',
    secret: 'three short words',
    school: 'School',
    address: 'address',
};

/** What stands where on one card, drawn to scale. */
export function CardPicture({ sheet, face }: { sheet: Schemas['SheetPreview']; face: Schemas['FacePreview'] }) {
    const { cardWidth: w, cardHeight: h } = sheet;
    const named = [...face.lines.map((l) => WORDS[l.what]), ...(face.square > 0 ? ['a square for the camera'] : [])];
    return (
        <svg
            role="img"
            aria-label={`A card: ${named.join(', ')}`}
            viewBox={`-1 -1 ${w + 2} ${h + 2}`}
            className="max-h-44 min-w-0 flex-1"
        >
            <rect width={w} height={h} fill="none" stroke="var(--ink)" strokeWidth="0.5" />
            {face.square > 0 && (
                <rect
                    x={face.squareX}
                    y={face.squareY}
                    width={face.square}
                    height={face.square}
                    fill="none"
                    stroke="var(--ink)"
                    strokeWidth="0.5"
                    strokeDasharray="1 1"
                />
            )}
            {face.picturesX !== null && face.picturesY !== null && (
                <g
                    transform={`translate(${face.picturesX} ${face.picturesY})`}
                    fill="none"
                    stroke="var(--ink)"
                    strokeWidth="0.4"
                >
                    <rect x="1.2" width="6.6" height="8.4" />
                    <path d="M10 4.2h3m-1.2-1.1l1.2 1.1l-1.2 1.1" />
                    <rect x="14.4" y="0.3" width="7.8" height="7.8" />
                    <path d="M24 4.2h3m-1.2-1.1l1.2 1.1l-1.2 1.1" />
                    <rect x="28" y="0.8" width="11" height="6.8" />
                </g>
            )}
            {face.lines.map((line) => (
                <text
                    key={line.what}
                    x={line.x}
                    y={line.y + line.size * 0.3}
                    fontSize={line.size * 0.353}
                    fill="var(--ink)"
                    // What is set smaller on paper is set closer here.
                    {...(WORDS[line.what].length * line.size * 0.22 > line.width ? { textLength: line.width } : {})}
                    lengthAdjust="spacingAndGlyphs"
                    fontFamily={
                        line.what === 'name'
                            ? 'var(--font-serif)'
                            : ['user_name', 'secret'].includes(line.what)
                              ? 'var(--font-mono)'
                              : 'var(--font-sans)'
                    }
                >
                    {WORDS[line.what]}
                </text>
            ))}
        </svg>
    );
}
