import { keepPreviousData, type QueryKey, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useAct } from '@/api/act';
import { sentence } from '@/api/client';

/** What a plan is applied by: the server makes it anew from these and refuses where it would be another one. */
export interface Seen {
    seed: string;
    fingerprint: string;
}

interface Options<P extends Seen, W, R> {
    /** Names the plan; it is made anew when this changes. */
    key: QueryKey;
    /** Whether enough has been said to make one. */
    ready?: boolean;
    /** Milliseconds of rest before it is made, where it follows typing. */
    rest?: number;
    look: () => Promise<P>;
    apply: (seen: Seen, wish: W) => Promise<R>;
    /** What is on the screen and has changed by it; all where that is not said. */
    stale?: QueryKey[];
    then: (result: R) => void | Promise<void>;
    failed?: (sentence: string) => void;
}

/**
 * A plan that is looked at and then applied as it was looked at. What has changed in between is said, and the plan is
 * made anew: nothing is applied that nobody has seen.
 */
export function usePlan<P extends Seen, W = void, R = unknown>({
    key,
    ready = true,
    rest = 0,
    look,
    apply,
    stale,
    then,
    failed,
}: Options<P, W, R>) {
    const queries = useQueryClient();
    const wanted = JSON.stringify(key);
    const [settled, setSettled] = useState(rest === 0 ? wanted : '');
    useEffect(() => {
        const timer = setTimeout(() => setSettled(wanted), rest);
        return () => clearTimeout(timer);
    }, [wanted, rest]);
    const made = useQuery({
        queryKey: ['plan', ...key],
        queryFn: look,
        enabled: ready && settled === wanted,
        placeholderData: keepPreviousData,
        staleTime: 0,
        gcTime: 0,
        retry: false,
    });
    // One of another wish is not shown as if it were of this.
    const [spent, setSpent] = useState('');
    const plan =
        spent !== wanted && ready && made.data && !made.isPlaceholderData && settled === wanted && !made.isError
            ? made.data
            : null;
    const act = useAct((wish: W) => apply({ seed: plan?.seed ?? '', fingerprint: plan?.fingerprint ?? '' }, wish), {
        ...(stale ? { stale } : {}),
        then: (result: R) => {
            // What has been applied is not applied again while the page it stood on closes.
            setSpent(wanted);
            return then(result);
        },
        failed: (said) => {
            failed?.(said);
            void queries.invalidateQueries({ queryKey: ['plan', ...key] });
        },
    });
    const { clear } = act;
    // What was refused of one wish is not said of the next.
    useEffect(() => clear(), [wanted, clear]);
    return {
        plan,
        /** The last plan there was while the next one is made, so that the page does not jump. */
        last: made.data ?? null,
        apply: (wish: W) => {
            if (plan) act.run(wish);
        },
        busy: act.busy || (ready && (made.isFetching || settled !== wanted)),
        /** Why none could be made, or why it was not applied. */
        error: act.error || (ready && made.error ? sentence(made.error) : ''),
        field: act.field,
    };
}
