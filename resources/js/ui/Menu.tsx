import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { useOver } from './useOver';

interface Props {
    /** The button that opens it. */
    trigger: ReactNode;
    align?: 'start' | 'end';
    open?: boolean;
    onOpen?: (open: boolean) => void;
    children: ReactNode;
}

/**
 * A menu at a button. The page behind stays what it is, for readers of the screen too; the menu has the keyboard while
 * it is open.
 */
export function Menu({ trigger, align = 'start', open, onOpen, children }: Props) {
    const over = useOver();
    return (
        <DropdownMenu.Root
            modal={false}
            {...(open === undefined ? {} : { open })}
            {...(onOpen ? { onOpenChange: onOpen } : {})}
        >
            <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
            <DropdownMenu.Portal container={over}>
                <DropdownMenu.Content
                    align={align}
                    sideOffset={4}
                    collisionPadding={8}
                    className="z-30 max-h-[min(30rem,var(--radix-dropdown-menu-content-available-height))] min-w-56 max-w-[94vw] overflow-auto border border-ink bg-paper py-1"
                >
                    {children}
                </DropdownMenu.Content>
            </DropdownMenu.Portal>
        </DropdownMenu.Root>
    );
}

/** Where the keyboard is in a menu is seen by a line around it, in forced colours too. */
const LINE =
    'flex cursor-pointer items-baseline justify-between gap-6 px-4 py-1.5 text-sm -outline-offset-2 data-[highlighted]:outline-2 data-[highlighted]:outline-ink';

export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
    return (
        <DropdownMenu.Item className={LINE} onSelect={onSelect}>
            {children}
        </DropdownMenu.Item>
    );
}

/** One of several, of which one holds. */
export function MenuChoices<T extends string>({
    label,
    value,
    options,
    onChoose,
}: {
    label: string;
    value: T;
    options: readonly { value: T; label: string }[];
    onChoose: (value: T) => void;
}) {
    return (
        <>
            <DropdownMenu.Label className="max-w-96 px-4 py-1 text-xs text-muted">{label}</DropdownMenu.Label>
            <DropdownMenu.RadioGroup value={value} onValueChange={(chosen) => onChoose(chosen as T)}>
                {options.map((option) => (
                    <DropdownMenu.RadioItem
                        key={option.value}
                        value={option.value}
                        className={`${LINE} data-[state=checked]:font-semibold`}
                    >
                        {option.label}
                        <DropdownMenu.ItemIndicator>·</DropdownMenu.ItemIndicator>
                    </DropdownMenu.RadioItem>
                ))}
            </DropdownMenu.RadioGroup>
        </>
    );
}

export function MenuRule() {
    return <DropdownMenu.Separator className="my-1 border-t border-rule" />;
}
