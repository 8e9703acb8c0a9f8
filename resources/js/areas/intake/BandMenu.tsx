import { Menu, MenuItem } from '@/ui/Menu';

interface Props {
    label: string;
    number: number;
    sayings: { label: string; answers: Record<string, string | null> }[];
    open: boolean;
    onOpen: (open: boolean) => void;
    /** Shift: from the row that is current to this one. */
    onReach: () => void;
    off: boolean;
    onSay: (answers: Record<string, string | null>) => void;
}

/** The number of a row, which opens what can be said of it, or of the rows that Shift reaches over. */
export function BandMenu({ label, number, sayings, open, onOpen, onReach, off, onSay }: Props) {
    if (off) return <span className="block px-2 font-mono text-xs leading-[29px] text-muted">{number}</span>;
    return (
        <Menu
            open={open}
            onOpen={onOpen}
            trigger={
                <button
                    tabIndex={-1}
                    aria-label={label}
                    className="block w-full px-2 text-left font-mono text-xs leading-[29px] text-muted underline decoration-rule underline-offset-4 hover:text-ink hover:decoration-ink"
                    onPointerDown={(event) => {
                        if (event.shiftKey) onReach();
                    }}
                >
                    {number}
                </button>
            }
        >
            {sayings.map((s) => (
                <MenuItem key={s.label} onSelect={() => onSay(s.answers)}>
                    {s.label}
                </MenuItem>
            ))}
        </Menu>
    );
}
