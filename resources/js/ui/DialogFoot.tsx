import type { ComponentProps, ReactNode } from 'react';
import { Button } from './Button';

interface Props extends Omit<ComponentProps<typeof Button>, 'kind' | 'children'> {
    onCancel: () => void;
    /** What leaving things as they are is called. */
    cancel?: string;
    /** What is done, on the button that does it. */
    children: ReactNode;
    /** Where what stands above keeps its distance by itself. */
    flush?: boolean;
}

/** The end of a dialog: leave it, or do it. */
export function DialogFoot({ onCancel, cancel = 'Cancel', flush = false, children, ...button }: Props) {
    return (
        <div className={`flex justify-end gap-3 ${flush ? '' : 'mt-5'}`}>
            <Button onClick={onCancel}>{cancel}</Button>
            <Button kind="primary" {...button}>
                {children}
            </Button>
        </div>
    );
}
