import { type FormEvent, type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { day, isoDay, moment } from '@/ui/dates';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { SideSheet } from '@/ui/SideSheet';
import { standing, type Tie } from './GuardiansPage';

type Doing = 'again' | 'disconnect' | 'restrict' | 'consent' | null;

const WAYS = [
    { value: 'form', label: 'signed form' },
    { value: 'in_person', label: 'in person' },
    { value: 'telephone', label: 'by telephone' },
    { value: 'account', label: 'from their account' },
    { value: 'school', label: 'by the school, for class' },
] as const;

/** One guardian and one child: how they stand, and what can be done about it. */
export function TieSheet({ tie, school, onClose }: { tie: Tie; school: School; onClose: () => void }) {
    const say = useNotice();
    const [doing, setDoing] = useState<Doing>(null);
    const [text, setText] = useState('');
    const [way, setWay] = useState<(typeof WAYS)[number]['value']>('form');
    const params = { path: { school: school.id, tie: tie.id } };
    const act = useAct(
        (what: NonNullable<Doing> | 'withdraw' | 'lift') => {
            switch (what) {
                case 'again':
                    return data(
                        api.POST('/api/schools/{school}/guardians/{tie}/again', {
                            params,
                            body: text.trim() ? { email: text } : {},
                        }),
                    );
                case 'restrict':
                    return data(
                        api.POST('/api/schools/{school}/guardians/{tie}/restrict', { params, body: { why: text } }),
                    );
                case 'consent':
                    return data(
                        api.POST('/api/schools/{school}/guardians/{tie}/consent', {
                            params,
                            body: { on: text, way },
                        }),
                    );
                case 'disconnect':
                    return data(api.POST('/api/schools/{school}/guardians/{tie}/disconnect', { params }));
                case 'withdraw':
                    return data(api.POST('/api/schools/{school}/guardians/{tie}/withdraw', { params }));
                case 'lift':
                    return data(api.POST('/api/schools/{school}/guardians/{tie}/lift', { params }));
            }
        },
        {
            stale: [
                ['guardians', school.id],
                ['desk', school.id],
                ['person', tie.studentId],
            ],
            then: ({ said }) => {
                say(said);
                setDoing(null);
            },
        },
    );
    const begin = (what: Doing, with_ = '') => {
        act.clear();
        setText(with_);
        setDoing(what);
    };
    const open = tie.invitedAt !== null && tie.state === 'invited';
    const facts: [string, ReactNode][] = [
        ['Stands', standing(tie) + (tie.since ? `, since ${day(tie.since.slice(0, 10))}` : '')],
        ['By', tie.by],
        ['Is', tie.relationship],
        ['Mail', tie.email && `${tie.email}${tie.confirmed ? ', confirmed' : ''}`],
        ['Phone', tie.phone],
        ['Sent', open && tie.invitedAt ? moment(tie.invitedAt) : ''],
        ['Reminded', open && tie.remindedAt ? moment(tie.remindedAt) : ''],
        ['Works until', open && tie.expiresAt ? day(tie.expiresAt.slice(0, 10)) : ''],
        ['Consent', tie.consentOn ? `${day(tie.consentOn)}, ${tie.consentWay}` : ''],
        ['Restricted', tie.restriction],
    ];
    return (
        <SideSheet title={tie.guardian} subtitle={`guardian of ${tie.student}`} onClose={onClose}>
            <dl className="mb-4 grid grid-cols-[88px_1fr] gap-y-0.5 text-sm">
                {facts
                    .filter(([, value]) => value)
                    .map(([label, value]) => (
                        <div key={label} className="contents">
                            <dt className="text-muted">{label}</dt>
                            <dd className="break-words">{value}</dd>
                        </div>
                    ))}
            </dl>
            <p className="mb-4 flex flex-wrap gap-x-5 text-sm">
                <Link
                    className="leading-6 underline decoration-rule underline-offset-4"
                    to={`/s/${school.code}/roll?kind=guardian&person=${tie.guardianId}`}
                >
                    {tie.guardian} in the Roll
                </Link>
                <Link
                    className="leading-6 underline decoration-rule underline-offset-4"
                    to={`/s/${school.code}/roll?person=${tie.studentId}`}
                >
                    {tie.student} in the Roll
                </Link>
            </p>
            {act.error && (
                <p role="alert" className="mb-3 text-sm text-madder">
                    {act.error}
                </p>
            )}
            {doing === null && (
                <div className="flex flex-wrap gap-2">
                    {(tie.state === 'listed' || tie.state === 'invited') && !tie.restriction && (
                        <Button onClick={() => begin('again')}>{open ? 'Send again…' : 'Invite…'}</Button>
                    )}
                    {open && (
                        <Button disabled={act.busy} onClick={() => act.run('withdraw')}>
                            Withdraw
                        </Button>
                    )}
                    {tie.state === 'connected' && <Button onClick={() => begin('disconnect')}>Disconnect…</Button>}
                    {!tie.restriction && (
                        <Button onClick={() => begin('consent', isoDay(new Date()))}>Keep consent…</Button>
                    )}
                    {tie.restriction ? (
                        <Button disabled={act.busy} onClick={() => act.run('lift')}>
                            Lift the restriction
                        </Button>
                    ) : (
                        <Button onClick={() => begin('restrict')}>Restrict contact…</Button>
                    )}
                </div>
            )}
            {doing !== null && (
                <form
                    className="flex flex-col gap-3"
                    onSubmit={(event: FormEvent) => {
                        event.preventDefault();
                        act.run(doing);
                    }}
                >
                    {doing === 'again' && (
                        <Field
                            label="Another mail address, if this one is wrong"
                            type="email"
                            autoFocus
                            placeholder={tie.email}
                            hint="An older link ends."
                            value={text}
                            onChange={(event) => setText(event.target.value)}
                            error={act.field('email') || undefined}
                        />
                    )}
                    {doing === 'disconnect' && (
                        <p className="text-sm">
                            {tie.guardian} sees nothing more of {tie.student} from this moment, and is signed out
                            everywhere. The child’s record stays.
                        </p>
                    )}
                    {doing === 'restrict' && (
                        <Field
                            label="Why"
                            required
                            autoFocus
                            maxLength={200}
                            hint="Seen by coordinators of this school only. They are never invited, connected or written to."
                            value={text}
                            onChange={(event) => setText(event.target.value)}
                        />
                    )}
                    {doing === 'consent' && (
                        <>
                            <Field
                                label="Agreed on"
                                type="date"
                                required
                                autoFocus
                                value={text}
                                onChange={(event) => setText(event.target.value)}
                            />
                            <Choice stacked label="How" value={way} onChange={setWay} options={[...WAYS]} />
                        </>
                    )}
                    <div className="flex gap-2">
                        <Button kind="primary" type="submit" disabled={act.busy}>
                            {
                                {
                                    again: 'Send the link',
                                    disconnect: 'Disconnect',
                                    restrict: 'Restrict contact',
                                    consent: 'Keep it',
                                }[doing]
                            }
                        </Button>
                        <Button onClick={() => setDoing(null)}>Cancel</Button>
                    </div>
                </form>
            )}
        </SideSheet>
    );
}
