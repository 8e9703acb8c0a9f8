import { type QueryKey, useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { ApiError, sentence } from './client';

interface Options<W, R> {
    /** What is asked for again afterwards: all that is on the screen, or what begins with these keys. */
    stale?: QueryKey[];
    then?: (result: R, wish: W) => void | Promise<void>;
    /** Where it was refused; the sentence stands in `error` as well. */
    failed?: (sentence: string, error: unknown) => void;
    /** The field a refusal that names none stands at. */
    home?: string;
}

export interface Act<W> {
    /** Does it; a second call while the first is on its way does nothing. */
    run: (wish: W) => void;
    busy: boolean;
    /** Why it was refused, '' where it was not. */
    error: string;
    /** Why a field was refused. */
    field: (name: string) => string;
    clear: () => void;
}

/**
 * Something a person does that changes the server: once at a time, and what was on the screen before it is asked for
 * anew.
 */
export function useAct<W = void, R = unknown>(
    act: (wish: W) => Promise<R>,
    { stale, then, failed, home }: Options<W, R> = {},
): Act<W> {
    const queries = useQueryClient();
    const going = useRef(false);
    const mutation = useMutation({
        mutationFn: act,
        onSuccess: async (result: R, wish: W) => {
            if (stale) await Promise.all(stale.map((queryKey) => queries.invalidateQueries({ queryKey })));
            else await queries.invalidateQueries();
            await then?.(result, wish);
        },
        onError: (error: unknown) => failed?.(sentence(error), error),
        onSettled: () => {
            going.current = false;
        },
    });
    return {
        run: (wish) => {
            if (going.current) return;
            going.current = true;
            mutation.mutate(wish);
        },
        busy: mutation.isPending,
        error: mutation.error ? sentence(mutation.error) : '',
        field: (name) => {
            if (!mutation.error) return '';
            const named = mutation.error instanceof ApiError ? Object.keys(mutation.error.fields)[0] : undefined;
            return (named ?? home) === name ? sentence(mutation.error) : '';
        },
        clear: mutation.reset,
    };
}
