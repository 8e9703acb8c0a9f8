import type { ReactNode } from 'react';
import { useKey } from '@/shell/keys';
import { Button } from './Button';
import { undoable } from './dates';

interface Props {
    sentence: string;
    /** An instant; null where it cannot be undone. */
    undoUntil?: string | null;
    button: string;
    onApply: () => void;
    /** While it is being applied. */
    busy?: boolean;
    disabled?: boolean;
    danger?: boolean;
    children?: ReactNode;
}

/** The foot of every plan: one sentence of consequences, the button, and how long it can be undone. */
export function ApplyBar({
    sentence,
    undoUntil,
    button,
    onApply,
    busy = false,
    disabled = false,
    danger = false,
    children,
}: Props) {
    const apply = () => {
        if (!disabled && !busy) onApply();
    };
    useKey('Ctrl+Enter', button, apply, !disabled);
    return (
        <footer className="flex items-center justify-between gap-x-6 gap-y-3 border-t border-ink px-6 py-3 cramped:flex-wrap">
            <p className="max-w-2xl text-sm">
                {sentence} {!disabled && <span className="text-muted">{undoable(undoUntil)}</span>}
            </p>
            <div className="flex flex-wrap items-center gap-x-4 gap-y-2 roomy:shrink-0">
                {children}
                <Button
                    kind={danger ? 'danger' : 'primary'}
                    className="min-h-10 px-5"
                    disabled={disabled || busy}
                    onClick={apply}
                >
                    {button}
                </Button>
            </div>
        </footer>
    );
}
