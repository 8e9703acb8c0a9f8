export function Tick({
    label,
    hint,
    checked,
    onChange,
}: {
    label: string;
    hint?: string;
    checked: boolean;
    onChange: (checked: boolean) => void;
}) {
    return (
        <label className="flex items-start gap-2 text-sm">
            <input
                type="checkbox"
                className="mt-0.5 accent-ink"
                checked={checked}
                onChange={(event) => onChange(event.target.checked)}
            />
            <span>
                {label}
                {hint && <span className="block text-xs text-muted">{hint}</span>}
            </span>
        </label>
    );
}
