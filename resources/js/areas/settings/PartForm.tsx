import { type ReactNode, useState } from 'react';
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';

export type Settings = Schemas['Settings'];

export interface Refused {
    /** Field the server refuses, '' where it is none of them. */
    field: string;
    text: string;
}

/** Keeps the fields of a part; null where all is well. */
export type Keep = (body: Record<string, unknown>) => Promise<Refused | null>;

interface TextField {
    value: string;
    onChange: (event: { target: { value: string } }) => void;
    error: string | undefined;
}

interface Props<T extends Record<string, unknown>> {
    title: string;
    about: ReactNode;
    button: string;
    /** As the school has it. */
    kept: T;
    /** What is sent, where it is not the fields as they stand. */
    body?: (draft: T) => Record<string, unknown>;
    keep: Keep;
    children: (
        draft: T,
        set: (change: Partial<T>) => void,
        field: (name: keyof T & string) => TextField,
        problem: (name: string) => string | undefined,
    ) => ReactNode;
}

export function Part({ title, about, children }: { title: string; about: ReactNode; children: ReactNode }) {
    return (
        <section aria-label={title} className="grid gap-x-8 gap-y-3 border-t border-rule py-5 md:grid-cols-[220px_1fr]">
            <div>
                <h2 className="text-lg">{title}</h2>
                <p className="text-sm text-muted">{about}</p>
            </div>
            <div>{children}</div>
        </section>
    );
}

/**
 * One part of the settings, kept by its own button. What is typed gives way to what the school has when that changes:
 * by undo, or elsewhere.
 */
export function PartForm<T extends Record<string, unknown>>({
    title,
    about,
    button,
    kept,
    body,
    keep,
    children,
}: Props<T>) {
    const now = JSON.stringify(kept);
    const [from, setFrom] = useState(now);
    const [draft, setDraft] = useState(kept);
    const [refused, setRefused] = useState<Refused | null>(null);
    if (from !== now) {
        setFrom(now);
        setDraft(kept);
        setRefused(null);
    }
    const set = (change: Partial<T>) => setDraft((before) => ({ ...before, ...change }));
    const problem = (name: string) => (refused?.field === name ? refused.text : undefined);
    return (
        <Part title={title} about={about}>
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep(body ? body(draft) : draft).then(setRefused);
                }}
            >
                {children(
                    draft,
                    set,
                    (name) => ({
                        value: String(draft[name]),
                        onChange: (event) => set({ [name]: event.target.value } as unknown as Partial<T>),
                        error: problem(name),
                    }),
                    problem,
                )}
                <div>
                    <Button type="submit">{button}</Button>
                </div>
            </form>
        </Part>
    );
}
