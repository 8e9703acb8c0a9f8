/** Coverage of one section: a thick line for who has signed in, a thin one for who has a card. */
export function Strip({ total, signedIn, withCard }: { total: number; signedIn: number; withCard: number }) {
    if (total === 0) return <span className="text-muted">nobody yet</span>;
    const words = `${signedIn} of ${total} have signed in, ${withCard} have a card`;
    return (
        <span className="flex items-center gap-3" title={words}>
            <svg role="img" aria-label={words} width="84" height="12" viewBox="0 0 84 12">
                <line x1="0" x2="84" y1="11" y2="11" stroke="var(--rule)" />
                <rect x="0" y="1" width={(84 * signedIn) / total} height="5" fill="var(--ink)" />
                <rect x="0" y="8" width={(84 * withCard) / total} height="1.5" fill="var(--muted)" />
            </svg>
            <span className="text-xs text-muted">
                {signedIn}/{total}
            </span>
        </span>
    );
}
