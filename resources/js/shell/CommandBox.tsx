import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas, sentence } from '@/api/client';
import { UndoDialog } from '@/areas/ledger/UndoDialog';
import { useNotice } from '@/ui/Notice';
import { giveFocusBack } from '@/ui/focus';
import { many } from '@/ui/words';
import { useKey } from './keys';
import type { School } from './session';

interface Entry {
    id: string;
    label: string;
    detail: string;
    /** What Enter would do, in a sentence; or why it cannot. */
    what?: string;
    /** Left out where it cannot be done. */
    run?: () => void;
}

type Offer = Schemas['Offer'];

/** What reads as something to do, and is looked up as such; the server takes it apart. */
const VERB = /^(print |login |join )?(cards?|codes?|archive|move|place|put|enroll|merge|undo)\b|\bas of\b/i;

/** The one box: find a person or a section, or type what to do. */
export function CommandBox({ school }: { school: School }) {
    const input = useRef<HTMLInputElement>(null);
    const [text, setText] = useState('');
    const [open, setOpen] = useState(false);
    const [asked, setAsked] = useState('');
    const navigate = useNavigate();
    const say = useNotice();
    useKey('/', 'Find, or say what to do', () => input.current?.focus());
    useEffect(() => {
        const timer = setTimeout(() => setAsked(text.trim()), 150);
        return () => clearTimeout(timer);
    }, [text]);
    const looked = useQuery({
        queryKey: ['find', school.id, asked],
        queryFn: () =>
            data(api.GET('/api/schools/{realm}/find', { params: { path: { realm: school.id }, query: { q: asked } } })),
        enabled: school.coordinates && asked.length > 1 && open,
    });
    const people = looked.data;
    const { data: sections } = useQuery({
        queryKey: ['sections', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
        enabled: open && !school.each,
    });
    const [undoing, setUndoing] = useState<{ id: string; title: string } | null>(null);
    const undo = useAct(
        () => data(api.GET('/api/schools/{school}/ledger', { params: { path: { school: school.id } } })),
        {
            stale: [],
            then: (ledger) => {
                const last = ledger.entries.find((e) => e.canUndo);
                if (last) setUndoing(last);
                else say('There is nothing to undo.');
            },
            failed: (said) => say(said, { bad: true }),
        },
    );
    useKey('u', 'Undo the last thing, once looked at', () => undo.run(), school.coordinates && !school.each);
    const go = (path: string) => () => void navigate(`/s/${school.code}/${path}`);
    const wanted = text.trim().toLowerCase();
    // Whatever is done is done at one school.
    const isVerb = !school.each && VERB.test(wanted);
    const offered = useQuery({
        queryKey: ['command', school.id, asked],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/command', {
                    params: { path: { school: school.id }, query: { q: asked } },
                }),
            ),
        enabled: open && !school.each && VERB.test(asked),
        // What it would do is what it would do now.
        staleTime: 0,
        gcTime: 0,
    });
    const undoEntry = useAct(
        (entry: string) => api.POST('/api/ledger/{entry}/undo', { params: { path: { entry } }, body: {} }),
        { failed: (said) => say(said, { bad: true }) },
    );
    const place = useAct(
        async ({ offer, placing }: { offer: Offer; placing: NonNullable<Offer['placing']> }) => {
            const { person, from, to, day, seed, fingerprint } = placing;
            const body = { people: [person], to, day, seed, fingerprint };
            if (from)
                await api.POST('/api/sections/{section}/place', {
                    params: { path: { section: from } },
                    body: { ...body, kind: 'move' },
                });
            else await api.POST('/api/schools/{school}/place', { params: { path: { school: school.id } }, body });
            const ledger = await data(
                api.GET('/api/schools/{school}/ledger', {
                    params: { path: { school: school.id }, query: { about: person } },
                }),
            );
            return { offer, entry: ledger.entries.find((e) => e.action === 'place')?.id };
        },
        {
            then: ({ offer, entry }) =>
                say(`Done: ${offer.label}.`, {
                    ...(entry ? { action: { label: 'Undo', run: () => undoEntry.run(entry) } } : {}),
                }),
            failed: (said) => say(said, { bad: true }),
        },
    );
    const runs = (offer: Offer): (() => void) | undefined => {
        const { path, wall, entry, placing } = offer;
        if (path) return go(path);
        if (wall) return () => void navigate(`/wall/${wall}`, { state: { asked: true } });
        if (entry) return () => setUndoing({ id: entry, title: offer.label.replace(/^Undo: /, '') });
        if (placing) return () => place.run({ offer, placing });
        return undefined;
    };
    const offers = isVerb && asked.toLowerCase() === wanted ? (offered.data?.offers ?? []) : [];
    const found = isVerb
        ? []
        : (sections?.sections ?? []).filter((s) => wanted !== '' && s.name.toLowerCase().includes(wanted)).slice(0, 5);
    const entries: Entry[] = [
        ...offers.map((offer) => {
            const run = runs(offer);
            return {
                id: offer.id,
                label: offer.label,
                detail: '',
                what: offer.why || offer.what,
                ...(run ? { run } : {}),
            };
        }),
        ...found.map((s) => ({
            id: s.id,
            label: s.name,
            detail: `${s.kind}, ${many(s.students, 'student')}`,
            run: go(`sections/${s.id}`),
        })),
        // Somebody may be called as a verb is: only what can be done stands for them.
        ...(offers.some((o) => !o.why) ? [] : (people?.people ?? [])).map((p) => ({
            id: p.id,
            label: p.name,
            detail: [
                p.kind,
                p.grade && `grade ${p.grade}`,
                p.sections,
                school.each?.find((s) => s.id === p.schoolId)?.name,
            ]
                .filter(Boolean)
                .join(', '),
            run: go(`roll?kind=${p.kind}&person=${p.id}`),
        })),
        ...(school.coordinates && !school.each
            ? [
                  { id: 'undo', label: 'Undo the last thing', detail: 'u', run: () => undo.run() },
                  { id: 'intake', label: 'Bring a list in', detail: 'Intake', run: go('intake') },
                  { id: 'cards', label: 'Print cards', detail: 'Print room', run: go('print-room') },
                  { id: 'settings', label: 'Settings of the school', detail: 'Settings', run: go('settings') },
                  { id: 'turn', label: 'Rehearse the year turn', detail: 'Year turn', run: go('year-turn') },
              ].filter((c) => wanted === '' || (offers.length === 0 && c.label.toLowerCase().includes(wanted)))
            : []),
    ];
    return (
        <>
            {undoing && (
                <UndoDialog
                    entry={undoing.id}
                    title={undoing.title}
                    onClose={() => setUndoing(null)}
                    onDone={(said) => {
                        setUndoing(null);
                        say(said);
                    }}
                />
            )}
            <Command shouldFilter={false} loop label="Find or do" className="relative w-full roomy:max-w-[460px]">
                <div className="flex items-center gap-2 border-b border-rule focus-within:border-ink">
                    <kbd aria-hidden="true" className="border border-rule px-1.5 font-mono text-xs text-muted">
                        /
                    </kbd>
                    <Command.Input
                        ref={input}
                        value={text}
                        onValueChange={setText}
                        onFocus={() => setOpen(true)}
                        onBlur={() => setTimeout(() => setOpen(false), 150)}
                        onKeyDown={(event) => {
                            if (event.key === 'Escape') {
                                setText('');
                                input.current?.blur();
                                giveFocusBack();
                            }
                        }}
                        placeholder={
                            school.each
                                ? 'Find anyone at any of these schools'
                                : school.coordinates
                                  ? 'Find anyone, or type what to do'
                                  : 'Find a section'
                        }
                        className="h-8 w-full bg-transparent px-1 text-sm placeholder:text-muted focus-visible:outline-none"
                    />
                </div>
                <Command.List
                    className={
                        open
                            ? 'absolute inset-x-0 top-full z-30 mt-1 max-h-96 overflow-auto border border-ink bg-paper py-1'
                            : 'hidden'
                    }
                    label="Found"
                >
                    <Command.Empty className="px-4 py-2 text-sm text-muted">
                        {looked.error && !people
                            ? `That could not be looked up. ${sentence(looked.error)}`
                            : isVerb && offered.error
                              ? `That could not be looked up. ${sentence(offered.error)}`
                              : asked.length <= 1
                                ? 'Type a name, a number, or what to do.'
                                : looked.isFetching || offered.isFetching
                                  ? 'Looking…'
                                  : 'Nobody and nothing of that name.'}
                    </Command.Empty>
                    {entries.map((entry) => (
                        <Command.Item
                            key={entry.id}
                            value={entry.id}
                            disabled={!entry.run}
                            onSelect={() => {
                                entry.run?.();
                                setText('');
                                setOpen(false);
                                input.current?.blur();
                            }}
                            className="cursor-pointer px-4 py-1.5 text-sm -outline-offset-2 data-[disabled=true]:cursor-default data-[selected=true]:bg-tint data-[selected=true]:outline-2 data-[selected=true]:outline-ink"
                        >
                            <span className="flex items-baseline justify-between gap-4">
                                <span className={entry.run ? '' : 'text-muted'}>{entry.label}</span>
                                <span className="truncate text-xs text-muted">{entry.detail}</span>
                            </span>
                            {entry.what && (
                                <span className={`block text-xs ${entry.run ? 'text-muted' : 'text-madder'}`}>
                                    {entry.what}
                                </span>
                            )}
                        </Command.Item>
                    ))}
                    {wanted === '' && (
                        <p className="border-t border-rule px-4 pb-1 pt-2 text-xs text-muted">
                            {school.coordinates ? 'Or type ' : 'Type a section, or '}
                            {(school.coordinates
                                ? ['cards 7B', 'code 7B', 'move 020417 to 7C', 'merge', 'undo last', '7B as of 1 sep']
                                : ['cards 7B', 'code 7B', '7B as of 1 sep']
                            ).map((example) => (
                                <span key={example} className="mr-3 inline-block font-mono">
                                    {example}
                                </span>
                            ))}
                        </p>
                    )}
                </Command.List>
            </Command>
        </>
    );
}
