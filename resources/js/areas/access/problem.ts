import { useQuery } from '@tanstack/react-query';
import type { TFunction } from 'i18next';
import { useTranslation } from 'react-i18next';
import { api, ApiError, data, sentence } from '@/api/client';

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

/** What the way in offers and asks for. */
export function useEntrance() {
    const { data: entrance } = useQuery({
        queryKey: ['entrance'],
        queryFn: () => data(api.GET('/api/entrance')),
        staleTime: Infinity,
    });
    return entrance;
}

/** What is said beside a field for a new password. */
export function usePasswordHint(kind: 'student' | 'staff' | 'guardian'): string {
    const { t } = useTranslation();
    const entrance = useEntrance();
    if (!entrance) return '';
    return kind === 'student'
        ? t('At least {{least}} characters. Three words that belong to nobody else are best.', {
              least: entrance.leastStudent,
          })
        : t('At least {{least}} characters: several words are easiest.', { least: entrance.leastStaff });
}
