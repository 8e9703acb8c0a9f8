import { useState } from 'react';
import { api, data } from '@/api/client';
import { MOST } from '@/api/most';
import type { School } from '@/shell/session';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';

interface Props {
    school: School;
    /** Id of the school year, '' for the current one. */
    year: string;
    onClose: () => void;
}

/** Renames a homeroom and every section called after it. The plan follows the typing. */
export function RenameDialog({ school, year, onClose }: Props) {
    const say = useNotice();
    const [words, setWords] = useState('');
    const [instead, setInstead] = useState('');
    const path = { params: { path: { school: school.id } } };
    const body = { words, instead, ...(year ? { year } : {}) };
    const { plan, last, apply, busy, error } = usePlan({
        key: ['rename', school.id, body],
        ready: words.trim() !== '' && instead.trim() !== '',
        rest: 350,
        look: () => data(api.POST('/api/schools/{school}/rename-sections/plan', { ...path, body })),
        apply: (seen) =>
            data(api.POST('/api/schools/{school}/rename-sections', { ...path, body: { ...body, ...seen } })),
        stale: [['sections', school.id]],
        then: (done) => {
            say(`${done.sentence} You can undo this in the Ledger.`);
            onClose();
        },
    });
    const count = plan?.tallies.find((t) => t.key === 'sections')?.count ?? 0;
    return (
        <Dialog open wide onClose={onClose} title="Rename sections">
            <form
                onSubmit={(event) => {
                    event.preventDefault();
                    if (count > 0) apply();
                }}
            >
                <div className="flex flex-wrap gap-4">
                    <div className="min-w-48 flex-1">
                        <Field
                            label="In the names now"
                            value={words}
                            onChange={(event) => setWords(event.target.value)}
                            autoComplete="off"
                            maxLength={MOST.sectionName}
                            autoFocus
                        />
                    </div>
                    <div className="min-w-48 flex-1">
                        <Field
                            label="From now on"
                            value={instead}
                            onChange={(event) => setInstead(event.target.value)}
                            autoComplete="off"
                            maxLength={MOST.sectionName}
                        />
                    </div>
                </div>
                <p className="mt-2 text-sm text-muted">
                    Whole words, in every open section of the year: 3 Heron is in “3 Heron Art”, and not in “13 Heron”.
                </p>
                {error && (
                    <p role="alert" className="mt-4 text-sm text-madder">
                        {error}
                    </p>
                )}
                {last && (
                    <div className="mt-5">
                        <PlanSummary plan={last} words={{ update: 'renamed', cannot: 'stays' }} />
                    </div>
                )}
                <DialogFoot onCancel={onClose} type="submit" disabled={busy || count === 0}>
                    Rename {count} {count === 1 ? 'section' : 'sections'}
                </DialogFoot>
            </form>
        </Dialog>
    );
}
