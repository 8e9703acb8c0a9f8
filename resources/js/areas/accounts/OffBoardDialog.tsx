import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { undoable } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';
import { OwnPassword } from './OwnPassword';

interface Props {
    person: Schemas['PersonDetail'];
    school: string;
    onClose: () => void;
    onDone: (page: Schemas['CredentialPage']) => void;
}

/** Somebody leaves the staff: what ends, who leads their sections, and the password of whoever does it. */
export function OffBoardDialog({ person, school, onClose, onDone }: Props) {
    const [to, setTo] = useState<Schemas['Colleague'] | null>(null);
    const [typed, setTyped] = useState('');
    const [password, setPassword] = useState('');
    const params = { params: { path: { person: person.id } } };
    const wish = to ? { to: to.id } : {};
    const off = usePlan({
        key: ['off-board', person.id, to?.id ?? ''],
        look: () => data(api.POST('/api/people/{person}/off-board/plan', { ...params, body: wish })),
        apply: (seen) =>
            data(api.POST('/api/people/{person}/off-board', { ...params, body: { ...wish, ...seen, password } })),
        then: onDone,
    });
    const plan = off.last;
    const refused = plan ? '' : off.error;
    const { data: staff } = useQuery({
        queryKey: ['staff', school, typed],
        queryFn: () =>
            data(api.GET('/api/schools/{school}/staff', { params: { path: { school }, query: { q: typed } } })),
        enabled: typed.trim() !== '' && to === null,
    });
    const others = staff?.people.filter((p) => p.id !== person.id) ?? [];
    return (
        <Dialog open wide onClose={onClose} title={`${person.name} leaves the staff`}>
            {refused ? (
                <p role="alert" className="mb-5 text-sm text-madder">
                    {refused}
                </p>
            ) : !plan ? (
                <p className="text-sm text-muted" role="status">
                    Working out what ends…
                </p>
            ) : (
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        off.apply();
                    }}
                >
                    <PlanSummary plan={plan} />
                    {plan.rows.length > 0 && (
                        <div className="mt-4">
                            {to ? (
                                <p className="text-sm">
                                    {to.name} leads the sections.{' '}
                                    <button
                                        type="button"
                                        className="min-h-6 underline underline-offset-4"
                                        onClick={() => (setTo(null), setTyped(''))}
                                    >
                                        Somebody else
                                    </button>
                                </p>
                            ) : (
                                <>
                                    <Field
                                        label="Hand the sections they lead to"
                                        hint="Type a name; leave it empty to hand them over later."
                                        value={typed}
                                        autoComplete="off"
                                        onChange={(event) => setTyped(event.target.value)}
                                    />
                                    <ul className="mt-1 flex flex-wrap gap-2">
                                        {others.map((p) => (
                                            <li key={p.id}>
                                                <Button onClick={() => setTo(p)}>{p.name}</Button>
                                            </li>
                                        ))}
                                    </ul>
                                </>
                            )}
                        </div>
                    )}
                    <div className="mt-4 max-w-xs">
                        <OwnPassword value={password} onChange={setPassword} error={off.field('password')} />
                    </div>
                    {off.error && !off.field('password') && (
                        <p role="alert" className="mt-2 text-sm text-madder">
                            {off.error}
                        </p>
                    )}
                    <p className="mt-4 text-sm text-muted">
                        {undoable(plan.undoUntil)} Passwords do not come back; a link gives a new one.
                    </p>
                    <div className="mt-3 flex gap-3">
                        <Button kind="danger" type="submit" disabled={off.busy || plan.blockers.length > 0}>
                            End it all for {person.name}
                        </Button>
                        <Button onClick={onClose}>Cancel</Button>
                    </div>
                </form>
            )}
        </Dialog>
    );
}
