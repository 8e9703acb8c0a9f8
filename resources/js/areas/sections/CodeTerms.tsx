import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';

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
    const [who, setWho] = useState(code?.who ?? 'approval');
    const [starts, setStarts] = useState(local(code?.startsAt ?? null));
    const [ends, setEnds] = useState(local(code?.endsAt ?? null));
    const [cap, setCap] = useState(code?.cap?.toString() ?? '');
    const [wish, setWish] = useState('');
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
    const save = useAct(
        () => {
            const body = {
                who,
                starts_at: starts ? new Date(starts).toISOString() : null,
                ends_at: ends ? new Date(ends).toISOString() : null,
                ...(cap ? { cap: Number(cap) } : {}),
            };
            const path = { params: { path: { section: section.id } } };
            return data(
                code
                    ? api.POST('/api/sections/{section}/code/terms', { ...path, body })
                    : api.POST('/api/sections/{section}/code', {
                          ...path,
                          body: { ...body, ...(wish.trim() ? { chosen: wish } : {}) },
                      }),
            );
        },
        { stale: [], home: '', then: onDone },
    );
    const of = (field: string) => save.field(field) || undefined;
    return (
        <Dialog
            open
            onClose={onClose}
            title={code ? `Terms of the code of ${section.name}` : `A code for ${section.name}`}
        >
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    save.run();
                }}
            >
                <Choice stacked label="Who may come in by it" value={who} onChange={setWho} options={WHO} />
                <div className="grid grid-cols-2 gap-4">
                    <Field
                        label="Works from"
                        type="datetime-local"
                        value={starts}
                        onChange={(event) => setStarts(event.target.value)}
                        hint="Empty: at once."
                    />
                    <Field
                        label="Works until"
                        type="datetime-local"
                        value={ends}
                        onChange={(event) => setEnds(event.target.value)}
                        error={of('ends_at')}
                        hint="Empty: until it is closed."
                    />
                </div>
                <div className="grid grid-cols-2 gap-4">
                    <Field
                        label="For how many"
                        inputMode="numeric"
                        pattern="[0-9]*"
                        value={cap}
                        onChange={(event) => setCap(event.target.value)}
                        error={of('cap')}
                        hint="Empty: no cap."
                    />
                    {code === null && (
                        <Field
                            label="A code of your own"
                            mono
                            maxLength={20}
                            autoComplete="off"
                            spellCheck={false}
                            value={wish}
                            onChange={(event) => setWish(event.target.value)}
                            error={of('chosen')}
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
                {save.error && !['ends_at', 'cap', 'chosen'].some((field) => save.field(field)) && (
                    <p className="text-sm text-madder">{save.error}</p>
                )}
                {code === null && section.hasCode && (
                    <p className="border-l-[3px] border-marigold pl-3 text-sm">
                        The code that is open now stops working.
                    </p>
                )}
                <div className="flex justify-end gap-3">
                    <Button onClick={onClose}>Leave it</Button>
                    <Button
                        kind="primary"
                        type="submit"
                        disabled={save.busy || (code === null && wish.trim() !== '' && judged?.safe !== true)}
                    >
                        {code ? 'Keep these terms' : 'Open the code'}
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
