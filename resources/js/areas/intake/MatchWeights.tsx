import { useQuery } from '@tanstack/react-query';
import { useAct } from '@/api/act';
import { api, data, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { useNotice } from '@/ui/Notice';
import { levelInWords } from '@/ui/words';

const share = (m: number) => (m >= 0.1 ? `${(m * 100).toFixed(0)} %` : `${(m * 100).toPrecision(2)} %`);

/**
 * What matches are judged by: as published, as in force, and as this list suggests. Taken over only when somebody says
 * so.
 */
export function MatchWeights({ school, id, onChanged }: { school: School; id: string; onChanged: () => void }) {
    const say = useNotice();
    const key = ['weights', id];
    const { data: table, error } = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/intakes/{intake}/weights', { params: { path: { intake: id } } })),
        retry: false,
    });
    const act = useAct(({ work }: { work: () => Promise<unknown>; done: string }) => work(), {
        stale: [key],
        then: (_, { done }) => {
            onChanged();
            say(done);
        },
        failed: (said) => say(said, { bad: true }),
    });
    const run = (work: () => Promise<unknown>, done: string) => act.run({ work, done });
    if (error)
        return (
            <p role="alert" className="text-sm text-madder">
                {sentence(error)}
            </p>
        );
    if (!table)
        return <p className="text-sm text-muted">Counting how the rows of this list agree with everyone known.</p>;
    return (
        <>
            <p className="mb-3 text-sm">
                How often two records of one student agree in each way. The published figures are a cautious start; this
                list, with {table.pairs?.toLocaleString('en')} students who are known, suggests its own.{' '}
                {table.own
                    ? `${school.name} judges by its own figures now.`
                    : `${school.name} judges by the published figures.`}
            </p>
            <table className="w-full border-collapse text-left text-sm">
                <thead>
                    <tr className="border-b border-ink text-xs text-muted">
                        <th className="py-1 pr-4 font-normal">Field</th>
                        <th className="py-1 pr-4 font-normal">Agrees</th>
                        <th className="py-1 pr-4 text-right font-normal">Published</th>
                        <th className="py-1 pr-4 text-right font-normal">In force</th>
                        <th className="py-1 pr-4 text-right font-normal">This list</th>
                        <th className="py-1 text-right font-normal">Two different students</th>
                    </tr>
                </thead>
                <tbody>
                    {table.lines.map((line, i) => (
                        <tr key={line.field + line.level} className="border-b border-rule">
                            <td className="py-1 pr-4 font-semibold first-letter:uppercase">
                                {table.lines[i - 1]?.field === line.field ? '' : line.field}
                            </td>
                            <td className="py-1 pr-4">{levelInWords(line.level)}</td>
                            <td className="py-1 pr-4 text-right">{share(line.published)}</td>
                            <td className="py-1 pr-4 text-right">{share(line.inForce)}</td>
                            <td className="py-1 pr-4 text-right">
                                {line.estimated === null ? '' : share(line.estimated)}
                            </td>
                            <td className="py-1 text-right text-muted">{share(line.chance)}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
            <div className="mt-4 flex justify-end gap-3">
                {table.own && (
                    <Button
                        onClick={() =>
                            run(
                                () =>
                                    api.DELETE('/api/schools/{school}/weights', {
                                        params: { path: { school: school.id } },
                                    }),
                                'Lists are judged by the published figures again.',
                            )
                        }
                    >
                        Reset to the published figures
                    </Button>
                )}
                <Button
                    kind="primary"
                    onClick={() =>
                        run(
                            () => api.POST('/api/intakes/{intake}/weights', { params: { path: { intake: id } } }),
                            `Lists of ${school.name} are judged by these figures from now on.`,
                        )
                    }
                >
                    Use what this list suggests
                </Button>
            </div>
        </>
    );
}
