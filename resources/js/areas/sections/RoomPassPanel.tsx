import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, problemOf, csrfToken, type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { day, moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';

/** The room pass: printed once, ended with one press. */
export function RoomPassPanel({
    section,
    onChange,
}: {
    section: Schemas['SectionDetail'];
    onChange: () => Promise<unknown>;
}) {
    const say = useNotice();
    const [making, setMaking] = useState(false);
    const [hours, setHours] = useState<'school' | 'any'>('school');
    const [pictures, setPictures] = useState(false);
    const [until, setUntil] = useState('');
    const [paper, setPaper] = useState<'a4' | 'letter'>('a4');
    const [error, setError] = useState('');
    const pass = section.roomPass;
    const make = async () => {
        setError('');
        // Opened before the answer comes: a window opened later is taken for a pop-up and blocked.
        const view = window.open('', '_blank');
        try {
            const response = await fetch(`/api/sections/${section.id}/room-pass`, {
                method: 'POST',
                headers: {
                    'Content-Type': 'application/json',
                    Accept: 'application/json',
                    'X-XSRF-TOKEN': csrfToken(),
                },
                body: JSON.stringify({ hours, pictures, paper, ...(until ? { until } : {}) }),
            });
            if (!response.ok) throw await problemOf(response);
            const url = URL.createObjectURL(await response.blob());
            if (view) view.location.href = url;
            setMaking(false);
            say('The poster is open in another window: print it now. Its code is kept nowhere else.');
        } catch (e) {
            view?.close();
            setError(sentence(e));
        }
        await onChange();
    };
    const end = useAct(
        () => api.DELETE('/api/sections/{section}/room-pass', { params: { path: { section: section.id } } }),
        {
            stale: [],
            then: async () => {
                say('The room pass has ended; whoever came in by it is signed out.');
                await onChange();
            },
            failed: (said) => {
                say(said, { bad: true });
                void onChange();
            },
        },
    );
    return (
        <section className="mt-7">
            <h2 className="mb-2 border-b border-rule pb-1 text-lg">Room pass</h2>
            {pass ? (
                <p className="mb-3 text-sm">
                    On shared devices {pass.hours === 'school' ? 'in school hours' : 'at any hour'}
                    {pass.pictures && ', with three pictures'}
                    {pass.until && `, until ${moment(pass.until)}`}.{' '}
                    <span className="text-muted">Printed {day(pass.madeAt)}.</span>
                </p>
            ) : (
                <p className="mb-3 text-sm text-muted">
                    One printed code opens the name list on shared devices; children tap their own name.
                </p>
            )}
            <div className="flex gap-2">
                <Button onClick={() => setMaking(true)}>{pass ? 'New poster' : 'Make a poster'}</Button>
                {pass && (
                    <Button disabled={end.busy} onClick={() => end.run()}>
                        End it now
                    </Button>
                )}
            </div>
            <Dialog open={making} onClose={() => setMaking(false)} title={`Room pass of ${section.name}`}>
                <form
                    className="flex flex-col gap-4"
                    onSubmit={(event) => {
                        event.preventDefault();
                        void make();
                    }}
                >
                    <Choice
                        label="Works"
                        value={hours}
                        onChange={setHours}
                        options={[
                            { value: 'school', label: 'in school hours' },
                            { value: 'any', label: 'at any hour' },
                        ]}
                    />
                    <label className="flex items-start gap-2 text-sm">
                        <input
                            type="checkbox"
                            className="mt-0.5 size-4 accent-ink"
                            checked={pictures}
                            onChange={(event) => setPictures(event.target.checked)}
                        />
                        <span>
                            Each child also taps three pictures of their own
                            <span className="block text-muted">
                                chosen the first time; you can have them choose again
                            </span>
                        </span>
                    </label>
                    <div className="flex gap-4">
                        <Field
                            label="Until"
                            type="datetime-local"
                            value={until}
                            onChange={(event) => setUntil(event.target.value)}
                            hint="By the school’s clocks. Empty: until you end it."
                        />
                        <Choice
                            stacked
                            label="Paper"
                            value={paper}
                            onChange={setPaper}
                            options={[
                                { value: 'a4', label: 'A4' },
                                { value: 'letter', label: 'Letter' },
                            ]}
                        />
                    </div>
                    {pass && (
                        <p className="border-l-[3px] border-marigold pl-3 text-sm">
                            The poster printed before stops working.
                        </p>
                    )}
                    {error && <p className="text-sm text-madder">{error}</p>}
                    <div className="flex justify-end gap-3">
                        <Button onClick={() => setMaking(false)}>Leave it</Button>
                        <Button kind="primary" type="submit">
                            Make the poster
                        </Button>
                    </div>
                </form>
            </Dialog>
        </section>
    );
}
