import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';

/** What was mended in which column, with one example of each; a whole column can be left as it is written. */
export function RepairList({
    list,
    onSay,
}: {
    list: Schemas['IntakeDetail'];
    onSay: (answers: Record<string, string | null>) => void;
}) {
    return (
        <>
            <table className="w-full border-collapse text-left text-sm">
                <thead>
                    <tr className="border-b border-ink text-xs text-muted">
                        <th className="py-1.5 pr-4 font-normal">Column</th>
                        <th className="py-1.5 pr-4 font-normal">Mended</th>
                        <th className="py-1.5 pr-4 font-normal">Cells</th>
                        <th className="py-1.5 pr-4 font-normal">For example</th>
                        <th className="py-1.5 font-normal">
                            <span className="sr-only">Keep</span>
                        </th>
                    </tr>
                </thead>
                <tbody>
                    {list.repairs.map((r) => (
                        <tr key={r.key + r.kind} className="border-b border-rule">
                            <td className="py-1.5 pr-4 font-semibold">{r.column}</td>
                            <td className="py-1.5 pr-4">{r.kind}</td>
                            <td className="py-1.5 pr-4 text-right">{r.count.toLocaleString('en')}</td>
                            <td className="py-1.5 pr-4">
                                <del>{r.before}</del> {r.after}
                            </td>
                            <td className="py-1 text-right">
                                <Button onClick={() => onSay({ [r.key]: 'yes' })}>Keep as written</Button>
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            {list.repairs.length === 0 && <p className="text-sm text-muted">Nothing in this list needed mending.</p>}
            {list.kept.length > 0 && (
                <p className="mt-4 flex items-center justify-between gap-4 text-sm">
                    <span>
                        {list.kept.length === 1
                            ? 'One column or cell is '
                            : `${list.kept.length} columns or cells are `}
                        left as written.
                    </span>
                    <Button kind="quiet" onClick={() => onSay(Object.fromEntries(list.kept.map((key) => [key, null])))}>
                        Mend them again
                    </Button>
                </p>
            )}
        </>
    );
}
