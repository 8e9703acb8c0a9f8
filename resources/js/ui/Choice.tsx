import { useId } from 'react';

interface Props<T extends string> {
    label: string;
    value: T;
    options: { value: T; label: string }[];
    onChange: (value: T) => void;
    hideLabel?: boolean;
    /** Label above, control as wide as its place. */
    stacked?: boolean;
}

/**
 * A choice of one from a short list. The system's own control: it is the one everybody's keyboard and screen reader
 * knows.
 */
export function Choice<T extends string>({
    label,
    value,
    options,
    onChange,
    hideLabel = false,
    stacked = false,
}: Props<T>) {
    const id = useId();
    return (
        <div className={hideLabel || stacked ? '' : 'flex items-center gap-2'}>
            <label
                htmlFor={id}
                className={hideLabel ? 'sr-only' : stacked ? 'mb-1 block text-sm' : 'text-sm text-muted'}
            >
                {label}
            </label>
            <select
                id={id}
                value={value}
                onChange={(event) => {
                    const chosen = options.find((option) => option.value === event.target.value);
                    if (chosen) onChange(chosen.value);
                }}
                className={`${stacked ? 'w-full' : 'max-w-full'} min-h-8 rounded-card border border-ink/60 bg-paper px-2 text-sm`}
            >
                {options.map((option) => (
                    <option key={option.value} value={option.value}>
                        {option.label}
                    </option>
                ))}
            </select>
        </div>
    );
}
