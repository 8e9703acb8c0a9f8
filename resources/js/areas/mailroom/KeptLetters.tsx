import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import type { Schemas } from '@/api/client';
import { MOST } from '@/api/most';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';
import type { LetterDoors, Template } from './letter';

type Kept = Schemas['LetterTemplateLine'];

/** Letters that were kept for another time: to begin with one, or keep this one. */
export function KeptLetters({
    doors,
    of,
    shares,
    written,
    onTake,
}: {
    doors: LetterDoors;
    /** Whose they are: names them in what has been asked for. */
    of: string;
    /** Whether one can be kept for the whole school. */
    shares: boolean;
    /** What stands in the form. */
    written: Omit<Template, 'name'>;
    onTake: (letter: Kept) => void;
}) {
    const queries = useQueryClient();
    const key = ['kept-letters', of];
    const { data: page } = useQuery({ queryKey: key, queryFn: doors.kept });
    const [taken, setTaken] = useState('');
    const [name, setName] = useState('');
    const [shared, setShared] = useState(false);
    const settled = (now: Schemas['LetterTemplatePage']) => {
        queries.setQueryData(key, now);
    };
    const keep = useAct(() => doors.keep({ ...written, name, shared }), { stale: [], then: settled });
    const forget = useAct((id: string) => doors.forget(id), {
        stale: [],
        then: (now) => {
            setTaken('');
            settled(now);
        },
    });
    const kept = page?.templates ?? [];
    const chosen = kept.find((k) => k.id === taken);
    const error = keep.error || forget.error;
    return (
        <details className="border-t border-rule pt-3">
            <summary className="min-h-8 cursor-pointer text-sm">
                Letters kept for another time{kept.length > 0 && `: ${String(kept.length)}`}
            </summary>
            <div className="mt-2 flex flex-wrap items-end gap-3">
                {kept.length > 0 && (
                    <Choice
                        label="Begin with"
                        stacked
                        value={taken}
                        onChange={(id) => {
                            setTaken(id);
                            const letter = kept.find((k) => k.id === id);
                            if (!letter) return;
                            setName(letter.name);
                            setShared(letter.shared && shares);
                            onTake(letter);
                        }}
                        options={[
                            { value: '', label: 'nothing' },
                            ...kept.map((k) => ({
                                value: k.id,
                                label: k.shared ? `${k.name} (of the school)` : k.name,
                            })),
                        ]}
                    />
                )}
                {chosen && (!chosen.shared || shares) && (
                    <Button disabled={forget.busy} onClick={() => forget.run(chosen.id)}>
                        Forget “{chosen.name}”
                    </Button>
                )}
            </div>
            <div className="mt-3 flex flex-wrap items-end gap-3">
                <Field
                    label="Keep what is written as"
                    maxLength={MOST.keptLetterName}
                    value={name}
                    onChange={(event) => setName(event.target.value)}
                />
                {shares && (
                    <label className="flex min-h-8 items-center gap-2 text-sm">
                        <input
                            type="checkbox"
                            className="accent-ink"
                            checked={shared}
                            onChange={(event) => setShared(event.target.checked)}
                        />
                        For the whole school
                    </label>
                )}
                <Button disabled={keep.busy || name.trim() === ''} onClick={() => keep.run()}>
                    Keep it
                </Button>
            </div>
            {error && (
                <p role="alert" className="mt-2 text-sm text-madder">
                    {error}
                </p>
            )}
        </details>
    );
}
