import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useTranslation } from 'react-i18next';
import { useAct } from '@/api/act';
import { api, ApiError, data, type Schemas } from '@/api/client';
import { problem } from '@/areas/access/problem';
import { forgetBegun } from '@/ui/begun';
import { useNotice } from '@/ui/Notice';

export type Me = Schemas['Me'];
export type School = Schemas['SchoolChoice'] & {
    /** Each of them, where several are seen as one. */
    each?: School[];
};

/** What stands in the place of a school's id and code for all that somebody coordinates. */
export const ALL = 'all';

/** All schools somebody coordinates, seen as one; undefined for who coordinates fewer than two. */
export function allSchools(me: Me): School | undefined {
    const each = me.schools.filter((s) => s.coordinates);
    if (each.length < 2) return undefined;
    return {
        id: ALL,
        code: ALL,
        name: `All ${each.length} schools`,
        yearId: '',
        year: '',
        years: [],
        coordinates: true,
        lowestGrade: Math.min(...each.map((s) => s.lowestGrade)),
        highestGrade: Math.max(...each.map((s) => s.highestGrade)),
        grades: [...each]
            .sort((a, b) => a.lowestGrade - b.lowestGrade)
            .flatMap((s) => s.grades)
            .filter((grade, i, all) => all.findIndex((g) => g.code === grade.code) === i),
        each,
    };
}

/** Who is signed in, as asked for: null for nobody. */
export function useAskedMe() {
    const queries = useQueryClient();
    return useQuery({
        queryKey: ['me'],
        queryFn: () =>
            data(api.GET('/api/me')).catch((error: unknown) => {
                if (error instanceof ApiError && (error.status === 401 || error.status === 403))
                    // Whoever was signed in stays on the page, and signs in again on top of it: nothing typed is lost.
                    return queries.getQueryData<Me | null>(['me']) ?? null;
                throw error;
            }),
        staleTime: 60_000,
    });
}

/** Who is signed in; null for nobody, undefined while it is not known. */
export function useMe(): Me | null | undefined {
    return useAskedMe().data;
}

/** Ends the session, on the server too: what is shown as signed out is. Says why it could not. */
export function useSignOut(): () => void {
    const say = useNotice();
    const { t } = useTranslation();
    const leave = () => {
        forgetBegun();
        window.location.href = '/';
    };
    const act = useAct(() => api.POST('/api/sign-out'), {
        stale: [],
        then: leave,
        failed: (_, error) =>
            error instanceof ApiError && [401, 419].includes(error.status)
                ? leave()
                : say(`${t('You are still signed in.')} ${problem(error, t)}`, { bad: true }),
    });
    return act.run;
}
