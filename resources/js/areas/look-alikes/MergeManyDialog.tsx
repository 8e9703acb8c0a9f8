import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';
import { many } from '@/ui/words';

/** Many clusters, each merged with what stands by default: looked at together, an entry each. */
export function MergeManyDialog({
    school,
    clusters,
    onClose,
    onDone,
}: {
    school: School;
    clusters: string[];
    onClose: () => void;
    onDone: () => void;
}) {
    const say = useNotice();
    const path = { params: { path: { realm: school.id } } };
    const { plan, last, apply, busy, error } = usePlan({
        key: ['merge-many', school.id, clusters],
        look: () => data(api.POST('/api/schools/{realm}/look-alikes/many/plan', { ...path, body: { clusters } })),
        apply: (seen) =>
            data(api.POST('/api/schools/{realm}/look-alikes/many', { ...path, body: { clusters, ...seen } })),
        then: (done) => {
            say(`Done: ${done.title}. Each can be undone in the Ledger.`);
            onDone();
        },
    });
    return (
        <Dialog open wide onClose={onClose} title={`Merge ${many(clusters.length, 'person', 'people')} at once`}>
            <p className="text-sm text-muted">
                Of each, the account used most stays, with its own values and what only the others have. Open one by
                itself to choose otherwise.
            </p>
            {error && (
                <p role="alert" className="mt-4 text-sm text-madder">
                    {error}
                </p>
            )}
            {last && (
                <div className={`mt-2 ${plan ? '' : 'opacity-50'}`} aria-busy={!plan}>
                    <PlanSummary plan={last} words={{ update: 'merge' }} />
                    <p className="mt-2 text-sm">{last.sentence}</p>
                </div>
            )}
            <DialogFoot onCancel={onClose} disabled={busy || !plan} onClick={() => apply()}>
                Merge {many(clusters.length, 'person', 'people')}
            </DialogFoot>
        </Dialog>
    );
}
