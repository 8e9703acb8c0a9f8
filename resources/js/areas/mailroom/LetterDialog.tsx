import { useState } from 'react';
import { useAct } from '@/api/act';
import type { Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { BegunBefore, useBegun, useKeptBegun } from '@/ui/useBegun';
import { useSentForm } from '@/ui/useSentForm';
import { many } from '@/ui/words';
import { KeptLetters } from './KeptLetters';
import { letterDoors } from './letter';
import { LetterFiles } from './LetterFiles';
import { LetterLooked, WhenItGoes } from './LetterLooked';
import { OtherLanguage, type Texts } from './OtherLanguage';
import { Writing } from './Writing';

type Readers = 'guardians' | 'students' | 'staff';
type By = 'mail' | 'text' | 'either';

const EMPTY = {
    readers: 'guardians' as Readers,
    by: 'mail' as By,
    grade: '',
    subject: '',
    body: '',
    at: '',
    even_quiet: false,
};

interface Begun {
    values: typeof EMPTY;
    texts: Texts;
    files: Schemas['LetterFile'][];
}

/** A letter to many: written, looked at as its receivers get it, sent now or later. */
export function LetterDialog({
    school,
    section,
    chosen,
    onClose,
    onDone,
}: {
    school: School;
    section?: string;
    /** Only these: students, whose guardians are written to as well. */
    chosen?: { id: string; name: string }[];
    onClose: () => void;
    onDone: (page: Schemas['MailingPage']) => void;
}) {
    const doors = letterDoors(school.id, section);
    const { begun, keep } = useBegun<Begun>(`letter.${section ?? school.id}${chosen ? '.chosen' : ''}`);
    const [texts, setTexts] = useState<Texts>(begun?.texts ?? { lines: {}, bodies: {} });
    const [files, setFiles] = useState<Schemas['LetterFile'][]>(begun?.files ?? []);
    const [seen, setSeen] = useState<Schemas['LetterOutlook'] | null>(null);
    const wish = (values: { readers: Readers; by: By; grade: string; subject: string; body: string }) => ({
        readers: values.readers,
        by: values.by,
        subject: values.by === 'text' ? '' : values.subject,
        body: values.body,
        subjects: texts.lines,
        bodies: texts.bodies,
        files: values.by === 'text' ? [] : files.map((f) => f.id),
        ...(values.grade && values.readers !== 'staff' ? { grade: values.grade } : {}),
        ...(chosen ? { ids: chosen.map((c) => c.id) } : {}),
    });
    const form = useSentForm({
        start: { ...EMPTY, ...begun?.values },
        send: (values) => doors.plan(wish(values)),
        stale: [],
        home: 'body',
        then: setSeen,
    });
    const values = form.values;
    useKeptBegun(
        keep,
        { values: { ...values, at: '', even_quiet: false }, texts, files },
        [values.subject, values.body, ...Object.values(texts.bodies)].some((text) => text.trim() !== '') ||
            files.length > 0,
    );
    const send = useAct(
        () =>
            doors.send({
                ...wish(values),
                ...(values.at ? { at: values.at } : {}),
                even_quiet: values.even_quiet,
                seen: seen?.seen ?? '',
            }),
        {
            stale: [['mailings'], ['messages', school.id]],
            then: (page) => {
                keep(null);
                onDone(page);
            },
        },
    );
    if (seen)
        return (
            <Dialog open wide onClose={onClose} title={`To ${seen.whom}`}>
                <LetterLooked seen={seen} by={values.by} />
                {files.length > 0 && values.by !== 'text' && (
                    <p className="mb-3 text-sm">
                        With {files.map((f) => f.name).join(', ')}
                        {seen.texts > 0 && ', not with the texts'}.
                    </p>
                )}
                <WhenItGoes seen={seen} at={form.field('at')} night={form.check('even_quiet')} />
                {send.error && (
                    <p role="alert" className="mt-2 text-sm text-madder">
                        {send.error}
                    </p>
                )}
                <DialogFoot
                    onCancel={() => setSeen(null)}
                    cancel="Back to the letter"
                    disabled={send.busy || seen.count === 0}
                    onClick={() => send.run()}
                >
                    Send {many(seen.count, seen.count > 0 && seen.texts === seen.count ? 'text' : 'letter')}
                </DialogFoot>
            </Dialog>
        );
    return (
        <Dialog
            open
            wide
            onClose={onClose}
            title={chosen ? `Write to ${many(chosen.length, 'student')} or their guardians` : 'Write to many'}
        >
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                {begun && (
                    <BegunBefore
                        onAnew={() => {
                            form.reset(EMPTY);
                            setTexts({ lines: {}, bodies: {} });
                            setFiles([]);
                        }}
                    />
                )}
                <div className="flex flex-wrap items-end gap-4">
                    <Choice
                        label="To"
                        stacked
                        options={[
                            { value: 'guardians' as const, label: 'guardians' },
                            { value: 'students' as const, label: 'students' },
                            ...(chosen ? [] : [{ value: 'staff' as const, label: 'staff' }]),
                        ]}
                        {...form.choice('readers')}
                    />
                    {!section && !chosen && values.readers !== 'staff' && (
                        <Choice
                            label="Of"
                            stacked
                            options={[
                                { value: '', label: 'the whole school' },
                                ...school.grades.map((g) => ({ value: g.code, label: `grade ${g.short}` })),
                            ]}
                            {...form.choice('grade')}
                        />
                    )}
                    <Choice
                        label="As"
                        stacked
                        options={[
                            { value: 'mail' as const, label: 'mail' },
                            { value: 'text' as const, label: 'text message' },
                            { value: 'either' as const, label: 'mail, or a text where none arrives' },
                        ]}
                        {...form.choice('by')}
                    />
                </div>
                {values.by !== 'text' && (
                    <Field
                        label="What it is about"
                        required
                        maxLength={MOST.letterSubject}
                        autoFocus
                        {...form.field('subject')}
                    />
                )}
                <Writing
                    label={values.by === 'text' ? 'Text' : 'Letter'}
                    rows={values.by === 'mail' ? 8 : 4}
                    value={values.body}
                    error={form.at('body')}
                    onChange={(value) => form.set('body', value)}
                />
                <p className="-mt-2 text-xs text-muted">
                    {[
                        '{{name}} is who reads it',
                        values.readers === 'guardians' && '{{children}} whom they are a guardian of',
                        '{{school}}',
                        section && '{{section}}',
                    ]
                        .filter(Boolean)
                        .join(', ')}
                    .{' '}
                    {values.by === 'mail'
                        ? 'Who answers it, answers you.'
                        : `At most ${MOST.letterAsText} characters; a text begins with the name of the school.`}
                </p>
                <OtherLanguage
                    line="The same: what it is about"
                    body={values.by === 'text' ? 'The same: text' : 'The same: letter'}
                    most={MOST.letterSubject}
                    rows={5}
                    bodyOnly={values.by === 'text'}
                    texts={texts}
                    onChange={setTexts}
                />
                {values.by !== 'text' && <LetterFiles doors={doors} files={files} onChange={setFiles} />}
                <KeptLetters
                    doors={doors}
                    of={section ?? school.id}
                    shares={school.coordinates}
                    written={{
                        subject: values.subject,
                        body: values.body,
                        subjects: texts.lines,
                        bodies: texts.bodies,
                    }}
                    onTake={(letter) => {
                        form.set('subject', letter.subject);
                        form.set('body', letter.body);
                        setTexts({ lines: letter.subjects, bodies: letter.bodies });
                    }}
                />
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot type="submit" onCancel={onClose} disabled={form.busy}>
                    Look at it
                </DialogFoot>
            </form>
        </Dialog>
    );
}
