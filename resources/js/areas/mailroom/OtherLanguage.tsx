import { useState } from 'react';
import { direction, LANGUAGES } from '@/shell/language';
import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';
import { Writing } from './Writing';

/** A line and what follows it, by language. */
export interface Texts {
    lines: Record<string, string>;
    bodies: Record<string, string>;
}

const OTHERS = LANGUAGES.filter((l) => l.code !== 'en');

/** The same in another language, for those who read it. */
export function OtherLanguage({
    line,
    body,
    most,
    rows,
    bodyOnly = false,
    texts,
    onChange,
}: {
    /** What the line and what follows it are called. */
    line: string;
    body: string;
    /** Characters of the line. */
    most: number;
    rows: number;
    /** Where there is no line. */
    bodyOnly?: boolean;
    texts: Texts;
    onChange: (texts: Texts) => void;
}) {
    const [language, setLanguage] = useState(OTHERS[0]?.code ?? '');
    return (
        <details
            open={Object.keys(texts.lines).length + Object.keys(texts.bodies).length > 0}
            className="border-t border-rule pt-3"
        >
            <summary className="min-h-8 cursor-pointer text-sm">In another language too</summary>
            <Choice
                label="In"
                value={language}
                onChange={setLanguage}
                options={OTHERS.map((l) => ({
                    value: l.code,
                    label: texts.lines[l.code] || texts.bodies[l.code] ? `${l.name} (written)` : l.name,
                }))}
            />
            <div className="mt-3 flex flex-col gap-3" lang={language} dir={direction(language)}>
                {!bodyOnly && (
                    <Field
                        label={line}
                        maxLength={most}
                        value={texts.lines[language] ?? ''}
                        onChange={(event) =>
                            onChange({ ...texts, lines: { ...texts.lines, [language]: event.target.value } })
                        }
                    />
                )}
                <Writing
                    label={body}
                    rows={rows}
                    value={texts.bodies[language] ?? ''}
                    error={undefined}
                    onChange={(value) => onChange({ ...texts, bodies: { ...texts.bodies, [language]: value } })}
                />
            </div>
        </details>
    );
}
