import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';
import { percent } from '@/ui/Evidence';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';

export function LookAlikesPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const say = useNotice();
    const asked = useQuery({
        queryKey: ['look-alikes', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/look-alikes', { params: { path: { school: school.id } } })),
        refetchInterval: (query) => (query.state.data?.waiting ? 2000 : false),
    });
    const again = useAct(
        () => data(api.POST('/api/schools/{school}/look-alikes/again', { params: { path: { school: school.id } } })),
        { stale: [['look-alikes', school.id]], failed: (said) => say(said, { bad: true }) },
    );
    const page = asked.data;
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
                    <Button onClick={() => again.run()} disabled={again.busy || page.waiting > 0}>
                        Look through everyone again
                    </Button>
                </div>
                <p role="status" className="mt-1 text-sm">
                    {page.waiting > 0 &&
                        `${many(page.waiting, 'student is', 'students are')} still to be held against the others.`}
                </p>
            </div>
            <DataTable
                label="Pairs that may be one person"
                name="look-alikes"
                rows={page.pairs}
                id={(p) => `${p.leftId}/${p.rightId}`}
                onOpen={(p) => void navigate(`/s/${school.code}/look-alikes/${p.leftId}/${p.rightId}`)}
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
                foot={`${page.pairs.length} ${page.pairs.length === 1 ? 'pair' : 'pairs'}`}
                columns={[
                    {
                        id: 'chance',
                        label: 'Chance',
                        value: (p) => p.probability,
                        cell: (p) => <span className="font-mono">{percent(p.probability)}</span>,
                        width: '120px',
                    },
                    { id: 'left', label: 'One account', value: (p) => p.left, width: 'minmax(130px, 1.4fr)' },
                    {
                        id: 'leftDetail',
                        label: 'Grade, sections',
                        value: (p) => p.leftDetail,
                        cell: (p) => <span className="text-muted">{p.leftDetail}</span>,
                        width: 'minmax(120px, 1.6fr)',
                    },
                    { id: 'right', label: 'The other', value: (p) => p.right, width: 'minmax(130px, 1.4fr)' },
                    {
                        id: 'rightDetail',
                        label: 'Grade, sections',
                        value: (p) => p.rightDetail,
                        cell: (p) => <span className="text-muted">{p.rightDetail}</span>,
                        width: 'minmax(120px, 1.6fr)',
                    },
                    {
                        id: 'why',
                        label: 'Careful',
                        value: (p) =>
                            [p.accounts > 2 ? `${p.accounts} accounts alike` : '', p.why].filter(Boolean).join(', '),
                        width: 'minmax(90px, 1fr)',
                    },
                ]}
            />
        </div>
    );
}
