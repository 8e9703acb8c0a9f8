import { Field } from '@/ui/Field';

/** The password of whoever does something grave, typed again. */
export function OwnPassword({
    value,
    onChange,
    error,
}: {
    value: string;
    onChange: (value: string) => void;
    error: string;
}) {
    return (
        <Field
            label="Your password"
            hint="Not needed right after signing in"
            type="password"
            autoComplete="current-password"
            value={value}
            onChange={(event) => onChange(event.target.value)}
            error={error || undefined}
        />
    );
}
