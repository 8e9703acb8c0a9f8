import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas, sentence } from '@/api/client';
import { useNotice } from '@/ui/Notice';

type Detail = Schemas['IntakeDetail'];

/** One list, asked for again while something works on it, and what is said of it: each answer plans it anew. */
export function useIntake(id: string) {
    const queries = useQueryClient();
    const notice = useNotice();
    const [sending, setSending] = useState(0);
    const path = { params: { path: { intake: id } } };
    const asked = useQuery({
        queryKey: ['intake', id],
        queryFn: () => data(api.GET('/api/intakes/{intake}', path)),
        refetchInterval: (query) => (['reading', 'applying'].includes(query.state.data?.state ?? '') ? 400 : false),
    });
    const send = async (work: () => Promise<Detail>) => {
        // While something said of the list is on its way, the plan on the screen is not the plan any more.
        setSending((n) => n + 1);
        try {
            queries.setQueryData(['intake', id], await work());
        } catch (e) {
            notice(sentence(e), { bad: true });
            await queries.invalidateQueries({ queryKey: ['intake', id] });
        } finally {
            setSending((n) => n - 1);
        }
    };
    const tell = (answers: Record<string, string | null>) =>
        void send(() => data(api.POST('/api/intakes/{intake}/answers', { ...path, body: { answers } })));

    return { list: asked.data, asked, path, send, tell, sending: sending > 0 };
}
