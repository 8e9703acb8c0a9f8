import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { live } from '@/api/live';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { EvidenceBars } from '@/ui/Evidence';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';

const CAUSES: Record<string, string> = {
    newcomer: '',
    domain: 'school address',
    under_13: 'under 13',
    invited: 'invited by mail',
    many_codes: 'many wrong codes came that day: make sure who it is',
};

/** Newcomers at the door: who they may be, in or away. */
export function RequestsPanel({
    section,
    onChange,
}: {
    section: Schemas['SectionDetail'];
    onChange: () => Promise<unknown>;
}) {
    const queries = useQueryClient();
    const say = useNotice();
    const [shown, setShown] = useState<string | null>(null);
    const [clearing, setClearing] = useState(false);
    const path = { section: section.id };
    const asked = useQuery({
        queryKey: ['requests', section.id],
        queryFn: () => data(api.GET('/api/sections/{section}/requests', { params: { path } })),
        refetchInterval: live(4_000),
    });
    const page = asked.data;
    const act = useAct(({ work }: { work: () => Promise<Schemas['RequestPage']>; done: string }) => work(), {
        stale: [],
        then: async (page, { done }) => {
            queries.setQueryData(['requests', section.id], page);
            say(page.said || done);
            await onChange();
        },
        failed: (said) => {
            say(said, { bad: true });
            void onChange();
        },
    });
    const answer = (work: () => Promise<Schemas['RequestPage']>, done: string) => act.run({ work, done });
    const approve = (r: Schemas['RequestLine'], as?: Schemas['RequestMatch']) =>
        answer(
            () =>
                data(
                    api.POST('/api/sections/{section}/requests/{asking}/approve', {
                        params: { path: { ...path, asking: r.id } },
                        body: as ? { as: as.id } : {},
                    }),
                ),
            `${r.name} is in.`,
        );
    const refuse = (r: Schemas['RequestLine']) =>
        answer(
            () =>
                data(
                    api.POST('/api/sections/{section}/requests/{asking}/refuse', {
                        params: { path: { ...path, asking: r.id } },
                    }),
                ),
            `${r.name} was turned away. You can undo this in the Ledger.`,
        );
    const refuseAll = () =>
        answer(
            () => data(api.POST('/api/sections/{section}/requests/refuse-all', { params: { path } })),
            'All were turned away.',
        );
    if (!page && asked.error) return <Instead of={asked} what="who asks to come in" size="part" />;
    if (!page || page.requests.length === 0) return null;
    return (
        <section className="mb-7 border-l-[3px] border-marigold pl-4" aria-live="polite">
            <div className="mb-2 flex items-baseline justify-between gap-3">
                <h2 className="text-lg">At the door: {page.requests.length}</h2>
                {page.requests.length > 3 && (
                    <Button kind="quiet" onClick={() => setClearing(true)}>
                        Turn all away…
                    </Button>
                )}
            </div>
            <Dialog open={clearing} onClose={() => setClearing(false)} title={`Turn all ${page.requests.length} away`}>
                <p className="mb-5 text-sm">
                    No accounts are made. Whoever should have come in can ask again; if the code has got about, give the
                    section a new one. You can undo this in the Ledger.
                </p>
                <div className="flex gap-3">
                    <Button
                        kind="danger"
                        onClick={() => {
                            setClearing(false);
                            refuseAll();
                        }}
                    >
                        Turn {page.requests.length} away
                    </Button>
                    <Button onClick={() => setClearing(false)}>Cancel</Button>
                </div>
            </Dialog>
            <ul>
                {page.requests.map((r) => (
                    <li key={r.id} className="border-t border-rule py-2">
                        <div>
                            <span className="font-semibold">{r.name}</span>
                            <span className="block text-xs text-muted">
                                {[r.age === null ? '' : `age ${r.age}`, CAUSES[r.cause], moment(r.askedAt)]
                                    .filter(Boolean)
                                    .join(', ')}
                            </span>
                        </div>
                        {r.state === 'mail' && (
                            <p className="text-sm text-muted">has yet to confirm the mail at the school address</p>
                        )}
                        {r.mayBe.map((m) => (
                            <div key={m.id} className="mt-1 text-sm">
                                <div className="flex items-baseline justify-between gap-2">
                                    <span>
                                        may be {m.name}
                                        {m.sections && <span className="text-muted"> ({m.sections})</span>},{' '}
                                        {m.probability > 0.999 ? 'over 99.9' : Math.round(m.probability * 100)} %
                                    </span>
                                    <button
                                        className="min-h-6 shrink-0 text-xs text-muted underline underline-offset-4"
                                        aria-expanded={shown === r.id + m.id}
                                        aria-label={`Why ${r.name} may be ${m.name}`}
                                        onClick={() => setShown(shown === r.id + m.id ? null : r.id + m.id)}
                                    >
                                        why
                                    </button>
                                </div>
                                {shown === r.id + m.id && <EvidenceBars evidence={m.evidence} probability={null} />}
                                <Button className="mt-1" onClick={() => approve(r, m)}>
                                    Yes, it is {m.name}
                                </Button>
                            </div>
                        ))}
                        <div className="mt-2 flex flex-wrap gap-2">
                            <Button kind={r.mayBe.length > 0 ? 'plain' : 'primary'} onClick={() => approve(r)}>
                                {r.mayBe.length > 0 ? 'Someone else: let them in' : 'Let in'}
                            </Button>
                            <Button onClick={() => refuse(r)}>Turn away</Button>
                        </div>
                    </li>
                ))}
            </ul>
        </section>
    );
}
