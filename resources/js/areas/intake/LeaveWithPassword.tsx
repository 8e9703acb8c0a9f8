import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { many } from '@/ui/words';

interface Props {
    list: Schemas['IntakeDetail'];
    onClose: () => void;
    /** Applies the list, or says in its error why not. */
    onApply: (password: string) => Promise<void>;
}

/** Where people leave with a list, whoever applies it types their password once more. */
export function LeaveWithPassword({ list, onClose, onApply }: Props) {
    const form = useSentForm({
        start: { password: '' },
        send: ({ password }) => onApply(password),
        stale: [],
        home: 'password',
        forget: ['password'],
        then: onClose,
    });
    return (
        <Dialog
            open
            onClose={onClose}
            title={`${many(list.leaving, 'student leaves', 'students leave')} with this list`}
        >
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <p className="text-sm">{list.sentence} It can be undone whole.</p>
                <Field
                    label="Your password, once more"
                    type="password"
                    autoComplete="current-password"
                    {...form.field('password')}
                />
                <div className="text-right">
                    <Button
                        kind="danger"
                        type="submit"
                        className="min-h-10 px-5"
                        disabled={form.values.password === '' || form.busy}
                    >
                        Apply: {many(list.leaving, 'leaves', 'leave')}
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
