import { Glyph, type GlyphName } from './Glyph';

const TONE: Partial<Record<GlyphName, string>> = { cannot: 'text-madder', same: 'text-muted' };

/** A state as glyph and word. */
export function State({ name, word }: { name: GlyphName; word?: string }) {
    return (
        <span className={`inline-flex items-center gap-2 ${TONE[name] ?? ''}`}>
            <Glyph name={name} />
            {word ?? name}
        </span>
    );
}
