import { useQuery } from '@tanstack/react-query';
import { useAct } from '@/api/act';
import { api, data, sentence } from '@/api/client';
import { type Print, printFile } from '@/api/prints';
import { moment } from '@/ui/dates';
import { useNotice } from '@/ui/Notice';

/** What was printed in the last day by whoever looks: to open again, or to take away. */
export function PrintsKept({ school }: { school: string }) {
    const say = useNotice();
    const { data: kept, error } = useQuery({
        queryKey: ['prints', school],
        queryFn: () => data(api.GET('/api/schools/{school}/prints', { params: { path: { school } } })),
        // One that is being set goes on by itself.
        refetchInterval: (query) => (query.state.data?.prints.some(isGoing) ? 2_000 : false),
    });
    const remove = useAct((id: string) => api.DELETE('/api/prints/{print}', { params: { path: { print: id } } }), {
        stale: [['prints', school]],
        failed: (said) => say(said, { bad: true }),
    });
    if (error) return <p className="text-sm text-muted">Your recent prints can’t be shown: {sentence(error)}</p>;
    if (!kept || kept.prints.length === 0) return null;
    return (
        <section aria-label="Printed in the last day" className="border-t border-rule pt-3">
            <h2 className="text-sm font-semibold">Printed by you in the last day</h2>
            <p className="mb-2 text-xs text-muted">
                Kept sealed for 24 hours, for you alone, in case a printer jams. Then it is gone.
            </p>
            <ul className="flex flex-col gap-2 text-sm">
                {kept.prints.map((print) => (
                    <li key={print.id} className="flex flex-wrap items-baseline justify-between gap-x-3">
                        <span>
                            {print.state === 'done' ? (
                                <a
                                    className="underline underline-offset-4"
                                    href={printFile(print)}
                                    target="_blank"
                                    rel="noreferrer"
                                >
                                    {print.what}
                                </a>
                            ) : (
                                print.what
                            )}
                            <span className="block text-xs text-muted">{stateOf(print)}</span>
                        </span>
                        <button
                            className="min-h-6 text-xs text-muted underline underline-offset-4"
                            aria-label={`Delete ${print.what} of ${moment(print.madeAt)}`}
                            onClick={() => remove.run(print.id)}
                        >
                            delete
                        </button>
                    </li>
                ))}
            </ul>
        </section>
    );
}

const isGoing = (print: Print) => print.state === 'waiting' || print.state === 'working';

function stateOf(print: Print): string {
    switch (print.state) {
        case 'done':
            return moment(print.madeAt);
        case 'failed':
            return print.problem ?? 'It could not be printed.';
        case 'waiting':
            return 'waits for its turn';
        case 'working':
            return `${print.done} of ${print.total} set`;
    }
}
