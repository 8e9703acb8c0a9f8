import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';

type Asking = Schemas['HeldAsking'];

/** Guardians who ask what is held about their child: looked at, then given or not. */
export function HeldAskings({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const [refusing, setRefusing] = useState<Asking | null>(null);
    const [reason, setReason] = useState('');
    const key = ['held-askings', school.id];
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/schools/{school}/held-askings', { params: { path: { school: school.id } } })),
    });
    const path = (held: Asking) => ({ params: { path: { school: school.id, held: held.id } } });
    const answer = useAct(
        ({ held, give }: { held: Asking; give: boolean }) =>
            data(
                give
                    ? api.POST('/api/schools/{school}/held-askings/{held}/give', path(held))
                    : api.POST('/api/schools/{school}/held-askings/{held}/refuse', {
                          ...path(held),
                          body: { reason },
                      }),
            ),
        {
            stale: [['desk', school.id]],
            then: (now) => {
                queries.setQueryData(key, now);
                setRefusing(null);
                say(now.said);
            },
            failed: (said) => {
                say(said, { bad: true });
                void asked.refetch();
            },
        },
    );
    const askings = asked.data?.askings ?? [];
    if (askings.length === 0) return null;
    return (
        <section aria-label="What is held" className="mb-6 max-w-3xl">
            <h2 className="mb-3 border-b border-ink pb-1 text-lg">They ask what is held about their child</h2>
            <p className="mb-3 text-sm text-muted">
                Look at what they would get: it leaves out other guardians and lines that name them. Given, they fetch
                it from their page for two weeks.
            </p>
            <ul>
                {askings.map((held) => (
                    <li key={held.id} className="mb-4 border-b border-rule pb-4">
                        <p>
                            <span className="font-semibold">{held.guardian}</span> about{' '}
                            <span className="font-semibold">{held.student}</span>
                            <span className="text-sm text-muted">; {moment(held.askedAt)}</span>
                        </p>
                        <p className="mt-2 flex flex-wrap items-center gap-3">
                            <a
                                className="min-h-6 text-sm leading-6 underline decoration-rule underline-offset-4"
                                href={`/api/schools/${school.id}/held-askings/${held.id}?format=pdf`}
                                download
                            >
                                Look at it (PDF)
                            </a>
                            <Button disabled={answer.busy} onClick={() => answer.run({ held, give: true })}>
                                Give it to them
                            </Button>
                            <Button
                                kind="quiet"
                                disabled={answer.busy}
                                onClick={() => (setReason(''), setRefusing(held))}
                            >
                                Do not give it…
                            </Button>
                        </p>
                    </li>
                ))}
            </ul>
            <Dialog open={refusing !== null} onClose={() => setRefusing(null)} title="Do not give it">
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (refusing) answer.run({ held: refusing, give: false });
                    }}
                >
                    <p className="mb-3 text-sm">
                        {refusing?.guardian} reads on their page that the office tells them why. The reason is kept for
                        the school.
                    </p>
                    <Field
                        label="Reason"
                        required
                        maxLength={300}
                        value={reason}
                        onChange={(event) => setReason(event.target.value)}
                    />
                    <DialogFoot
                        type="submit"
                        onCancel={() => setRefusing(null)}
                        disabled={answer.busy || reason.trim() === ''}
                    >
                        Do not give it
                    </DialogFoot>
                </form>
            </Dialog>
        </section>
    );
}
