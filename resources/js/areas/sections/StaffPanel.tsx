import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { day, lastDay } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import type { GlyphName } from '@/ui/Glyph';
import { useNotice } from '@/ui/Notice';
import { State } from '@/ui/State';
import { useSentForm } from '@/ui/useSentForm';
import { RolesTable } from './RolesTable';

const GLYPHS: Record<Schemas['InvitationLine']['state'], GlyphName> = {
    invited: 'ask',
    accepted: 'new',
    declined: 'cannot',
    expired: 'cannot',
    withdrawn: 'leaving',
};

type Role = 'co_teacher' | 'assistant' | 'substitute';

type Invite = { email: string; role: Role; begins_on: string; ends_on: string };

/** Who teaches here, who has been asked, and asking more. */
export function StaffPanel({
    section,
    onChange,
}: {
    section: Schemas['SectionDetail'];
    onChange: () => Promise<unknown>;
}) {
    const say = useNotice();
    const [leading, setLeading] = useState<Schemas['StaffLine'] | null>(null);
    const [roles, setRoles] = useState(false);
    const may = (power: string) => section.powers.includes(power);
    const act = useAct(({ work }: { work: () => Promise<unknown>; done: string }) => work(), {
        stale: [],
        then: async (_, { done }) => {
            say(done);
            await onChange();
        },
        failed: (said) => {
            say(said, { bad: true });
            void onChange();
        },
    });
    const run = (work: () => Promise<unknown>, done: string) => act.run({ work, done });
    const path = { section: section.id };
    const handOver = (person: Schemas['StaffLine']) =>
        run(
            () => api.POST('/api/sections/{section}/lead', { params: { path }, body: { person: person.id } }),
            `${person.name} leads ${section.name}.`,
        );
    const link = 'inline-block min-h-6 leading-6 underline underline-offset-4';
    return (
        <section className="mt-7">
            <div className="mb-2 flex items-baseline justify-between border-b border-rule pb-1">
                <h2 className="text-lg">Staff</h2>
                <button className={`text-xs text-muted ${link}`} onClick={() => setRoles(true)}>
                    what each may do
                </button>
            </div>
            <ul className="text-sm">
                {section.staff.length === 0 && <li className="text-muted">Nobody teaches this section.</li>}
                {section.staff.map((s) => (
                    <li key={s.id} className="border-b border-rule py-1">
                        <div className="flex justify-between">
                            <span>{s.name}</span>
                            <span className="text-muted">{s.roleName}</span>
                        </div>
                        <div className="flex items-center justify-between text-xs text-muted">
                            <span>{s.ends && `${day(s.begins)} to ${lastDay(s.ends)}`}</span>
                            {s.role !== 'lead' && (
                                <span className="flex gap-3">
                                    {may('hand_over_lead') && s.role !== 'substitute' && (
                                        <button
                                            className={link}
                                            aria-label={`Make ${s.name} the lead`}
                                            onClick={() => setLeading(s)}
                                        >
                                            make lead
                                        </button>
                                    )}
                                    {may('invite_staff') && (
                                        <button
                                            className={link}
                                            aria-label={`Remove ${s.name} from ${section.name}`}
                                            onClick={() =>
                                                run(
                                                    () =>
                                                        api.DELETE('/api/sections/{section}/staff/{person}', {
                                                            params: { path: { ...path, person: s.id } },
                                                        }),
                                                    `${s.name} was removed from ${section.name}. You can undo this in the Ledger.`,
                                                )
                                            }
                                        >
                                            remove
                                        </button>
                                    )}
                                </span>
                            )}
                        </div>
                    </li>
                ))}
            </ul>
            {may('invite_staff') && (
                <>
                    {section.invitations.length > 0 && <h3 className="mb-1 mt-4 text-base">Invitations</h3>}
                    <ul className="text-sm" aria-live="polite">
                        {section.invitations.map((i) => (
                            <li key={i.id} className="border-b border-rule py-1.5">
                                <div className="flex justify-between gap-3">
                                    <span className="min-w-0 break-words">{i.email}</span>
                                    <span className="shrink-0">
                                        <State name={GLYPHS[i.state]} word={i.state} />
                                    </span>
                                </div>
                                <div className="flex items-center justify-between text-xs text-muted">
                                    <span>
                                        {i.role}
                                        {i.beginsOn && i.endsOn && ` ${day(i.beginsOn)} to ${lastDay(i.endsOn)}`},{' '}
                                        {i.answeredAt
                                            ? `answered ${day(i.answeredAt)}`
                                            : i.state === 'expired'
                                              ? `expired ${day(i.expiresAt)}`
                                              : `sent ${day(i.sentAt)}`}
                                    </span>
                                    {(i.state === 'invited' || i.state === 'expired') && (
                                        <span className="flex gap-3">
                                            <button
                                                className={link}
                                                aria-label={`Send the invitation of ${i.email} again`}
                                                onClick={() =>
                                                    run(
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
                                                className={link}
                                                aria-label={`Withdraw the invitation of ${i.email}`}
                                                onClick={() =>
                                                    run(
                                                        () =>
                                                            api.DELETE('/api/invitations/{invitation}', {
                                                                params: { path: { invitation: i.id } },
                                                            }),
                                                        'Withdrawn; its link no longer works.',
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
                    <InviteForm section={section} onChange={onChange} />
                </>
            )}
            <Dialog open={leading !== null} onClose={() => setLeading(null)} title={`Hand ${section.name} over`}>
                <p>{leading?.name} leads it from today. Who leads it now stays as a co-teacher.</p>
                <DialogFoot
                    onCancel={() => setLeading(null)}
                    onClick={() => {
                        if (leading) void handOver(leading);
                        setLeading(null);
                    }}
                >
                    Make {leading?.name} the lead
                </DialogFoot>
            </Dialog>
            {roles && <RolesTable onClose={() => setRoles(false)} />}
        </section>
    );
}

/** One address or many, from the staff by name or typed. */
function InviteForm({ section, onChange }: { section: Schemas['SectionDetail']; onChange: () => Promise<unknown> }) {
    const say = useNotice();
    const form = useSentForm<Invite>({
        start: { email: '', role: 'co_teacher', begins_on: '', ends_on: '' },
        send: ({ begins_on, ends_on, ...asked }) =>
            api.POST('/api/sections/{section}/invitations', {
                params: { path: { section: section.id } },
                body: { ...asked, ...(asked.role === 'substitute' ? { begins_on, ends_on } : {}) },
            }),
        stale: [],
        home: 'email',
        then: async (_, { email: to }) => {
            say(`Invitation sent to ${to}; it is in the Mailroom.`);
            form.set('email', '');
            await onChange();
        },
        failed: () => void onChange(),
    });
    const { email, role } = form.values;
    const word = email.split(/[\s,;]+/).pop() ?? '';
    const { data: found } = useQuery({
        queryKey: ['staff', section.schoolId, word],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/staff', {
                    params: { path: { school: section.schoolId }, query: { q: word } },
                }),
            ),
        enabled: word.length > 1 && !word.includes('@'),
    });
    const here = new Set(section.staff.map((s) => s.id));
    const offered =
        word.length > 1 && !word.includes('@')
            ? (found?.people ?? []).filter((p) => p.email && !here.has(p.id)).slice(0, 4)
            : [];
    return (
        <form className="mt-4 flex flex-col gap-3" onSubmit={form.submit}>
            <Field
                label="Invite by e-mail"
                required
                autoComplete="off"
                {...form.field('email')}
                hint="Or type a staff member’s name. Separate several with commas."
            />
            {offered.length > 0 && (
                <ul className="-mt-2 border border-rule text-sm">
                    {offered.map((p) => (
                        <li key={p.id}>
                            <button
                                type="button"
                                className="flex min-h-8 w-full items-baseline justify-between gap-3 px-2 text-left hover:bg-tint"
                                onClick={() => form.set('email', email.slice(0, email.length - word.length) + p.email)}
                            >
                                <span>{p.name}</span>
                                <span className="truncate text-xs text-muted">{p.email}</span>
                            </button>
                        </li>
                    ))}
                </ul>
            )}
            {role === 'substitute' && (
                <div className="grid grid-cols-2 gap-3">
                    <Field label="First day" type="date" required {...form.field('begins_on')} />
                    <Field label="Last day" type="date" required {...form.field('ends_on')} />
                </div>
            )}
            {form.error && (
                <p role="alert" className="text-sm text-madder">
                    {form.error}
                </p>
            )}
            <div className="flex items-center justify-between">
                <Choice
                    label="as"
                    {...form.choice('role')}
                    options={[
                        { value: 'co_teacher', label: 'co-teacher' },
                        { value: 'assistant', label: 'assistant' },
                        { value: 'substitute', label: 'substitute' },
                    ]}
                />
                <Button type="submit" disabled={form.busy}>
                    Send the invitation
                </Button>
            </div>
        </form>
    );
}
