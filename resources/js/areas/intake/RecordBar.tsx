import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useEffect, useEffectEvent, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';

/** Milliseconds between looks at a record that is being asked. */
const LOOK_AGAIN = 1500;

/** Whether the school has a record that lists come from, and when it was asked. */
export function useRecord(school: School) {
    return useQuery({
        queryKey: ['record', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/record', { params: { path: { school: school.id } } })),
        refetchInterval: (query) => (query.state.data?.asking ? LOOK_AGAIN : false),
    });
}

/** Lists that come from the school's record, where one is set up: what has changed, all of it, or one student. */
export function RecordBar({ school }: { school: School }) {
    const queries = useQueryClient();
    const navigate = useNavigate();
    const say = useNotice();
    const [search, setSearch] = useSearchParams();
    const [asking, setAsking] = useState(search.has('number'));
    const [number, setNumber] = useState(search.get('number') ?? '');
    const [waiting, setWaiting] = useState(false);
    const asked = useRecord(school);
    const came = (list: string | null, said: string) => {
        if (said) say(said);
        if (list) void navigate(`/s/${school.code}/intake/${list}`);
    };
    const arrived = useEffectEvent(() => {
        setWaiting(false);
        void queries.invalidateQueries({ queryKey: ['intakes', school.id] });
        came(asked.data?.list ?? null, asked.data?.said ?? '');
    });
    const going = asked.data?.asking ?? '';
    // Only where it was asked for from here, while this page is open, does what comes of it open by itself.
    useEffect(() => {
        if (waiting && going === '') arrived();
    }, [waiting, going]);
    const close = () => {
        setAsking(false);
        setNumber('');
        setSearch({}, { replace: true });
    };
    const pull = useAct(
        (wish: { what: 'whole' | 'changes' | 'one'; number?: string }) =>
            data(
                api.POST('/api/schools/{school}/record/pull', { params: { path: { school: school.id } }, body: wish }),
            ),
        {
            stale: [
                ['intakes', school.id],
                ['record', school.id],
            ],
            home: 'number',
            then: ({ intake, said, asking: going }) => (going ? setWaiting(true) : came(intake, said)),
            failed: (said) => {
                if (!asking) say(said, { bad: true });
            },
        },
    );
    const busy = pull.busy || going !== '';
    const record = asked.data;
    const there = record?.there === true;
    useKey('r', 'Bring in what has changed in the school’s record', () => pull.run({ what: 'changes' }), there);
    useKey('n', 'Bring in one student of the record, by number', () => setAsking(true), there);
    if (!record || !there) return null;
    return (
        <div className="mt-3 flex flex-wrap items-center justify-between gap-x-5 gap-y-2 border border-rule px-6 py-3">
            <p className="text-sm">
                <span className="font-serif font-semibold">The school’s record</span>
                <span className="block text-muted">
                    {going !== '' ? (
                        <span role="status">
                            {going === 'whole' ? 'Being asked for all of it' : 'Being asked what has changed'}. You can
                            leave this page: the list waits here.
                        </span>
                    ) : (
                        <>
                            {record.pulledAt ? `last asked ${moment(record.pulledAt)}` : 'not asked yet'}
                            {record.nightly && ', and every night'}
                            {record.said && `. ${record.said}`}
                        </>
                    )}
                </span>
            </p>
            <span className="flex flex-wrap gap-2">
                <Button disabled={busy} onClick={() => pull.run({ what: 'changes' })}>
                    Bring in the changes
                </Button>
                <Button disabled={busy} onClick={() => pull.run({ what: 'whole' })}>
                    All of it
                </Button>
                <Button disabled={busy} onClick={() => setAsking(true)}>
                    One student…
                </Button>
            </span>
            <Dialog open={asking} onClose={close} title="One student of the record">
                <form
                    onSubmit={(event: FormEvent) => {
                        event.preventDefault();
                        pull.run({ what: 'one', number });
                    }}
                >
                    <Field
                        label="Student number"
                        mono
                        required
                        autoFocus
                        hint="For a student who joined after the record was last asked. You see the plan before anything changes."
                        value={number}
                        onChange={(event) => setNumber(event.target.value)}
                        error={pull.field('number') || pull.error || undefined}
                    />
                    <DialogFoot type="submit" onCancel={close} disabled={pull.busy || number.trim() === ''}>
                        Ask the record
                    </DialogFoot>
                </form>
            </Dialog>
        </div>
    );
}
