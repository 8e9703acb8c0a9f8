import { useCallback, useState } from 'react';

/** A small setting of this browser, kept between visits; nothing about people is kept this way. */
export function useStored<T>(key: string, initial: T): [T, (value: T) => void] {
    const [value, setValue] = useState<T>(() => {
        try {
            const stored = localStorage.getItem(`vantrel.${key}`);
            return stored === null ? initial : (JSON.parse(stored) as T);
        } catch {
            return initial;
        }
    });
    const store = useCallback(
        (next: T) => {
            setValue(next);
            try {
                localStorage.setItem(`vantrel.${key}`, JSON.stringify(next));
            } catch {
                // A browser that keeps nothing still works; the choice lasts until the page is closed.
            }
        },
        [key],
    );
    return [value, store];
}
