import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, type Schemas } from '@/api/client';
import { openPdf } from '@/api/pdf';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { day, moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { useSentForm } from '@/ui/useSentForm';

type RoomPass = { hours: 'school' | 'any'; pictures: boolean; paper: 'a4' | 'letter'; until: string };

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
    const pass = section.roomPass;
    const make = useSentForm<RoomPass>({
        start: { hours: 'school', pictures: false, paper: 'a4', until: '' },
        send: ({ until, ...wish }) =>
            openPdf(`/api/sections/${section.id}/room-pass`, { ...wish, ...(until ? { until } : {}) }),
        stale: [],
        then: async () => {
            setMaking(false);
            say('The poster is open in another window: print it now. Its code is kept nowhere else.');
            await onChange();
        },
        failed: () => void onChange(),
    });
    const end = useAct(
        () => api.DELETE('/api/sections/{section}/room-pass', { params: { path: { section: section.id } } }),
        {
            stale: [],
            then: async () => {
                say('The room pass has ended; everyone who came in by it is signed out.');
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
                    On shared devices {pass.hours === 'school' ? 'during school hours' : 'at any hour'}
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
                <form className="flex flex-col gap-4" onSubmit={make.submit}>
                    <Choice
                        label="Valid"
                        {...make.choice('hours')}
                        options={[
                            { value: 'school', label: 'during school hours' },
                            { value: 'any', label: 'at any hour' },
                        ]}
                    />
                    <label className="flex items-start gap-2 text-sm">
                        <input type="checkbox" className="mt-0.5 size-4 accent-ink" {...make.check('pictures')} />
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
                            {...make.field('until')}
                            hint="By the school’s clocks. Empty: until you end it."
                        />
                        <Choice
                            stacked
                            label="Paper"
                            {...make.choice('paper')}
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
                    {make.error && (
                        <p role="alert" className="text-sm text-madder">
                            {make.error}
                        </p>
                    )}
                    <DialogFoot onCancel={() => setMaking(false)} flush type="submit" disabled={make.busy}>
                        Make the poster
                    </DialogFoot>
                </form>
            </Dialog>
        </section>
    );
}
