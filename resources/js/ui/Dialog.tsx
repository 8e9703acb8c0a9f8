import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef } from 'react';
import { KeyScope } from '@/shell/keys';
import { giveFocusBack } from './focus';

interface Props {
    open: boolean;
    onClose: () => void;
    title: string;
    children: ReactNode;
    wide?: boolean;
}

export function Dialog({ open, onClose, title, children, wide = false }: Props) {
    const typed = useRef(false);
    return (
        <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
            <Radix.Portal>
                <Radix.Overlay className="fixed inset-0 z-40 bg-ink/30" />
                <Radix.Content
                    aria-describedby={undefined}
                    onInput={() => (typed.current = true)}
                    onOpenAutoFocus={() => (typed.current = false)}
                    // A click beside it throws nothing away that has been typed.
                    onInteractOutside={(event) => typed.current && event.preventDefault()}
                    onCloseAutoFocus={(event) => {
                        event.preventDefault();
                        giveFocusBack();
                    }}
                    className={`fixed left-1/2 top-[12vh] z-40 max-h-[76vh] w-[92vw] -translate-x-1/2 overflow-auto border border-ink bg-paper p-6 ${wide ? 'max-w-3xl' : 'max-w-lg'}`}
                >
                    <Radix.Title className="mb-4 pr-8 font-serif text-xl font-semibold">{title}</Radix.Title>
                    <KeyScope>{children}</KeyScope>
                    {/* Last, so that what the dialog is about has the keyboard first. */}
                    <Radix.Close aria-label="Close" className="absolute right-3 top-3 size-8 text-lg text-muted">
                        ×
                    </Radix.Close>
                </Radix.Content>
            </Radix.Portal>
        </Radix.Root>
    );
}
