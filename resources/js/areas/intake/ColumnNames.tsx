import type { Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';

/** Every column of every sheet with samples, what it was taken for and why; any of them can be changed. */
export function ColumnNames({
    list,
    onSay,
}: {
    list: Schemas['IntakeDetail'];
    onSay: (answers: Record<string, string | null>) => void;
}) {
    return list.sheets.map((sheet) => (
        <section key={sheet.index} className="mb-6">
            {list.sheets.length > 1 && <h3 className="mb-2 font-semibold">{sheet.label}</h3>}
            <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-2">
                <Choice
                    label="Rows are"
                    value={sheet.kind}
                    options={list.kinds.map((k) => ({ value: k.key, label: k.label }))}
                    onChange={(kind) => onSay({ [`t${sheet.index}.kind`]: kind })}
                />
                {sheet.hasFullNames && (
                    <Choice
                        label="Name order"
                        value={sheet.familyFirst ? 'family' : 'given'}
                        options={[
                            { value: 'given', label: 'given name first' },
                            { value: 'family', label: 'family name first' },
                        ]}
                        onChange={(names) => onSay({ [`t${sheet.index}.names`]: names })}
                    />
                )}
                {sheet.odds !== null && (
                    <span className="text-sm text-muted">
                        {sheet.odds > 1.05
                            ? `likely (${sheet.odds >= 9999 ? 'over 9,999' : sheet.odds} to 1)`
                            : 'not certain'}
                    </span>
                )}
            </div>
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
                    {sheet.columns.map((column) => (
                        <tr key={column.index} className="border-b border-rule align-top">
                            <td className="py-1.5 pr-4 font-semibold">
                                {column.heading || `column ${column.index + 1}`}
                            </td>
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
                                    onChange={(value) => onSay({ [`t${sheet.index}.c${column.index}`]: value || '-' })}
                                />
                            </td>
                            <td className="py-1.5 text-muted">{column.why}</td>
                        </tr>
                    ))}
                </tbody>
            </table>
        </section>
    ));
}
