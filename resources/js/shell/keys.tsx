import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef } from 'react';

export interface Key {
    /** As pressed: `j`, `Enter`, `Ctrl+Enter`, or a sequence such as `g d`. */
    combo: string;
    label: string;
    run: (event: KeyboardEvent) => void;
}

interface Registry {
    keys: Set<{ current: Key }>;
}

const Context = createContext<Registry>({ keys: new Set() });

function typing(target: EventTarget | null): boolean {
    return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
}

function comboOf(event: KeyboardEvent): string {
    const ctrl = event.ctrlKey || event.metaKey ? 'Ctrl+' : '';
    return ctrl + (event.key.length === 1 ? event.key : event.key);
}

/** Hands key presses to whatever is on the screen; the newest registration of a key wins. */
export function KeyProvider({ children }: { children: ReactNode }) {
    const registry = useMemo<Registry>(() => ({ keys: new Set() }), []);
    const prefix = useRef<{ key: string; at: number } | null>(null);

    useEffect(() => {
        const listen = (event: KeyboardEvent) => {
            if (event.defaultPrevented || event.altKey) return;
            const combo = comboOf(event);
            const pressed = prefix.current && Date.now() - prefix.current.at < 1200 ? `${prefix.current.key} ${combo}` : combo;
            prefix.current = null;
            if (typing(event.target) && !combo.startsWith('Ctrl+') && combo !== 'Escape') return;
            // A dialog owns the keyboard while it is open, except for its own keys, which it registers last.
            const found = [...registry.keys].reverse().find((key) => key.current.combo === pressed);
            if (found) {
                // Enter on a button or link is that button's own.
                if (combo === 'Enter' && event.target instanceof HTMLElement && /^(BUTTON|A|SUMMARY)$/.test(event.target.tagName))
                    return;
                event.preventDefault();
                found.current.run(event);
            } else if ([...registry.keys].some((key) => key.current.combo.startsWith(`${combo} `))) {
                prefix.current = { key: combo, at: Date.now() };
            }
        };
        window.addEventListener('keydown', listen);
        return () => window.removeEventListener('keydown', listen);
    }, [registry]);

    return <Context.Provider value={registry}>{children}</Context.Provider>;
}

/** Registers a key while the component is on the screen and `on` is true. */
export function useKey(combo: string, label: string, run: (event: KeyboardEvent) => void, on = true): void {
    const registry = useContext(Context);
    const key = useRef<Key>({ combo, label, run });
    useEffect(() => {
        key.current = { combo, label, run };
    });
    useEffect(() => {
        if (!on) return;
        const entry = key;
        registry.keys.add(entry);
        return () => void registry.keys.delete(entry);
    }, [registry, on]);
}

/** What can be pressed now, for the key list. */
export function useKeyList(): () => Key[] {
    const registry = useContext(Context);
    return () => {
        const seen = new Map<string, Key>();
        for (const key of registry.keys) if (key.current.label) seen.set(key.current.combo, key.current);
        return [...seen.values()];
    };
}
