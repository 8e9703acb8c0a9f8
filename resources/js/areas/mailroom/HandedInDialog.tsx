import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Instead } from '@/ui/Instead';

type State = 'done' | 'missing' | 'excused';

const STATES: [State, string][] = [
    ['done', 'handed in'],
    ['missing', 'missing'],
    ['excused', 'excused'],
];

/** Who has handed work in: everyone, until somebody is said to be missing. */
export function HandedInDialog({
    section,
    notice,
    onClose,
    onDone,
}: {
    section: string;
    notice: Schemas['NoticeLine'];
    onClose: () => void;
    onDone: (page: Schemas['NoticePage']) => void;
}) {
    const path = { params: { path: { section, notice: notice.id } } };
    const asked = useQuery({
        queryKey: ['work', notice.id],
        queryFn: () => data(api.GET('/api/sections/{section}/notices/{notice}/work', path)),
        gcTime: 0,
    });
    const [changed, setChanged] = useState<Record<string, State>>({});
    const students = asked.data?.students ?? [];
    const stateOf = (student: Schemas['WorkLine']): State => changed[student.personId] ?? student.state ?? 'done';
    const save = useAct(
        () =>
            data(
                api.POST('/api/sections/{section}/notices/{notice}/work', {
                    ...path,
                    body: { states: Object.fromEntries(students.map((s) => [s.personId, stateOf(s)])) },
                }),
            ),
        { stale: [['work', notice.id]], then: onDone },
    );
    const missing = students.filter((s) => stateOf(s) === 'missing').length;
    const all = (state: State) => setChanged(Object.fromEntries(students.map((s) => [s.personId, state])));
    return (
        <Dialog open wide onClose={onClose} title={`Who has handed in “${notice.title}”`}>
            {!asked.data ? (
                <Instead of={asked} what="the students" size="part" />
            ) : students.length === 0 ? (
                <p>Nobody is in the section.</p>
            ) : (
                <>
                    <div className="mb-3 flex gap-2">
                        <Button onClick={() => all('done')}>All have</Button>
                        <Button onClick={() => all('missing')}>Nobody has</Button>
                    </div>
                    <ul className="max-h-[50vh] overflow-auto text-sm">
                        {students.map((student) => (
                            <li
                                key={student.personId}
                                className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-1"
                            >
                                <span>{student.name}</span>
                                <span role="radiogroup" aria-label={student.name} className="flex gap-4">
                                    {STATES.map(([state, word]) => (
                                        <label key={state} className="flex min-h-8 items-center gap-1">
                                            <input
                                                type="radio"
                                                className="accent-ink"
                                                name={student.personId}
                                                checked={stateOf(student) === state}
                                                onChange={() => setChanged({ ...changed, [student.personId]: state })}
                                            />
                                            {word}
                                        </label>
                                    ))}
                                </span>
                            </li>
                        ))}
                    </ul>
                </>
            )}
            {save.error && (
                <p role="alert" className="mt-2 text-sm text-madder">
                    {save.error}
                </p>
            )}
            <DialogFoot onCancel={onClose} disabled={save.busy || students.length === 0} onClick={() => save.run()}>
                {missing > 0 ? `Missing from ${String(missing)}: save` : 'Missing from nobody: save'}
            </DialogFoot>
        </Dialog>
    );
}
