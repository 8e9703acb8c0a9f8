/** How far a job is: in words and as a line. */
export function Progress({ label, done, total }: { label: string; done: number; total: number }) {
    const share = total > 0 ? Math.min(1, done / total) : 0;
    return (
        <div
            role="progressbar"
            aria-label={label}
            aria-valuemin={0}
            aria-valuemax={total}
            aria-valuenow={done}
            className="min-w-36"
        >
            <div className="text-xs text-muted">
                {label}
                {total > 0 && `: ${Math.round(share * 100)} %`}
            </div>
            <div className="mt-1 h-0.5 bg-rule">
                <div className="h-0.5 bg-ink" style={{ width: `${share * 100}%` }} />
            </div>
        </div>
    );
}
