import { type ReactNode, useEffect, useState } from 'react';
import { useKey, useOpenOver } from '@/shell/keys';
import { Dialog } from './Dialog';
import { giveFocusBack } from './focus';
import { useCramped } from './useCramped';

interface Props {
    title: string;
    subtitle?: ReactNode;
    onClose: () => void;
    children: ReactNode;
}

/**
 * A sheet at the right, beside the table it belongs to; Esc closes it and the table keeps its place. Where there is no
 * room beside the table, it lies over it as a dialog does.
 */
export function SideSheet(props: Props) {
    const { title, subtitle, onClose, children } = props;
    const cramped = useCramped();
    const [over, setOver] = useState(cramped);
    // A dialog that is open stays uppermost, with what is typed in it, while a tablet is turned or a window drawn
    // wider: the sheet below takes its other form once it has closed.
    const others = useOpenOver() - (over ? 1 : 0);
    if (over !== cramped && others === 0) setOver(cramped);
    if (over) {
        return (
            <Dialog open onClose={onClose} title={title}>
                {subtitle && <div className="-mt-3 mb-4 text-sm text-muted">{subtitle}</div>}
                {children}
            </Dialog>
        );
    }
    return <Beside {...props} />;
}

function Beside({ title, subtitle, onClose, children }: Props) {
    useKey('Escape', 'Close the sheet', onClose);
    // Once it is gone, and what had the focus in it.
    useEffect(() => () => void setTimeout(giveFocusBack), []);
    return (
        <aside aria-label={title} className="beside flex w-[372px] max-w-full flex-col">
            <div className="flex items-start justify-between gap-3">
                <h2 className="text-xl leading-tight">{title}</h2>
                <button
                    onClick={onClose}
                    className="shrink-0 text-sm text-muted underline decoration-rule underline-offset-4"
                >
                    close
                </button>
            </div>
            {subtitle && <div className="mt-1 text-sm text-muted">{subtitle}</div>}
            <div className="mt-4">{children}</div>
        </aside>
    );
}
