import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import { OwnPassword } from '@/areas/accounts/OwnPassword';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';

/** Somebody erased on lawful request: what goes, what stays, and the password of whoever does it. */
export function EraseDialog({
    person,
    onClose,
    onDone,
}: {
    person: Schemas['PersonDetail'];
    onClose: () => void;
    onDone: () => void;
}) {
    const [password, setPassword] = useState('');
    const params = { params: { path: { person: person.id } } };
    const erase = usePlan({
        key: ['erase', person.id],
        look: () => data(api.POST('/api/people/{person}/erase/plan', params)),
        apply: (seen) => data(api.POST('/api/people/{person}/erase', { ...params, body: { ...seen, password } })),
        then: onDone,
    });
    const plan = erase.last;
    return (
        <Dialog open wide onClose={onClose} title={`Erase ${person.name} for good`}>
            {!plan ? (
                <p role={erase.error ? 'alert' : 'status'} className={erase.error ? 'text-sm text-madder' : 'text-sm'}>
                    {erase.error || 'Looking for what says who they are…'}
                </p>
            ) : (
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        erase.apply();
                    }}
                >
                    <PlanSummary plan={plan} words={{ update: 'erased' }} />
                    <div className="mt-4 max-w-xs">
                        <OwnPassword value={password} onChange={setPassword} error={erase.field('password')} />
                    </div>
                    {erase.error && !erase.field('password') && (
                        <p role="alert" className="mt-2 text-sm text-madder">
                            {erase.error}
                        </p>
                    )}
                    <div className="mt-5 flex gap-3">
                        <Button kind="danger" type="submit" disabled={erase.busy || plan.blockers.length > 0}>
                            Erase for good
                        </Button>
                        <Button onClick={onClose}>Cancel</Button>
                    </div>
                </form>
            )}
        </Dialog>
    );
}
