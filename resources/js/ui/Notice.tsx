import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from 'react';

interface Note {
    text: string;
    bad: boolean;
    action?: { label: string; run: () => void } | undefined;
}

const Context = createContext<(text: string, options?: { bad?: boolean; action?: Note['action'] }) => void>(
    () => undefined,
);

/** One line at the foot that says what has just happened, with its undo where there is one. */
export function NoticeProvider({ children }: { children: ReactNode }) {
    const [note, setNote] = useState<Note | null>(null);
    const say = useCallback((text: string, options: { bad?: boolean; action?: Note['action'] } = {}) => {
        setNote({ text, bad: options.bad ?? false, action: options.action });
    }, []);
    useEffect(() => {
        if (!note || note.bad) return;
        const timer = setTimeout(() => setNote(null), 12_000);
        return () => clearTimeout(timer);
    }, [note]);
    return (
        <Context.Provider value={say}>
            {children}
            <div
                role="status"
                aria-live="polite"
                className="pointer-events-none fixed inset-x-0 bottom-0 z-50 flex justify-center"
            >
                {note && (
                    <div
                        className={`pointer-events-auto mb-4 flex max-w-2xl items-center gap-4 border bg-paper px-4 py-2 text-sm ${note.bad ? 'border-madder text-madder' : 'border-ink'}`}
                    >
                        <span>{note.text}</span>
                        {note.action && (
                            <button
                                className="font-semibold underline underline-offset-4"
                                onClick={() => {
                                    note.action?.run();
                                    setNote(null);
                                }}
                            >
                                {note.action.label}
                            </button>
                        )}
                        <button aria-label="Close this message" className="text-muted" onClick={() => setNote(null)}>
                            ×
                        </button>
                    </div>
                )}
            </div>
        </Context.Provider>
    );
}

export function useNotice() {
    return useContext(Context);
}
