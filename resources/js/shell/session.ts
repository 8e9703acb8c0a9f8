import { useQuery } from '@tanstack/react-query';
import { api, ApiError, data, type Schemas } from '@/api/client';

export type Me = Schemas['Me'];
export type School = Schemas['SchoolChoice'];

/** Who is signed in; null for nobody, undefined while it is not known. */
export function useMe(): Me | null | undefined {
    const { data: me } = useQuery({
        queryKey: ['me'],
        queryFn: () =>
            data(api.GET('/api/me')).catch((error: unknown) => {
                if (error instanceof ApiError && (error.status === 401 || error.status === 403)) return null;
                throw error;
            }),
        staleTime: 60_000,
    });
    return me;
}

export async function signOut(): Promise<void> {
    await api.POST('/api/sign-out');
    window.location.href = '/';
}
