import { useId } from 'react';

interface Props {
    label: string;
    value: string;
    options: { value: string; label: string }[];
    onChange: (value: string) => void;
    hideLabel?: boolean;
}

/** A choice of one from a short list. The system's own control: it is the one everybody's keyboard and screen reader knows. */
export function Choice({ label, value, options, onChange, hideLabel = false }: Props) {
    const id = useId();
    return (
        <div className={hideLabel ? '' : 'flex items-center gap-2'}>
            <label htmlFor={id} className={hideLabel ? 'sr-only' : 'text-sm text-muted'}>
                {label}
            </label>
            <select
                id={id}
                value={value}
                onChange={(event) => onChange(event.target.value)}
                className="min-h-8 max-w-full rounded-card border border-ink/50 bg-paper px-2 text-sm"
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
