import { useState } from 'react';
import { useAct } from '@/api/act';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';

export interface SectionWish {
    name: string;
    kind: 'homeroom' | 'class';
    grade: string;
    period: string;
    seats: string;
}

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
    const [wish, setWish] = useState(start);
    const save = useAct(() => onSave(wish), { stale: [], home: 'name' });
    const of = (field: string) => save.field(field) || undefined;
    return (
        <Dialog open onClose={onClose} title={title}>
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    save.run();
                }}
            >
                <Field
                    label="Name"
                    autoFocus
                    required
                    maxLength={80}
                    value={wish.name}
                    onChange={(event) => setWish({ ...wish, name: event.target.value })}
                    error={of('name')}
                    hint="As the class is called: Marine science 8A, 3 Heron."
                />
                <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
                    <Choice
                        stacked
                        label="Kind"
                        value={wish.kind}
                        onChange={(value) => setWish({ ...wish, kind: value as SectionWish['kind'] })}
                        options={[
                            { value: 'class', label: 'class' },
                            { value: 'homeroom', label: 'homeroom' },
                        ]}
                    />
                    <Field
                        label="Grade"
                        value={wish.grade}
                        onChange={(event) => setWish({ ...wish, grade: event.target.value })}
                        error={of('grade')}
                    />
                    <Field
                        label="Period"
                        maxLength={20}
                        value={wish.period}
                        onChange={(event) => setWish({ ...wish, period: event.target.value })}
                        error={of('period')}
                    />
                    <Field
                        label="Seats"
                        inputMode="numeric"
                        pattern="[0-9]*"
                        value={wish.seats}
                        onChange={(event) => setWish({ ...wish, seats: event.target.value })}
                        error={of('seats')}
                    />
                </div>
                <p className="text-sm text-muted">
                    With a period, clashes are shown: a student cannot be in two sections at once. With seats, a full
                    section says so.
                </p>
                <div className="flex justify-end gap-3">
                    <Button onClick={onClose}>Leave it</Button>
                    <Button kind="primary" type="submit" disabled={save.busy}>
                        {button}
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
