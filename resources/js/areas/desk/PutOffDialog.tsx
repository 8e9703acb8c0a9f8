import { useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';

interface Props {
    loop: Schemas['Loop'];
    school: School;
    onClose: () => void;
}

/** A week from now, as a form's field has it. */
function nextWeek(): string {
    const day = new Date();
    day.setDate(day.getDate() + 7);
    return day.toLocaleDateString('sv');
}

/** What waits is put off, for everyone of the school, until a day. It comes back by itself. */
export function PutOffDialog({ loop, school, onClose }: Props) {
    const queries = useQueryClient();
    const form = useSentForm({
        start: { until: nextWeek(), reason: '' },
        send: ({ until, reason }) =>
            data(
                api.POST('/api/schools/{school}/desk/put-off', {
                    params: { path: { school: school.id } },
                    body: { loop: loop.key, until, reason },
                }),
            ),
        stale: [],
        home: 'reason',
        then: (desk) => {
            queries.setQueryData(['desk', school.id], desk);
            onClose();
        },
    });
    return (
        <Dialog
            open
            onClose={onClose}
            title={`Put off: ${loop.count.toLocaleString('en')} ${loop.title.toLowerCase()}`}
        >
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <Field label="Until" type="date" required {...form.field('until')} />
                <Field
                    label="Why"
                    required
                    autoFocus
                    maxLength={200}
                    autoComplete="off"
                    hint="Whoever looks after the school with you reads it."
                    {...form.field('reason')}
                />
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot onCancel={onClose} flush type="submit" disabled={form.busy}>
                    Put it off
                </DialogFoot>
            </form>
        </Dialog>
    );
}
