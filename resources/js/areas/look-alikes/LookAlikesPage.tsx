import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';
import { percent } from '@/ui/Evidence';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { useKey } from '@/shell/keys';
import { many } from '@/ui/words';
import { MergeManyDialog } from './MergeManyDialog';

type Cluster = Schemas['ClusterLine'];

/** Those whose accounts are at several schools: perhaps a child who has changed school. */
const ACROSS = 'across';

/** Whether it is one of those asked for: all, those across schools, or those that a school has an account of. */
function isOf(cluster: Cluster, which: string): boolean {
    const schools = new Set(cluster.accounts.map((a) => a.schoolId));
    return which === '' || (which === ACROSS ? schools.size > 1 : schools.has(which));
}

function schoolsOf(cluster: Cluster, each: School[]): string {
    const ids = new Set(cluster.accounts.map((a) => a.schoolId));
    return each
        .filter((s) => ids.has(s.id))
        .map((s) => s.name)
        .join(' · ');
}

/** As many stand side by side. */
const MOST = 5;

export function LookAlikesPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const say = useNotice();
    const asked = useQuery({
        queryKey: ['look-alikes', school.id],
        queryFn: () => data(api.GET('/api/schools/{realm}/look-alikes', { params: { path: { realm: school.id } } })),
        refetchInterval: (query) => (query.state.data?.waiting ? 2000 : false),
    });
    const again = useAct(
        () => data(api.POST('/api/schools/{realm}/look-alikes/again', { params: { path: { realm: school.id } } })),
        { stale: [['look-alikes', school.id]], failed: (said) => say(said, { bad: true }) },
    );
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    const [merging, setMerging] = useState(false);
    const page = asked.data;
    const each = school.each;
    const [search, setSearch] = useSearchParams();
    const which = search.get('which') ?? '';
    const shown = (page?.clusters ?? []).filter((c) => isOf(c, which));
    const clear = shown.filter((c) => c.clear).map((c) => c.id);
    // Of what has gone from the list nothing is left to merge.
    const chosen = shown.filter((c) => selected.has(c.id)).map((c) => c.id);
    useKey('v', 'Merge those selected', () => setMerging(true), chosen.length > 0);
    if (!page) return <Instead of={asked} what="the look-alikes" />;
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
                    <h1 className="text-2xl">Look-alikes</h1>
                    <p className="min-w-0 flex-1 basis-80 text-sm text-muted">
                        accounts that may be one person; twins and namesakes are left out where the records tell them
                        apart
                    </p>
                    {each && (
                        <Choice
                            label="Which"
                            value={which}
                            onChange={(value) => {
                                setSearch(value ? { which: value } : {}, { replace: true });
                                setSelected(new Set());
                            }}
                            options={[
                                { value: '', label: 'all' },
                                { value: ACROSS, label: 'across schools' },
                                ...each.map((s) => ({ value: s.id, label: s.name })),
                            ]}
                        />
                    )}
                    <Button onClick={() => again.run()} disabled={again.busy || page.waiting > 0}>
                        Look through everyone again
                    </Button>
                </div>
                <p role="status" className="mt-1 text-sm">
                    {page.waiting > 0 &&
                        `${many(page.waiting, 'person is', 'people are')} still to be held against the others.`}
                </p>
            </div>
            <DataTable
                label="Accounts that may be one person"
                name="look-alikes"
                rows={shown}
                id={(c) => c.id}
                selected={selected}
                onSelect={setSelected}
                onOpen={(c) =>
                    void navigate(`/s/${school.code}/look-alikes/${c.id.split('-').slice(0, MOST).join('-')}`)
                }
                empty={
                    page.waiting > 0 ? (
                        <Empty title="Looking">What is found so far is nothing; not everyone has been looked at.</Empty>
                    ) : (
                        <Empty title="No look-alikes">
                            Nobody here seems to have two accounts. After every change, those it touched are looked at
                            anew.
                        </Empty>
                    )
                }
                foot={
                    <span className="flex items-center justify-between gap-5">
                        <span>
                            {many(shown.length, 'person', 'people')} with several accounts
                            {chosen.length > 0 && `, ${chosen.length} selected`}
                        </span>
                        <span className="flex gap-5">
                            {clear.length > 0 && (
                                <button
                                    className="underline underline-offset-4"
                                    onClick={() => setSelected(new Set(clear))}
                                >
                                    Select the {clear.length} clear {clear.length === 1 ? 'one' : 'ones'}
                                </button>
                            )}
                            {chosen.length > 0 && (
                                <button className="underline underline-offset-4" onClick={() => setMerging(true)}>
                                    Merge those selected
                                </button>
                            )}
                        </span>
                    </span>
                }
                columns={[
                    {
                        id: 'chance',
                        label: 'Chance',
                        value: (c) => c.probability,
                        cell: (c) => <span className="font-mono">{percent(c.probability)}</span>,
                        width: '116px',
                    },
                    {
                        id: 'names',
                        label: 'Accounts',
                        value: (c) => c.accounts[0]?.name ?? '',
                        cell: (c) => [...new Set(c.accounts.map((a) => a.name))].join(' · '),
                        width: 'minmax(180px, 1.6fr)',
                    },
                    {
                        id: 'count',
                        label: 'How many',
                        value: (c) => c.accounts.length,
                        width: '76px',
                        extra: each !== undefined,
                    },
                    ...(each
                        ? [
                              {
                                  id: 'schools',
                                  label: 'Schools',
                                  value: (c: Cluster) => schoolsOf(c, each),
                                  width: 'minmax(280px, 2fr)',
                              },
                          ]
                        : []),
                    {
                        id: 'details',
                        label: 'Grade, sections, number',
                        value: (c) => c.accounts[0]?.detail ?? '',
                        cell: (c) => (
                            <span className="text-muted">
                                {c.accounts.map((a) => a.detail || 'no more known').join(' · ')}
                            </span>
                        ),
                        width: each ? 'minmax(140px, 1.6fr)' : 'minmax(220px, 2.6fr)',
                    },
                    {
                        id: 'kind',
                        label: 'Who',
                        value: (c) => c.kind,
                        width: '84px',
                    },
                    {
                        id: 'why',
                        label: 'Careful',
                        value: (c) => c.why || (c.clear ? '' : 'not sure'),
                        width: 'minmax(110px, 1fr)',
                    },
                ]}
            />
            {merging && (
                <MergeManyDialog
                    school={school}
                    clusters={chosen}
                    onClose={() => setMerging(false)}
                    onDone={() => {
                        setMerging(false);
                        setSelected(new Set());
                    }}
                />
            )}
        </div>
    );
}
