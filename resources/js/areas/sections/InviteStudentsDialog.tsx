import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { PreviewOf } from '@/areas/mailroom/PreviewOf';
import { Writing } from '@/areas/mailroom/Writing';
import { LANGUAGES } from '@/shell/language';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { useSentForm } from '@/ui/useSentForm';
import { many } from '@/ui/words';

/** Whom to invite, looked at as it goes out, and sent. */
export function InviteStudentsDialog({
    section,
    onClose,
    onDone,
}: {
    section: string;
    onClose: () => void;
    onDone: (page: Schemas['StudentInvitePage']) => void;
}) {
    const [seen, setSeen] = useState<Schemas['StudentInviteOutlook'] | null>(null);
    const params = { params: { path: { section } } };
    const form = useSentForm({
        start: { who: '', reader: 'student' as 'student' | 'family', language: 'en' },
        send: ({ who, reader, language }) =>
            data(
                api.POST('/api/sections/{section}/invited/plan', {
                    ...params,
                    body: { who, family: reader === 'family', language },
                }),
            ),
        stale: [],
        home: 'who',
        then: setSeen,
    });
    const { who, reader, language } = form.values;
    const send = useAct(
        () =>
            data(
                api.POST('/api/sections/{section}/invited', {
                    ...params,
                    body: { who, family: reader === 'family', language, seen: seen?.seen ?? '' },
                }),
            ),
        { stale: [], then: onDone },
    );
    if (seen)
        return (
            <Dialog
                open
                wide
                onClose={onClose}
                title={`${many(seen.count, 'link')} to ${reader === 'family' ? 'families' : 'students'}`}
            >
                <p className="mb-3">
                    {seen.count === 0
                        ? 'None of these can be invited.'
                        : `${known(seen)} The links work for ${String(seen.days)} days.`}
                </p>
                {seen.leftOut.length > 0 && (
                    <div className="mb-3 border-s-[3px] border-marigold ps-3 text-sm">
                        <p>{many(seen.leftOut.length, 'line')} left out:</p>
                        <ul className="text-muted">
                            {seen.leftOut.map((line) => (
                                <li key={line.typed} className="break-words">
                                    <span className="text-ink">{line.typed}</span> {line.why}
                                </li>
                            ))}
                        </ul>
                    </div>
                )}
                {seen.bounced.length > 0 && (
                    <p className="mb-3 border-s-[3px] border-marigold ps-3 text-sm">
                        Mail came back from here last time: {seen.bounced.join(', ')}. It is tried again.
                    </p>
                )}
                {seen.previews.map((preview) => (
                    <PreviewOf key={preview.language} preview={preview} />
                ))}
                {send.error && (
                    <p role="alert" className="mt-2 text-sm text-madder">
                        {send.error}
                    </p>
                )}
                <DialogFoot
                    onCancel={() => setSeen(null)}
                    cancel="Back to the list"
                    disabled={send.busy || seen.count === 0}
                    onClick={() => send.run()}
                >
                    Send {many(seen.count, 'link')}
                </DialogFoot>
            </Dialog>
        );
    return (
        <Dialog open wide onClose={onClose} title="Invite by mail">
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <Choice
                    label="To"
                    stacked
                    options={[
                        { value: 'student' as const, label: 'students themselves' },
                        { value: 'family' as const, label: 'their families' },
                    ]}
                    {...form.choice('reader')}
                />
                <Writing
                    label="Addresses, student numbers or user names"
                    rows={8}
                    value={who}
                    error={form.at('who')}
                    onChange={(value) => form.set('who', value)}
                />
                <p className="-mt-2 text-xs text-muted">
                    One per line, or separated by commas.{' '}
                    {reader === 'family'
                        ? 'For a number or user name, every guardian on record who may be written to gets a link.'
                        : 'A number or user name goes to the address on record.'}
                </p>
                <Choice
                    label="Language, where theirs is not on record"
                    stacked
                    options={LANGUAGES.map((l) => ({ value: l.code, label: l.name }))}
                    {...form.choice('language')}
                />
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot type="submit" onCancel={onClose} disabled={form.busy}>
                    Preview
                </DialogFoot>
            </form>
        </Dialog>
    );
}

/** How many of them are for somebody on record, and what becomes of the others. */
function known({ count, known }: Schemas['StudentInviteOutlook']) {
    const others = count - known;
    const on = `${String(known)} for ${known === 1 ? 'a student' : 'students'} on record, in with one touch.`;
    if (others === 0) return on;
    const rest =
        others === 1
            ? '1 for somebody who says who they are, and waits for you where they may be known.'
            : `${String(others)} for others who say who they are, and wait for you where they may be known.`;
    return known > 0 ? `${on} ${rest}` : rest;
}
