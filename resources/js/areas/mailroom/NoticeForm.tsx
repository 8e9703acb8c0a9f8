import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { OtherLanguage, type Texts } from './OtherLanguage';
import { Writing } from './Writing';

type Line = Schemas['NoticeLine'];

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
    const [texts, setTexts] = useState<Texts>({ lines: notice?.titles ?? {}, bodies: notice?.bodies ?? {} });
    const form = useSentForm({
        start: {
            kind: notice?.kind ?? 'notice',
            title: notice?.title ?? '',
            body: notice?.body ?? '',
            day: notice?.day ?? '',
            guardians_only: notice?.guardiansOnly ?? false,
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
        then: onDone,
    });
    const kinds = [
        { value: 'notice' as const, label: 'A notice to read' },
        { value: 'date' as const, label: 'A date to keep' },
        ...(section ? [{ value: 'work' as const, label: 'Work that is due' }] : []),
    ].filter((k) => notice === null || (k.value === 'work') === (notice.kind === 'work'));
    return (
        <Dialog open wide onClose={onClose} title={notice ? `Change “${notice.title}”` : 'Write one'}>
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
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
