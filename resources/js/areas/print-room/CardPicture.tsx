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
    return (
        <svg
            role="img"
            aria-label={`A card: ${face.lines.map((l) => WORDS[l.what]).join(', ')}, and a square for the camera`}
            viewBox={`-1 -1 ${w + 2} ${h + 2}`}
            className="max-h-44 min-w-0 flex-1"
        >
            <rect width={w} height={h} fill="none" stroke="var(--ink)" strokeWidth="0.5" />
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
