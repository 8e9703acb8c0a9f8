import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';
import { NavLink, useLocation, useNavigate, useSearchParams } from 'react-router';
import { api, data } from '@/api/client';
import { Dialog } from '@/ui/Dialog';
import { focusPage } from '@/ui/focus';
import { Glyph } from '@/ui/Glyph';
import { Menu, MenuChoices, MenuItem, MenuRule } from '@/ui/Menu';
import { NoticeLine } from '@/ui/Notice';
import { Progress } from '@/ui/Progress';
import { useStored } from '@/ui/useStored';
import { CommandBox } from './CommandBox';
import { Connection } from './Connection';
import { lettersAct, letLettersAct, useKey, useKeyList } from './keys';
import { ALL, allSchools, type Me, type School, useSignOut } from './session';

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
    {
        path: 'roll',
        name: 'Roll',
        key: 'r',
        loops: ['unplaced', 'transfers', 'left_enrolled', 'number_twice'],
    },
    { path: 'guardians', name: 'Guardians', key: 'u', loops: ['claims', 'guardians_unanswered'] },
    {
        path: 'sections',
        name: 'Sections',
        key: 's',
        loops: ['requests', 'no_lead', 'invitations', 'invitations_expired'],
    },
    { path: 'print-room', name: 'Print room', key: 'p' },
    { path: 'look-alikes', name: 'Look-alikes', key: 'l', loops: ['look_alikes'], gap: true },
    { path: 'year-turn', name: 'Year turn', key: 'y' },
    { path: 'mailroom', name: 'Mailroom', key: 'm', gap: true, loops: ['mail'] },
    { path: 'ledger', name: 'Ledger', key: 'h' },
    { path: 'settings', name: 'Settings', key: 'e', gap: true },
];

/** What there is of all schools at once. */
const OF_ALL = ['desk', 'roll', 'look-alikes'];

const PAPERS = [
    { value: 'system', label: 'as the system' },
    { value: 'light', label: 'light' },
    { value: 'dark', label: 'dark' },
] as const;

export function Frame({ me, school, children }: { me: Me; school: School; children: ReactNode }) {
    const one = school.each === undefined;
    const all = allSchools(me);
    const navigate = useNavigate();
    const location = useLocation();
    const [search] = useSearchParams();
    const shownYear = school.years.find((y) => y.id === search.get('year')) ?? null;
    const past = shownYear !== null && shownYear.state === 'closed';
    const [list, setList] = useState(false);
    const [letters, setLetters] = useState(lettersAct);
    const [theme, setTheme] = useStored<'system' | 'light' | 'dark'>('theme', 'system');
    const keys = useKeyList();
    const [areasOpen, setAreasOpen] = useState(false);
    const signOut = useSignOut();
    if (theme === 'system') delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = theme;
    const { data: desk } = useQuery({
        queryKey: ['desk', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/desk', { params: { path: { school: school.id } } })),
        enabled: one && school.coordinates,
        refetchInterval: 30_000,
    });
    const { data: desks } = useQuery({
        queryKey: ['desks'],
        queryFn: () => data(api.GET('/api/schools/{realm}/desks', { params: { path: { realm: ALL } } })),
        enabled: !one,
        refetchInterval: 30_000,
    });
    const waiting = one
        ? (desk?.loops ?? []).map((l) => ({ key: l.key, count: l.count }))
        : (desks?.loops ?? []).map((l) => ({ key: l.key, count: l.total }));
    const { data: intakes } = useQuery({
        queryKey: ['intakes', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/intakes', { params: { path: { school: school.id } } })),
        enabled: one && school.coordinates,
        refetchInterval: (query) =>
            query.state.data?.intakes.some((i) => i.state === 'applying' || i.state === 'reading') ? 1_000 : 20_000,
    });
    const running = intakes?.intakes.find((i) => i.state === 'applying');
    const areas = AREAS.filter((a) => (one ? school.coordinates || a.path === 'sections' : OF_ALL.includes(a.path)));
    useKey('?', 'This list', () => setList(true));
    usePageTitle(school.name);
    // Where what was pressed to come here is gone, the keyboard goes on at the new page.
    useEffect(() => {
        setAreasOpen(false);
        const frame = requestAnimationFrame(focusPage);
        return () => cancelAnimationFrame(frame);
    }, [location.pathname]);
    const count = (area: Area) => {
        if (area.path === 'desk') return waiting.length;
        const across = area.path === 'look-alikes' ? (desks?.acrossLookAlikes ?? 0) : 0;
        return waiting.filter((l) => area.loops?.includes(l.key)).reduce((n, l) => n + l.count, across);
    };

    return (
        <div className="flex min-h-full flex-col roomy:h-full">
            <a href="#sheet" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2">
                Skip to the sheet
            </a>
            <header
                id="top"
                className={`flex shrink-0 items-center justify-between gap-x-6 gap-y-1 border-b border-ink px-5 roomy:h-[46px] cramped:flex-wrap cramped:py-2 ${past ? 'bg-tint' : ''}`}
            >
                <Menu
                    trigger={
                        <button
                            className="flex shrink-0 flex-wrap items-baseline gap-x-2 text-left cramped:shrink"
                            aria-label={
                                one
                                    ? `School and year: ${school.name}, ${shownYear?.name ?? school.year}`
                                    : `School and year: ${school.name}`
                            }
                        >
                            <span className="font-serif text-lg font-semibold">{school.name}</span>
                            <span className="text-sm text-muted">{shownYear?.name ?? school.year}</span>
                            {past && <Glyph name="archived" />}
                        </button>
                    }
                >
                    {school.years.length > 1 &&
                        school.years.map((y) => (
                            <MenuItem
                                key={y.id}
                                onSelect={() =>
                                    void navigate(
                                        y.state === 'current'
                                            ? `/s/${school.code}/sections`
                                            : `/s/${school.code}/sections?year=${y.id}`,
                                    )
                                }
                            >
                                <span className={y.name === (shownYear?.name ?? school.year) ? 'font-semibold' : ''}>
                                    Sections of {y.name}
                                </span>
                                <span className="text-muted">{y.state === 'closed' ? 'archived' : y.state}</span>
                            </MenuItem>
                        ))}
                    {school.years.length > 1 && <MenuRule />}
                    {all && (
                        <MenuItem onSelect={() => void navigate(`/s/${ALL}/desk`)}>
                            <span className={one ? '' : 'font-semibold'}>{all.name}</span>
                        </MenuItem>
                    )}
                    {me.schools.map((s) => (
                        <MenuItem
                            key={s.id}
                            onSelect={() => void navigate(`/s/${s.code}/${s.coordinates ? 'desk' : 'sections'}`)}
                        >
                            <span className={s.id === school.id ? 'font-semibold' : ''}>{s.name}</span>
                            <span className="text-muted">{s.year}</span>
                        </MenuItem>
                    ))}
                </Menu>
                <CommandBox school={school} />
                <div className="flex shrink-0 flex-wrap items-center gap-x-6 cramped:shrink">
                    {running && <Progress label={running.title} done={running.done} total={running.total} />}
                    <Menu align="end" trigger={<button className="text-base">{me.name}</button>}>
                        <MenuChoices label="Paper" value={theme} options={PAPERS} onChoose={setTheme} />
                        <MenuRule />
                        <MenuItem onSelect={() => setList(true)}>
                            Keys <kbd className="font-mono text-muted">?</kbd>
                        </MenuItem>
                        {me.children > 0 && (
                            <MenuItem onSelect={() => void navigate('/children')}>Your children</MenuItem>
                        )}
                        <MenuItem onSelect={() => void navigate('/account')}>How you sign in</MenuItem>
                        <MenuItem onSelect={signOut}>Sign out</MenuItem>
                    </Menu>
                </div>
            </header>
            <Connection />
            <div className="split">
                <nav
                    aria-label="Areas"
                    className="shrink-0 roomy:w-[176px] roomy:overflow-auto roomy:border-r roomy:border-rule roomy:py-3 cramped:border-b cramped:border-rule"
                >
                    <button
                        aria-expanded={areasOpen}
                        aria-controls="areas"
                        className="flex min-h-9 w-full items-center justify-between px-5 text-left roomy:hidden"
                        onClick={() => setAreasOpen(!areasOpen)}
                    >
                        <span className="font-semibold">
                            {areas.find((a) => a.path === location.pathname.split('/')[3])?.name ?? 'Areas'}
                        </span>
                        <span className="text-sm text-muted">{areasOpen ? 'close the areas' : 'all areas'}</span>
                    </button>
                    <ul id="areas" className={areasOpen ? 'cramped:pb-2' : 'cramped:hidden'}>
                        {areas.map((area) => (
                            <li
                                key={area.path}
                                className={
                                    area.gap
                                        ? 'before:mx-5 before:block before:border-t before:border-rule roomy:mt-3 roomy:pt-3 roomy:before:-mt-3 roomy:before:mb-3'
                                        : ''
                                }
                            >
                                <AreaKey area={area} go={() => void navigate(`/s/${school.code}/${area.path}`)} />
                                <NavLink
                                    to={`/s/${school.code}/${area.path}`}
                                    className={({ isActive }) =>
                                        `flex items-baseline justify-between border-l-[3px] py-[5px] pl-5 pr-4 ${isActive ? 'border-marigold font-semibold' : 'border-unseen hover:border-rule'}`
                                    }
                                >
                                    {area.name}
                                    {count(area) > 0 && (
                                        <span className="font-mono text-xs font-normal text-muted">
                                            <span aria-hidden="true">{count(area)}</span>
                                            <span className="sr-only">, {count(area)} open</span>
                                        </span>
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
                    className="page outline-none focus-visible:shadow-none"
                >
                    {children}
                </main>
            </div>
            <NoticeLine />
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
