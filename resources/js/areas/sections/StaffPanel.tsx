import { useState } from 'react';
import { api, type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { day } from '@/ui/dates';
import { Field } from '@/ui/Field';
import type { GlyphName } from '@/ui/Glyph';
import { useNotice } from '@/ui/Notice';
import { State } from '@/ui/State';

const GLYPHS: Record<string, GlyphName> = {
    invited: 'ask',
    accepted: 'same',
    declined: 'cannot',
    withdrawn: 'leaving',
    expired: 'locked',
};

/** Who teaches the section, who has been asked, and asking another. */
export function StaffPanel({ section, onChange }: { section: Schemas['SectionDetail']; onChange: () => Promise<unknown> }) {
    const say = useNotice();
    const [email, setEmail] = useState('');
    const [role, setRole] = useState<'co_teacher' | 'assistant'>('co_teacher');
    const [error, setError] = useState('');
    const run = async (work: () => Promise<unknown>, done: string) => {
        try {
            await work();
            say(done);
            await onChange();
            return true;
        } catch (e) {
            setError(sentence(e));
            return false;
        }
    };
    const invite = async () => {
        setError('');
        const sent = await run(
            () =>
                api.POST('/api/sections/{section}/invitations', {
                    params: { path: { section: section.id } },
                    body: { email, role },
                }),
            `Invitation sent to ${email}; it is in the Mailroom.`,
        );
        if (sent) setEmail('');
    };
    return (
        <section className="mt-7">
            <h2 className="mb-2 border-b border-rule pb-1 text-lg">Staff</h2>
            <ul className="text-sm">
                {section.staff.length === 0 && <li className="text-muted">Nobody teaches this section.</li>}
                {section.staff.map((s) => (
                    <li key={s.id} className="flex justify-between py-0.5">
                        <span>{s.name}</span>
                        <span className="text-muted">{s.role}</span>
                    </li>
                ))}
            </ul>
            {section.canTeach && (
                <>
                    {section.invitations.length > 0 && <h3 className="mb-1 mt-4 text-base">Invitations</h3>}
                    <ul className="text-sm" aria-live="polite">
                        {section.invitations.map((i) => (
                            <li key={i.id} className="border-b border-rule py-1.5">
                                <div className="flex justify-between gap-3">
                                    <span className="min-w-0 break-words">{i.email}</span>
                                    <span className="shrink-0">
                                        <State name={GLYPHS[i.state] ?? 'ask'} word={i.state} />
                                    </span>
                                </div>
                                <div className="flex items-center justify-between text-xs text-muted">
                                    <span>
                                        {i.role},{' '}
                                        {i.answeredAt
                                            ? `answered ${day(i.answeredAt)}`
                                            : i.state === 'expired'
                                              ? `expired ${day(i.expiresAt)}`
                                              : `sent ${day(i.sentAt)}`}
                                    </span>
                                    {(i.state === 'invited' || i.state === 'expired') && (
                                        <span className="flex gap-3">
                                            <button
                                                className="inline-block min-h-6 leading-6 underline underline-offset-4"
                                                onClick={() =>
                                                    void run(
                                                        () =>
                                                            api.POST('/api/invitations/{invitation}/again', {
                                                                params: { path: { invitation: i.id } },
                                                            }),
                                                        'Sent again with a new link.',
                                                    )
                                                }
                                            >
                                                send again
                                            </button>
                                            <button
                                                className="inline-block min-h-6 leading-6 underline underline-offset-4"
                                                onClick={() =>
                                                    void run(
                                                        () =>
                                                            api.DELETE('/api/invitations/{invitation}', {
                                                                params: { path: { invitation: i.id } },
                                                            }),
                                                        'Withdrawn; the link is dead.',
                                                    )
                                                }
                                            >
                                                withdraw
                                            </button>
                                        </span>
                                    )}
                                </div>
                            </li>
                        ))}
                    </ul>
                    <form
                        className="mt-4 flex flex-col gap-3"
                        onSubmit={(event) => {
                            event.preventDefault();
                            void invite();
                        }}
                    >
                        <Field
                            label="Invite by e-mail"
                            type="email"
                            required
                            value={email}
                            onChange={(event) => setEmail(event.target.value)}
                            error={error || undefined}
                        />
                        <div className="flex items-center justify-between">
                            <Choice
                                label="as"
                                value={role}
                                onChange={(value) => setRole(value as typeof role)}
                                options={[
                                    { value: 'co_teacher', label: 'co-teacher' },
                                    { value: 'assistant', label: 'assistant' },
                                ]}
                            />
                            <Button type="submit">Send the invitation</Button>
                        </div>
                    </form>
                </>
            )}
        </section>
    );
}
