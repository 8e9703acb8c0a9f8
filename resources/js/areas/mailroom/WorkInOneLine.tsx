import { api, data, type Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';

/** Work as it is written on the board: what it is, then the day. */
export function WorkInOneLine({ section, onDone }: { section: string; onDone: (page: Schemas['NoticePage']) => void }) {
    const form = useSentForm({
        start: { text: '' },
        send: ({ text }) =>
            data(api.POST('/api/sections/{section}/notices/line', { params: { path: { section } }, body: { text } })),
        stale: [],
        home: 'text',
        then: (page) => {
            form.set('text', '');
            onDone(page);
        },
    });
    return (
        <form className="mb-5 flex max-w-3xl flex-wrap items-end gap-3" onSubmit={form.submit}>
            <div className="min-w-60 flex-1">
                <Field
                    label="Work in one line: what it is, then the day"
                    placeholder="Reading log, fri"
                    maxLength={MOST.workLine}
                    {...form.field('text')}
                />
            </div>
            <Button type="submit" disabled={form.busy || form.values.text.trim() === ''}>
                Give it
            </Button>
        </form>
    );
}
