import type { Schemas } from '@/api/client';
import { Menu, MenuChoices, MenuItem, MenuRule } from '@/ui/Menu';
import { columnAt, letter, starts } from './bands';

interface Props {
    list: Schemas['IntakeDetail'];
    source: number;
    /** Column of the sheet, counted from 0. */
    place: number;
    off: boolean;
    onSay: (answers: Record<string, string | null>) => void;
}

/** The head of a column: its letter and what it is read as; opens what else it can be. */
export function ColumnMenu({ list, source, place, off, onSay }: Props) {
    const found = columnAt(list.sheets, source, place);
    const field = list.fields.find((f) => f.key === found?.column.field);
    const begins = starts(list.sheets, source);
    const key = `s${source}.beside`;
    const beside = (all: number[]) =>
        onSay({ [key]: all.length === 0 ? '-' : [...all].sort((a, b) => a - b).join(',') });
    const name = field?.label ?? (found ? 'nothing' : '');
    const head = (
        <>
            <span className="font-mono text-muted">{letter(place)}</span>
            <span className={`w-full truncate ${field ? 'font-semibold' : 'italic text-muted'}`}>{name}</span>
        </>
    );
    const edge = begins.includes(place) ? 'border-l-[3px] border-l-ink' : '';
    return (
        <span
            role="columnheader"
            aria-colindex={place + 2}
            title={found ? found.column.why : undefined}
            className={`min-w-0 self-stretch ${edge}`}
        >
            {off ? (
                <span className="flex flex-col px-2 pt-2">{head}</span>
            ) : (
                <Menu
                    trigger={
                        <button className="flex h-full w-full flex-col px-2 pt-2 text-left hover:bg-tint">
                            {head}
                        </button>
                    }
                >
                    {found && (
                        <>
                            <MenuChoices
                                label={`${found.column.heading || `Column ${letter(place)}`} holds: ${found.column.why}`}
                                value={found.column.field ?? '-'}
                                options={[
                                    { value: '-', label: 'nothing that is needed' },
                                    ...list.fields.map((f) => ({ value: f.key, label: f.label })),
                                ]}
                                onChoose={(value) => onSay({ [`t${found.sheet.index}.c${found.column.index}`]: value })}
                            />
                            <MenuRule />
                        </>
                    )}
                    {place > 0 && !begins.includes(place) && (
                        <MenuItem onSelect={() => beside([...begins, place])}>Another list begins here</MenuItem>
                    )}
                    {begins.length > 0 && (
                        <MenuItem onSelect={() => beside([])}>
                            It is one list, not {begins.length + 1} side by side
                        </MenuItem>
                    )}
                    {list.said.includes(key) && (
                        <MenuItem onSelect={() => onSay({ [key]: null })}>
                            Take back what was said of lists side by side
                        </MenuItem>
                    )}
                </Menu>
            )}
        </span>
    );
}
