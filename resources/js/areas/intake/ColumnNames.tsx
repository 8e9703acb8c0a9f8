import type { Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';

/** Every column of the list with samples, what it was taken for and why; any of them can be changed. */
export function ColumnNames({
    list,
    onName,
}: {
    list: Schemas['ImportDetail'];
    onName: (index: number, field: string | null) => void;
}) {
    return (
        <table className="w-full border-collapse text-left text-sm">
            <thead>
                <tr className="border-b border-ink text-xs text-muted">
                    <th className="py-1.5 pr-4 font-normal">Heading</th>
                    <th className="py-1.5 pr-4 font-normal">In it</th>
                    <th className="py-1.5 pr-4 font-normal">Holds</th>
                    <th className="py-1.5 font-normal">Why</th>
                </tr>
            </thead>
            <tbody>
                {list.columns.map((column) => (
                    <tr key={column.index} className="border-b border-rule align-top">
                        <td className="py-1.5 pr-4 font-semibold">{column.heading || `column ${column.index + 1}`}</td>
                        <td className="max-w-56 truncate py-1.5 pr-4 text-muted">{column.samples.join(', ')}</td>
                        <td className="py-1 pr-4">
                            <Choice
                                hideLabel
                                label={`What ${column.heading || `column ${column.index + 1}`} holds`}
                                value={column.field ?? ''}
                                options={[
                                    { value: '', label: 'left out' },
                                    ...list.fields.map((f) => ({ value: f.key, label: f.label })),
                                ]}
                                onChange={(value) => onName(column.index, value || null)}
                            />
                        </td>
                        <td className="py-1.5 text-muted">{column.why}</td>
                    </tr>
                ))}
            </tbody>
        </table>
    );
}
