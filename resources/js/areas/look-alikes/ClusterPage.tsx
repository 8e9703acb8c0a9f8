import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, ApiError, data, type Schemas, sentence } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { EvidenceBars } from '@/ui/Evidence';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';

type Side = Schemas['AccountSide'];

const COUNT = ['', '', 'the two', 'the three', 'the four', 'the five'];
const PEOPLE = ['', '', 'They are two people', 'They are three people', 'They are four people', 'They are five people'];

/** Two to five accounts side by side; which values stay; what merging does. */
export function ClusterPage({ school }: { school: School }) {
    const { accounts = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [picks, setPicks] = useState<Record<string, string>>({});
    const path = { realm: school.id, accounts };
    const asked = useQuery({
        queryKey: ['cluster', accounts, picks],
        queryFn: () =>
            data(
                api.GET('/api/schools/{realm}/look-alikes/{accounts}', {
                    params: { path, query: { picks: JSON.stringify(picks) } },
                }),
            ),
        placeholderData: keepPreviousData,
    });
    const back = () => void navigate(`/s/${school.code}/look-alikes`);
    const undo = useAct(
        (entry: string) => api.POST('/api/ledger/{entry}/undo', { params: { path: { entry } }, body: {} }),
        { failed: (said) => say(said, { bad: true }) },
    );
    const said = (done: string, line: Schemas['LedgerLine']) =>
        say(done, { action: { label: 'Undo', run: () => undo.run(line.id) } });
    const options = (done: string) => ({
        then: (line: Schemas['LedgerLine']) => {
            said(done, line);
            back();
        },
        failed: (said: string) => {
            say(said, { bad: true });
            void queries.invalidateQueries({ queryKey: ['cluster'] });
        },
    });
    const merge = useAct(
        (fingerprint: string) =>
            data(
                api.POST('/api/schools/{realm}/look-alikes/{accounts}/merge', {
                    params: { path },
                    body: { fingerprint, picks },
                }),
            ),
        options('Merged. All old cards go on working.'),
    );
    const apart = useAct(
        () => data(api.POST('/api/schools/{realm}/look-alikes/{accounts}/apart', { params: { path }, body: {} })),
        options('Noted. They are asked about again only when what is known of them changes.'),
    );
    const leave = useAct(
        (who: string) =>
            data(api.POST('/api/schools/{realm}/look-alikes/{accounts}/apart', { params: { path }, body: { who } })),
        {
            ...options(''),
            then: (line, who) => {
                said('Noted: somebody else. The others stay here.', line);
                const rest = accounts.split('-').filter((id) => id !== who);
                void navigate(`/s/${school.code}/look-alikes/${rest.join('-')}`, { replace: true });
            },
        },
    );
    useKey('Escape', 'Back to the list', back);
    const cluster = asked.data;
    // What the server says of accounts it does not offer any more is a sentence of its own.
    if (!cluster && asked.error instanceof ApiError && [404, 409, 422].includes(asked.error.status))
        return (
            <Empty
                title="These cannot be held against each other any more"
                action={<Button onClick={back}>Back to the look-alikes</Button>}
            >
                {sentence(asked.error)}
            </Empty>
        );
    if (!cluster) return <Instead of={asked} what="the accounts" />;
    const sides = cluster.accounts;
    const keep = sides.find((s) => s.survives) ?? sides[0];
    const name = (id: string) => sides.find((s) => s.id === id)?.name ?? '';
    const caution = cluster.evidence.find((e) => e.caution)?.caution;
    const several = cluster.kind === 'student' && cluster.fields.some((f) => f.column === 'school_id');
    const busy = merge.busy || apart.busy || leave.busy;
    return (
        <div className="page">
            <header className="border-b border-rule px-6 py-4">
                <h1 className="text-2xl">{joined(sides.map((s) => s.name))}</h1>
                <p className="text-sm text-muted">
                    {caution ?? 'the records agree in what they all hold'}; the account used more stays:{' '}
                    {keep?.lastSignedIn && cluster.why === 'signed in last'
                        ? `signed in ${day(keep.lastSignedIn)}`
                        : cluster.why}
                </p>
            </header>
            <div className="split overflow-auto">
                <div className="min-w-0 flex-1 overflow-x-auto px-6 py-4">
                    <table className="w-full border-collapse text-left text-sm">
                        <thead>
                            <tr className="border-b border-ink align-bottom text-xs text-muted">
                                <th className="w-28 py-2 pl-1 font-normal">Field</th>
                                {sides.map((side) => (
                                    <th key={side.id} className="min-w-32 py-2 pr-4 font-normal">
                                        <span className="block font-serif text-base font-semibold text-ink">
                                            {side.name}
                                        </span>
                                        {side.survives
                                            ? 'this account stays'
                                            : `goes into the ${sides.length === 2 ? 'other' : 'one that stays'}`}
                                        {sides.length > 2 && (
                                            <button
                                                className="block min-h-6 text-ink underline underline-offset-4"
                                                disabled={busy}
                                                aria-label={`${side.name} is somebody else`}
                                                onClick={() => leave.run(side.id)}
                                            >
                                                somebody else
                                            </button>
                                        )}
                                    </th>
                                ))}
                                <th className="w-36 py-2 font-normal">Why that stays</th>
                            </tr>
                        </thead>
                        <tbody>
                            {cluster.fields.map((field) => (
                                <FieldRow
                                    key={field.column}
                                    field={field}
                                    sides={sides}
                                    picked={picks[field.column]}
                                    onPick={(id) => setPicks({ ...picks, [field.column]: id })}
                                />
                            ))}
                            {(
                                [
                                    ['Sections', (s: Side) => s.sections],
                                    [cluster.kind === 'guardian' ? 'Children' : 'Guardians', (s: Side) => s.relatives],
                                    ['User names', (s: Side) => s.userNames],
                                ] as const
                            ).map(([label, of]) => (
                                <tr key={label} className="border-b border-rule align-top">
                                    <th scope="row" className="py-2 pl-1 font-normal text-muted">
                                        {label}
                                    </th>
                                    {sides.map((side) => (
                                        <td
                                            key={side.id}
                                            className={`break-words py-2 pr-4 ${label === 'User names' ? 'font-mono' : ''}`}
                                        >
                                            {of(side).join(', ') || <span className="font-sans text-muted">none</span>}
                                        </td>
                                    ))}
                                    <td className="py-2 text-xs text-muted">
                                        {label === 'Sections' && several
                                            ? 'those of the school that is left end'
                                            : 'all come along'}
                                    </td>
                                </tr>
                            ))}
                        </tbody>
                    </table>
                </div>
                <aside aria-label="Evidence" className="beside roomy:w-[340px]">
                    <h2 className="mb-2 text-lg">
                        {sides.length === 2 ? 'Is it one person?' : 'Are they one person?'}
                    </h2>
                    {cluster.evidence.map((held) => (
                        <section key={held.leftId + held.rightId} className="mb-5">
                            {sides.length > 2 && (
                                <h3 className="text-sm font-semibold">
                                    {name(held.leftId)} and {name(held.rightId)}
                                    {held.caution && (
                                        <span className="block font-normal text-muted">{held.caution}</span>
                                    )}
                                </h3>
                            )}
                            <EvidenceBars evidence={held.evidence} probability={held.probability} />
                        </section>
                    ))}
                </aside>
            </div>
            <ApplyBar
                sentence={cluster.plan.sentence}
                undoUntil={cluster.plan.undoUntil}
                button={`Merge ${COUNT[sides.length] ?? 'them'}`}
                busy={busy}
                onApply={() => merge.run(cluster.plan.fingerprint)}
            >
                <Button disabled={busy} onClick={() => apart.run()}>
                    {PEOPLE[sides.length] ?? 'They are different people'}
                </Button>
            </ApplyBar>
        </div>
    );
}

/** One field of all accounts: where they differ, the value that stays is chosen. */
function FieldRow({
    field,
    sides,
    picked,
    onPick,
}: {
    field: Schemas['MergedField'];
    sides: Side[];
    picked: string | undefined;
    onPick: (id: string) => void;
}) {
    const known = sides.filter((s) => field.values[s.id]);
    const differ = new Set(known.map((s) => field.values[s.id])).size > 1;
    const staying = picked ?? known.find((s) => field.values[s.id] === field.stays)?.id;
    return (
        <tr className={`border-b border-rule ${differ ? 'bg-tint/50' : ''}`}>
            <th scope="row" className="py-2 pl-1 font-normal text-muted">
                {field.label}
                {differ && <span className="sr-only">, they differ</span>}
            </th>
            {sides.map((side) => {
                const value = field.values[side.id] ?? '';
                return (
                    <td key={side.id} className="break-words py-2 pr-4">
                        {value === '' ? (
                            <span className="text-muted">not known</span>
                        ) : differ ? (
                            <label className="inline-flex min-h-6 items-center gap-2">
                                <input
                                    type="radio"
                                    name={field.column}
                                    className="accent-ink"
                                    checked={staying === side.id}
                                    onChange={() => onPick(side.id)}
                                />
                                {value}
                            </label>
                        ) : (
                            value
                        )}
                    </td>
                );
            })}
            <td className="py-2 text-xs text-muted">{field.why}</td>
        </tr>
    );
}

function joined(names: string[]): string {
    return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
