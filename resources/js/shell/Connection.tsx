import { useIsFetching, useQueryClient } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { sentence } from '@/api/client';

/**
 * A line at the head of the page while what is on it could not be asked for again: it may be old, and says so, instead
 * of going away or looking fresh.
 */
export function Connection() {
    const queries = useQueryClient();
    const cache = queries.getQueryCache();
    const fetching = useIsFetching() > 0;
    const failed = useSyncExternalStore(
        (tell) => cache.subscribe(tell),
        () => cache.getAll().find((q) => q.isActive() && q.state.error !== null && q.state.data !== undefined) ?? null,
    );
    if (!failed) return null;
    return (
        <div
            role="status"
            className="flex flex-wrap items-baseline gap-x-4 border-b border-rule bg-tint px-5 py-1.5 text-sm"
        >
            <span>
                <b>What you see may be old.</b> {sentence(failed.state.error)}
            </span>
            <button
                className="min-h-6 font-semibold underline underline-offset-4"
                onClick={() =>
                    void queries.refetchQueries({ type: 'active', predicate: (q) => q.state.error !== null })
                }
            >
                {fetching ? 'Trying…' : 'Try again'}
            </button>
        </div>
    );
}
