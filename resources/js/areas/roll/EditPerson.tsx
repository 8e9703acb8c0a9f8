import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { useSentForm } from '@/ui/useSentForm';

interface Props {
    person: Schemas['PersonDetail'];
    school: School;
    onClose: () => void;
}

/** One person's own fields. What is changed stands in the Ledger, with what it was, and can be undone. */
export function EditPerson({ person, school, onClose }: Props) {
    const say = useNotice();
    const undo = useAct(
        (entry: string) => api.POST('/api/ledger/{entry}/undo', { params: { path: { entry } }, body: {} }),
        { failed: (said) => say(said, { bad: true }) },
    );
    const student = person.kind === 'student';
    const form = useSentForm({
        start: {
            given: person.given,
            family: person.family,
            preferred: person.preferred,
            birth_date: person.birthDate,
            number: person.number,
            grade: person.gradeCode,
            email: person.email,
            phone: person.phone,
        },
        send: ({ given, family, preferred, birth_date, number, grade, email, phone }) =>
            data(
                api.POST('/api/people/{person}', {
                    params: { path: { person: person.id } },
                    body: {
                        version: person.version,
                        given,
                        family,
                        preferred,
                        email,
                        phone,
                        ...(student ? { birth_date, number, grade } : {}),
                    },
                }),
            ),
        then: (line) => {
            say(`${line.title}: changed.`, { action: { label: 'Undo', run: () => undo.run(line.id) } });
            onClose();
        },
    });
    // A grade the school does not teach any more stays what it is until another is chosen.
    const grades = school.grades.some((g) => g.code === person.gradeCode)
        ? school.grades
        : [...school.grades, { code: person.gradeCode, short: person.grade || 'none' }];
    return (
        <Dialog open onClose={onClose} title={`Change ${person.name}`}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <div className="grid gap-4 sm:grid-cols-2">
                    <Field label="Given name" autoFocus maxLength={120} {...form.field('given')} />
                    <Field label="Family name" maxLength={120} {...form.field('family')} />
                </div>
                <Field
                    label="Goes by"
                    maxLength={120}
                    hint="The given name they are called by, where it is another: on cards, walls and rosters."
                    {...form.field('preferred')}
                />
                {student && (
                    <div className="grid gap-4 sm:grid-cols-3">
                        <Field label="Born" type="date" {...form.field('birth_date')} />
                        <Field label="Number" mono maxLength={40} {...form.field('number')} />
                        <Choice
                            stacked
                            label="Grade"
                            {...form.choice('grade')}
                            options={[
                                ...(person.gradeCode ? [{ value: '', label: 'none' }] : []),
                                ...grades.map((g) => ({ value: g.code, label: g.short })),
                            ]}
                        />
                    </div>
                )}
                <div className="grid gap-4 sm:grid-cols-2">
                    <Field label="E-mail" type="email" autoComplete="off" {...form.field('email')} />
                    <Field label="Phone" type="tel" autoComplete="off" {...form.field('phone')} />
                </div>
                <p className="text-sm text-muted">
                    User names and cards stay as they are.
                    {person.kind === 'guardian' && ' Another address has to be confirmed by whoever reads its mail.'}
                </p>
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <div className="flex justify-end gap-3">
                    <Button onClick={onClose}>Cancel</Button>
                    <Button kind="primary" type="submit" disabled={form.busy}>
                        Keep the changes
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
