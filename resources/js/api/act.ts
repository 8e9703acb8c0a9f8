import { type QueryKey, useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { ApiError, newKey, once, sentence } from './client';

export interface ActOptions<W, R> {
    /** What is asked for again afterwards: all that is on the screen, or what begins with these keys. */
    stale?: QueryKey[];
    then?: (result: R, wish: W) => void | Promise<void>;
    /** Where it was refused; the sentence stands in `error` as well. */
    failed?: (sentence: string, error: unknown) => void;
    /** The field a refusal that names none stands at. */
    home?: string;
    /** What is said of a refusal, where it is not the server's own sentence: in another language. */
    words?: (error: unknown) => string;
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

/** The field a refusal names. */
export function fieldOf(error: unknown): string | undefined {
    return error instanceof ApiError ? Object.keys(error.fields)[0] : undefined;
}

/** Whether it may have been done, or is being done, for all that the answer says. */
function doubtful(error: ApiError): boolean {
    return error.status === 409 || error.status >= 500;
}

/**
 * Something a person does that changes the server: once at a time, and what was on the screen before it is asked for
 * anew.
 */
export function useAct<W = void, R = unknown>(
    act: (wish: W) => Promise<R>,
    { stale, then, failed, home, words = sentence }: ActOptions<W, R> = {},
): Act<W> {
    const queries = useQueryClient();
    const going = useRef(false);
    // The same until the server has said what became of it: what is tried again after a lost answer is not done twice.
    const key = useRef<string | null>(null);
    const mutation = useMutation({
        mutationFn: (wish: W) => once((key.current ??= newKey()), () => act(wish)),
        onSuccess: async (result: R, wish: W) => {
            key.current = null;
            if (stale) await Promise.all(stale.map((queryKey) => queries.invalidateQueries({ queryKey })));
            else await queries.invalidateQueries();
            await then?.(result, wish);
        },
        onError: (error: unknown) => {
            if (error instanceof ApiError && !doubtful(error)) key.current = null;
            failed?.(words(error), error);
        },
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
        error: mutation.error ? words(mutation.error) : '',
        field: (name) => {
            if (!mutation.error) return '';
            return (fieldOf(mutation.error) ?? home) === name ? words(mutation.error) : '';
        },
        clear: mutation.reset,
    };
}
