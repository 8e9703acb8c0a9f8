import {
    createContext,
    type ReactNode,
    useCallback,
    useContext,
    useId,
    useLayoutEffect,
    useRef,
    useSyncExternalStore,
} from 'react';

export interface Key {
    /** As pressed: `j`, `Enter`, `Ctrl+Enter`, or a sequence such as `g d`. */
    combo: string;
    label: string;
    run: (event: KeyboardEvent) => void;
    /** Whether holding it down goes on, as in moving through rows; of everything else once is enough. */
    repeats: boolean;
    scope: string;
}

interface Registry {
    keys: Set<{ current: Key }>;
    /** Scopes that are open, the page first; the last one has the keyboard. */
    scopes: string[];
    /** Are called when a scope opens or closes. */
    watching: Set<() => void>;
}

const PAGE = 'page';
// One for the window, which has one keyboard; pages that have no keys fetch nothing of this.
const registry: Registry = { keys: new Set(), scopes: [PAGE], watching: new Set() };
const Scope = createContext<string>(PAGE);

function typing(target: EventTarget | null): boolean {
    return (
        target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
    );
}

/** Menus and lists of choices that are open have keys of their own, letters among them. */
function ownsKeys(target: EventTarget | null): boolean {
    return target instanceof HTMLElement && target.closest('[role="menu"], [role="listbox"]') !== null;
}

const LETTERS = 'vantrel.letters';

/** Whether single letters, figures and signs act as keys: somebody who speaks to the computer may not want that. */
export function lettersAct(): boolean {
    try {
        return localStorage.getItem(LETTERS) !== 'false';
    } catch {
        return true;
    }
}

export function letLettersAct(on: boolean): void {
    try {
        localStorage.setItem(LETTERS, String(on));
    } catch {
        // A browser that keeps nothing asks again.
    }
}

/**
 * What was pressed, whatever the layout: on one of other letters the key that stands where the Latin one does, with
 * Caps Lock the letter itself; a sign that needs AltGr or Option is the sign.
 */
function comboOf(event: KeyboardEvent): string {
    const graph = event.getModifierState('AltGraph') || event.altKey;
    if (graph) return /^[[\]/?]$/.test(event.key) ? event.key : '';
    const letter =
        /^Key([A-Z])$/.exec(event.code)?.[1]?.toLowerCase() ??
        ({ BracketLeft: '[', BracketRight: ']' } as Record<string, string>)[event.code];
    const foreign = /^\p{L}$/u.test(event.key) && !/^[a-z]$/i.test(event.key);
    const key =
        letter && foreign ? letter : /^[A-Z]$/.test(event.key) && !event.shiftKey ? event.key.toLowerCase() : event.key;
    return (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + key;
}

/** The first key of a sequence, and when it was pressed. */
let prefix: { key: string; at: number } | null = null;

/** Hands a key press to what is uppermost on the screen; the newest registration of a key wins. */
function press(event: KeyboardEvent): void {
    if (event.defaultPrevented || ownsKeys(event.target)) return;
    const combo = comboOf(event);
    if (combo === '' || (combo.length === 1 && !lettersAct())) return;
    const pressed = prefix && Date.now() - prefix.at < 1200 ? `${prefix.key} ${combo}` : combo;
    prefix = null;
    if (typing(event.target) && !combo.startsWith('Ctrl+') && combo !== 'Escape') return;
    const top = registry.scopes.at(-1) ?? PAGE;
    const here = [...registry.keys].filter((key) => key.current.scope === top);
    const found = here.reverse().find((key) => key.current.combo === pressed);
    if (found) {
        // Enter on a button or link is that button's own.
        if (
            combo === 'Enter' &&
            event.target instanceof HTMLElement &&
            /^(BUTTON|A|SUMMARY)$/.test(event.target.tagName)
        )
            return;
        event.preventDefault();
        if (!event.repeat || found.current.repeats) found.current.run(event);
    } else if (!event.repeat && here.some((key) => key.current.combo.startsWith(`${combo} `))) {
        prefix = { key: combo, at: Date.now() };
    }
}

/** Has the keyboard while it is on the screen: keys of what lies behind do nothing. */
export function KeyScope({ children }: { children: ReactNode }) {
    const id = useId();
    useLayoutEffect(() => {
        const tell = () => registry.watching.forEach((changed) => changed());
        registry.scopes.push(id);
        tell();
        return () => {
            registry.scopes.splice(registry.scopes.indexOf(id), 1);
            tell();
        };
    }, [id]);
    return <Scope.Provider value={id}>{children}</Scope.Provider>;
}

/** How many dialogs are open over what asks. */
export function useOpenOver(): number {
    const scope = useContext(Scope);
    return useSyncExternalStore(
        useCallback((changed) => {
            registry.watching.add(changed);
            return () => void registry.watching.delete(changed);
        }, []),
        () => registry.scopes.length - 1 - registry.scopes.indexOf(scope),
    );
}

/** Registers a key while the component is on the screen and `on` is true. */
export function useKey(
    combo: string,
    label: string,
    run: (event: KeyboardEvent) => void,
    on = true,
    { repeats = false }: { repeats?: boolean } = {},
): void {
    const scope = useContext(Scope);
    const key = useRef<Key>({ combo, label, run, repeats, scope });
    // Before it is painted: what is on the screen can be pressed.
    useLayoutEffect(() => {
        key.current = { combo, label, run, repeats, scope };
    });
    useLayoutEffect(() => {
        if (!on) return;
        const entry = key;
        if (registry.keys.size === 0) window.addEventListener('keydown', press);
        registry.keys.add(entry);
        return () => {
            registry.keys.delete(entry);
            if (registry.keys.size === 0) window.removeEventListener('keydown', press);
        };
    }, [on]);
}

/** What can be pressed on the page, for the key list. */
export function useKeyList(): () => Key[] {
    return () => {
        const seen = new Map<string, Key>();
        for (const key of registry.keys)
            if (key.current.label && key.current.scope === PAGE) seen.set(key.current.combo, key.current);
        return [...seen.values()];
    };
}
