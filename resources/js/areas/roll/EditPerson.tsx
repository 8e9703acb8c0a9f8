import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useLanguages } from './useLanguages';
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
    const languages = useLanguages();
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
            language: person.language,
            name_shown: person.nameShown ?? ('' as const),
        },
        send: ({ given, family, preferred, birth_date, number, grade, email, phone, language, name_shown }) =>
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
                        language,
                        ...(student ? { birth_date, number, grade, name_shown } : {}),
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
                    <Field label="Given name" autoFocus maxLength={MOST.personName} {...form.field('given')} />
                    <Field label="Family name" maxLength={MOST.personName} {...form.field('family')} />
                </div>
                <Field
                    label="Goes by"
                    maxLength={MOST.personName}
                    hint="The given name they are called by, where it is another: on cards, walls and rosters."
                    {...form.field('preferred')}
                />
                {student && (
                    <div className="grid gap-4 sm:grid-cols-3">
                        <Field label="Born" type="date" {...form.field('birth_date')} />
                        <Field label="Number" mono maxLength={MOST.personNumber} {...form.field('number')} />
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
                {person.kind !== 'staff' && (
                    <div className="grid gap-4 sm:grid-cols-2">
                        <Choice
                            stacked
                            label="Language of the family"
                            {...form.choice('language')}
                            options={[{ value: '', label: 'not known' }, ...languages]}
                        />
                        {student && (
                            <Choice
                                stacked
                                label="Name on cards"
                                {...form.choice('name_shown')}
                                options={[
                                    { value: '', label: 'as the school has it' },
                                    { value: 'full', label: 'in full' },
                                    { value: 'initial', label: 'family name as a letter' },
                                ]}
                            />
                        )}
                    </div>
                )}
                <p className="text-sm text-muted">
                    User names and cards stay as they are.
                    {person.kind === 'guardian' && ' Another address has to be confirmed by whoever reads its mail.'}
                </p>
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot onCancel={onClose} flush type="submit" disabled={form.busy}>
                    Keep the changes
                </DialogFoot>
            </form>
        </Dialog>
    );
}
