import type { ButtonHTMLAttributes } from 'react';

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
    kind?: 'primary' | 'plain' | 'danger' | 'quiet';
    /** Taller, for students and guardians: at least 48 px. */
    large?: boolean;
}

const KINDS = {
    primary: 'bg-ink text-paper border-ink disabled:opacity-40',
    plain: 'border-ink/40 hover:border-ink disabled:opacity-40',
    danger: 'border-madder text-madder hover:bg-madder hover:text-paper disabled:opacity-40',
    quiet: 'border-unseen underline decoration-rule underline-offset-4 hover:decoration-ink disabled:opacity-40',
};

export function Button({ kind = 'plain', large = false, className = '', type = 'button', ...rest }: Props) {
    return (
        <button
            type={type}
            className={`rounded-card border ${kind === 'quiet' ? 'px-1' : 'px-3 font-semibold'} ${large ? 'min-h-12 !px-5 text-lg' : 'min-h-8 text-sm'} ${KINDS[kind]} ${className}`}
            {...rest}
        />
    );
}
