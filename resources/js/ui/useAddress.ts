import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';

export type Changes = Record<string, string | null>;

/**
 * The part of the address that says what is shown.
 *
 * @returns its words, what changes some of them (nothing or null takes one away), and what puts others in their place
 */
export function useAddress() {
    const [search, setSearch] = useSearchParams();
    const set = (changes: Changes) => {
        // From the address as it is, not as it was when the page was last drawn: two filters may be set within one
        // moment.
        const next = new URLSearchParams(window.location.search);
        for (const [name, value] of Object.entries(changes)) {
            if (value) next.set(name, value);
            else next.delete(name);
        }
        setSearch(next, { replace: true });
    };
    return [search, set, setSearch] as const;
}

/** A filter that is typed: the word `q` of the address follows once the hand rests. */
export function useTyped(q: string, set: (changes: Changes) => void) {
    const [text, setText] = useState(q);
    useEffect(() => {
        const timer = setTimeout(
            () => text !== (new URLSearchParams(window.location.search).get('q') ?? '') && set({ q: text || null }),
            200,
        );
        return () => clearTimeout(timer);
        // The filter follows what is typed, not the other way round.
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [text]);
    return [text, setText] as const;
}
