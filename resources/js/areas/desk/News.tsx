import { useEffect } from 'react';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { many } from '@/ui/words';

/** What others have done since one was here last, in five lines at most. */
export function News({ news, school }: { news: Schemas['News']; school: School }) {
    const read = useAct(
        () => api.POST('/api/schools/{school}/desk/read', { params: { path: { school: school.id } } }),
        { stale: [['desk', school.id]] },
    );
    const first = news.since === null;
    // From the first visit on there is a "since".
    useEffect(() => {
        if (first) read.run();
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [first]);
    if (news.since === null || news.lines.length === 0) return null;
    return (
        <section aria-labelledby="news" className="mt-6 max-w-4xl border-t border-rule pt-3">
            <div className="flex flex-wrap items-baseline justify-between gap-x-5">
                <h2 id="news" className="text-lg">
                    Done by others since {moment(news.since)}
                </h2>
                <Button kind="quiet" onClick={() => read.run()} disabled={read.busy}>
                    I have read this
                </Button>
            </div>
            <ul className="mt-1 text-sm">
                {news.lines.map((line) => (
                    <li key={line.entryId} className="py-0.5">
                        <Link
                            className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            to={`/s/${school.code}/ledger?entry=${line.entryId}`}
                        >
                            {line.title}
                        </Link>{' '}
                        <span className="text-muted">
                            {line.actor}, {moment(line.at)}
                            {line.undone && ', undone'}
                        </span>
                    </li>
                ))}
                {news.more > 0 && (
                    <li className="py-0.5">
                        <Link
                            className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            to={`/s/${school.code}/ledger`}
                        >
                            and {many(news.more, 'more entry', 'more entries')} in the Ledger
                        </Link>
                    </li>
                )}
            </ul>
        </section>
    );
}
