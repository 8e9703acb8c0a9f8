import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { day, moment } from '@/ui/dates';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';

/** A guardian without a letter: which student they mean, of those it may be or any other. */
export function SoughtChild({
    school,
    line,
    busy,
    onFound,
    onRefuse,
}: {
    school: School;
    line: Schemas['SoughtLine'];
    busy: boolean;
    onFound: (student: string) => void;
    onRefuse: () => void;
}) {
    const asked = useQuery({
        queryKey: ['sought', line.id],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/sought/{sought}', {
                    params: { path: { school: school.id, sought: line.id } },
                }),
            ),
    });
    const [other, setOther] = useState('');
    const [miss, setMiss] = useState('');
    const look = useAct(
        () =>
            data(
                api.POST('/api/schools/{school}/people/named', {
                    params: { path: { school: school.id } },
                    body: { lines: other },
                }),
            ),
        {
            stale: [],
            then: (named) => {
                const [only] = named.people;
                if (only && named.people.length === 1) onFound(only.id);
                else
                    setMiss(
                        named.several.length > 0
                            ? 'Several are called so. Type the number.'
                            : 'No student here has that number or name.',
                    );
            },
        },
    );
    return (
        <li className="mb-6 border-b border-rule pb-5">
            <p>
                <span className="font-semibold">{line.name}</span> writes of{' '}
                <span className="font-semibold">{line.child}</span>, born {day(line.childBorn)}
            </p>
            <p className="text-sm text-muted">
                {[line.email, line.phone].filter(Boolean).join(', ')}; {moment(line.askedAt)}
                {line.signedIn && '; from an account of their own'}
            </p>
            {!asked.data ? (
                <Instead of={asked} what="who it may be" size="part" />
            ) : (
                <ul className="my-3 text-sm">
                    {asked.data.students.length === 0 && (
                        <li className="text-muted">Nobody on the Roll is called so or was born that day.</li>
                    )}
                    {asked.data.students.map((student) => (
                        <li key={student.id} className="mt-1 flex items-center gap-3">
                            <span>
                                {student.name}
                                <span className="text-muted">
                                    {[
                                        student.grade && ` grade ${student.grade}`,
                                        student.born ? ` born ${day(student.born)}` : ' no birth date',
                                        student.number && ` ${student.number}`,
                                    ]
                                        .filter(Boolean)
                                        .join(',')}
                                    {student.fits && '. Name and birth date fit'}
                                </span>
                            </span>
                            <Button
                                kind={student.fits ? 'primary' : undefined}
                                disabled={busy}
                                aria-label={`It is ${student.name}`}
                                onClick={() => onFound(student.id)}
                            >
                                It is this one
                            </Button>
                        </li>
                    ))}
                </ul>
            )}
            <div className="flex flex-wrap items-end gap-2">
                <form
                    className="flex items-end gap-2"
                    onSubmit={(event) => {
                        event.preventDefault();
                        look.run();
                    }}
                >
                    <Field
                        label="Somebody else: number or whole name"
                        value={other}
                        onChange={(event) => {
                            setOther(event.target.value);
                            setMiss('');
                        }}
                        error={look.error || miss || undefined}
                    />
                    <Button type="submit" disabled={busy || look.busy || other.trim() === ''}>
                        Take them
                    </Button>
                </form>
                <Button disabled={busy} onClick={onRefuse}>
                    Turn down…
                </Button>
            </div>
        </li>
    );
}
