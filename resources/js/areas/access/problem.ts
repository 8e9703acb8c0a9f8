import type { TFunction } from 'i18next';
import { ApiError, sentence } from '@/api/client';

export interface Problem {
    /** Field it belongs to, '' for none that is shown. */
    field: string;
    text: string;
}

/**
 * What to show of a refusal: beside its field where there is one, in the reader's language where the sentence is known.
 */
export function problem(error: unknown, t: TFunction, fields: string[] = []): Problem {
    if (!(error instanceof ApiError)) return { field: '', text: t(sentence(error)) };
    const field = Object.keys(error.fields)[0] ?? '';
    return {
        field: fields.includes(field) ? field : '',
        text:
            error.status === 429
                ? t('There have been too many tries. Wait a while, then try again.')
                : t(error.said.sentence, error.said.values),
    };
}
