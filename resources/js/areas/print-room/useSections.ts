import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { api, data } from '@/api/client';

/** The sections of a school and those chosen among them, at first the ones the address names. */
export function useSections(school: string) {
    const [search] = useSearchParams();
    const [selected, setSelected] = useState<ReadonlySet<string>>(
        new Set((search.get('sections') ?? '').split(',').filter(Boolean)),
    );
    const asked = useQuery({
        queryKey: ['sections', school],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school } } })),
    });
    const all = asked.data?.sections ?? [];
    const withStudents = all.filter((s) => s.students > 0);
    return {
        asked,
        all,
        withStudents,
        chosen: withStudents.filter((s) => selected.has(s.id)),
        selected,
        setSelected,
    };
}
