import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';

interface Note {
    text: string;
    bad: boolean;
    action?: { label: string; run: () => void } | undefined;
}

interface Notices {
    say: (text: string, options?: { bad?: boolean; action?: Note['action'] }) => void;
    note: Note | null;
    close: () => void;
    /** A page that has a place of its own for the line says so while it is there. */
    place: (there: boolean) => void;
}

const Context = createContext<Notices>({
    say: () => undefined,
    note: null,
    close: () => undefined,
    place: () => undefined,
});

/** One line at the foot that says what has just happened, with its undo where there is one. */
export function NoticeProvider({ children }: { children: ReactNode }) {
    const [note, setNote] = useState<Note | null>(null);
    const [places, setPlaces] = useState(0);
    const say = useCallback<Notices['say']>((text, options = {}) => {
        setNote({ text, bad: options.bad ?? false, action: options.action });
    }, []);
    const close = useCallback(() => setNote(null), []);
    const place = useCallback((there: boolean) => setPlaces((n) => n + (there ? 1 : -1)), []);
    useEffect(() => {
        if (!note || note.bad) return;
        const timer = setTimeout(() => setNote(null), 12_000);
        return () => clearTimeout(timer);
    }, [note]);
    const all = useMemo(() => ({ say, note, close, place }), [say, note, close, place]);
    return (
        <Context.Provider value={all}>
            {children}
            {places === 0 && (
                <div className="pointer-events-none fixed inset-x-0 bottom-0 z-50 *:pointer-events-auto">
                    <Line />
                </div>
            )}
        </Context.Provider>
    );
}

/** The line where the page has room for it: below everything, covering nothing. */
export function NoticeLine() {
    const { place } = useContext(Context);
    useEffect(() => {
        place(true);
        return () => place(false);
    }, [place]);
    return <Line />;
}

function Line() {
    const { note, close } = useContext(Context);
    return (
        <div role="status" aria-live="polite" className="shrink-0 cramped:sticky cramped:bottom-0 cramped:z-20">
            {note && (
                <div
                    className={`flex flex-wrap items-center gap-x-4 gap-y-1 border-t-2 bg-paper px-5 py-2 text-sm ${note.bad ? 'border-madder text-madder' : 'border-ink'}`}
                >
                    <span>{note.text}</span>
                    {note.action && (
                        <button
                            className="min-h-7 font-semibold underline underline-offset-4"
                            onClick={() => {
                                note.action?.run();
                                close();
                            }}
                        >
                            {note.action.label}
                        </button>
                    )}
                    <button aria-label="Close this message" className="ml-auto size-7 text-muted" onClick={close}>
                        ×
                    </button>
                </div>
            )}
        </div>
    );
}

export function useNotice() {
    return useContext(Context).say;
}
