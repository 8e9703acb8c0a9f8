import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { many } from '@/ui/words';
import { OtherLanguage, type Texts } from './OtherLanguage';
import { PreviewOf } from './PreviewOf';
import { Writing } from './Writing';

type Readers = 'guardians' | 'students' | 'staff';

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
    const [texts, setTexts] = useState<Texts>({ lines: {}, bodies: {} });
    const [seen, setSeen] = useState<Schemas['LetterOutlook'] | null>(null);
    const wish = (values: { readers: Readers; grade: string; subject: string; body: string }) => ({
        readers: values.readers,
        subject: values.subject,
        body: values.body,
        subjects: texts.lines,
        bodies: texts.bodies,
        ...(values.grade && values.readers !== 'staff' ? { grade: values.grade } : {}),
        ...(chosen ? { ids: chosen.map((c) => c.id) } : {}),
    });
    const form = useSentForm({
        start: {
            readers: 'guardians' as Readers,
            grade: '',
            subject: '',
            body: '',
            at: '',
            even_quiet: false,
        },
        send: (values) => {
            const body = wish(values);
            return data(
                section
                    ? api.POST('/api/sections/{section}/letter/plan', { params: { path: { section } }, body })
                    : api.POST('/api/schools/{school}/mailings/plan', {
                          params: { path: { school: school.id } },
                          body,
                      }),
            );
        },
        stale: [],
        home: 'body',
        then: setSeen,
    });
    const values = form.values;
    const send = useAct(
        () => {
            const body = {
                ...wish(values),
                ...(values.at ? { at: values.at } : {}),
                even_quiet: values.even_quiet,
                seen: seen?.seen ?? '',
            };
            return data(
                section
                    ? api.POST('/api/sections/{section}/letter', { params: { path: { section } }, body })
                    : api.POST('/api/schools/{school}/mailings', { params: { path: { school: school.id } }, body }),
            );
        },
        { stale: [['mailings'], ['messages', school.id]], then: onDone },
    );
    if (seen)
        return (
            <Dialog open wide onClose={onClose} title={`To ${seen.whom}`}>
                <p className="mb-3">
                    {seen.count === 0
                        ? 'Nobody of these can be reached by mail.'
                        : `${many(seen.count, 'letter')}, each to one person alone: ${Object.entries(seen.languages)
                              .map(([name, count]) => `${String(count)} in ${name}`)
                              .join(', ')}.`}
                </p>
                {seen.without.length > 0 && (
                    <Names
                        title={`${many(seen.without.length, 'person', 'people')} without an address`}
                        of={seen.without}
                    />
                )}
                {seen.bounced.length > 0 && (
                    <Names
                        title={`Mail to ${many(seen.bounced.length, 'person', 'people')} came back last time; they get one all the same`}
                        of={seen.bounced}
                    />
                )}
                {seen.previews.map((preview) => (
                    <PreviewOf key={preview.language} preview={preview} />
                ))}
                <div className="flex flex-wrap items-end gap-4">
                    <Field
                        label="Not before (empty: now)"
                        type="datetime-local"
                        hint={`By the school’s clock. From ${String(seen.quietFrom)}:00 to ${String(seen.quietTo)}:00 it waits until the morning.`}
                        {...form.field('at')}
                    />
                    <label className="flex min-h-8 items-center gap-2 text-sm">
                        <input type="checkbox" className="accent-ink" {...form.check('even_quiet')} />
                        Even at night
                    </label>
                </div>
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
                    Send {many(seen.count, 'letter')}
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
                </div>
                <Field label="What it is about" required maxLength={250} autoFocus {...form.field('subject')} />
                <Writing
                    label="Letter"
                    rows={8}
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
                    . Who answers it, answers you.
                </p>
                <OtherLanguage
                    line="The same: what it is about"
                    body="The same: letter"
                    most={250}
                    rows={5}
                    texts={texts}
                    onChange={setTexts}
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

/** Names of a few, or of many once they are asked for. */
function Names({ title, of }: { title: string; of: string[] }) {
    const [all, setAll] = useState(false);
    const shown = all ? of : of.slice(0, 8);
    return (
        <div className="mb-3 border-s-[3px] border-marigold ps-3 text-sm">
            <p>{title}:</p>
            <p className="text-muted">
                {shown.join(', ')}
                {shown.length < of.length && (
                    <>
                        {' '}
                        <Button onClick={() => setAll(true)}>and {of.length - shown.length} more</Button>
                    </>
                )}
            </p>
        </div>
    );
}
