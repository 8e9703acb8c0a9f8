import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { SideSheet } from '@/ui/SideSheet';

type Line = Schemas['MessageLine'];

/** One message: what it says, what became of it, and what can be done where it did not arrive. */
export function MessageSheet({
    school,
    id,
    word,
    onOther,
    onClose,
}: {
    school: School;
    id: string;
    word: (message: Line) => string;
    onOther: (id: string) => void;
    onClose: () => void;
}) {
    const say = useNotice();
    const [asHtml, setAsHtml] = useState(false);
    const path = { params: { path: { message: id } } };
    const asked = useQuery({
        queryKey: ['message', id],
        queryFn: () => data(api.GET('/api/messages/{message}', path)),
        refetchInterval: (query) => (['waiting', 'handing'].includes(query.state.data?.state ?? '') ? 3_000 : false),
    });
    const after = (done: string) => ({
        stale: [['message'], ['messages', school.id], ['desk', school.id]],
        then: () => say(done),
        failed: (said: string) => say(said, { bad: true }),
    });
    const again = useAct(() => data(api.POST('/api/messages/{message}/again', path)), {
        ...after(''),
        then: (next: Line) => {
            say(`It goes out once more, to ${next.to}.`);
            onOther(next.id);
        },
    });
    const settle = useAct(
        () => data(api.POST('/api/messages/{message}/settle', path)),
        after('It does not stand among those that did not arrive any more.'),
    );
    const stop = useAct(() => data(api.POST('/api/messages/{message}/stop', path)), after('It does not go out.'));
    const message = asked.data;
    if (!message)
        return (
            <SideSheet title="Message" onClose={onClose}>
                <Instead of={asked} what="the message" size="part" gone="This message is in none of your schools." />
            </SideSheet>
        );
    const busy = again.busy || settle.busy || stop.busy;
    return (
        <SideSheet title={message.subject} subtitle={`to ${message.to}, ${moment(message.madeAt)}`} onClose={onClose}>
            <dl className="mb-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
                <dt className="text-muted">State</dt>
                <dd>
                    {word(message)}
                    {message.sentAt && `, ${moment(message.sentAt)}`}
                    {message.nextAt && `, tried ${moment(message.nextAt)}`}
                </dd>
                <dt className="text-muted">About</dt>
                <dd>
                    {message.kind}
                    {message.via === 'text' && ', text message'}
                </dd>
                {message.personId && (
                    <>
                        <dt className="text-muted">For</dt>
                        <dd>
                            <Link
                                className="underline decoration-rule underline-offset-4"
                                to={`/s/${school.code}/roll?person=${message.personId}`}
                            >
                                open the person
                            </Link>
                        </dd>
                    </>
                )}
                {message.files.length > 0 && (
                    <>
                        <dt className="text-muted">With</dt>
                        <dd className="break-all">{message.files.join(', ')}</dd>
                    </>
                )}
            </dl>
            {message.problem && (
                <p className={`mb-4 border-s-[3px] ps-3 text-sm ${message.amiss ? 'border-madder' : 'border-rule'}`}>
                    {message.problem}
                </p>
            )}
            {message.bounced && message.state !== 'bounced' && (
                <p className="mb-4 border-s-[3px] border-marigold ps-3 text-sm">
                    Mail to this address came back before: {message.bounced}
                </p>
            )}
            {message.amiss && (
                <div className="mb-4 flex flex-wrap gap-2">
                    <Button kind="primary" disabled={busy} onClick={() => again.run()}>
                        Send again
                    </Button>
                    <Button disabled={busy} onClick={() => settle.run()}>
                        Set aside
                    </Button>
                </div>
            )}
            {message.state === 'waiting' && (
                <Button disabled={busy} onClick={() => stop.run()}>
                    Stop it
                </Button>
            )}
            <div className="mb-3 mt-4 flex gap-4 border-b border-rule text-sm">
                {[false, true].map((html) => (
                    <button
                        key={String(html)}
                        aria-pressed={asHtml === html}
                        onClick={() => setAsHtml(html)}
                        className={`min-h-8 ${asHtml === html ? 'border-b-2 border-ink font-semibold' : 'text-muted'}`}
                    >
                        {html ? 'as a page' : 'as text'}
                    </button>
                ))}
                {message.via === 'mail' && (
                    <a
                        className="ms-auto self-center underline decoration-rule underline-offset-4"
                        href={`/api/messages/${id}/eml`}
                        download
                    >
                        .eml
                    </a>
                )}
            </div>
            {asHtml ? (
                // Nothing in it runs, and nothing leads out of it.
                <iframe
                    title="The message as a page"
                    sandbox=""
                    src={`/api/messages/${id}/html`}
                    className="h-[420px] w-full border border-rule bg-white"
                />
            ) : (
                <div className="whitespace-pre-wrap break-words text-sm" dir="auto">
                    {message.text.split(/(https?:\/\/\S+)/).map((part, i) =>
                        part.startsWith('http') ? (
                            <a key={i} href={part} className="underline underline-offset-4">
                                {part}
                            </a>
                        ) : (
                            part
                        ),
                    )}
                </div>
            )}
        </SideSheet>
    );
}
