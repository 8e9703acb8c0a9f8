import type { Schemas } from '@/api/client';
import { many } from '@/ui/words';

/** A letter, as one of those who get it reads it. */
export function PreviewOf({ preview }: { preview: Schemas['LetterPreview'] }) {
    return (
        <section className="mb-3 border border-rule px-4 py-3 text-sm">
            <p className="text-xs text-muted">
                {preview.language}, as {preview.to} gets it
                {preview.parts > 0 &&
                    `: a text of ${String([...preview.text].length)} characters, ${many(preview.parts, 'part')}`}
            </p>
            {preview.subject && (
                <p className="mt-1 font-semibold" dir="auto">
                    {preview.subject}
                </p>
            )}
            <p className="mt-1 whitespace-pre-wrap break-words" dir="auto">
                {preview.text}
            </p>
        </section>
    );
}
