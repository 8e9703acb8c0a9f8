import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import { live } from '@/api/live';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import type { GlyphName } from '@/ui/Glyph';
import { Instead } from '@/ui/Instead';
import { State } from '@/ui/State';
import { useAddress, useTyped } from '@/ui/useAddress';
import { many } from '@/ui/words';
import { MessageSheet } from './MessageSheet';

type Line = Schemas['MessageLine'];

const STATES: Record<Line['state'], [GlyphName, string]> = {
    kept: ['archived', 'kept here'],
    waiting: ['leaving', 'waits'],
    handing: ['leaving', 'going out'],
    sent: ['same', 'sent'],
    doubtful: ['ask', 'may not have gone'],
    refused: ['cannot', 'refused'],
    bounced: ['cannot', 'came back'],
    stopped: ['locked', 'stopped'],
};

const SHOWN = [
    ['', 'all'],
    ['amiss', 'did not arrive'],
    ['waiting', 'waiting'],
] as const;

/** All mail and texts, as they go out, and what becomes of them. */
export function MailroomPage({ school }: { school: School }) {
    const [search, set] = useAddress();
    const open = search.get('message');
    const show = SHOWN.find(([key]) => key === search.get('show'))?.[0] ?? '';
    const q = search.get('q') ?? '';
    const mailing = search.get('mailing') ?? '';
    const person = search.get('person') ?? '';
    const [text, setText] = useTyped(q, set);
    const asked = useInfiniteQuery({
        queryKey: ['messages', school.id, show, q, mailing, person],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/schools/{school}/messages', {
                    params: {
                        path: { school: school.id },
                        query: {
                            ...(show && { show }),
                            ...(q && { text: q }),
                            ...(mailing && { mailing }),
                            ...(person && { person }),
                            ...(pageParam && { after: pageParam }),
                        },
                    },
                }),
            ),
        initialPageParam: '',
        getNextPageParam: (last) => last.next ?? undefined,
        refetchInterval: live(5_000),
    });
    const messages = useMemo(() => asked.data?.pages.flatMap((p) => p.messages) ?? [], [asked.data]);
    const first = asked.data?.pages[0];
    const counts = { '': null, amiss: first?.amiss, waiting: first?.waiting };
    return (
        <div className="page">
            <div className="flex flex-wrap items-baseline gap-x-5 px-6 pb-3 pt-4">
                <h1 className="text-2xl">Mailroom</h1>
                <p role="status" className="text-sm text-muted">
                    {first &&
                        (first.amiss > 0
                            ? `${many(first.amiss, 'message', 'messages')} did not arrive`
                            : 'nothing is amiss')}
                </p>
                <span className="ms-auto flex gap-5 text-sm">
                    <Link
                        className="underline decoration-rule underline-offset-4"
                        to={`/s/${school.code}/mailroom/letters`}
                    >
                        Letters to many
                    </Link>
                    <Link
                        className="underline decoration-rule underline-offset-4"
                        to={`/s/${school.code}/mailroom/notices`}
                    >
                        Notices of the school
                    </Link>
                </span>
            </div>
            <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 pb-3">
                <div role="group" aria-label="Which messages" className="flex gap-4 text-sm">
                    {SHOWN.map(([key, word]) => (
                        <button
                            key={key}
                            aria-pressed={show === key}
                            onClick={() => set({ show: key || null, message: null })}
                            className={`min-h-8 ${show === key ? 'border-b-2 border-ink font-semibold' : 'text-muted'}`}
                        >
                            {word}
                            {counts[key] ? ` ${String(counts[key])}` : ''}
                        </button>
                    ))}
                </div>
                <input
                    aria-label="Address or subject"
                    placeholder="Address or subject"
                    value={text}
                    onChange={(event) => setText(event.target.value)}
                    className="min-h-8 w-60 rounded-card border border-ink/60 bg-paper px-2 text-sm"
                />
                {(mailing || person) && (
                    <span className="flex items-center gap-2 text-sm">
                        {mailing ? 'Only of the letter' : 'Only to'} “{first?.narrowed ?? '…'}”
                        <Button onClick={() => set({ mailing: null, person: null })}>Show every message</Button>
                    </span>
                )}
            </div>
            {!first ? (
                <Instead of={asked} what="the Mailroom" />
            ) : (
                <div className="split">
                    <DataTable
                        label="Messages"
                        name="messages"
                        rows={messages}
                        id={(m) => m.id}
                        current={open}
                        onOpen={(m) => set({ message: m.id })}
                        onEnd={() => void (asked.hasNextPage && !asked.isFetchingNextPage && asked.fetchNextPage())}
                        marked={(m) => m.amiss}
                        sortable={false}
                        empty={
                            show || q || mailing || person ? (
                                <Empty title="No such message">
                                    Choose “all”, empty the field beside it, or show every letter again.
                                </Empty>
                            ) : (
                                <Empty title="No mail has gone out">
                                    Invitations, links to sign in and notices appear here when they are written.
                                </Empty>
                            )
                        }
                        columns={[
                            { id: 'to', label: 'To', value: (m) => m.to, width: 'minmax(180px, 1.4fr)' },
                            { id: 'subject', label: 'Subject', value: (m) => m.subject, width: 'minmax(180px, 2fr)' },
                            {
                                id: 'state',
                                label: 'State',
                                value: (m) => m.state,
                                cell: (m) => <State name={STATES[m.state][0]} word={STATES[m.state][1]} />,
                                width: '170px',
                            },
                            {
                                id: 'at',
                                label: 'Written',
                                value: (m) => m.madeAt,
                                cell: (m) => moment(m.madeAt),
                                width: '170px',
                            },
                        ]}
                    />
                    {open && (
                        <MessageSheet
                            key={open}
                            school={school}
                            id={open}
                            word={(m) => STATES[m.state][1]}
                            onOther={(id) => set({ message: id })}
                            onClose={() => set({ message: null })}
                        />
                    )}
                </div>
            )}
        </div>
    );
}
