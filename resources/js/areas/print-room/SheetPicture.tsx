import type { CardWish } from './printCards';

/** The first sheet as it will lie on the table, with the number of the card in each place. */
export function SheetPicture({
    layout,
    order,
    sheets,
    cards,
}: {
    layout: CardWish['layout'];
    order: CardWish['order'];
    sheets: number;
    cards: number;
}) {
    const page = layout === 'cards-a4' ? { w: 210, h: 297, cw: 90, ch: 54 } : { w: 215.9, h: 279.4, cw: 90, ch: 53 };
    const left = (page.w - 2 * page.cw) / 2;
    const top = (page.h - 5 * page.ch) / 2;
    return (
        <svg
            role="img"
            aria-label={`The first sheet: 2 by 5 cards, ${
                order === 'cut_stack' ? 'ordered so that the cut piles fall in order' : 'in reading order'
            }`}
            viewBox={`-1 -1 ${page.w + 2} ${page.h + 2}`}
            className="mx-auto w-40"
        >
            <rect width={page.w} height={page.h} fill="none" stroke="var(--ink)" strokeWidth="1" />
            {Array.from({ length: 10 }, (_, p) => {
                const card = (order === 'cut_stack' ? p * sheets : p) + 1;
                const x = left + (p % 2) * page.cw;
                const y = top + Math.floor(p / 2) * page.ch;
                return (
                    <g key={p}>
                        <rect
                            x={x}
                            y={y}
                            width={page.cw}
                            height={page.ch}
                            fill="none"
                            stroke="var(--rule)"
                            strokeWidth="1"
                        />
                        {(cards === 0 || card <= cards) && (
                            <text
                                x={x + page.cw / 2}
                                y={y + page.ch / 2 + 8}
                                textAnchor="middle"
                                fontSize="22"
                                fill="var(--muted)"
                                fontFamily="var(--font-mono)"
                            >
                                {card}
                            </text>
                        )}
                    </g>
                );
            })}
        </svg>
    );
}
