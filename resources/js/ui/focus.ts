/** Where the keyboard was on the page itself, not in what opened over it. */
let last: HTMLElement | null = null;
const OVER = '[role="dialog"], [role="menu"], [role="listbox"], [role="combobox"]';

if (typeof document !== 'undefined') {
    document.addEventListener('focusin', (event) => {
        if (event.target instanceof HTMLElement && !event.target.closest(OVER)) last = event.target;
    });
}

/** Where nothing has the focus, the page's own part takes it: keys and screen readers go on from its beginning. */
export function focusPage(): void {
    if (document.activeElement === document.body) document.getElementById('sheet')?.focus({ preventScroll: true });
}

/**
 * Gives the focus back to where it was before something opened over the page; to the page where that is gone. Nobody is
 * sent back to the top of the document.
 */
export function giveFocusBack(): void {
    if (document.activeElement && document.activeElement !== document.body) return;
    if (last?.isConnected) last.focus({ preventScroll: true });
    focusPage();
}
