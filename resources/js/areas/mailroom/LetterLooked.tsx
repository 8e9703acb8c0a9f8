import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { many } from '@/ui/words';
import { PreviewOf } from './PreviewOf';

/** What a letter would be: how many, in which languages and ways, who cannot be reached, as they get it. */
export function LetterLooked({ seen, by }: { seen: Schemas['LetterOutlook']; by: 'mail' | 'text' | 'either' }) {
    const letters = seen.count - seen.texts;
    const ways = [letters > 0 && many(letters, 'letter'), seen.texts > 0 && many(seen.texts, 'text')]
        .filter(Boolean)
        .join(' and ');
    const lacking = { mail: 'a mail address', text: 'a number', either: 'a mail address or a number' }[by];
    return (
        <>
            <p className="mb-3">
                {seen.count === 0
                    ? 'None of these can be reached that way.'
                    : `${ways}, each to one person alone: ${Object.entries(seen.languages)
                          .map(([name, count]) => `${String(count)} in ${name}`)
                          .join(', ')}.`}
            </p>
            {Object.keys(seen.unwritten).length > 0 && (
                <p className="mb-3 border-s-[3px] border-marigold ps-3 text-sm">
                    Not written in their language:{' '}
                    {Object.entries(seen.unwritten)
                        .map(([name, count]) => `${String(count)} read ${name}`)
                        .join(', ')}
                    .
                </p>
            )}
            {seen.texts > 0 && (
                <p className="mb-3">
                    {many(seen.parts, 'part')} of a text message in all, which is what a gateway counts.
                    {!seen.textsGo && ' No gateway for texts is set here: they stay in the Mailroom.'}
                </p>
            )}
            {seen.without.length > 0 && (
                <Names
                    title={`${many(seen.without.length, 'person', 'people')} without ${lacking}`}
                    of={seen.without}
                />
            )}
            {seen.bounced.length > 0 && (
                <Names
                    title={`Mail to ${many(seen.bounced.length, 'person', 'people')} came back last time; they get one all the same`}
                    of={seen.bounced}
                />
            )}
            {seen.previews.map((preview) => (
                <PreviewOf key={`${preview.language} ${String(preview.parts > 0)}`} preview={preview} />
            ))}
        </>
    );
}

/** When it goes. */
export function WhenItGoes({
    seen,
    at,
    night,
}: {
    seen: Schemas['LetterOutlook'];
    at: React.ComponentProps<'input'>;
    night: React.ComponentProps<'input'>;
}) {
    const quiet = seen.quietFrom !== seen.quietTo;
    return (
        <div className="flex flex-wrap items-end gap-4">
            <Field
                label="Not before (empty: now)"
                type="datetime-local"
                hint={`By the school’s clock.${quiet ? ` From ${String(seen.quietFrom)}:00 to ${String(seen.quietTo)}:00 it waits.` : ''}`}
                {...at}
            />
            {quiet && (
                <label className="flex min-h-8 items-center gap-2 text-sm">
                    <input type="checkbox" className="accent-ink" {...night} />
                    In the quiet hours too
                </label>
            )}
        </div>
    );
}

/** Names of a few, or of many once they are asked for. */
function Names({ title, of }: { title: string; of: string[] }) {
    const [all, setAll] = useState(false);
    const shown = all ? of : of.slice(0, 8);
    return (
        <div className="mb-3 border-s-[3px] border-marigold ps-3 text-sm">
            <p>{title}:</p>
            <p className="text-muted">
                {shown.join(', ')}
                {shown.length < of.length && (
                    <>
                        {' '}
                        <Button onClick={() => setAll(true)}>and {of.length - shown.length} more</Button>
                    </>
                )}
            </p>
        </div>
    );
}
