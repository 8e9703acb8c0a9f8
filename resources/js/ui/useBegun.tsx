import { useCallback, useEffect, useState } from 'react';
import { useMe } from '@/shell/session';
import { BEGUN } from './begun';
import { Button } from './Button';

/**
 * What somebody has begun to write and not sent, kept in this window alone until it is sent, given up or its writer
 * signs out: a key pressed by mistake, or a page loaded anew, costs no letter.
 *
 * @param what names the form, and what it is about; null where nothing is kept
 */
export function useBegun<T>(what: string | null) {
    const me = useMe()?.id ?? '';
    const key = what === null ? null : `${BEGUN}${me}.${what}`;
    const [begun] = useState<T | null>(() => {
        try {
            return key === null ? null : (JSON.parse(sessionStorage.getItem(key) ?? 'null') as T | null);
        } catch {
            return null;
        }
    });
    /** As JSON; null to forget it. */
    const keep = useCallback(
        (json: string | null) => {
            if (key === null) return;
            try {
                if (json === null) sessionStorage.removeItem(key);
                else sessionStorage.setItem(key, json);
            } catch {
                // A browser that keeps nothing still sends letters.
            }
        },
        [key],
    );
    return { begun, keep };
}

/** Keeps what stands in a form whenever it changes; nothing where nothing has been written. */
export function useKeptBegun(keep: (json: string | null) => void, value: unknown, written: boolean): void {
    const json = written ? JSON.stringify(value) : null;
    useEffect(() => keep(json), [keep, json]);
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
