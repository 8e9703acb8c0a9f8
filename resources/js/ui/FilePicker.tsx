import type { ComponentProps } from 'react';

/** A labelled choice of files. */
export function FilePicker({ label, ...input }: { label: string } & Omit<ComponentProps<'input'>, 'type'>) {
    return (
        <label className="block text-sm">
            <span className="mb-1 block">{label}</span>
            <input
                type="file"
                className="max-w-full text-muted file:me-3 file:min-h-8 file:cursor-pointer file:rounded-card file:border file:border-ink/40 file:bg-paper file:px-3 file:text-sm file:font-semibold file:text-ink hover:file:border-ink"
                {...input}
            />
        </label>
    );
}
