/** One list in several formats: the name once, a link for each. */
export function Downloads({
    label,
    href,
    formats,
}: {
    label: string;
    href: (format: string) => string;
    formats: string[];
}) {
    return (
        <span className="flex items-baseline gap-2 text-sm">
            <span className="text-muted">{label}</span>
            {formats.map((format) => (
                <a
                    key={format}
                    href={href(format)}
                    download
                    aria-label={`${label}, ${format}`}
                    className="underline decoration-rule underline-offset-4 hover:decoration-ink"
                >
                    {format === 'oneroster' ? 'OneRoster' : `.${format}`}
                </a>
            ))}
        </span>
    );
}
