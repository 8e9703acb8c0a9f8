/** Where several lines are written. */
export function Writing({
    label,
    value,
    error,
    rows,
    onChange,
}: {
    label: string;
    value: string;
    error: string | undefined;
    rows: number;
    onChange: (value: string) => void;
}) {
    return (
        <label className="block text-sm">
            <span className="mb-1 block">{label}</span>
            <textarea
                rows={rows}
                value={value}
                dir="auto"
                aria-invalid={error ? true : undefined}
                onChange={(event) => onChange(event.target.value)}
                className={`w-full rounded-card border bg-paper px-2 py-1 ${error ? 'border-madder' : 'border-ink/60'}`}
            />
            {error && (
                <span role="alert" className="text-madder">
                    {error}
                </span>
            )}
        </label>
    );
}
