import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';

interface Props {
    entry: string;
    title: string;
    onClose: () => void;
    onDone: (said: string) => void;
}

/**
 * What undoing comes to, before it is done: what goes back, what stays and why, what cannot come back, and what would
 * go with it.
 */
export function UndoDialog({ entry, title, onClose, onDone }: Props) {
    const queries = useQueryClient();
    const [together, setTogether] = useState(false);
    const path = { entry };
    const look = (together: boolean) => ({
        queryKey: ['undo', entry, together],
        queryFn: () =>
            data(api.GET('/api/ledger/{entry}/undo', { params: { path, query: together ? { together } : {} } })),
        staleTime: 0,
        gcTime: 0,
        retry: false,
    });
    const alone = useQuery(look(false));
    const all = together || (alone.data?.blocked === true && alone.data.first.length > 0);
    const whole = useQuery({ ...look(true), enabled: all });
    const { data: outlook, error: refused } = all ? whole : alone;
    const undo = useAct(
        async (what: Schemas['UndoOutlook']) => {
            const first = all ? what.first.map((f) => f.id) : [];
            const body = { first, fingerprint: what.fingerprint };
            return {
                line: await data(api.POST('/api/ledger/{entry}/undo', { params: { path }, body })),
                with: first.length,
            };
        },
        {
            then: ({ line, with: others }) =>
                onDone(
                    line.kept.length > 0
                        ? `Undone: ${line.title}. What stayed is listed there.`
                        : `Undone: ${line.title}${others > 0 ? `, and ${count(others, 'later entry', 'later entries')} with it` : ''}.`,
                ),
            // It may come to something else by now: what is shown is what the next click does.
            failed: () => void queries.invalidateQueries({ queryKey: ['undo', entry] }),
        },
    );
    return (
        <Dialog open wide onClose={onClose} title={`Undo: ${title}`}>
            {refused ? (
                <p role="alert" className="mb-5 text-sm text-madder">
                    {sentence(refused)}
                </p>
            ) : !outlook ? (
                <p className="text-sm text-muted" role="status">
                    Working out what goes back…
                </p>
            ) : (
                <div className="text-sm">
                    <p className="text-base">
                        {outlook.staysCount === 0
                            ? `Everything goes back: ${count(outlook.goesBack, 'record', 'records')}.`
                            : outlook.goesBack === 0
                              ? 'Nothing would go back: all it wrote stays as it is.'
                              : `${count(outlook.goesBack, 'record goes', 'records go')} back; ${count(outlook.staysCount, 'stays', 'stay')}.`}
                    </p>
                    {outlook.blocked && (
                        <p className="mt-2 border-l-[3px] border-madder pl-3">
                            It cannot go back: what came of it has been worked with since. Change it by hand.
                        </p>
                    )}
                    {outlook.stays.length > 0 && <Lines title="Stays as it is" lines={outlook.stays} />}
                    {outlook.lost.length > 0 && <Lines title="Cannot come back" lines={outlook.lost} />}
                    {outlook.first.length > 0 && (
                        <div className="mt-4">
                            <h3 className="text-sm font-semibold">
                                {all ? 'Undone with it, newest first' : 'Holds what would stay, newest first'}
                            </h3>
                            <ul
                                className="max-h-40 overflow-auto border-y border-rule py-1"
                                tabIndex={0}
                                aria-label="Later entries"
                            >
                                {outlook.first.map((f) => (
                                    <li key={f.id}>
                                        {f.title} <span className="text-muted">{moment(f.madeAt)}</span>
                                    </li>
                                ))}
                            </ul>
                            {alone.data?.blocked !== true && (
                                <label className="mt-2 flex min-h-8 items-center gap-2">
                                    <input
                                        type="checkbox"
                                        className="size-4 accent-ink"
                                        checked={together}
                                        onChange={(event) => setTogether(event.target.checked)}
                                    />
                                    Undo these too, so that everything goes back
                                </label>
                            )}
                        </div>
                    )}
                    {undo.error && (
                        <p role="alert" className="mt-3 text-madder">
                            {undo.error}
                        </p>
                    )}
                    <p className="mt-4 text-muted">An undo can be taken back: the entry then offers “Do it again”.</p>
                    <div className="mt-3 flex gap-3">
                        <Button
                            kind="primary"
                            disabled={undo.busy || outlook.blocked || outlook.goesBack === 0}
                            onClick={() => undo.run(outlook)}
                        >
                            {all && outlook.first.length > 0 ? `Undo ${outlook.first.length + 1} together` : 'Undo'}
                        </Button>
                        <Button onClick={onClose}>Cancel</Button>
                    </div>
                </div>
            )}
        </Dialog>
    );
}

function Lines({ title, lines }: { title: string; lines: string[] }) {
    return (
        <div className="mt-4">
            <h3 className="text-sm font-semibold">{title}</h3>
            <ul className="max-h-40 overflow-auto border-y border-rule py-1" tabIndex={0} aria-label={title}>
                {lines.map((line) => (
                    <li key={line}>{line}</li>
                ))}
            </ul>
        </div>
    );
}

function count(n: number, one: string, many: string): string {
    return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
}
