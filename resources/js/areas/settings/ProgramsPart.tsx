import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { Part } from './PartForm';

const READS = [
    ['core', 'Sections, and names of who is in them'],
    ['roster', 'Numbers, addresses and guardians as well'],
    ['demographics', 'Birth dates'],
] as const;
type Read = (typeof READS)[number][0];

/** The school's other programs, which read the rosters by OneRoster, each by a key of its own. */
export function ProgramsPart({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const key = ['roster-keys', school.id];
    const params = { path: { school: school.id } };
    const asked = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/schools/{school}/roster-keys', { params })),
    });
    const [name, setName] = useState('');
    const [reads, setReads] = useState<ReadonlySet<Read>>(new Set(['core']));
    const [made, setMade] = useState<Schemas['KeyPage'] | null>(null);
    const [ending, setEnding] = useState('');
    const [since, setSince] = useState('');
    const make = useAct(
        () => data(api.POST('/api/schools/{school}/roster-keys', { params, body: { name, scopes: [...reads] } })),
        {
            stale: [],
            home: 'name',
            then: (page: Schemas['KeyPage']) => {
                queries.setQueryData(key, page);
                setMade(page);
                setName('');
            },
        },
    );
    const end = useAct(
        (id: string) =>
            data(
                api.DELETE('/api/schools/{school}/roster-keys/{key}', {
                    params: { path: { school: school.id, key: id } },
                }),
            ),
        {
            stale: [],
            then: (page: Schemas['KeyPage']) => {
                queries.setQueryData(key, page);
                setEnding('');
                setMade(null);
                say('The key has ended. The next request with it is refused.');
            },
            failed: (said) => say(said, { bad: true }),
        },
    );
    const page = asked.data;
    return (
        <Part
            title="Other programs"
            about="Programs of the school can read the rosters by OneRoster 1.2, so that nobody types a list twice. They change nothing."
        >
            {!page ? (
                <Instead of={asked} what="the keys" size="part" />
            ) : (
                <>
                    {made && (
                        <div role="status" className="mb-4 border-l-[3px] border-marigold pl-3 text-sm">
                            <p className="mb-2">Copy these into the program now. The secret is not shown again.</p>
                            <dl className="grid grid-cols-[120px_1fr] gap-y-1">
                                {(
                                    [
                                        ['Address', made.base],
                                        ['Token address', made.token],
                                        ['Client id', made.made],
                                        ['Client secret', made.secret],
                                    ] as const
                                ).map(([label, value]) => (
                                    <div key={label} className="contents">
                                        <dt className="text-muted">{label}</dt>
                                        <dd className="break-all font-mono">{value}</dd>
                                    </div>
                                ))}
                            </dl>
                        </div>
                    )}
                    {page.keys.length === 0 && <p className="mb-3 text-sm text-muted">No program has a key.</p>}
                    <ul className="mb-5">
                        {page.keys.map((k) => (
                            <li
                                key={k.id}
                                className="flex items-start justify-between gap-4 border-b border-rule py-2 text-sm"
                            >
                                <span>
                                    <span className={k.endedAt ? 'text-muted line-through' : 'font-semibold'}>
                                        {k.name}
                                    </span>
                                    <span className="block text-xs text-muted">
                                        reads {k.reads.join('; ')}
                                        <br />
                                        {`made ${day(k.madeAt.slice(0, 10))} by ${k.madeBy}`}
                                        {k.endedAt
                                            ? `, ended ${day(k.endedAt.slice(0, 10))}`
                                            : k.lastUsedAt
                                              ? `, last used ${day(k.lastUsedAt.slice(0, 10))}`
                                              : ', never used'}
                                    </span>
                                </span>
                                {!k.endedAt &&
                                    (ending === k.id ? (
                                        <span className="flex shrink-0 gap-2">
                                            <Button kind="primary" disabled={end.busy} onClick={() => end.run(k.id)}>
                                                End it now
                                            </Button>
                                            <Button onClick={() => setEnding('')}>Keep</Button>
                                        </span>
                                    ) : (
                                        <Button onClick={() => setEnding(k.id)} aria-label={`End the key of ${k.name}`}>
                                            End
                                        </Button>
                                    ))}
                            </li>
                        ))}
                    </ul>
                    <div className="mb-5 flex flex-wrap items-end gap-x-4 gap-y-2 text-sm">
                        <a
                            className="leading-8 underline underline-offset-4"
                            href={`/api/schools/${school.id}/roster?format=oneroster`}
                        >
                            Everything as OneRoster CSV
                        </a>
                        <Field
                            label="or what has changed since"
                            type="date"
                            value={since}
                            onChange={(event) => setSince(event.target.value)}
                        />
                        {since && (
                            <a
                                className="leading-8 underline underline-offset-4"
                                href={`/api/schools/${school.id}/roster?format=oneroster&since=${since}`}
                            >
                                Changes since {day(since)}
                            </a>
                        )}
                    </div>
                    <form
                        className="flex flex-col gap-3"
                        onSubmit={(event: FormEvent) => {
                            event.preventDefault();
                            make.run();
                        }}
                    >
                        <Field
                            label="A key for"
                            placeholder="Library, seating plans"
                            required
                            maxLength={80}
                            className="max-w-96"
                            value={name}
                            onChange={(event) => setName(event.target.value)}
                            error={make.field('name') || undefined}
                        />
                        <fieldset>
                            <legend className="mb-1 text-sm">It may read</legend>
                            {READS.map(([word, label]) => (
                                <label key={word} className="flex min-h-7 items-center gap-2 text-sm">
                                    <input
                                        type="checkbox"
                                        className="accent-ink"
                                        checked={reads.has(word)}
                                        onChange={(event) => {
                                            const next = new Set(reads);
                                            if (event.target.checked) next.add(word);
                                            else next.delete(word);
                                            setReads(next);
                                        }}
                                    />
                                    {label}
                                </label>
                            ))}
                            {make.field('scopes') && (
                                <p role="alert" className="text-sm text-madder">
                                    {make.field('scopes')}
                                </p>
                            )}
                        </fieldset>
                        <div>
                            <Button type="submit" disabled={make.busy || reads.size === 0}>
                                Make a key
                            </Button>
                        </div>
                    </form>
                </>
            )}
        </Part>
    );
}
