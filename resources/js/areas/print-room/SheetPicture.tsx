import type { Schemas } from '@/api/client';

/** The first sheet as it will lie on the table, with the number of the card in each place. */
export function SheetPicture({ sheet, cut }: { sheet: Schemas['SheetPreview']; cut: boolean }) {
    const { pageWidth: w, pageHeight: h, cardWidth, cardHeight } = sheet;
    return (
        <svg
            role="img"
            aria-label={`The first sheet: ${sheet.columns} by ${sheet.rows} cards, ${
                cut ? 'ordered so that the cut piles fall in order' : 'in reading order'
            }`}
            viewBox={`-1 -1 ${w + 2} ${h + 2}`}
            className="mx-auto w-28 shrink-0"
        >
            <rect width={w} height={h} fill="none" stroke="var(--ink)" strokeWidth="1" />
            {sheet.places.map(({ x, y, card }) => (
                <g key={`${x} ${y}`}>
                    <rect
                        x={x}
                        y={y}
                        width={cardWidth}
                        height={cardHeight}
                        fill="none"
                        stroke="var(--rule)"
                        strokeWidth="1"
                    />
                    {card !== null && (
                        <text
                            x={x + cardWidth / 2}
                            y={y + cardHeight / 2 + 8}
                            textAnchor="middle"
                            fontSize="22"
                            fill="var(--muted)"
                            fontFamily="var(--font-mono)"
                        >
                            {card}
                        </text>
                    )}
                </g>
            ))}
        </svg>
    );
}
