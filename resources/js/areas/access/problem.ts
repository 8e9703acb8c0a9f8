import { useQuery } from '@tanstack/react-query';
import type { TFunction } from 'i18next';
import { useTranslation } from 'react-i18next';
import { api, ApiError, data, sentence } from '@/api/client';
import { LEAST } from '@/api/most';

/** What to say of a refusal, in the reader's language where the sentence is known. */
export function problem(error: unknown, t: TFunction): string {
    if (!(error instanceof ApiError)) return t(sentence(error));
    return error.status === 429
        ? t('There have been too many tries. Wait a while, then try again.')
        : t(error.said.sentence, error.said.values);
}

/** The same for what a form or an action is refused. */
export function useProblem(): (error: unknown) => string {
    const { t } = useTranslation();
    return (error) => problem(error, t);
}

/** What the way in offers and asks for, as asked for. */
export function useEntrance() {
    return useQuery({
        queryKey: ['entrance'],
        queryFn: () => data(api.GET('/api/entrance')),
        staleTime: Infinity,
    });
}

/** What is said beside a field for a new password. */
export function usePasswordHint(kind: 'student' | 'staff' | 'guardian'): string {
    const { t } = useTranslation();
    return kind === 'student'
        ? t('At least {{least}} characters. Three words that belong to nobody else are best.', {
              least: LEAST.password,
          })
        : t('At least {{least}} characters: several words are easiest.', { least: LEAST.passwordAlone });
}
