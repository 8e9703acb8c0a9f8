import { type ReactNode, useEffect } from 'react';
import { useKey } from '@/shell/keys';
import { giveFocusBack } from './focus';

/** A sheet at the right, beside the table it belongs to; Esc closes it and the table keeps its place. */
export function SideSheet({
    title,
    subtitle,
    onClose,
    children,
}: {
    title: string;
    subtitle?: ReactNode;
    onClose: () => void;
    children: ReactNode;
}) {
    useKey('Escape', 'Close the sheet', onClose);
    // Once it is gone, and what had the focus in it.
    useEffect(() => () => void setTimeout(giveFocusBack), []);
    return (
        <aside
            aria-label={title}
            className="flex w-[372px] shrink-0 flex-col overflow-auto border-l border-rule px-5 py-4 max-md:fixed max-md:inset-0 max-md:z-30 max-md:w-full max-md:bg-paper"
        >
            <div className="flex items-start justify-between gap-3">
                <h2 className="text-xl leading-tight">{title}</h2>
                <button
                    onClick={onClose}
                    className="shrink-0 text-sm text-muted underline decoration-rule underline-offset-4"
                >
                    close
                </button>
            </div>
            {subtitle && <p className="mt-1 text-sm text-muted">{subtitle}</p>}
            <div className="mt-4">{children}</div>
        </aside>
    );
}
