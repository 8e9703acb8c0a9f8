import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { type ReactNode, useEffect, useState } from 'react';
import { NavLink, useLocation, useNavigate, useSearchParams } from 'react-router';
import { api, data } from '@/api/client';
import { Dialog } from '@/ui/Dialog';
import { focusPage } from '@/ui/focus';
import { Glyph } from '@/ui/Glyph';
import { Progress } from '@/ui/Progress';
import { useStored } from '@/ui/useStored';
import { CommandBox } from './CommandBox';
import { Connection } from './Connection';
import { lettersAct, letLettersAct, useKey, useKeyList } from './keys';
import { type Me, type School, useSignOut } from './session';

interface Area {
    path: string;
    name: string;
    key: string;
    /** Open loops of the Desk that are worked on here. */
    loops?: string[];
    gap?: boolean;
}

const AREAS: Area[] = [
    { path: 'desk', name: 'Desk', key: 'd' },
    { path: 'intake', name: 'Intake', key: 'i', loops: ['intakes'], gap: true },
    { path: 'roll', name: 'Roll', key: 'r', loops: ['unplaced', 'transfers'] },
    {
        path: 'sections',
        name: 'Sections',
        key: 's',
        loops: ['requests', 'no_lead', 'invitations', 'invitations_expired'],
    },
    { path: 'print-room', name: 'Print room', key: 'p' },
    { path: 'look-alikes', name: 'Look-alikes', key: 'l', loops: ['look_alikes'], gap: true },
    { path: 'year-turn', name: 'Year turn', key: 'y' },
    { path: 'mailroom', name: 'Mailroom', key: 'm', gap: true },
    { path: 'ledger', name: 'Ledger', key: 'h' },
    { path: 'settings', name: 'Settings', key: 'e', gap: true },
];

export function Frame({ me, school, children }: { me: Me; school: School; children: ReactNode }) {
    const navigate = useNavigate();
    const location = useLocation();
    const [search] = useSearchParams();
    const shownYear = school.years.find((y) => y.id === search.get('year')) ?? null;
    const past = shownYear !== null && shownYear.state === 'closed';
    const [list, setList] = useState(false);
    const [letters, setLetters] = useState(lettersAct);
    const [theme, setTheme] = useStored<'system' | 'light' | 'dark'>('theme', 'system');
    const keys = useKeyList();
    const signOut = useSignOut();
    if (theme === 'system') delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = theme;
    const { data: desk } = useQuery({
        queryKey: ['desk', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/desk', { params: { path: { school: school.id } } })),
        enabled: school.coordinates,
        refetchInterval: 30_000,
    });
    const { data: intakes } = useQuery({
        queryKey: ['intakes', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/intakes', { params: { path: { school: school.id } } })),
        enabled: school.coordinates,
        refetchInterval: (query) =>
            query.state.data?.intakes.some((i) => i.state === 'applying' || i.state === 'reading') ? 1_000 : 20_000,
    });
    const running = intakes?.intakes.find((i) => i.state === 'applying');
    const areas = school.coordinates ? AREAS : AREAS.filter((a) => a.path === 'sections');
    useKey('?', 'This list', () => setList(true));
    usePageTitle(school.name);
    // Where what was pressed to come here is gone, the keyboard goes on at the new page.
    useEffect(() => {
        const frame = requestAnimationFrame(focusPage);
        return () => cancelAnimationFrame(frame);
    }, [location.pathname]);
    const count = (area: Area) => {
        if (area.path === 'desk') return desk?.loops.length ?? 0;
        return desk?.loops.filter((l) => area.loops?.includes(l.key)).reduce((n, l) => n + l.count, 0) ?? 0;
    };

    return (
        <div className="flex h-full flex-col">
            <a href="#sheet" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2">
                Skip to the sheet
            </a>
            <header
                className={`flex h-[46px] shrink-0 items-center justify-between gap-6 border-b border-ink px-5 ${past ? 'bg-tint' : ''}`}
            >
                <DropdownMenu.Root>
                    <DropdownMenu.Trigger
                        className="flex shrink-0 items-baseline gap-2 text-left"
                        aria-label={`School and year: ${school.name}, ${shownYear?.name ?? school.year}`}
                    >
                        <span className="font-serif text-lg font-semibold">{school.name}</span>
                        <span className="text-sm text-muted">{shownYear?.name ?? school.year}</span>
                        {past && <Glyph name="archived" />}
                    </DropdownMenu.Trigger>
                    <DropdownMenu.Portal>
                        <DropdownMenu.Content
                            align="start"
                            sideOffset={8}
                            className="z-30 min-w-64 border border-ink bg-paper py-1"
                        >
                            {school.years.length > 1 &&
                                school.years.map((y) => (
                                    <DropdownMenu.Item
                                        key={y.id}
                                        onSelect={() =>
                                            void navigate(
                                                y.state === 'current'
                                                    ? `/s/${school.code}/sections`
                                                    : `/s/${school.code}/sections?year=${y.id}`,
                                            )
                                        }
                                        className="flex cursor-pointer items-baseline justify-between gap-6 px-4 py-1.5 outline-none data-[highlighted]:bg-tint"
                                    >
                                        <span
                                            className={
                                                y.name === (shownYear?.name ?? school.year) ? 'font-semibold' : ''
                                            }
                                        >
                                            Sections of {y.name}
                                        </span>
                                        <span className="text-sm text-muted">
                                            {y.state === 'closed' ? 'archived' : y.state}
                                        </span>
                                    </DropdownMenu.Item>
                                ))}
                            {school.years.length > 1 && (
                                <DropdownMenu.Separator className="my-1 border-t border-rule" />
                            )}
                            {me.schools.map((s) => (
                                <DropdownMenu.Item
                                    key={s.id}
                                    onSelect={() =>
                                        void navigate(`/s/${s.code}/${s.coordinates ? 'desk' : 'sections'}`)
                                    }
                                    className="flex cursor-pointer items-baseline justify-between gap-6 px-4 py-1.5 outline-none data-[highlighted]:bg-tint"
                                >
                                    <span className={s.id === school.id ? 'font-semibold' : ''}>{s.name}</span>
                                    <span className="text-sm text-muted">{s.year}</span>
                                </DropdownMenu.Item>
                            ))}
                        </DropdownMenu.Content>
                    </DropdownMenu.Portal>
                </DropdownMenu.Root>
                <CommandBox school={school} />
                <div className="flex shrink-0 items-center gap-6">
                    {running && <Progress label={running.title} done={running.done} total={running.total} />}
                    <DropdownMenu.Root>
                        <DropdownMenu.Trigger className="text-base">{me.name}</DropdownMenu.Trigger>
                        <DropdownMenu.Portal>
                            <DropdownMenu.Content
                                align="end"
                                sideOffset={8}
                                className="z-30 min-w-52 border border-ink bg-paper py-1 text-sm"
                            >
                                <DropdownMenu.Label className="px-4 pt-1 text-xs text-muted">Paper</DropdownMenu.Label>
                                <DropdownMenu.RadioGroup
                                    value={theme}
                                    onValueChange={(v) => setTheme(v as typeof theme)}
                                >
                                    {(['system', 'light', 'dark'] as const).map((t) => (
                                        <DropdownMenu.RadioItem
                                            key={t}
                                            value={t}
                                            className="flex cursor-pointer justify-between px-4 py-1 outline-none data-[highlighted]:bg-tint"
                                        >
                                            {{ system: 'as the system', light: 'light', dark: 'dark' }[t]}
                                            <DropdownMenu.ItemIndicator>·</DropdownMenu.ItemIndicator>
                                        </DropdownMenu.RadioItem>
                                    ))}
                                </DropdownMenu.RadioGroup>
                                <DropdownMenu.Separator className="my-1 border-t border-rule" />
                                <DropdownMenu.Item
                                    onSelect={() => setList(true)}
                                    className="flex cursor-pointer justify-between px-4 py-1.5 outline-none data-[highlighted]:bg-tint"
                                >
                                    Keys <kbd className="font-mono text-muted">?</kbd>
                                </DropdownMenu.Item>
                                <DropdownMenu.Item
                                    onSelect={() => void navigate('/account')}
                                    className="cursor-pointer px-4 py-1.5 outline-none data-[highlighted]:bg-tint"
                                >
                                    How you sign in
                                </DropdownMenu.Item>
                                <DropdownMenu.Item
                                    onSelect={signOut}
                                    className="cursor-pointer px-4 py-1.5 outline-none data-[highlighted]:bg-tint"
                                >
                                    Sign out
                                </DropdownMenu.Item>
                            </DropdownMenu.Content>
                        </DropdownMenu.Portal>
                    </DropdownMenu.Root>
                </div>
            </header>
            <Connection />
            <div className="flex min-h-0 flex-1">
                <nav
                    aria-label="Areas"
                    className="w-[176px] shrink-0 overflow-auto border-r border-rule py-3 max-md:w-[118px]"
                >
                    <ul>
                        {areas.map((area) => (
                            <li
                                key={area.path}
                                className={
                                    area.gap
                                        ? 'mx-0 mt-3 border-t border-transparent pt-3 before:mx-5 before:-mt-3 before:mb-3 before:block before:border-t before:border-rule'
                                        : ''
                                }
                            >
                                <AreaKey area={area} go={() => void navigate(`/s/${school.code}/${area.path}`)} />
                                <NavLink
                                    to={`/s/${school.code}/${area.path}`}
                                    className={({ isActive }) =>
                                        `flex items-baseline justify-between border-l-[3px] py-[5px] pl-5 pr-4 ${isActive ? 'border-marigold font-semibold' : 'border-transparent hover:border-rule'}`
                                    }
                                >
                                    {area.name}
                                    {count(area) > 0 && (
                                        <span className="font-mono text-xs font-normal text-muted">{count(area)}</span>
                                    )}
                                </NavLink>
                            </li>
                        ))}
                    </ul>
                </nav>
                <main
                    id="sheet"
                    tabIndex={-1}
                    key={school.id + location.pathname.split('/')[3]}
                    className="flex min-w-0 flex-1 flex-col outline-none"
                >
                    {children}
                </main>
            </div>
            <Dialog open={list} onClose={() => setList(false)} title="Keys">
                <label className="mb-4 flex min-h-8 items-center gap-2 text-sm">
                    <input
                        type="checkbox"
                        className="size-4 accent-ink"
                        checked={letters}
                        onChange={(event) => {
                            letLettersAct(event.target.checked);
                            setLetters(event.target.checked);
                        }}
                    />
                    Single letters, figures and signs are keys
                </label>
                <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1 text-sm">
                    {list &&
                        keys().map((key) => (
                            <div key={key.combo} className="contents">
                                <dt>
                                    <kbd className="border border-rule px-1.5 font-mono">{key.combo}</kbd>
                                </dt>
                                <dd>{key.label}</dd>
                            </div>
                        ))}
                </dl>
            </Dialog>
        </div>
    );
}

/** The title of the window is the heading of the page, whichever page it is. */
function usePageTitle(school: string): void {
    useEffect(() => {
        document.documentElement.lang = 'en';
        const name = () => {
            const heading = document.querySelector('#sheet h1')?.textContent?.trim();
            const title = heading ? `${heading} – ${school}` : school;
            if (document.title !== title) document.title = title;
        };
        name();
        const observer = new MutationObserver(name);
        observer.observe(document.body, { childList: true, subtree: true, characterData: true });
        return () => observer.disconnect();
    }, [school]);
}

function AreaKey({ area, go }: { area: Area; go: () => void }) {
    useKey(`g ${area.key}`, `Go to ${area.name}`, go);
    return null;
}
