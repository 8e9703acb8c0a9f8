import { MOST } from '@/api/most';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';

export type SectionWish = {
    name: string;
    kind: 'homeroom' | 'class';
    grade: string;
    period: string;
    seats: string;
};

/** As the API takes it: what is left empty is left out. */
export function wishBody(wish: SectionWish) {
    return {
        name: wish.name,
        kind: wish.kind,
        ...(wish.grade ? { grade: wish.grade } : {}),
        ...(wish.period ? { period: wish.period } : {}),
        ...(wish.seats ? { seats: Number(wish.seats) } : {}),
    };
}

interface Props {
    title: string;
    button: string;
    start: SectionWish;
    onClose: () => void;
    /** Rejects with the server's refusal. */
    onSave: (wish: SectionWish) => Promise<unknown>;
}

/** What a section is called and holds: for making one and for changing one. */
export function SectionForm({ title, button, start, onClose, onSave }: Props) {
    const form = useSentForm({ start, send: onSave, stale: [], home: 'name' });
    return (
        <Dialog open onClose={onClose} title={title}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <Field
                    label="Name"
                    autoFocus
                    required
                    maxLength={MOST.sectionName}
                    {...form.field('name')}
                    hint="As the class is called: Marine science 8A, 3 Heron."
                />
                <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
                    <Choice
                        stacked
                        label="Kind"
                        {...form.choice('kind')}
                        options={[
                            { value: 'class', label: 'class' },
                            { value: 'homeroom', label: 'homeroom' },
                        ]}
                    />
                    <Field label="Grade" {...form.field('grade')} />
                    <Field label="Period" maxLength={20} {...form.field('period')} />
                    <Field label="Seats" inputMode="numeric" pattern="[0-9]*" {...form.field('seats')} />
                </div>
                <p className="text-sm text-muted">
                    With a period, clashes are shown: a student cannot be in two sections at once. With seats, a full
                    section says so.
                </p>
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot onCancel={onClose} flush type="submit" disabled={form.busy}>
                    {button}
                </DialogFoot>
            </form>
        </Dialog>
    );
}
