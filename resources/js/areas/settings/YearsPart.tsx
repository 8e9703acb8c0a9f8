import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { useSentForm } from '@/ui/useSentForm';
import { Part, type Settings } from './PartForm';

/** School years: planned, current, closed. The year turn makes a planned one current. */
export function YearsPart({ settings, school }: { settings: Settings; school: School }) {
    const [editing, setEditing] = useState<Schemas['YearLine'] | 'new' | null>(null);
    return (
        <Part
            title="School years"
            about="A planned year can have its sections already. The year turn makes it the current one."
        >
            <table className="w-full border-collapse text-left text-sm">
                <thead>
                    <tr className="border-b border-ink text-xs text-muted">
                        <th className="py-1 font-normal">Year</th>
                        <th className="py-1 font-normal">From</th>
                        <th className="py-1 font-normal">To</th>
                        <th className="py-1 font-normal">State</th>
                        <th className="py-1 font-normal">Sections</th>
                        <th className="py-1 font-normal">
                            <span className="sr-only">Change</span>
                        </th>
                    </tr>
                </thead>
                <tbody>
                    {settings.years.map((y) => (
                        <tr key={y.id} className="border-b border-rule">
                            <td className="py-1.5">{y.name}</td>
                            <td className="py-1.5">{day(y.beginsOn)}</td>
                            <td className="py-1.5">{day(y.lastOn)}</td>
                            <td className="py-1.5">{y.state}</td>
                            <td className="py-1.5">{y.sections}</td>
                            <td className="py-1.5 text-right">
                                {y.state !== 'closed' && (
                                    <Button kind="quiet" onClick={() => setEditing(y)}>
                                        change
                                    </Button>
                                )}
                            </td>
                        </tr>
                    ))}
                </tbody>
            </table>
            <div className="mt-3">
                <Button onClick={() => setEditing('new')}>Plan a year</Button>
            </div>
            {editing && (
                <YearForm school={school} year={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />
            )}
        </Part>
    );
}

function YearForm({
    school,
    year,
    onClose,
}: {
    school: School;
    year: Schemas['YearLine'] | null;
    onClose: () => void;
}) {
    const queries = useQueryClient();
    const say = useNotice();
    const form = useSentForm({
        start: { name: year?.name ?? '', begins_on: year?.beginsOn ?? '', last_on: year?.lastOn ?? '' },
        send: (body) =>
            data(
                year
                    ? api.POST('/api/years/{year}', { params: { path: { year: year.id } }, body })
                    : api.POST('/api/schools/{school}/years', { params: { path: { school: school.id } }, body }),
            ),
        stale: [['me']],
        home: 'name',
        then: (settings) => {
            queries.setQueryData(['settings', school.id], settings);
            say('Saved. You can undo this in the Ledger.');
            onClose();
        },
    });
    return (
        <Dialog open onClose={onClose} title={year ? `School year ${year.name}` : 'Plan a school year'}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <Field label="Name" required autoFocus maxLength={20} {...form.field('name')} hint="Such as 2027-28." />
                <div className="grid grid-cols-2 gap-4">
                    <Field label="First day" type="date" required {...form.field('begins_on')} />
                    <Field label="Last day" type="date" required {...form.field('last_on')} />
                </div>
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot onCancel={onClose} flush type="submit" disabled={form.busy}>
                    {year ? 'Save changes' : 'Plan the year'}
                </DialogFoot>
            </form>
        </Dialog>
    );
}
