import { type ComponentType, lazy } from 'react';

const KEY = 'vantrel.reloaded';

/**
 * A page that comes when it is looked at. Where it does not come, a newer version is on the server most likely, which
 * has it under another name: the whole page is loaded anew, once.
 */
export function later<P>(load: () => Promise<ComponentType<P>>) {
    return lazy(() =>
        load().then(
            (page) => ({ default: page }),
            (error: unknown) => {
                const last = Number(sessionStorage.getItem(KEY) ?? 0);
                if (Date.now() - last < 30_000) throw error;
                sessionStorage.setItem(KEY, String(Date.now()));
                window.location.reload();
                return new Promise<never>(() => undefined);
            },
        ),
    );
}
