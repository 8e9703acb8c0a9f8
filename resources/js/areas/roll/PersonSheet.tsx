import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '@/api/client';
import { CredentialsPart } from '@/areas/accounts/CredentialsPart';
import type { School } from '@/shell/session';
import { BeforeAfter } from '@/ui/BeforeAfter';
import { Button } from '@/ui/Button';
import { day, isoDay, lastDay, moment } from '@/ui/dates';
import { Glyph } from '@/ui/Glyph';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { SideSheet } from '@/ui/SideSheet';
import { EditPerson } from './EditPerson';
import { EraseDialog } from './EraseDialog';
import { LostCard } from './LostCard';

export function PersonSheet({
    id,
    school,
    onClose,
    onOpen,
}: {
    id: string;
    school: School;
    onClose: () => void;
    onOpen: (id: string) => void;
}) {
    const asked = useQuery({
        queryKey: ['person', id],
        queryFn: () => data(api.GET('/api/people/{person}', { params: { path: { person: id } } })),
    });
    const [editing, setEditing] = useState(false);
    const [erasing, setErasing] = useState(false);
    const say = useNotice();
    const person = asked.data;
    if (!person)
        return (
            <SideSheet title="Account" onClose={onClose}>
                <Instead of={asked} what="the account" size="part" gone="This person is in none of your schools." />
            </SideSheet>
        );
    const own = school.each?.find((s) => s.id === person.schoolId) ?? school;
    const from = person.enrollments.map((e) => e.begins).sort()[0] ?? '';
    const facts: [string, string][] = [
        ['Goes by', person.preferred],
        ['Number', person.number],
        ['Grade', person.grade],
        ['Born', person.birthDate],
        ['E-mail', person.email],
        ['Phone', person.phone],
        ['Language', person.languageName],
    ];
    return (
        <SideSheet
            title={person.name}
            subtitle={`${person.kind}, ${person.school}${person.erased ? ', erased' : person.state === 'active' ? '' : `, ${person.state}`}`}
            onClose={onClose}
        >
            {person.state !== 'merged' && (
                <p className="mb-3">
                    <Button onClick={() => setEditing(true)}>Change</Button>
                </p>
            )}
            {editing && <EditPerson person={person} school={own} onClose={() => setEditing(false)} />}
            <dl className="grid grid-cols-[88px_1fr] gap-y-0.5 text-sm">
                {facts
                    .filter(([, value]) => value)
                    .map(([label, value]) => (
                        <div key={label} className="contents">
                            <dt className="text-muted">{label}</dt>
                            <dd className={label === 'Number' ? 'font-mono' : 'break-words'}>{value}</dd>
                        </div>
                    ))}
            </dl>
            {person.bounced && (
                <p className="mt-3 border-s-[3px] border-madder ps-3 text-sm">
                    Mail to {person.email} came back. {person.bounced} Ask for another address.
                </p>
            )}
            <Part title="Sections" empty="In no section." items={person.enrollments}>
                {(e) => (
                    <li
                        key={e.sectionId + e.begins}
                        className="flex flex-wrap items-baseline justify-between gap-x-3 py-0.5"
                    >
                        <Link
                            className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            to={`/s/${own.code}/sections/${e.sectionId}`}
                        >
                            {e.section}
                        </Link>
                        <span className="shrink-0 text-xs text-muted">
                            {e.archived && <Glyph name="archived" className="mr-1" />}
                            {e.archived
                                ? 'archived'
                                : e.ends
                                  ? `to ${lastDay(e.ends)}`
                                  : `${e.role === 'student' ? '' : `${e.role}, `}since ${day(e.begins)}`}
                        </span>
                        <Strip begins={e.begins} ends={e.ends} from={from} />
                    </li>
                )}
            </Part>
            {person.kind !== 'staff' && (
                <Part
                    title={person.kind === 'student' ? 'Guardians' : 'Children'}
                    empty={person.kind === 'student' ? 'No guardian on record.' : 'No child on record.'}
                    items={person.relatives}
                >
                    {(r) => (
                        <li key={r.id || r.name} className="py-0.5">
                            {r.id === '' ? (
                                r.name
                            ) : (
                                <button
                                    className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                                    onClick={() => onOpen(r.id)}
                                >
                                    {r.name}
                                </button>
                            )}{' '}
                            <span className="text-xs text-muted">{r.state}</span>
                            {(r.email || r.phone) && (
                                <span className="block break-words text-xs text-muted">
                                    {[r.email, r.phone].filter(Boolean).join(', ')}
                                </span>
                            )}
                        </li>
                    )}
                </Part>
            )}
            {person.messages.length > 0 && (
                <Part title="Messages" empty="" items={person.messages}>
                    {(m) => (
                        <li key={m.id} className="py-0.5">
                            <Link
                                className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                                to={`/s/${own.code}/mailroom?message=${m.id}`}
                            >
                                {m.subject}
                            </Link>
                            <span className="block text-xs text-muted">{moment(m.at)}</span>
                            {m.problem && <span className="block text-xs text-madder">{m.problem}</span>}
                        </li>
                    )}
                </Part>
            )}
            {person.messages.length > 0 && (
                <p className="text-sm">
                    <Link
                        className="underline decoration-rule underline-offset-4"
                        to={`/s/${own.code}/mailroom?person=${person.id}`}
                    >
                        Every message to them
                    </Link>
                </p>
            )}
            <CredentialsPart person={person} school={own.id} />
            {person.kind === 'student' && person.state === 'active' && <LostCard person={person} school={own.id} />}
            <Part title="What happened" empty="Nothing since the account was made." items={person.history}>
                {(h) => (
                    <li key={h.entryId + h.at + h.reason} className="py-0.5">
                        <Link
                            className="inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            to={`/s/${own.code}/ledger?entry=${h.entryId}`}
                        >
                            {h.title}
                        </Link>
                        <span className="block text-xs text-muted">
                            {moment(h.at)}, {h.reason}
                            {h.undone && ', undone'}
                        </span>
                        {h.changes.map((c) => (
                            <span key={c.field} className="block break-words text-xs">
                                {c.field}: <BeforeAfter cell={c.after ? c : { before: c.before, after: 'none' }} />
                            </span>
                        ))}
                    </li>
                )}
            </Part>
            <Link
                className="mt-2 inline-block min-h-6 text-sm leading-6 underline decoration-rule underline-offset-4"
                to={`/s/${own.code}/ledger?about=${person.id}`}
            >
                All of it in the Ledger
            </Link>
            {!person.erased && (
                <p className="mt-1 text-sm">
                    All that is held about them:{' '}
                    {(['pdf', 'json'] as const).map((format) => (
                        <a
                            key={format}
                            className="mr-3 inline-block min-h-6 leading-6 underline decoration-rule underline-offset-4"
                            href={`/api/people/${person.id}/held?format=${format}`}
                            download
                        >
                            {format === 'pdf' ? 'to read (PDF)' : 'for a program (JSON)'}
                        </a>
                    ))}
                </p>
            )}
            {(person.state === 'left' || person.kind === 'guardian') && !person.erased && (
                <p className="mt-4">
                    <Button onClick={() => setErasing(true)}>Erase for good…</Button>
                </p>
            )}
            {erasing && (
                <EraseDialog
                    person={person}
                    onClose={() => setErasing(false)}
                    onDone={() => {
                        setErasing(false);
                        say('Erased. What was counted stays counted.');
                        onClose();
                    }}
                />
            )}
        </SideSheet>
    );
}

/** When somebody was in a section, on the days from their first one until today. */
function Strip({ begins, ends, from }: { begins: string; ends: string | null; from: string }) {
    const at = (day: string) => Date.parse(day);
    const now = at(isoDay(new Date()));
    const days = Math.max(1, now - at(from));
    const x = (day: number) => (100 * Math.min(Math.max(day - at(from), 0), days)) / days;
    const end = ends === null ? now : at(ends);
    return (
        <svg viewBox="0 0 100 3" preserveAspectRatio="none" className="mb-1 h-[3px] w-full" aria-hidden="true">
            <rect width="100" height="3" fill="var(--rule)" />
            <rect x={x(at(begins))} width={Math.max(1, x(end) - x(at(begins)))} height="3" fill="var(--ink)" />
        </svg>
    );
}

function Part<T>({
    title,
    empty,
    items,
    children,
}: {
    title: string;
    empty: string;
    items: T[];
    children: (item: T) => ReactNode;
}) {
    return (
        <section className="mt-5">
            <h3 className="mb-1 border-b border-rule pb-1 text-base">{title}</h3>
            {items.length === 0 ? (
                <p className="text-sm text-muted">{empty}</p>
            ) : (
                <ul className="text-sm">{items.map(children)}</ul>
            )}
        </section>
    );
}
