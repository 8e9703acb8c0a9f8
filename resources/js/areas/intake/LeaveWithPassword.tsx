import { useState } from 'react';
import { type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';

interface Props {
    list: Schemas['IntakeDetail'];
    onClose: () => void;
    /** Applies the list, or says in its error why not. */
    onApply: (password: string) => Promise<void>;
}

/** Where people leave with a list, whoever applies it types their password once more. */
export function LeaveWithPassword({ list, onClose, onApply }: Props) {
    const [password, setPassword] = useState('');
    const [wrong, setWrong] = useState('');
    const [busy, setBusy] = useState(false);
    const leaving = list.leaving.toLocaleString('en');
    const apply = async () => {
        setWrong('');
        setBusy(true);
        try {
            await onApply(password);
            onClose();
        } catch (e) {
            setWrong(sentence(e));
        } finally {
            setPassword('');
            setBusy(false);
        }
    };
    return (
        <Dialog open onClose={onClose} title={`${leaving} leave with this list`}>
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void apply();
                }}
            >
                <p className="text-sm">{list.sentence} It can be undone whole.</p>
                <Field
                    label="Your password, once more"
                    type="password"
                    autoComplete="current-password"
                    value={password}
                    onChange={(event) => setPassword(event.target.value)}
                    error={wrong || undefined}
                />
                <div className="text-right">
                    <Button kind="danger" type="submit" className="min-h-10 px-5" disabled={password === '' || busy}>
                        Apply: {leaving} leave
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
