import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';

const WHO: { value: Schemas['CodeView']['who']; label: string }[] = [
    { value: 'approval', label: 'accounts here; newcomers wait for approval' },
    { value: 'domain', label: 'accounts here; newcomers with an address of the school' },
    { value: 'accounts', label: 'accounts here only' },
];

/** Where an instant of the server stands on this clock, for a field of date and time. */
function local(iso: string | null): string {
    if (!iso) return '';
    const at = new Date(iso);
    return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

interface Props {
    section: Schemas['SectionDetail'];
    /** The code that is open, to change its terms; null to open a new one. */
    code: Schemas['CodeView'] | null;
    onClose: () => void;
    onDone: (code: Schemas['CodeView']) => void;
}

/** When a code works, for how many, for whom; and for a new one, whether it is drawn or chosen. */
export function CodeTerms({ section, code, onClose, onDone }: Props) {
    const form = useSentForm({
        start: {
            who: code?.who ?? 'approval',
            starts_at: local(code?.startsAt ?? null),
            ends_at: local(code?.endsAt ?? null),
            cap: code?.cap?.toString() ?? '',
            chosen: '',
        },
        send: ({ who, starts_at, ends_at, cap, chosen }) => {
            const body = {
                who,
                starts_at: starts_at ? new Date(starts_at).toISOString() : null,
                ends_at: ends_at ? new Date(ends_at).toISOString() : null,
                ...(cap ? { cap: Number(cap) } : {}),
            };
            const path = { params: { path: { section: section.id } } };
            return data(
                code
                    ? api.POST('/api/sections/{section}/code/terms', { ...path, body })
                    : api.POST('/api/sections/{section}/code', {
                          ...path,
                          body: { ...body, ...(chosen.trim() ? { chosen } : {}) },
                      }),
            );
        },
        stale: [],
        then: onDone,
    });
    const wish = form.values.chosen;
    const { data: judged } = useQuery({
        queryKey: ['chosen', section.id, wish],
        queryFn: () =>
            data(
                api.GET('/api/sections/{section}/code/chosen', {
                    params: { path: { section: section.id }, query: { chosen: wish } },
                }),
            ),
        enabled: code === null && wish.trim() !== '',
        placeholderData: (before) => before,
    });
    return (
        <Dialog
            open
            onClose={onClose}
            title={code ? `Terms of the code of ${section.name}` : `A code for ${section.name}`}
        >
            <form className="flex flex-col gap-4" onSubmit={form.submit}>
                <Choice stacked label="Who may come in by it" {...form.choice('who')} options={WHO} />
                <div className="grid grid-cols-2 gap-4">
                    <Field
                        label="Works from"
                        type="datetime-local"
                        {...form.field('starts_at')}
                        hint="Empty: at once."
                    />
                    <Field
                        label="Works until"
                        type="datetime-local"
                        {...form.field('ends_at')}
                        hint="Empty: until it is closed."
                    />
                </div>
                <div className="grid grid-cols-2 gap-4">
                    <Field
                        label="For how many"
                        inputMode="numeric"
                        pattern="[0-9]*"
                        {...form.field('cap')}
                        hint="Empty: no cap."
                    />
                    {code === null && (
                        <Field
                            label="A code of your own"
                            mono
                            maxLength={20}
                            autoComplete="off"
                            spellCheck={false}
                            {...form.field('chosen')}
                            hint="Empty: one is drawn."
                        />
                    )}
                </div>
                {code === null && wish.trim() !== '' && judged && (
                    <ul className="text-sm" aria-live="polite">
                        {judged.rules.map((rule) => (
                            <li key={rule.rule} className={`flex gap-3 ${rule.holds ? 'text-muted' : ''}`}>
                                <span className="w-7 shrink-0 font-semibold">{rule.holds ? 'yes' : 'no'}</span>
                                <span className="min-w-0 break-words">
                                    {rule.rule}. {rule.why}
                                </span>
                            </li>
                        ))}
                        {judged.safe && (
                            <li className="mt-2">
                                It will be <b className="font-mono">{judged.written}</b>.
                            </li>
                        )}
                    </ul>
                )}
                {form.error && (
                    <p role="alert" className="text-sm text-madder">
                        {form.error}
                    </p>
                )}
                {code === null && section.hasCode && (
                    <p className="border-l-[3px] border-marigold pl-3 text-sm">
                        The code that is open now stops working.
                    </p>
                )}
                <DialogFoot
                    onCancel={onClose}
                    flush
                    type="submit"
                    disabled={form.busy || (code === null && wish.trim() !== '' && judged?.safe !== true)}
                >
                    {code ? 'Save changes' : 'Open the code'}
                </DialogFoot>
            </form>
        </Dialog>
    );
}
