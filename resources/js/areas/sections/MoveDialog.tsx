import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { isoDay, undoable } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';

type Kind = 'move' | 'also' | 'remove' | 'instead';

interface Props {
    school: School;
    /** The section they are in; left out where students of the school are placed. */
    section?: Schemas['SectionDetail'];
    people: string[];
    onClose: () => void;
    onDone: () => void;
}

/** Move, also enroll or take out, as of a day: chosen, looked at, applied. */
export function MoveDialog({ school, section, people, onClose, onDone }: Props) {
    const say = useNotice();
    const [kind, setKind] = useState<Kind>(section ? 'move' : 'also');
    const [to, setTo] = useState('');
    const [day, setDay] = useState(section?.asOf ?? isoDay(new Date()));
    const { data: page } = useQuery({
        queryKey: ['sections', school.id, ''],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
    });
    const targets = (page?.sections ?? []).filter((s) => s.state === 'open' && s.id !== section?.id);
    const wish = { kind, people, day, ...(kind !== 'remove' && to ? { to } : {}) };
    const { plan, last, apply, busy, error } = usePlan({
        key: ['place', section?.id ?? school.id, wish],
        ready: day !== '' && (kind === 'remove' || to !== ''),
        look: () =>
            data(
                section
                    ? api.POST('/api/sections/{section}/place/plan', {
                          params: { path: { section: section.id } },
                          body: wish,
                      })
                    : api.POST('/api/schools/{school}/place/plan', {
                          params: { path: { school: school.id } },
                          body: { people, to, day, kind: kind === 'instead' ? kind : 'also' },
                      }),
            ),
        apply: async (seen) => {
            if (section)
                await api.POST('/api/sections/{section}/place', {
                    params: { path: { section: section.id } },
                    body: { ...wish, ...seen },
                });
            else
                await api.POST('/api/schools/{school}/place', {
                    params: { path: { school: school.id } },
                    body: { people, to, day, kind: kind === 'instead' ? kind : 'also', ...seen },
                });
        },
        then: () => {
            say('Done. You can undo this in the Ledger.');
            onDone();
        },
    });
    const who = `${people.length} ${people.length === 1 ? 'student' : 'students'}`;
    return (
        <Dialog open wide onClose={onClose} title={section ? `${who} of ${section.name}` : `Place ${who}`}>
            <div className="flex flex-wrap items-end gap-4">
                <Choice
                    stacked
                    label="What"
                    value={kind}
                    onChange={setKind}
                    options={
                        section
                            ? [
                                  { value: 'move', label: 'move into' },
                                  { value: 'also', label: 'also enroll in' },
                                  { value: 'remove', label: 'take out' },
                              ]
                            : [
                                  { value: 'also', label: 'also enroll in' },
                                  { value: 'instead', label: 'move into, out of others like it' },
                              ]
                    }
                />
                {kind !== 'remove' && (
                    <Choice
                        stacked
                        label="Section"
                        value={to}
                        onChange={setTo}
                        options={[
                            { value: '', label: 'choose one' },
                            ...targets.map((s) => ({
                                value: s.id,
                                label: `${s.name} (${s.seats ? `${s.students} of ${s.seats}` : s.students})`,
                            })),
                        ]}
                    />
                )}
                <Field
                    label={kind === 'remove' ? 'First day out' : 'First day there'}
                    type="date"
                    required
                    value={day}
                    onChange={(event) => setDay(event.target.value)}
                />
            </div>
            {error && (
                <p role="alert" className="mt-4 text-sm text-madder">
                    {error}
                </p>
            )}
            {last && (kind === 'remove' || to !== '') && (
                <div className={`mt-5 ${plan ? '' : 'opacity-50'}`} aria-busy={!plan}>
                    <PlanSummary plan={last} words={{ update: 'moves' }} />
                    <p className="mt-1 text-sm text-muted">{undoable(last.undoUntil)}</p>
                </div>
            )}
            <DialogFoot onCancel={onClose} disabled={busy || !plan || plan.changes === 0} onClick={() => apply()}>
                {{ move: 'Move', also: 'Enroll', remove: 'Take out', instead: 'Move' }[kind]} {who}
            </DialogFoot>
        </Dialog>
    );
}
