import { useState } from 'react';
import { api, data } from '@/api/client';
import { ALL, type School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { undoable } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';
import { many } from '@/ui/words';

interface Props {
    /** Those that students can be sent to: all that whoever sends them coordinates. */
    schools: School[];
    people: string[];
    onClose: () => void;
    onDone: () => void;
}

/** Students go to another school, with their guardians where no other child of theirs stays. */
export function TransferDialog({ schools, people, onClose, onDone }: Props) {
    const say = useNotice();
    const [to, setTo] = useState('');
    const wish = { people, to };
    const path = { params: { path: { realm: ALL } } };
    const { plan, last, apply, busy, error } = usePlan({
        key: ['transfer', wish],
        ready: to !== '',
        look: () => data(api.POST('/api/schools/{realm}/transfer/plan', { ...path, body: wish })),
        apply: (seen) => data(api.POST('/api/schools/{realm}/transfer', { ...path, body: { ...wish, ...seen } })),
        then: (done) => {
            say(`${done.title}. Either school can undo this in its Ledger.`);
            onDone();
        },
    });
    const count = plan?.tallies.find((t) => t.key === 'changed')?.count ?? 0;
    return (
        <Dialog open wide onClose={onClose} title={`Send ${many(people.length, 'student')} to another school`}>
            <Choice
                stacked
                label="To"
                value={to}
                onChange={setTo}
                options={[
                    { value: '', label: 'choose a school' },
                    ...schools.map((s) => ({ value: s.id, label: s.name })),
                ]}
            />
            {error && (
                <p role="alert" className="mt-4 text-sm text-madder">
                    {error}
                </p>
            )}
            {last && to !== '' && (
                <div className={`mt-5 ${plan ? '' : 'opacity-50'}`} aria-busy={!plan}>
                    <PlanSummary plan={last} />
                    <p className="mt-1 text-sm text-muted">{undoable(last.undoUntil)}</p>
                </div>
            )}
            <DialogFoot onCancel={onClose} disabled={busy || count === 0} onClick={() => apply()}>
                Send {many(count, 'student')}
            </DialogFoot>
        </Dialog>
    );
}
