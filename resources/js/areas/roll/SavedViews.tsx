import { useState } from 'react';
import { Button } from '@/ui/Button';
import { useStored } from '@/ui/useStored';

/** Filters kept under a name of one's own. */
export function SavedViews({
    name,
    current,
    onOpen,
}: {
    name: string;
    current: URLSearchParams;
    onOpen: (view: URLSearchParams) => void;
}) {
    const [views, setViews] = useStored<Record<string, string>>(`views.${name}`, {});
    const [naming, setNaming] = useState<string | null>(null);
    const filters = new URLSearchParams(current);
    filters.delete('person');
    const here = filters.toString();
    return (
        <div className="flex flex-wrap items-center gap-3 text-sm">
            {Object.entries(views).map(([title, view]) => (
                <span key={title} className="flex items-center gap-1">
                    <button
                        className={`underline underline-offset-4 ${view === here ? 'decoration-marigold' : 'decoration-rule'}`}
                        onClick={() => onOpen(new URLSearchParams(view))}
                    >
                        {title}
                    </button>
                    <button
                        aria-label={`Forget the view ${title}`}
                        className="text-muted"
                        onClick={() => setViews(Object.fromEntries(Object.entries(views).filter(([t]) => t !== title)))}
                    >
                        ×
                    </button>
                </span>
            ))}
            {naming === null ? (
                here !== '' &&
                !Object.values(views).includes(here) && (
                    <Button kind="quiet" onClick={() => setNaming('')}>
                        Keep this view
                    </Button>
                )
            ) : (
                <form
                    className="flex gap-2"
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (naming.trim()) setViews({ ...views, [naming.trim()]: here });
                        setNaming(null);
                    }}
                >
                    <input
                        autoFocus
                        aria-label="Name of the view"
                        value={naming}
                        onChange={(event) => setNaming(event.target.value)}
                        className="min-h-8 rounded-card border border-ink/60 bg-paper px-2 text-sm"
                        maxLength={40}
                    />
                    <Button type="submit">Keep</Button>
                </form>
            )}
        </div>
    );
}
