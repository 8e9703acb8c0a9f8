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

/** Two accounts side by side; which values stay; what merging does. */
export function PairPage({ school }: { school: School }) {
    const { left = '', right = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [picks, setPicks] = useState<Record<string, string>>({});
    const path = { school: school.id, left, right };
    const asked = useQuery({
        queryKey: ['pair', left, right, picks],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/look-alikes/{left}/{right}', {
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
    const options = (done: string) => ({
        then: (line: Schemas['LedgerLine']) => {
            say(done, { action: { label: 'Undo', run: () => undo.run(line.id) } });
            back();
        },
        failed: (said: string) => {
            say(said, { bad: true });
            void queries.invalidateQueries({ queryKey: ['pair'] });
        },
    });
    const merge = useAct(
        (fingerprint: string) =>
            data(
                api.POST('/api/schools/{school}/look-alikes/{left}/{right}/merge', {
                    params: { path },
                    body: { fingerprint, picks },
                }),
            ),
        options('Merged. Both old cards go on working.'),
    );
    const apart = useAct(
        () => data(api.POST('/api/schools/{school}/look-alikes/{left}/{right}/apart', { params: { path } })),
        options('Noted: two people. They are asked about again only when what is known of them changes.'),
    );
    useKey('Escape', 'Back to the list', back);
    const pair = asked.data;
    // What the server says of a pair it does not offer any more is a sentence of its own.
    if (!pair && asked.error instanceof ApiError && [404, 409, 422].includes(asked.error.status))
        return (
            <Empty
                title="These two are not a pair any more"
                action={<Button onClick={back}>Back to the look-alikes</Button>}
            >
                {sentence(asked.error)}
            </Empty>
        );
    if (!pair) return <Instead of={asked} what="the two accounts" />;
    const sides = [pair.left, pair.right];
    const keep = sides.find((s) => s.survives) ?? pair.left;
    return (
        <div className="page">
            <header className="border-b border-rule px-6 py-4">
                <h1 className="text-2xl">
                    {pair.left.name} and {pair.right.name}
                </h1>
                <p className="text-sm text-muted">
                    {pair.caution || 'the records agree in what they both hold'}; the account that stays is the one used
                    more: {keep.lastSignedIn ? `signed in ${day(keep.lastSignedIn)}` : 'with more on record'}
                </p>
            </header>
            <div className="split overflow-auto">
                <div className="min-w-0 flex-1 overflow-x-auto px-6 py-4">
                    <table className="w-full border-collapse text-left text-sm">
                        <thead>
                            <tr className="border-b border-ink align-bottom text-xs text-muted">
                                <th className="w-32 py-2 font-normal">Field</th>
                                {sides.map((side) => (
                                    <th key={side.id} className="py-2 pr-4 font-normal">
                                        <span className="block font-serif text-base font-semibold text-ink">
                                            {side.name}
                                        </span>
                                        {side.survives ? 'this account stays' : 'goes into the other'}
                                    </th>
                                ))}
                            </tr>
                        </thead>
                        <tbody>
                            {pair.fields.map((field) => (
                                <tr key={field.column} className="border-b border-rule">
                                    <th scope="row" className="py-2 font-normal text-muted">
                                        {field.label}
                                    </th>
                                    {sides.map((side, i) => {
                                        const value = i === 0 ? field.left : field.right;
                                        const same = field.left === field.right;
                                        return (
                                            <td key={side.id} className="py-2 pr-4">
                                                {value === '' ? (
                                                    <span className="text-muted">not known</span>
                                                ) : same ? (
                                                    value
                                                ) : (
                                                    <label className="inline-flex items-center gap-2">
                                                        <input
                                                            type="radio"
                                                            name={field.column}
                                                            className="accent-ink"
                                                            checked={
                                                                picks[field.column]
                                                                    ? picks[field.column] === side.id
                                                                    : field.stays === value
                                                            }
                                                            onChange={() =>
                                                                setPicks({ ...picks, [field.column]: side.id })
                                                            }
                                                        />
                                                        {value}
                                                    </label>
                                                )}
                                            </td>
                                        );
                                    })}
                                </tr>
                            ))}
                            {(
                                [
                                    ['Sections', (s: Schemas['PairSide']) => s.sections],
                                    ['Guardians', (s: Schemas['PairSide']) => s.guardians],
                                    ['User names', (s: Schemas['PairSide']) => s.userNames],
                                ] as const
                            ).map(([label, of]) => (
                                <tr key={label} className="border-b border-rule align-top">
                                    <th scope="row" className="py-2 font-normal text-muted">
                                        {label}
                                    </th>
                                    {sides.map((side) => (
                                        <td
                                            key={side.id}
                                            className={`py-2 pr-4 ${label === 'User names' ? 'font-mono' : ''}`}
                                        >
                                            {of(side).join(', ') || <span className="font-sans text-muted">none</span>}
                                        </td>
                                    ))}
                                </tr>
                            ))}
                        </tbody>
                    </table>
                </div>
                <aside aria-label="Evidence" className="beside roomy:w-[372px]">
                    <h2 className="mb-2 text-lg">Is it one person?</h2>
                    <EvidenceBars evidence={pair.evidence} probability={pair.probability} />
                </aside>
            </div>
            <ApplyBar
                sentence={pair.plan.sentence}
                undoUntil={pair.plan.undoUntil}
                button="Merge the two"
                busy={merge.busy || apart.busy}
                onApply={() => merge.run(pair.plan.fingerprint)}
            >
                <Button disabled={merge.busy || apart.busy} onClick={() => apart.run()}>
                    They are two people
                </Button>
            </ApplyBar>
        </div>
    );
}
