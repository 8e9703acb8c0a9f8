import { useState } from 'react';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';

type How = 'list' | 'pattern' | 'year';

/**
 * Many sections at once: from a list, from a pattern with grades and groups, or from another year. The plan follows the
 * typing.
 */
export function ManyDialog({ school, onClose }: { school: School; onClose: () => void }) {
    const say = useNotice();
    const [how, setHow] = useState<How>('list');
    const [kind, setKind] = useState<'class' | 'homeroom'>('class');
    const [year, setYear] = useState(school.yearId);
    const [text, setText] = useState('');
    const [pattern, setPattern] = useState('');
    const [subject, setSubject] = useState('');
    const [grades, setGrades] = useState<string[]>([]);
    const [groups, setGroups] = useState('');
    const [period, setPeriod] = useState('');
    const [from, setFrom] = useState('');
    const path = { params: { path: { school: school.id } } };
    const body = {
        how,
        kind,
        year,
        ...(how === 'list' ? { text } : {}),
        ...(how === 'pattern' ? { subject, grades, groups, period, ...(pattern ? { pattern } : {}) } : {}),
        ...(how === 'year' ? { from } : {}),
    };
    const ready = how === 'list' ? text.trim() !== '' : how === 'pattern' ? subject.trim() !== '' : from !== '';
    const { plan, apply, busy, error } = usePlan({
        key: ['many', school.id, body],
        ready,
        rest: 350,
        look: () => data(api.POST('/api/schools/{school}/many-sections/plan', { ...path, body })),
        apply: (seen, title: string) =>
            data(api.POST('/api/schools/{school}/many-sections', { ...path, body: { ...body, ...seen } })).then(
                () => title,
            ),
        stale: [['sections', school.id]],
        then: (title) => {
            say(`${title} made. You can undo this in the Ledger.`);
            onClose();
        },
    });
    const count = plan?.tallies.find((t) => t.key === 'sections')?.count ?? 0;
    return (
        <Dialog open wide onClose={onClose} title="Make many sections">
            <div className="mb-4 flex flex-wrap gap-4">
                <Choice
                    stacked
                    label="From"
                    value={how}
                    onChange={setHow}
                    options={[
                        { value: 'list', label: 'a pasted list' },
                        { value: 'pattern', label: 'a pattern with grades and groups' },
                        { value: 'year', label: 'the sections of another year' },
                    ]}
                />
                {how !== 'year' && (
                    <Choice
                        stacked
                        label="Kind"
                        value={kind}
                        onChange={setKind}
                        options={[
                            { value: 'class', label: 'classes' },
                            { value: 'homeroom', label: 'homerooms' },
                        ]}
                    />
                )}
                <Choice
                    stacked
                    label="In the year"
                    value={year}
                    onChange={setYear}
                    options={school.years
                        .filter((y) => y.state !== 'closed')
                        .map((y) => ({ value: y.id, label: y.name }))}
                />
            </div>
            {how === 'list' && (
                <div>
                    <label htmlFor="many-list" className="mb-1 block text-sm">
                        One section per line: name, then grade, period, seats and lead where you have them
                    </label>
                    <textarea
                        id="many-list"
                        rows={6}
                        value={text}
                        onChange={(event) => setText(event.target.value)}
                        placeholder={'Marine science 8A; 8; 2; 24; Petra Okonjo\nMarine science 8B; 8; 3'}
                        className="w-full rounded-card border border-ink/60 bg-paper px-2 py-1 font-mono text-sm placeholder:text-muted"
                    />
                    <p className="text-sm text-muted">Paste from a spreadsheet, or separate cells with semicolons.</p>
                </div>
            )}
            {how === 'pattern' && (
                <div className="grid gap-4 sm:grid-cols-2">
                    <Field
                        label="Subject"
                        required
                        value={subject}
                        onChange={(event) => setSubject(event.target.value)}
                    />
                    <Field
                        label="Pattern"
                        mono
                        value={pattern}
                        onChange={(event) => setPattern(event.target.value)}
                        hint="Empty: the pattern of the settings."
                    />
                    <Field
                        label="Groups"
                        value={groups}
                        onChange={(event) => setGroups(event.target.value)}
                        hint="Apart by commas: A, B or Heron, Plover."
                    />
                    <Field
                        label="Period"
                        maxLength={20}
                        value={period}
                        onChange={(event) => setPeriod(event.target.value)}
                    />
                    <fieldset className="sm:col-span-2">
                        <legend className="mb-1 text-sm">Grades</legend>
                        <div className="flex flex-wrap gap-x-4 gap-y-1">
                            {school.grades.map((g) => (
                                <label key={g.code} className="flex min-h-6 items-center gap-1.5 text-sm">
                                    <input
                                        type="checkbox"
                                        className="size-4 accent-ink"
                                        checked={grades.includes(g.code)}
                                        onChange={(event) =>
                                            setGrades(
                                                school.grades
                                                    .map((x) => x.code)
                                                    .filter((x) =>
                                                        x === g.code ? event.target.checked : grades.includes(x),
                                                    ),
                                            )
                                        }
                                    />
                                    {g.label}
                                </label>
                            ))}
                        </div>
                    </fieldset>
                </div>
            )}
            {how === 'year' && (
                <>
                    <Choice
                        stacked
                        label="Take the sections of"
                        value={from}
                        onChange={setFrom}
                        options={[
                            { value: '', label: 'choose a year' },
                            ...school.years.filter((y) => y.id !== year).map((y) => ({ value: y.id, label: y.name })),
                        ]}
                    />
                    <p className="mt-2 text-sm text-muted">
                        With their teachers, under new codes and without students. The year turn does the same for all
                        at once.
                    </p>
                </>
            )}
            {error && (
                <p role="alert" className="mt-4 text-sm text-madder">
                    {error}
                </p>
            )}
            {plan && (
                <div className="mt-5">
                    <PlanSummary plan={plan} />
                </div>
            )}
            <DialogFoot onCancel={onClose} disabled={busy || count === 0} onClick={() => plan && apply(plan.title)}>
                Make {count} {count === 1 ? 'section' : 'sections'}
            </DialogFoot>
        </Dialog>
    );
}
