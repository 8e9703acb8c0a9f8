import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { KeyScope } from '@/shell/keys';

interface Props {
    open: boolean;
    onClose: () => void;
    title: string;
    children: ReactNode;
    wide?: boolean;
}

export function Dialog({ open, onClose, title, children, wide = false }: Props) {
    return (
        <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
            <Radix.Portal>
                <Radix.Overlay className="fixed inset-0 z-40 bg-ink/30" />
                <Radix.Content
                    aria-describedby={undefined}
                    className={`fixed left-1/2 top-[12vh] z-40 max-h-[76vh] w-[92vw] -translate-x-1/2 overflow-auto border border-ink bg-paper p-6 ${wide ? 'max-w-3xl' : 'max-w-lg'}`}
                >
                    <Radix.Title className="mb-4 font-serif text-xl font-semibold">{title}</Radix.Title>
                    <KeyScope>{children}</KeyScope>
                </Radix.Content>
            </Radix.Portal>
        </Radix.Root>
    );
}
