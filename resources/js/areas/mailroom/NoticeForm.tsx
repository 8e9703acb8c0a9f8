import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { BegunBefore, useBegun, useKeptBegun } from '@/ui/useBegun';
import { useSentForm } from '@/ui/useSentForm';
import { OtherLanguage, type Texts } from './OtherLanguage';
import { Writing } from './Writing';

type Line = Schemas['NoticeLine'];

interface Begun {
    values: { kind: Line['kind']; title: string; body: string; day: string; guardians_only: boolean };
    texts: Texts;
}

/** One notice, date or piece of work, in the writer's language and in those the writer gives. */
export function NoticeForm({
    school,
    section,
    notice,
    onClose,
    onDone,
}: {
    school: School;
    section: string | undefined;
    notice: Line | null;
    onClose: () => void;
    onDone: (page: Schemas['NoticePage']) => void;
}) {
    const { begun, keep } = useBegun<Begun>(notice ? null : `notice.${section ?? school.id}`);
    const [texts, setTexts] = useState<Texts>(
        begun?.texts ?? { lines: notice?.titles ?? {}, bodies: notice?.bodies ?? {} },
    );
    const form = useSentForm({
        start: {
            kind: notice?.kind ?? 'notice',
            title: notice?.title ?? '',
            body: notice?.body ?? '',
            day: notice?.day ?? '',
            guardians_only: notice?.guardiansOnly ?? false,
            ...begun?.values,
        },
        send: ({ day, ...wish }) => {
            const body = {
                ...wish,
                ...(day && wish.kind !== 'notice' ? { day } : {}),
                titles: texts.lines,
                bodies: texts.bodies,
                version: notice?.version ?? 0,
            };
            return data(
                section
                    ? notice
                        ? api.POST('/api/sections/{section}/notices/{notice}', {
                              params: { path: { section, notice: notice.id } },
                              body,
                          })
                        : api.POST('/api/sections/{section}/notices', { params: { path: { section } }, body })
                    : notice
                      ? api.POST('/api/schools/{school}/notices/{notice}', {
                            params: { path: { school: school.id, notice: notice.id } },
                            body,
                        })
                      : api.POST('/api/schools/{school}/notices', {
                            params: { path: { school: school.id } },
                            body,
                        }),
            );
        },
        stale: [],
        home: 'title',
        then: (page: Schemas['NoticePage']) => {
            keep(null);
            onDone(page);
        },
    });
    const { values } = form;
    useKeptBegun(keep, { values, texts }, `${values.title}${values.body}`.trim() !== '');
    const kinds = [
        { value: 'notice' as const, label: 'A notice to read' },
        { value: 'date' as const, label: 'A date to keep' },
        ...(section ? [{ value: 'work' as const, label: 'Work that is due' }] : []),
    ].filter((k) => notice === null || (k.value === 'work') === (notice.kind === 'work'));
    return (
        <Dialog open wide onClose={onClose} title={notice ? `Change “${notice.title}”` : 'Write one'}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                {begun && (
                    <BegunBefore
                        onAnew={() => {
                            form.reset({ kind: 'notice', title: '', body: '', day: '', guardians_only: false });
                            setTexts({ lines: {}, bodies: {} });
                        }}
                    />
                )}
                <div className="flex flex-wrap items-end gap-4">
                    <Choice label="What it is" stacked options={kinds} {...form.choice('kind')} />
                    {form.values.kind !== 'notice' && (
                        <Field
                            label={form.values.kind === 'work' ? 'Due on' : 'Day'}
                            type="date"
                            required
                            {...form.field('day')}
                        />
                    )}
                </div>
                <Field
                    label="In a few words"
                    required
                    maxLength={MOST.noticeTitle}
                    autoFocus
                    {...form.field('title')}
                />
                <Writing
                    rows={3}
                    label="More about it (optional)"
                    value={form.values.body}
                    error={form.at('body')}
                    onChange={(value) => form.set('body', value)}
                />
                <label className="flex items-center gap-2 text-sm">
                    <input type="checkbox" className="accent-ink" {...form.check('guardians_only')} />
                    Only guardians read it
                </label>
                <OtherLanguage
                    line="The same in a few words"
                    body="The same about it"
                    most={MOST.noticeTitle}
                    rows={3}
                    texts={texts}
                    onChange={setTexts}
                />
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                <DialogFoot type="submit" onCancel={onClose} disabled={form.busy}>
                    {notice ? 'Save changes' : 'Let it be read'}
                </DialogFoot>
            </form>
        </Dialog>
    );
}
