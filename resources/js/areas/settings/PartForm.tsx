import { type ReactNode, useEffect } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { type SentForm, useSentForm } from '@/ui/useSentForm';

export type Settings = Schemas['Settings'];

/** Keeps the fields of a part. */
export type Keep = (body: Record<string, unknown>) => Promise<Settings>;

interface Props<T extends FieldValues> {
    title: string;
    about: ReactNode;
    button: string;
    /** As the school has it. */
    kept: T;
    /** What is sent, where it is not the fields as they stand. */
    body?: (draft: T) => Record<string, unknown>;
    keep: Keep;
    children: (form: SentForm<T>) => ReactNode;
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
export function PartForm<T extends FieldValues>({ title, about, button, kept, body, keep, children }: Props<T>) {
    const form = useSentForm({
        start: kept,
        send: (draft) => keep(body ? body(draft) : draft),
        stale: [['me']],
    });
    const { reset } = form;
    const now = JSON.stringify(kept);
    useEffect(() => reset(JSON.parse(now) as T), [now, reset]);
    return (
        <Part title={title} about={about}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                {children(form)}
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <div>
                    <Button type="submit" disabled={form.busy}>
                        {button}
                    </Button>
                </div>
            </form>
        </Part>
    );
}
