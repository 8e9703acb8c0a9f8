import { type ReactNode, useEffect } from 'react';
import type { FieldValues } from 'react-hook-form';
import { ApiError, type Schemas } from '@/api/client';
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
    /** Asks for the settings anew: they have changed since they were looked at. */
    onStale: () => void;
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
 * One part of the settings, kept by its own button. What the school has changed meanwhile, by undo or in another
 * window, takes the place of what nobody has touched here; what has been typed stays, with a word of what stands there
 * now.
 */
export function PartForm<T extends FieldValues>({
    title,
    about,
    button,
    kept,
    body,
    keep,
    onStale,
    children,
}: Props<T>) {
    const form = useSentForm({
        start: kept,
        send: (draft) => keep(body ? body(draft) : draft),
        stale: [['me']],
        settles: true,
        failed: (_, error) => {
            if (error instanceof ApiError && error.status === 409) onStale();
        },
    });
    const { reset } = form;
    const now = JSON.stringify(kept);
    useEffect(() => reset(JSON.parse(now) as T, { keepTouched: true }), [now, reset]);
    return (
        <Part title={title} about={about}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                {children(form)}
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                {form.overtaken.length > 0 && (
                    <p role="status" className="border-l-[3px] border-marigold pl-3 text-sm">
                        Changed meanwhile by somebody else: {form.overtaken.join('; ')}. What you typed is not kept yet.
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
