import { useCallback, useEffect, useState } from 'react';
import { useMe } from '@/shell/session';
import { BEGUN } from './begun';
import { Button } from './Button';

/**
 * What somebody has begun to write and not sent, kept in this window alone until it is sent, given up or its writer
 * signs out: a key pressed by mistake, or a page loaded anew, costs no letter.
 *
 * @param what names the form, and what it is about; '' where nothing is kept
 */
export function useBegun<T>(what: string) {
    const key = `${BEGUN}${useMe()?.id ?? ''}.${what}`;
    const [begun] = useState<T | null>(() => {
        try {
            return what === '' ? null : (JSON.parse(sessionStorage.getItem(key) ?? 'null') as T | null);
        } catch {
            return null;
        }
    });
    const keep = useCallback(
        (value: T | null) => {
            try {
                if (value === null || what === '') sessionStorage.removeItem(key);
                else sessionStorage.setItem(key, JSON.stringify(value));
            } catch {
                // A browser that keeps nothing still sends letters.
            }
        },
        [key, what],
    );
    return { begun, keep };
}

/** Keeps what stands in a form whenever it changes; nothing where nothing has been written. */
export function useKeptBegun<T>(keep: (value: T | null) => void, value: T, written: boolean): void {
    const now = JSON.stringify(value);
    useEffect(() => keep(written ? (JSON.parse(now) as T) : null), [keep, now, written]);
}

/** Says that what stands there was begun before, and gives it up. */
export function BegunBefore({ onAnew }: { onAnew: () => void }) {
    const [shown, setShown] = useState(true);
    if (!shown) return null;
    return (
        <p className="flex flex-wrap items-center gap-3 border-s-[3px] border-marigold ps-3 text-sm">
            You had begun this, and not sent it.
            <Button
                onClick={() => {
                    setShown(false);
                    onAnew();
                }}
            >
                Begin anew
            </Button>
        </p>
    );
}
