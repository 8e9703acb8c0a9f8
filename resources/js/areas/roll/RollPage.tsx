import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { Downloads } from '@/ui/Downloads';
import { Instead } from '@/ui/Instead';
import { TransferDialog } from './TransferDialog';
import { MoveDialog } from '../sections/MoveDialog';
import { NobodyFound } from './NobodyFound';
import { ChangeManyDialog } from './ChangeManyDialog';
import { PasteDialog } from './PasteDialog';
import { PersonSheet } from './PersonSheet';
import { useAddress, useTyped, type Changes } from '@/ui/useAddress';
import { useCopy } from '@/ui/useCopy';
import { many } from '@/ui/words';
import { rollColumns } from './rollColumns';
import { SavedViews } from './SavedViews';

const PROBLEMS = {
    unplaced: 'no section',
    never_signed_in: 'never signed in',
    no_guardian: 'no guardian',
    not_connected: 'no guardian connected',
    under_13_unreached: 'under 13, guardian unreachable',
    no_card: 'no card',
    card_lost: 'card lost',
    outside_domain: 'address outside the domain',
    no_birth_date: 'no birth date',
    number_twice: 'number twice',
    grade_unlike_age: 'grade unlike age',
    left_enrolled: 'left, still in a section',
} as const;
type Problem = keyof typeof PROBLEMS;
const PROBLEM = Object.keys(PROBLEMS) as Problem[];
const KINDS = ['student', 'guardian', 'staff'] as const;
const SORTS = ['name', 'grade', 'number', 'email'] as const;

/** A word of the address, where it is one of those there are. */
function oneOf<T extends string>(words: readonly T[], said: string | null): T | undefined {
    return words.find((word) => word === said);
}

export function RollPage({ school }: { school: School }) {
    const [search, change, setSearch] = useAddress();
    const kind = oneOf(KINDS, search.get('kind')) ?? 'student';
    const left = search.get('left') === 'yes';
    const problems = (search.get('problem') ?? '').split(',').filter((p): p is Problem => p in PROBLEMS);
    const problem = problems.join(',');
    const grade = search.get('grade') ?? '';
    const q = search.get('q') ?? '';
    const each = school.each;
    const at = each?.find((s) => s.id === search.get('school'))?.id ?? '';
    const person = search.get('person');
    // What fits best stands first, until somebody sorts otherwise.
    const order = {
        by: oneOf(SORTS, search.get('sort')) ?? (q ? ('best' as const) : ('name' as const)),
        down: search.get('down') === 'yes',
    };
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    const [placing, setPlacing] = useState(false);
    const [changing, setChanging] = useState(false);
    const [sending, setSending] = useState(false);
    const set = (changes: Changes, keep = false) => {
        change(changes);
        if (!keep) {
            setSelected(new Set());
            setPasted(null);
        }
    };
    const [text, setText] = useTyped(q, set);
    const page = useInfiniteQuery({
        queryKey: ['people', school.id, at, kind, q, grade, problem, left, order],
        queryFn: ({ pageParam }) =>
            data(
                api.GET('/api/schools/{realm}/people', {
                    params: {
                        path: { realm: school.id },
                        query: {
                            kind,
                            ...(q ? { q } : {}),
                            ...(grade ? { grade } : {}),
                            ...(problem ? { problem } : {}),
                            ...(left ? { left } : {}),
                            ...(at ? { school: at } : {}),
                            sort: order.by,
                            down: order.down,
                            ...(pageParam ? { after: pageParam } : {}),
                        },
                    },
                }),
            ),
        initialPageParam: '',
        getNextPageParam: (last) => last.next ?? undefined,
    });
    const [pasting, setPasting] = useState(false);
    // Those a pasted list means stand in place of what the filters find.
    const [pasted, setPasted] = useState<Schemas['PersonLine'][] | null>(null);
    const found = useMemo(() => page.data?.pages.flatMap((p) => p.people) ?? [], [page.data]);
    const people = pasted ?? found;
    const total = pasted?.length ?? page.data?.pages[0]?.total ?? 0;
    const columns = useMemo(() => rollColumns(kind, each), [kind, each]);
    const sendable = each !== undefined && kind === 'student' && selected.size > 0;
    const placeable = !each && kind === 'student' && selected.size > 0;
    const copyText = useCopy();
    const navigate = useNavigate();
    const copy = () => {
        const lines = people.filter((p) => selected.has(p.id)).map((p) => `${p.name}\t${p.userName}`);
        copyText(lines.join('\n'), many(lines.length, 'name'));
    };
    // New passphrases come with the cards that say them.
    const printCards = () =>
        void navigate(`/s/${school.code}/print-room`, { state: { people: people.filter((p) => selected.has(p.id)) } });
    const write = () =>
        void navigate(`/s/${school.code}/mailroom/letters`, {
            state: { people: people.filter((p) => selected.has(p.id)).map(({ id, name }) => ({ id, name })) },
        });
    useKey('p', 'Cards or new passphrases for selected students', printCards, placeable);
    useKey('m', 'Place selected students', () => setPlacing(true), placeable);
    useKey('t', 'Send selected students to another school', () => setSending(true), sendable);
    useKey('v', 'Change selected students', () => setChanging(true), placeable);
    useKey('l', 'Select by a list', () => setPasting(true), !each && kind === 'student');
    useKey('c', 'Clear the filters', () => {
        setText('');
        set({ q: null, grade: null, problem: null, left: null, school: null });
    });
    return (
        <div className="page">
            <div className="flex flex-wrap items-end justify-between gap-3 px-6 pb-3 pt-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Roll</h1>
                    <p role="status" className="text-sm text-muted">
                        {page.data && `${total.toLocaleString('en')} found`}
                    </p>
                </div>
                {kind === 'student' && !each && (
                    <Button kind="quiet" onClick={() => setPasting(true)}>
                        Select by a list…
                    </Button>
                )}
                {kind === 'student' && !each && (
                    <Downloads
                        label="All students as"
                        href={(format) => `/api/schools/${school.id}/roster?format=${format}`}
                        formats={['xlsx', 'ods', 'csv', 'oneroster']}
                    />
                )}
                {!each && <SavedViews school={school} current={search} onOpen={(view) => setSearch(view)} />}
            </div>
            <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 pb-3">
                <input
                    type="search"
                    aria-label="Part of a name, number, address or phone"
                    placeholder="Part of a name, number, address or phone"
                    value={text}
                    onChange={(event) => setText(event.target.value)}
                    className="min-h-8 w-72 rounded-card border border-ink/60 bg-paper px-2 text-sm placeholder:text-muted"
                />
                <Choice
                    label="Who"
                    value={left ? (`${kind} left` as const) : kind}
                    onChange={(value) => {
                        const [who = null, gone] = value.split(' ');
                        set({
                            kind: who,
                            left: gone ? 'yes' : null,
                            grade: null,
                            problem: null,
                            person: null,
                            sort: null,
                            down: null,
                        });
                    }}
                    options={[
                        { value: 'student', label: 'students' },
                        { value: 'student left', label: 'students who have left' },
                        { value: 'guardian', label: 'guardians' },
                        { value: 'staff', label: 'staff' },
                        { value: 'staff left', label: 'staff who have left' },
                    ]}
                />
                {each && (
                    <Choice
                        label="School"
                        value={at}
                        onChange={(value) => set({ school: value || null })}
                        options={[
                            { value: '', label: `all ${each.length}` },
                            ...each.map((s) => ({ value: s.id, label: s.name })),
                        ]}
                    />
                )}
                {pasted && (
                    <button
                        aria-label="Show everybody again, not those of the list"
                        onClick={() => set({})}
                        className="min-h-7 rounded-card border border-marigold bg-tint px-2 text-sm"
                    >
                        {many(pasted.length, 'student')} of a list ×
                    </button>
                )}
                {kind === 'student' && !pasted && !left && (
                    <>
                        <Choice
                            label="Grade"
                            value={grade}
                            onChange={(value) => set({ grade: value || null })}
                            options={[
                                { value: '', label: 'all' },
                                ...school.grades.map((g) => ({ value: g.code, label: g.short })),
                            ]}
                        />
                        <div role="group" aria-label="Problems" className="flex flex-wrap items-center gap-2">
                            {problems.map((key) => (
                                <button
                                    key={key}
                                    aria-label={`${PROBLEMS[key]}: do not filter by it`}
                                    onClick={() => set({ problem: problems.filter((p) => p !== key).join(',') })}
                                    className="min-h-7 rounded-card border border-marigold bg-tint px-2 text-sm"
                                >
                                    {PROBLEMS[key]} ×
                                </button>
                            ))}
                            <Choice
                                label={problems.length > 0 ? 'and' : 'Problem'}
                                value=""
                                onChange={(key) => set({ problem: [...problems, key].join(',') })}
                                options={[
                                    { value: '', label: problems.length > 0 ? 'another problem' : 'any or none' },
                                    ...PROBLEM.filter((key) => !problems.includes(key)).map((key) => ({
                                        value: key,
                                        label: PROBLEMS[key],
                                    })),
                                ]}
                            />
                        </div>
                    </>
                )}
            </div>
            <div className="split">
                <DataTable
                    label="People"
                    name={`roll.${kind}`}
                    rows={people}
                    id={(p) => p.id}
                    current={person}
                    onOpen={(p) => set({ person: p.id }, true)}
                    selected={selected}
                    onSelect={setSelected}
                    total={total}
                    order={order}
                    onOrder={({ by, down }) =>
                        set({ sort: by === 'name' && !q ? null : by, down: down ? 'yes' : null }, true)
                    }
                    onEnd={() => !pasted && page.hasNextPage && !page.isFetchingNextPage && void page.fetchNextPage()}
                    empty={
                        !page.data ? (
                            <Instead of={page} what="the Roll" />
                        ) : (
                            <NobodyFound
                                school={each ? '' : school.id}
                                q={q.trim()}
                                problems={problems.length}
                                onAsk={(number) => void navigate(`/s/${school.code}/intake?number=${number}`)}
                                onClear={() => {
                                    setText('');
                                    set({ q: null, grade: null, problem: null, left: null, school: null });
                                }}
                            />
                        )
                    }
                    foot={
                        <span className="flex items-center justify-between">
                            <span>
                                {people.length.toLocaleString('en')} of {total.toLocaleString('en')} loaded
                                {selected.size > 0 && `, ${selected.size} selected`}
                            </span>
                            {selected.size > 0 && (
                                <span className="flex flex-wrap gap-x-5">
                                    {sendable && (
                                        <button
                                            className="underline underline-offset-4"
                                            onClick={() => setSending(true)}
                                        >
                                            Send to another school
                                        </button>
                                    )}
                                    {kind === 'student' && !each && (
                                        <>
                                            <button
                                                className="underline underline-offset-4"
                                                onClick={() => setPlacing(true)}
                                            >
                                                Place in a section
                                            </button>
                                            <button
                                                className="underline underline-offset-4"
                                                onClick={() => setChanging(true)}
                                            >
                                                Change
                                            </button>
                                            <button className="underline underline-offset-4" onClick={printCards}>
                                                Cards
                                            </button>
                                            <button className="underline underline-offset-4" onClick={write}>
                                                Write to them
                                            </button>
                                        </>
                                    )}
                                    <button className="underline underline-offset-4" onClick={copy}>
                                        Copy names and user names
                                    </button>
                                </span>
                            )}
                        </span>
                    }
                    columns={columns}
                />
                {person && (
                    <PersonSheet
                        key={person}
                        id={person}
                        school={school}
                        onClose={() => set({ person: null }, true)}
                        onOpen={(id) => set({ person: id }, true)}
                    />
                )}
            </div>
            {pasting && (
                <PasteDialog
                    school={school}
                    onClose={() => setPasting(false)}
                    onFound={(named) => {
                        setPasting(false);
                        setPasted(named);
                        setSelected(new Set(named.map((p) => p.id)));
                    }}
                />
            )}
            {sending && each && (
                <TransferDialog
                    schools={each}
                    people={[...selected]}
                    onClose={() => setSending(false)}
                    onDone={() => {
                        setSending(false);
                        setSelected(new Set());
                    }}
                />
            )}
            {changing && (
                <ChangeManyDialog
                    school={school}
                    people={[...selected]}
                    onClose={() => setChanging(false)}
                    onDone={() => {
                        setChanging(false);
                        setSelected(new Set());
                    }}
                />
            )}
            {placing && (
                <MoveDialog
                    school={school}
                    people={[...selected]}
                    onClose={() => setPlacing(false)}
                    onDone={() => {
                        setPlacing(false);
                        setSelected(new Set());
                    }}
                />
            )}
        </div>
    );
}
