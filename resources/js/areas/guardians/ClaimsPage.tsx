import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Empty } from '@/ui/Empty';
import { Field } from '@/ui/Field';
import { Glyph } from '@/ui/Glyph';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { HeldAskings } from './HeldAskings';
import { SoughtChild } from './SoughtChild';

type Line = Schemas['ClaimLine'];
type Sought = Schemas['SoughtLine'];

/** Guardians who came with a family letter, each beside what the school has on record; connected or turned down. */
export function ClaimsPage({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const [refusing, setRefusing] = useState<Line | Sought | null>(null);
    const [reason, setReason] = useState('');
    const key = ['claims', school.id];
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/schools/{school}/claims', { params: { path: { school: school.id } } })),
    });
    const after = {
        stale: [['desk', school.id]],
        then: (page: Schemas['ClaimPage']) => {
            queries.setQueryData(key, page);
            setRefusing(null);
            say(page.said);
        },
        failed: (said: string) => {
            say(said, { bad: true });
            void asked.refetch();
        },
    };
    const approve = useAct(
        ({ line, guardian }: { line: Line; guardian: string }) =>
            data(
                api.POST('/api/schools/{school}/claims/{claim}/approve', {
                    params: { path: { school: school.id, claim: line.id } },
                    body: guardian === '' ? {} : { guardian },
                }),
            ),
        after,
    );
    const approveMany = useAct(
        (ids: string[]) =>
            data(
                api.POST('/api/schools/{school}/claims/approve', {
                    params: { path: { school: school.id } },
                    body: { ids },
                }),
            ),
        after,
    );
    const refuse = useAct(
        (line: Line | Sought) =>
            data(
                'child' in line
                    ? api.POST('/api/schools/{school}/sought/{sought}/refuse', {
                          params: { path: { school: school.id, sought: line.id } },
                          body: { reason },
                      })
                    : api.POST('/api/schools/{school}/claims/{claim}/refuse', {
                          params: { path: { school: school.id, claim: line.id } },
                          body: { reason },
                      }),
            ),
        after,
    );
    const found = useAct(
        ({ line, student }: { line: Sought; student: string }) =>
            data(
                api.POST('/api/schools/{school}/sought/{sought}/found', {
                    params: { path: { school: school.id, sought: line.id } },
                    body: { student },
                }),
            ),
        after,
    );
    const turnDown = (line: Line | Sought) => {
        setReason('');
        setRefusing(line);
    };
    const page = asked.data;
    const waiting = page?.claims.filter((c) => c.state === 'waiting') ?? [];
    const clear = waiting.filter((c) => c.clear).map((c) => c.id);
    const answered = page?.claims.filter((c) => c.state !== 'waiting') ?? [];
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <h1 className="text-2xl">Guardian requests</h1>
            <p className="mb-5 max-w-2xl text-sm text-muted">
                They have a family letter in their hands, a link you sent, or neither. Aunts and neighbours may have one
                too: look at what is on record before you connect anyone.
            </p>
            <HeldAskings school={school} />
            {clear.length > 1 && (
                <p className="mb-5 flex flex-wrap items-center gap-3 border-l-[3px] border-marigold pl-3">
                    <span>
                        {clear.length} are clear: name and address or telephone are those of one on record, and nobody
                        of that name is kept away.
                    </span>
                    <Button disabled={approveMany.busy} onClick={() => approveMany.run(clear)}>
                        Connect these {clear.length}
                    </Button>
                </p>
            )}
            {!page ? (
                <Instead of={asked} what="those who ask" size="part" />
            ) : page.claims.length + page.sought.length === 0 ? (
                <Empty title="Nobody asks to be connected">
                    Print family letters in the Print room. Whoever follows one waits here to be checked.
                </Empty>
            ) : (
                <div className="max-w-3xl">
                    {waiting.length + page.sought.length === 0 && <p className="mb-6">Nobody waits.</p>}
                    <ul>
                        {waiting.map((line) => (
                            <Waiting
                                key={line.id}
                                school={school}
                                line={line}
                                busy={approve.busy || approveMany.busy || refuse.busy}
                                onApprove={(guardian) => approve.run({ line, guardian })}
                                onRefuse={() => turnDown(line)}
                            />
                        ))}
                    </ul>
                    {page.sought.length > 0 && (
                        <section aria-label="Without a letter">
                            <h2 className="mb-3 border-b border-ink pb-1 text-lg">Without a letter: find the child</h2>
                            <ul>
                                {page.sought.map((line) => (
                                    <SoughtChild
                                        key={line.id}
                                        school={school}
                                        line={line}
                                        busy={found.busy || refuse.busy}
                                        onFound={(student) => found.run({ line, student })}
                                        onRefuse={() => turnDown(line)}
                                    />
                                ))}
                            </ul>
                        </section>
                    )}
                    {answered.length > 0 && (
                        <section aria-label="Answered">
                            <h2 className="mb-1 border-b border-ink pb-1 text-lg">Answered</h2>
                            <ul className="text-sm">
                                {answered.map((line) => (
                                    <li key={line.id} className="border-b border-rule py-2">
                                        {line.name} for {line.student}:{' '}
                                        {line.state === 'approved' ? 'connected' : `turned down, ${line.reason}`}
                                        <span className="text-muted">
                                            {line.answeredAt && ` (${moment(line.answeredAt)})`}
                                        </span>
                                    </li>
                                ))}
                            </ul>
                        </section>
                    )}
                </div>
            )}
            <Dialog open={refusing !== null} onClose={() => setRefusing(null)} title="Turn down">
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (refusing) refuse.run(refusing);
                    }}
                >
                    <p className="mb-3 text-sm">
                        {refusing?.name} is not connected with{' '}
                        {refusing && ('child' in refusing ? refusing.child : refusing.student)}. The reason is kept for
                        the school; they are not told it.
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
                        disabled={refuse.busy || reason.trim() === ''}
                    >
                        Turn down
                    </DialogFoot>
                </form>
            </Dialog>
        </div>
    );
}

function Waiting({
    school,
    line,
    busy,
    onApprove,
    onRefuse,
}: {
    school: School;
    line: Line;
    busy: boolean;
    onApprove: (guardian: string) => void;
    onRefuse: () => void;
}) {
    // Where nothing speaks for anyone on record, whoever answers says who it is.
    const kept = line.record.find((known) => known.id === line.suggested)?.restriction;
    const [who, setWho] = useState<string | null>(kept ? null : line.suggested);
    return (
        <li className="mb-6 border-b border-rule pb-5">
            <p>
                <span className="font-semibold">{line.name}</span> asks to be connected with{' '}
                <span className="font-semibold">{line.student}</span>
            </p>
            <p className="text-sm text-muted">
                {[line.email, line.phone].filter(Boolean).join(', ')}; {moment(line.askedAt)}
                {line.signedIn && '; from an account of their own'}
            </p>
            {line.signedIn ? (
                <div className="my-3 text-sm">
                    <p>{line.record.length === 0 ? 'No guardian is on record.' : 'On record:'}</p>
                    <ul>
                        {line.record.map((known) => (
                            <li key={known.id} className="mt-1">
                                <Known known={known} />
                            </li>
                        ))}
                    </ul>
                </div>
            ) : (
                <fieldset className="my-3">
                    <legend className="text-sm">Who is it?</legend>
                    {line.record.map((known) => (
                        <label key={known.id} className="mt-1 flex items-start gap-2 text-sm">
                            <input
                                type="radio"
                                className="mt-1 accent-ink"
                                name={line.id}
                                disabled={known.restriction !== ''}
                                checked={who === known.id}
                                onChange={() => setWho(known.id)}
                            />
                            <Known known={known} />
                        </label>
                    ))}
                    <label className="mt-1 flex items-start gap-2 text-sm">
                        <input
                            type="radio"
                            className="mt-1 accent-ink"
                            name={line.id}
                            checked={who === ''}
                            onChange={() => setWho('')}
                        />
                        <span>
                            Someone not on record
                            {line.record.length === 0 && (
                                <span className="block text-xs text-muted">No guardian is on record.</span>
                            )}
                        </span>
                    </label>
                </fieldset>
            )}
            <div className="mt-2 flex gap-2">
                <Button
                    kind="primary"
                    disabled={busy || (!line.signedIn && who === null)}
                    onClick={() => onApprove(line.signedIn ? '' : (who ?? ''))}
                >
                    Connect
                </Button>
                <Button disabled={busy} onClick={onRefuse}>
                    Turn down…
                </Button>
            </div>
            {/* Below what is pressed: when it comes nobody knows before. */}
            <InRecord school={school} claim={line.id} />
        </li>
    );
}

/** A guardian on record, and what speaks for being the one who asks. */
function Known({ known }: { known: Line['record'][number] }) {
    return (
        <span>
            {known.name}, {known.state}
            <span className="block text-xs text-muted">
                {[known.email || 'no address', known.phone || 'no telephone'].join(', ')}
                {known.alike.length > 0 ? `. The same: ${known.alike.join(', ')}` : '. Nothing is the same'}
                {known.alike.length > 0 && known.unlike.length > 0 && `; another: ${known.unlike.join(', ')}`}
            </span>
            {known.restriction && (
                <span className="flex items-center gap-1 text-sm text-madder">
                    <Glyph name="locked" /> Contact is restricted: {known.restriction}
                </span>
            )}
        </span>
    );
}

/** What the school's record says of the child's guardians now, where one is set up. */
function InRecord({ school, claim }: { school: School; claim: string }) {
    const there = useQuery({
        queryKey: ['record', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/record', { params: { path: { school: school.id } } })),
    });
    const [asking, setAsking] = useState(false);
    const asked = useQuery({
        queryKey: ['claim-record', claim],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/claims/{claim}/record', {
                    params: { path: { school: school.id, claim } },
                }),
            ),
        enabled: asking,
        retry: false,
    });
    if (there.data?.there !== true) return null;
    if (!asking)
        return (
            <button className="my-2 text-sm underline underline-offset-4" onClick={() => setAsking(true)}>
                Look in the school’s record
            </button>
        );
    return (
        <div className="my-3 text-sm">
            <p>In the school’s record:</p>
            {asked.data ? (
                <ul>
                    {asked.data.guardians.length === 0 && <li className="text-muted">no guardian</li>}
                    {asked.data.guardians.map((known) => (
                        <li key={known.id} className="mt-1">
                            <Known known={known} />
                        </li>
                    ))}
                </ul>
            ) : (
                <Instead of={asked} what="the school’s record" size="part" />
            )}
        </div>
    );
}
