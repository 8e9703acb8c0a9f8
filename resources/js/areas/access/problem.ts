import { ApiError, sentence } from '@/api/client';

export interface Problem {
    /** Field it belongs to, '' for none that is shown. */
    field: string;
    text: string;
}

/** What to show of a refusal: beside its field where there is one, in the reader's language where the sentence is known. */
export function problem(error: unknown, t: (key: string) => string, fields: string[] = []): Problem {
    const field = error instanceof ApiError ? (Object.keys(error.fields)[0] ?? '') : '';
    const text =
        error instanceof ApiError && error.status === 429
            ? 'There have been too many tries. Wait a while, then try again.'
            : sentence(error);
    return { field: fields.includes(field) ? field : '', text: t(text) };
}
