import { type ComponentProps, useId } from 'react';

interface Props extends ComponentProps<'input'> {
    label: string;
    hint?: string;
    error?: string | undefined;
    large?: boolean;
    mono?: boolean;
}

/** A labelled input with its hint and its error, tied together for screen readers. */
export function Field({ label, hint, error, large = false, mono = false, className = '', ...rest }: Props) {
    const id = useId();
    return (
        <div className={className}>
            <label htmlFor={id} className={`mb-1 block ${large ? 'text-base' : 'text-sm'}`}>
                {label}
            </label>
            <input
                id={id}
                aria-invalid={error ? true : undefined}
                aria-describedby={error || hint ? `${id}-note` : undefined}
                className={`w-full rounded-card border bg-paper ${large ? 'min-h-12 px-3 text-lg' : 'min-h-8 px-2 text-sm'} ${mono ? 'font-mono' : ''} ${error ? 'border-madder' : 'border-ink/60'}`}
                {...rest}
            />
            {(error ?? hint) && (
                <p
                    id={`${id}-note`}
                    role={error ? 'alert' : undefined}
                    className={`mt-1 text-sm ${error ? 'text-madder' : 'text-muted'}`}
                >
                    {error ?? hint}
                </p>
            )}
        </div>
    );
}
