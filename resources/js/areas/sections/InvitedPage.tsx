import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { live } from '@/api/live';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import type { GlyphName } from '@/ui/Glyph';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { State } from '@/ui/State';
import { many } from '@/ui/words';
import { InviteStudentsDialog } from './InviteStudentsDialog';

type Line = Schemas['StudentInviteLine'];

const STATES: Record<Line['state'], [GlyphName, string]> = {
    waiting: ['leaving', 'on the way'],
    sent: ['same', 'sent'],
    not_there: ['cannot', 'did not arrive'],
    opened: ['update', 'link opened'],
    asked: ['ask', 'at the door'],
    came: ['new', 'came in'],
    turned_away: ['locked', 'turned away'],
    declined: ['locked', 'not for them'],
    withdrawn: ['archived', 'withdrawn'],
    expired: ['archived', 'expired'],
};

/** Students and families asked into a section by mail, and how far each has come. */
export function InvitedPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const queries = useQueryClient();
    const say = useNotice();
    const [inviting, setInviting] = useState(false);
    const key = ['invited-students', id];
    const section = useQuery({
        queryKey: ['section', id, ''],
        queryFn: () => data(api.GET('/api/sections/{section}', { params: { path: { section: id }, query: {} } })),
    });
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/sections/{section}/invited', { params: { path: { section: id } } })),
        refetchInterval: live(5_000),
    });
    const settled = (page: Schemas['StudentInvitePage']) => {
        queries.setQueryData(key, page);
        setInviting(false);
        say(page.said);
    };
    const act = useAct(
        ({ invited, again }: { invited: string; again: boolean }) => {
            const path = { params: { path: { section: id, invited } } };
            return data(
                again
                    ? api.POST('/api/sections/{section}/invited/{invited}/again', path)
                    : api.DELETE('/api/sections/{section}/invited/{invited}', path),
            );
        },
        { stale: [], then: settled, failed: (said) => say(said, { bad: true }) },
    );
    const page = asked.data;
    const lines = page?.invitations ?? [];
    const count = (...states: Line['state'][]) => lines.filter((l) => states.includes(l.state)).length;
    const open = section.data?.state === 'open';
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <p className="text-sm">
                <Link className="underline decoration-rule underline-offset-4" to={`/s/${school.code}/sections/${id}`}>
                    Back to {section.data?.name ?? 'the section'}
                </Link>
            </p>
            <div className="flex max-w-5xl flex-wrap items-baseline justify-between gap-x-5 gap-y-2">
                <h1 className="text-2xl">Invited by mail</h1>
                {open && (
                    <Button kind="primary" onClick={() => setInviting(true)}>
                        Invite students or families…
                    </Button>
                )}
            </div>
            <p role="status" className="mb-5 text-sm text-muted">
                {page && lines.length > 0
                    ? `${many(lines.length, 'link')} sent: ${[
                          `${String(count('came'))} came in`,
                          count('asked') > 0 && `${String(count('asked'))} at the door`,
                          count('opened') > 0 && `${String(count('opened'))} opened and not answered`,
                          count('not_there') > 0 && `${String(count('not_there'))} did not arrive`,
                      ]
                          .filter(Boolean)
                          .join(', ')}.`
                    : 'Each gets a link of their own into this section.'}
            </p>
            {!page ? (
                <Instead of={asked} what="who has been invited" size="part" />
            ) : lines.length === 0 ? (
                <Empty title="Nobody has been invited by mail">
                    Type or paste addresses, student numbers or user names. Students on record come in with one touch;
                    others say who they are, and you let them in.
                </Empty>
            ) : (
                <table className="w-full max-w-5xl text-sm">
                    <thead>
                        <tr className="border-b border-ink text-left">
                            <th scope="col" className="py-1 pe-4 font-semibold">
                                Invited
                            </th>
                            <th scope="col" className="py-1 pe-4 font-semibold">
                                State
                            </th>
                            <th scope="col" className="py-1 pe-4 font-semibold">
                                Sent
                            </th>
                            <th scope="col" className="py-1">
                                <span className="sr-only">Do</span>
                            </th>
                        </tr>
                    </thead>
                    <tbody>
                        {lines.map((line) => (
                            <tr key={line.id} className="border-b border-rule align-baseline">
                                <td className="py-2 pe-4">
                                    <span className="break-words" dir="auto">
                                        {line.name || line.typed}
                                    </span>
                                    <span className="block text-xs text-muted">
                                        {[
                                            line.family ? 'family' : 'student',
                                            line.name && line.name !== line.typed && line.typed,
                                            line.email && line.email !== line.typed && line.email,
                                        ]
                                            .filter(Boolean)
                                            .join(', ')}
                                    </span>
                                </td>
                                <td className="py-2 pe-4">
                                    <State name={STATES[line.state][0]} word={STATES[line.state][1]} />
                                    <span className="block text-xs text-muted">
                                        {line.problem ||
                                            (line.answeredAt
                                                ? moment(line.answeredAt)
                                                : line.openedAt
                                                  ? moment(line.openedAt)
                                                  : '')}
                                    </span>
                                </td>
                                <td className="whitespace-nowrap py-2 pe-4">{moment(line.sentAt)}</td>
                                <td className="py-1">
                                    {line.open && open && (
                                        <span className="flex flex-wrap gap-2">
                                            <Button
                                                aria-label={`Send ${line.typed} a new link`}
                                                disabled={act.busy}
                                                onClick={() => act.run({ invited: line.id, again: true })}
                                            >
                                                Again
                                            </Button>
                                            <Button
                                                aria-label={`Withdraw the link of ${line.typed}`}
                                                disabled={act.busy}
                                                onClick={() => act.run({ invited: line.id, again: false })}
                                            >
                                                Withdraw
                                            </Button>
                                        </span>
                                    )}
                                    {line.state === 'asked' && (
                                        <Link
                                            className="underline underline-offset-4"
                                            to={`/s/${school.code}/sections/${id}`}
                                        >
                                            Answer at the door
                                        </Link>
                                    )}
                                </td>
                            </tr>
                        ))}
                    </tbody>
                </table>
            )}
            {inviting && <InviteStudentsDialog section={id} onClose={() => setInviting(false)} onDone={settled} />}
        </div>
    );
}
