import { useQuery } from '@tanstack/react-query';
import { api, data } from '@/api/client';

/** Languages that families are written to in, as choices; those of the product's own pages and letters come first. */
export function useLanguages(): { value: string; label: string }[] {
    const { data: list } = useQuery({
        queryKey: ['languages'],
        queryFn: () => data(api.GET('/api/languages')),
        staleTime: Infinity,
    });
    return (list?.languages ?? []).map((l) => ({
        value: l.code,
        label: l.written ? l.name : `${l.name} (English for now)`,
    }));
}
