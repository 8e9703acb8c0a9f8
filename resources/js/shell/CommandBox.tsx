import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, sentence } from '@/api/client';
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
    run: () => void;
}

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
            data(
                api.GET('/api/schools/{school}/find', { params: { path: { school: school.id }, query: { q: asked } } }),
            ),
        enabled: school.coordinates && asked.length > 1 && open,
    });
    const people = looked.data;
    const { data: sections } = useQuery({
        queryKey: ['sections', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
        enabled: open,
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
    useKey('u', 'Undo the last thing, once looked at', () => undo.run(), school.coordinates);
    const go = (path: string) => () => void navigate(`/s/${school.code}/${path}`);
    const wanted = text.trim().toLowerCase();
    const verb = /^(code|cards|archive)\s+(.+)$/.exec(wanted);
    const named = verb?.[2] ?? wanted;
    const found = (sections?.sections ?? [])
        .filter((s) => named !== '' && s.name.toLowerCase().includes(named))
        .slice(0, 5);
    const entries: Entry[] = [
        ...found.map((s) =>
            verb?.[1] === 'cards' && school.coordinates
                ? {
                      id: `cards ${s.id}`,
                      label: `Cards for ${s.name}`,
                      detail: many(s.students, 'student'),
                      run: go(`print-room?sections=${s.id}`),
                  }
                : verb?.[1] === 'code'
                  ? {
                        id: `code ${s.id}`,
                        label: `Code of ${s.name} on the wall`,
                        detail: '',
                        run: () => void navigate(`/wall/${s.id}`, { state: { asked: true } }),
                    }
                  : {
                        id: s.id,
                        label: s.name,
                        detail: `${s.kind}, ${many(s.students, 'student')}`,
                        run: go(`sections/${s.id}`),
                    },
        ),
        ...(verb ? [] : (people?.people ?? [])).map((p) => ({
            id: p.id,
            label: p.name,
            detail: [p.kind, p.grade && `grade ${p.grade}`, p.sections].filter(Boolean).join(', '),
            run: go(`roll?kind=${p.kind}&person=${p.id}`),
        })),
        ...(school.coordinates
            ? [
                  { id: 'undo', label: 'Undo the last thing', detail: 'u', run: () => undo.run() },
                  { id: 'intake', label: 'Bring a list in', detail: 'Intake', run: go('intake') },
                  { id: 'cards', label: 'Print cards', detail: 'Print room', run: go('print-room') },
                  { id: 'settings', label: 'Settings of the school', detail: 'Settings', run: go('settings') },
                  { id: 'turn', label: 'Rehearse the year turn', detail: 'Year turn', run: go('year-turn') },
              ].filter((c) => wanted === '' || c.label.toLowerCase().includes(wanted))
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
                        placeholder={school.coordinates ? 'Find anyone, or type what to do' : 'Find a section'}
                        className="h-8 w-full bg-transparent text-sm placeholder:text-muted focus-visible:outline-none"
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
                            : asked.length <= 1
                              ? 'Type a name, a number, or “code 7B”.'
                              : looked.isFetching
                                ? 'Looking…'
                                : 'Nobody and nothing of that name.'}
                    </Command.Empty>
                    {entries.map((entry) => (
                        <Command.Item
                            key={entry.id}
                            value={entry.id}
                            onSelect={() => {
                                entry.run();
                                setText('');
                                setOpen(false);
                                input.current?.blur();
                            }}
                            className="flex cursor-pointer items-baseline justify-between gap-4 px-4 py-1.5 text-sm -outline-offset-2 data-[selected=true]:bg-tint data-[selected=true]:outline-2 data-[selected=true]:outline-ink"
                        >
                            <span>{entry.label}</span>
                            <span className="truncate text-xs text-muted">{entry.detail}</span>
                        </Command.Item>
                    ))}
                </Command.List>
            </Command>
        </>
    );
}
