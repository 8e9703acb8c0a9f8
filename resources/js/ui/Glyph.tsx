export type GlyphName = 'new' | 'update' | 'same' | 'ask' | 'cannot' | 'leaving' | 'archived' | 'locked';

const PATHS: Record<GlyphName, string> = {
    new: 'M6 1.5v9M1.5 6h9',
    update: 'M6 2 10.5 10h-9z',
    same: 'M2 4.25h8M2 7.75h8',
    ask: 'M3.5 3.9a2.5 2.5 0 1 1 3.6 2.2c-.8.4-1.1.8-1.1 1.7M6 10.2v.3',
    cannot: 'M2.5 2.5l7 7M9.5 2.5l-7 7',
    leaving: 'M1.5 6h8M6.5 2.5 10 6 6.5 9.5',
    archived: 'M1.5 2.5h9v2.2h-9zM2.5 4.7v5.3h7V4.7M4.7 6.8h2.6',
    locked: 'M2.5 5.5h7v5h-7zM4 5.5V4a2 2 0 0 1 4 0v1.5',
};

/** One of our own small marks. Always stands beside its word, so it is hidden from screen readers. */
export function Glyph({ name, className = '' }: { name: GlyphName; className?: string }) {
    return (
        <svg
            viewBox="0 0 12 12"
            width="12"
            height="12"
            aria-hidden="true"
            className={`inline-block shrink-0 ${className}`}
            fill="none"
            stroke="currentColor"
            strokeWidth="1.3"
            strokeLinecap="round"
            strokeLinejoin="round"
        >
            <path d={PATHS[name]} />
        </svg>
    );
}
