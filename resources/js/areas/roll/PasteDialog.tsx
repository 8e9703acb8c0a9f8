import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { many } from '@/ui/words';

/** Students selected by a pasted list of numbers, names, addresses or user names. */
export function PasteDialog({
    school,
    onClose,
    onFound,
}: {
    school: School;
    onClose: () => void;
    onFound: (people: Schemas['PersonLine'][]) => void;
}) {
    const [lines, setLines] = useState('');
    const [left, setLeft] = useState<Schemas['NamedPage'] | null>(null);
    const look = useAct(
        () =>
            data(
                api.POST('/api/schools/{school}/people/named', {
                    params: { path: { school: school.id } },
                    body: { lines },
                }),
            ),
        {
            stale: [],
            then: (found) => {
                if (found.nobody.length + found.several.length === 0 && found.people.length > 0) onFound(found.people);
                else setLeft(found);
            },
        },
    );
    return (
        <Dialog open wide onClose={onClose} title="Select by a list">
            <form
                onSubmit={(event) => {
                    event.preventDefault();
                    look.run();
                }}
            >
                <label className="block text-sm" htmlFor="pasted">
                    Student numbers, whole names, addresses or user names, one a line
                </label>
                <textarea
                    id="pasted"
                    autoFocus
                    rows={8}
                    value={lines}
                    onChange={(event) => {
                        setLines(event.target.value);
                        setLeft(null);
                    }}
                    className="mt-1 w-full rounded-card border border-ink/60 bg-paper px-2 py-1 font-mono text-sm"
                />
                {look.error && (
                    <p role="alert" className="mt-2 text-sm text-madder">
                        {look.error}
                    </p>
                )}
                {left && (
                    <div role="status" className="mt-3 text-sm">
                        <p>
                            {left.people.length === 0
                                ? 'Nobody of this list is known here.'
                                : `${many(left.people.length, 'student')} found.`}
                        </p>
                        <Lines title="Mean nobody here" lines={left.nobody} />
                        <Lines title="Could be several, and are left out" lines={left.several} />
                    </div>
                )}
                <div className="mt-5 flex justify-end gap-3">
                    <Button onClick={onClose}>Cancel</Button>
                    {left && left.people.length > 0 ? (
                        <Button kind="primary" onClick={() => onFound(left.people)}>
                            Select the {many(left.people.length, 'student')} found
                        </Button>
                    ) : (
                        <Button kind="primary" type="submit" disabled={look.busy || lines.trim() === ''}>
                            Look them up
                        </Button>
                    )}
                </div>
            </form>
        </Dialog>
    );
}

function Lines({ title, lines }: { title: string; lines: string[] }) {
    if (lines.length === 0) return null;
    return (
        <>
            <h3 className="mt-3 font-semibold">{title}</h3>
            <ul className="max-h-32 overflow-auto border-y border-rule py-1 font-mono" tabIndex={0} aria-label={title}>
                {lines.map((line) => (
                    <li key={line}>{line}</li>
                ))}
            </ul>
        </>
    );
}
