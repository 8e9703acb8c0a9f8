import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { day, moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { many } from '@/ui/words';
import { languageName } from './letters';

type Line = Schemas['SlipLine'];

/** The slips of family letters: ticked off as they come back, by typing or scanning; and who has not sent one. */
export function SlipsPart({ school }: { school: School }) {
    const navigate = useNavigate();
    const [typed, setTyped] = useState('');
    const [ticked, setTicked] = useState<string[]>([]);
    const [only, setOnly] = useState(true);
    const field = useRef<HTMLInputElement>(null);
    const asked = useQuery({
        queryKey: ['slips', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/slips', { params: { path: { school: school.id } } })),
    });
    const tick = useAct(
        (slip: string) =>
            data(
                api.POST('/api/schools/{school}/slips', {
                    params: { path: { school: school.id } },
                    body: { slip },
                }),
            ),
        {
            stale: [['slips', school.id]],
            home: 'slip',
            then: ({ name }) => {
                setTicked((before) => [name, ...before].slice(0, 8));
                setTyped('');
                // The next slip is under the scanner already.
                field.current?.focus();
            },
            failed: () => field.current?.select(),
        },
    );
    const page = asked.data;
    if (!page) return <Instead of={asked} what="the slips" />;
    const out = page.students.filter((s) => s.returnedAt === null);
    return (
        <>
            <div className="split">
                <DataTable
                    label={only ? 'Slips not returned' : 'All slips'}
                    name="slips"
                    rows={only ? out : page.students}
                    id={(s: Line) => s.studentId}
                    onOpen={(s) => void navigate(`/s/${school.code}/roll?person=${s.studentId}`)}
                    empty={
                        page.students.length === 0 ? (
                            <Empty title="No family letters yet">
                                Print family letters first; their signed slips are ticked off here.
                            </Empty>
                        ) : (
                            <Empty title="Every slip is back">All families have signed.</Empty>
                        )
                    }
                    columns={[
                        { id: 'name', label: 'Student', value: (s) => s.name, width: 'minmax(160px, 2fr)' },
                        { id: 'sections', label: 'Sections', value: (s) => s.sections, width: 'minmax(120px, 1.4fr)' },
                        { id: 'language', label: 'Language', value: (s) => languageName(s.language), width: '110px' },
                        {
                            id: 'printed',
                            label: 'Printed',
                            value: (s) => s.printedOn,
                            cell: (s) => day(s.printedOn),
                            width: '110px',
                        },
                        {
                            id: 'back',
                            label: 'Back',
                            value: (s) => s.returnedAt ?? '',
                            cell: (s) =>
                                s.returnedAt ? moment(s.returnedAt) : <span className="text-muted">out</span>,
                            width: '140px',
                        },
                    ]}
                />
                <aside aria-label="Tick off slips" className="beside flex flex-col gap-4 roomy:w-[300px]">
                    <form
                        onSubmit={(event) => {
                            event.preventDefault();
                            if (typed.trim() !== '') tick.run(typed);
                        }}
                    >
                        <Field
                            ref={field}
                            label="Code of a slip"
                            mono
                            autoFocus
                            autoComplete="off"
                            spellCheck={false}
                            value={typed}
                            onChange={(event) => setTyped(event.target.value)}
                            hint="Type it and press Enter, or let a scanner read the small square."
                            error={tick.field('slip') || tick.error || undefined}
                        />
                        <div className="mt-2">
                            <Button type="submit" disabled={tick.busy || typed.trim() === ''}>
                                Tick off
                            </Button>
                        </div>
                    </form>
                    {ticked.length > 0 && (
                        <div role="status">
                            <h2 className="text-sm font-semibold">Ticked off just now</h2>
                            <ul className="text-sm">
                                {ticked.map((name, i) => (
                                    <li key={`${name} ${ticked.length - i}`}>{name}</li>
                                ))}
                            </ul>
                        </div>
                    )}
                    <dl className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-rule pt-2 text-sm">
                        <dt>Out</dt>
                        <dd className="text-right tabular-nums">{page.out}</dd>
                        <dt>Back</dt>
                        <dd className="text-right tabular-nums">{page.back}</dd>
                    </dl>
                    <label className="flex items-center gap-2 text-sm">
                        <input
                            type="checkbox"
                            className="accent-ink"
                            checked={!only}
                            onChange={(event) => setOnly(!event.target.checked)}
                        />
                        Show those that are back too
                    </label>
                    {out.length > 0 && (
                        <div>
                            <Button
                                onClick={() =>
                                    void navigate(`/s/${school.code}/print-room?part=letters`, {
                                        state: {
                                            people: out.map((s) => ({
                                                id: s.studentId,
                                                name: s.name,
                                                sections: s.sections,
                                                grade: '',
                                                userName: '',
                                            })),
                                        },
                                    })
                                }
                            >
                                Print letters again for {many(out.length, 'family', 'families')}
                            </Button>
                        </div>
                    )}
                </aside>
            </div>
        </>
    );
}
