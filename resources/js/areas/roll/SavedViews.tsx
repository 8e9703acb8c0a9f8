import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { useNotice } from '@/ui/Notice';

/** Filters and order kept under a name, for oneself or for all who coordinate the school. */
export function SavedViews({
    school,
    current,
    onOpen,
}: {
    school: School;
    current: URLSearchParams;
    onOpen: (view: URLSearchParams) => void;
}) {
    const say = useNotice();
    const path = { params: { path: { school: school.id } } };
    const stale = [['views', school.id]];
    const { data: page } = useQuery({
        queryKey: ['views', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/views', path)),
    });
    const views = page?.views ?? [];
    const [naming, setNaming] = useState<string | null>(null);
    const [shared, setShared] = useState(false);
    const filters = new URLSearchParams(current);
    filters.delete('person');
    const here = filters.toString();
    const failed = (said: string) => say(said, { bad: true });
    const keep = useAct(
        (name: string) =>
            data(api.POST('/api/schools/{school}/views', { ...path, body: { name, query: here, shared } })),
        { stale, then: () => setNaming(null), failed },
    );
    const forget = useAct(
        (view: string) =>
            data(api.DELETE('/api/schools/{school}/views/{view}', { params: { path: { school: school.id, view } } })),
        { stale, failed },
    );
    return (
        <div className="flex flex-wrap items-center gap-3 text-sm">
            {views.map(({ id, name, query, shared: ofSchool }) => (
                <span key={id} className="flex items-center gap-1">
                    <button
                        className={`min-h-6 underline underline-offset-4 ${query === here ? 'decoration-marigold' : 'decoration-rule'}`}
                        onClick={() => onOpen(new URLSearchParams(query))}
                    >
                        {name}
                    </button>
                    {ofSchool && <span className="text-xs text-muted">school’s</span>}
                    <button
                        aria-label={`Forget the view ${name}`}
                        className="min-h-6 min-w-6 text-muted"
                        onClick={() => forget.run(id)}
                    >
                        ×
                    </button>
                </span>
            ))}
            {naming === null ? (
                here !== '' &&
                !views.some((v) => v.query === here) && (
                    <Button kind="quiet" onClick={() => setNaming('')}>
                        Keep this view
                    </Button>
                )
            ) : (
                <form
                    className="flex flex-wrap items-center gap-2"
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (naming.trim()) keep.run(naming.trim());
                        else setNaming(null);
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
                    <label className="flex min-h-8 items-center gap-2">
                        <input
                            type="checkbox"
                            className="size-4 accent-ink"
                            checked={shared}
                            onChange={(event) => setShared(event.target.checked)}
                        />
                        for the school
                    </label>
                    <Button type="submit" disabled={keep.busy}>
                        Keep
                    </Button>
                </form>
            )}
        </div>
    );
}
