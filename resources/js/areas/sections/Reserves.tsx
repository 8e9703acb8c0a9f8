import { api, type Schemas } from '@/api/client';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { useSentForm } from '@/ui/useSentForm';

interface Props {
    section: Schemas['SectionDetail'];
    onClose: () => void;
    onDone: () => Promise<unknown>;
}

/** Blank accounts made ahead, for students who turn up. */
export function MakeReserves({ section, onClose, onDone }: Props) {
    const say = useNotice();
    const form = useSentForm({
        start: { count: '3' },
        send: ({ count }) =>
            api.POST('/api/sections/{section}/reserves', {
                params: { path: { section: section.id } },
                body: { count: Number(count) },
            }),
        stale: [],
        home: 'count',
        then: async () => {
            say('They are at the end of the roster. Print their cards, and name each when its student turns up.');
            await onDone();
            onClose();
        },
    });
    return (
        <Dialog open onClose={onClose} title="Reserve accounts">
            <p className="mb-4 text-sm text-muted">
                Blank accounts with cards of their own. A student who turns up gets a card at once; the name is given
                later, and user name and card stay.
            </p>
            <form onSubmit={form.submit}>
                <Field
                    label="How many"
                    className="w-32"
                    inputMode="numeric"
                    pattern="[0-9]*"
                    required
                    autoFocus
                    {...form.field('count')}
                />
                <DialogFoot onCancel={onClose} type="submit" disabled={form.busy}>
                    Make them
                </DialogFoot>
            </form>
        </Dialog>
    );
}

/** The owner of a reserve account, once there is one. */
export function ClaimReserve({ section, reserve, onClose, onDone }: Props & { reserve: Schemas['RosterLine'] }) {
    const say = useNotice();
    const form = useSentForm({
        start: { given_name: '', family_name: '', birth_date: '', number: '' },
        send: ({ birth_date, number, ...names }) =>
            api.POST('/api/sections/{section}/reserves/{person}', {
                params: { path: { section: section.id, person: reserve.id } },
                body: { ...names, ...(birth_date ? { birth_date } : {}), ...(number ? { number } : {}) },
            }),
        stale: [],
        home: 'given_name',
        then: async (_, { given_name }) => {
            say(`${reserve.name} is ${given_name}’s now. The card goes on working.`);
            await onDone();
            onClose();
        },
    });
    return (
        <Dialog open onClose={onClose} title={`${reserve.name} of ${section.name}: whose is it?`}>
            <form onSubmit={form.submit}>
                <div className="grid grid-cols-2 gap-4">
                    <Field label="First name" required autoFocus {...form.field('given_name')} />
                    <Field label="Last name" required {...form.field('family_name')} />
                    <Field label="Birth date" type="date" {...form.field('birth_date')} />
                    <Field label="Student number" {...form.field('number')} />
                </div>
                {form.error && (
                    <p role="alert" className="mt-2 text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <p className="mt-4 text-sm text-muted">
                    User name <span className="font-mono text-ink">{reserve.userName}</span> and card stay. If the
                    student is on the list already, the Look-alikes will show it.
                </p>
                <DialogFoot onCancel={onClose} type="submit" disabled={form.busy}>
                    Assign
                </DialogFoot>
            </form>
        </Dialog>
    );
}
