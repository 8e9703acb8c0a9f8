import { useSyncExternalStore } from 'react';

/** The same as `cramped:` in the styles: too little room for things side by side. */
export const CRAMPED = '(width < 64rem) or (height < 30rem)';

export function useCramped(): boolean {
    return useSyncExternalStore(
        (changed) => {
            const query = matchMedia(CRAMPED);
            query.addEventListener('change', changed);
            return () => query.removeEventListener('change', changed);
        },
        () => matchMedia(CRAMPED).matches,
    );
}
