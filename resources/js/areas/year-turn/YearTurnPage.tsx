import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { PlanView } from '@/ui/PlanView';
import { usePlan } from '@/ui/usePlan';
import { GradeFlow } from './GradeFlow';

interface Wish {
    name: string;
    begins: string;
    last: string;
    carry: boolean;
    held: string[];
}

/** The year turn, rehearsed on every visit: nothing is changed until it is turned. */
export function YearTurnPage({ school }: { school: School }) {
    const asked = useQuery({
        queryKey: ['year-turn', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/year-turn', { params: { path: { school: school.id } } })),
    });
    const start = asked.data;
    if (!start) return <Instead of={asked} what="the year turn" />;
    return <Rehearsal key={start.year} school={school} start={start} />;
}

function Rehearsal({ school, start }: { school: School; start: Schemas['YearTurnStart'] }) {
    const navigate = useNavigate();
    const say = useNotice();
    const [wish, setWish] = useState<Wish>({
        name: start.nextName,
        begins: start.nextBegins,
        last: start.nextLast,
        carry: true,
        held: [],
    });
    const [shown, setShown] = useState<string[]>([]);
    const [sure, setSure] = useState(false);
    const [words, setWords] = useState('');
    const body = { name: wish.name, begins: wish.begins, last: wish.last, carry: wish.carry, held_back: wish.held };
    const path = { params: { path: { school: school.id } } };
    const said = wish.name !== '' && wish.begins !== '' && wish.last !== '';
    const turn = usePlan({
        key: ['year-turn', school.id, wish],
        ready: said,
        look: () => data(api.POST('/api/schools/{school}/year-turn/rehearse', { ...path, body })),
        apply: (seen) => data(api.POST('/api/schools/{school}/year-turn', { ...path, body: { ...body, ...seen } })),
        then: ({ undoUntil: until }) => {
            setSure(false);
            say(`${wish.name} it is. The Ledger can undo the turn${until ? ` until ${day(until)}` : ''}.`);
            void navigate(`/s/${school.code}/ledger`);
        },
        failed: (why) => {
            setSure(false);
            say(why, { bad: true });
        },
    });
    const plan = turn.last;
    // The first plan brings warnings that stand above the table: nothing is shown that they would push away.
    const [begun, setBegun] = useState(false);
    if (!begun && (plan || turn.error || !said)) setBegun(true);
    const rows = useMemo(
        () => (plan?.rows ?? []).filter((r) => shown.length === 0 || shown.includes(r.verdict)),
        [plan, shown],
    );
    const hold = (id: string) =>
        setWish({ ...wish, held: wish.held.includes(id) ? wish.held.filter((h) => h !== id) : [...wish.held, id] });
    if (!begun)
        return (
            <p className="appears px-6 py-10 text-muted" role="status">
                Working out everyone’s next grade…
            </p>
        );
    return (
        <>
            <PlanView
                title={`${start.year} to ${wish.name}`}
                subtitle={
                    <span className="flex flex-wrap items-center gap-x-4">
                        rehearsal: nothing is changed yet
                        <label className="inline-flex items-center gap-2">
                            <input
                                type="checkbox"
                                className="accent-ink"
                                checked={wish.carry}
                                onChange={(event) => setWish({ ...wish, carry: event.target.checked })}
                            />
                            carry sections forward with their teachers
                        </label>
                        {wish.held.length > 0 && `${wish.held.length} held back`}
                    </span>
                }
                verdicts={plan?.verdicts ?? {}}
                words={{ update: 'up a grade', same: 'stay', leaving: 'leaving', archived: 'archived' }}
                rows={rows}
                questions={[]}
                shown={shown}
                onShow={setShown}
                numbered="Line"
                widths={{ Grade: '90px', Section: 'minmax(120px, 1fr)' }}
                picture={<GradeFlow grades={start.grades} nextName={wish.name} year={start.year} />}
                notes={
                    <div className="px-6 py-2">
                        <div className="flex flex-wrap gap-4">
                            <Field
                                label="Next year is called"
                                className="w-36"
                                value={wish.name}
                                maxLength={20}
                                onChange={(event) => setWish({ ...wish, name: event.target.value })}
                            />
                            <Field
                                label="First day"
                                type="date"
                                className="w-40"
                                value={wish.begins}
                                onChange={(event) => setWish({ ...wish, begins: event.target.value })}
                            />
                            <Field
                                label="Last day"
                                type="date"
                                className="w-40"
                                value={wish.last}
                                onChange={(event) => setWish({ ...wish, last: event.target.value })}
                            />
                        </div>
                        {turn.error && (
                            <p role="alert" className="mt-2 text-sm text-madder">
                                {turn.error}
                            </p>
                        )}
                        <ul className="mt-2 text-sm">
                            {plan?.warnings.map((w) => (
                                <li key={w} className="border-l-[3px] border-rule pl-3">
                                    {w}
                                </li>
                            ))}
                        </ul>
                    </div>
                }
                waiting={
                    !plan && (
                        <p className="px-6 py-8 text-muted" role="status">
                            {!said
                                ? 'Give the next year a name, a first day and a last day, and everyone’s next grade stands here.'
                                : turn.error
                                  ? 'Everyone’s next grade stands here once that is put right.'
                                  : 'Working out everyone’s next grade…'}
                        </p>
                    )
                }
                sheet={(row) =>
                    row.matchId ? (
                        <Button onClick={() => hold(row.matchId ?? '')}>
                            {wish.held.includes(row.matchId) ? 'Let them go up a grade' : 'Hold back in this grade'}
                        </Button>
                    ) : (
                        <p className="text-sm text-muted">
                            The section is read-only afterwards. Its code is dead; its roster and user names stay, and
                            cards can be printed.
                        </p>
                    )
                }
                bar={
                    <ApplyBar
                        sentence={plan?.blockers[0] ?? plan?.sentence ?? ''}
                        {...(plan ? { undoUntil: plan.undoUntil } : {})}
                        button={`Turn to ${wish.name}`}
                        disabled={turn.busy || !turn.plan || turn.plan.blockers.length > 0}
                        onApply={() => {
                            setWords('');
                            setSure(true);
                        }}
                    />
                }
            />
            <Dialog open={sure} onClose={() => setSure(false)} title={`Turn ${school.name} to ${wish.name}`}>
                <p>{plan?.sentence}</p>
                <form
                    className="mt-4"
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (words.trim() === wish.name) turn.apply();
                    }}
                >
                    <Field
                        autoFocus
                        label={`Type ${wish.name} to turn the year`}
                        value={words}
                        onChange={(event) => setWords(event.target.value)}
                    />
                    <DialogFoot
                        onCancel={() => setSure(false)}
                        cancel="Not now"
                        type="submit"
                        disabled={words.trim() !== wish.name}
                    >
                        Turn the year
                    </DialogFoot>
                </form>
            </Dialog>
        </>
    );
}
