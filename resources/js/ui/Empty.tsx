import type { ReactNode } from 'react';

/** An empty place that teaches the next step, with its real button. */
export function Empty({ title, children, action }: { title: string; children?: ReactNode; action?: ReactNode }) {
    return (
        <div className="max-w-xl px-6 py-10">
            <h2 className="text-xl">{title}</h2>
            {children && <div className="mt-2 text-muted">{children}</div>}
            {action && <div className="mt-5">{action}</div>}
        </div>
    );
}
