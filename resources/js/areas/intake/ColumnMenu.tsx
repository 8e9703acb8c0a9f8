import { DropdownMenu } from 'radix-ui';
import type { Schemas } from '@/api/client';
import { menuItem } from '@/ui/menu';
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
                <DropdownMenu.Root>
                    <DropdownMenu.Trigger asChild>
                        <button className="flex h-full w-full flex-col px-2 pt-2 text-left hover:bg-tint">
                            {head}
                        </button>
                    </DropdownMenu.Trigger>
                    <DropdownMenu.Portal>
                        <DropdownMenu.Content
                            align="start"
                            sideOffset={2}
                            collisionPadding={12}
                            className="z-30 max-h-[min(30rem,var(--radix-dropdown-menu-content-available-height))] min-w-56 overflow-auto border border-ink bg-paper py-1"
                        >
                            {found && (
                                <>
                                    <DropdownMenu.Label className="px-4 pb-1 pt-1 text-xs text-muted">
                                        {found.column.heading || `Column ${letter(place)}`} holds: {found.column.why}
                                    </DropdownMenu.Label>
                                    <DropdownMenu.RadioGroup
                                        value={found.column.field ?? '-'}
                                        onValueChange={(value) =>
                                            onSay({ [`t${found.sheet.index}.c${found.column.index}`]: value })
                                        }
                                    >
                                        {[{ key: '-', label: 'nothing that is needed' }, ...list.fields].map((f) => (
                                            <DropdownMenu.RadioItem
                                                key={f.key}
                                                value={f.key}
                                                className={`${menuItem} data-[state=checked]:font-semibold`}
                                            >
                                                {f.label}
                                            </DropdownMenu.RadioItem>
                                        ))}
                                    </DropdownMenu.RadioGroup>
                                    <DropdownMenu.Separator className="my-1 border-t border-rule" />
                                </>
                            )}
                            {place > 0 && !begins.includes(place) && (
                                <DropdownMenu.Item className={menuItem} onSelect={() => beside([...begins, place])}>
                                    Another list begins here
                                </DropdownMenu.Item>
                            )}
                            {begins.length > 0 && (
                                <DropdownMenu.Item className={menuItem} onSelect={() => beside([])}>
                                    It is one list, not {begins.length + 1} side by side
                                </DropdownMenu.Item>
                            )}
                            {list.said.includes(key) && (
                                <DropdownMenu.Item className={menuItem} onSelect={() => onSay({ [key]: null })}>
                                    Take back what was said of lists side by side
                                </DropdownMenu.Item>
                            )}
                        </DropdownMenu.Content>
                    </DropdownMenu.Portal>
                </DropdownMenu.Root>
            )}
        </span>
    );
}
