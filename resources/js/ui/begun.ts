/** Under which names this window keeps what has been begun and not sent. */
export const BEGUN = 'vantrel.begun.';

/** Forgets what anybody has begun in this window: for when they sign out. */
export function forgetBegun(): void {
    try {
        for (const key of Object.keys(sessionStorage)) if (key.startsWith(BEGUN)) sessionStorage.removeItem(key);
    } catch {
        // Where nothing can be kept, nothing was.
    }
}
