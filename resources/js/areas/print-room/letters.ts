/** The languages letters are written in, as the office calls them. */
export const LANGUAGES = [
    { value: 'en', label: 'English' },
    { value: 'es', label: 'Spanish' },
    { value: 'fr', label: 'French' },
    { value: 'ar', label: 'Arabic' },
    { value: 'vi', label: 'Vietnamese' },
    { value: 'uk', label: 'Ukrainian' },
    { value: 'zh', label: 'Chinese' },
] as const;

export const languageName = (tag: string) => LANGUAGES.find((l) => l.value === tag)?.label ?? tag;

export type Tag = (typeof LANGUAGES)[number]['value'];

export const PAPERS = [
    { value: 'a4', label: 'A4' },
    { value: 'letter', label: 'Letter' },
] as const;

export type PaperSize = (typeof PAPERS)[number]['value'];

/**
 * What stands in braces, filled in as on a sample; each held together, whichever way the line runs (U+2068 and U+2069).
 */
export function filledIn(text: string, values: Record<string, string>): string {
    return text.replace(/\{(\w+)\}/g, (whole, field: string) =>
        field in values ? `\u2068${values[field]}\u2069` : whole,
    );
}
