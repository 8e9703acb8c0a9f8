import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data, type Schemas, sentence } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { day } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { Downloads } from '@/ui/Downloads';
import { Empty } from '@/ui/Empty';
import { useNotice } from '@/ui/Notice';
import { State } from '@/ui/State';
import { CodePanel } from './CodePanel';
import { StaffPanel } from './StaffPanel';
import { printCards } from '../print-room/printCards';

/** One section: its roster at the left; code, staff and invitations at the right. */
export function SectionPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    const [archiving, setArchiving] = useState<Schemas['PlanView'] | null>(null);
    const path = { params: { path: { section: id } } };
    const { data: section, error } = useQuery({
        queryKey: ['section', id],
        queryFn: () => data(api.GET('/api/sections/{section}', path)),
        // An invitation answered elsewhere, a student who came in: seen without reloading.
        refetchInterval: 3_000,
    });
    const refresh = () => queries.invalidateQueries({ queryKey: ['section', id] });
    const print = async () => {
        try {
            await printCards(`/api/sections/${id}/cards`, { person_ids: [...selected], layout: 'cards-a4', order: 'reading' });
            await refresh();
        } catch (e) {
            say(sentence(e), { bad: true });
        }
    };
    const remove = async () => {
        try {
            for (const person of selected) {
                await api.DELETE('/api/sections/{section}/people/{person}', { params: { path: { section: id, person } } });
            }
            say(`${selected.size} taken out as of today. The Ledger can bring them back.`);
            setSelected(new Set());
        } catch (e) {
            say(sentence(e), { bad: true });
        }
        await refresh();
    };
    const askArchive = async () => {
        try {
            setArchiving(await data(api.GET('/api/sections/{section}/archive', path)));
        } catch (e) {
            say(sentence(e), { bad: true });
        }
    };
    const archive = async () => {
        if (!archiving) return;
        try {
            await api.POST('/api/sections/{section}/archive', {
                ...path,
                body: { seed: archiving.seed, fingerprint: archiving.fingerprint },
            });
            setArchiving(null);
            await queries.invalidateQueries();
            say('Archived. The Ledger can undo it.');
        } catch (e) {
            setArchiving(null);
            say(sentence(e), { bad: true });
            await refresh();
        }
    };
    useKey('p', 'Print cards', () => void print(), Boolean(section?.roster.length));
    useKey('w', 'Code on the wall', () => void navigate(`/wall/${id}`), Boolean(section?.hasCode && section.canTeach));
    if (error)
        return (
            <Empty title="This section is not here">
                It is not one of yours, or it is gone.{' '}
                <Link className="underline" to={`/s/${school.code}/sections`}>
                    Back to the sections
                </Link>
            </Empty>
        );
    if (!section) return null;
    const archived = section.state === 'archived';
    return (
        <div className="flex min-h-0 flex-1 flex-col">
            <header
                className={`flex flex-wrap items-end justify-between gap-4 border-b border-rule px-6 py-4 ${archived ? 'bg-tint' : ''}`}
            >
                <div>
                    <h1 className="text-2xl">{section.name}</h1>
                    <p className="text-sm text-muted">
                        {section.kind}
                        {section.grade && `, grade ${section.grade}`}, {section.year}, {section.roster.length} students
                        {archived && section.archivedOn && (
                            <span className="ml-3 text-ink">
                                <State
                                    name="archived"
                                    word={`archived ${day(section.archivedOn)}: it can be read and cards can be printed, nothing else`}
                                />
                            </span>
                        )}
                    </p>
                </div>
                <div className="flex items-center gap-3">
                    <Downloads
                        label="Roster as"
                        href={(format) => `/api/sections/${id}/roster?format=${format}`}
                        formats={['xlsx', 'ods', 'csv']}
                    />
                    <Button onClick={() => void print()} disabled={section.roster.length === 0}>
                        Print {selected.size > 0 ? `${selected.size} ${selected.size === 1 ? 'card' : 'cards'}` : 'cards'}
                    </Button>
                    {selected.size > 0 && section.canTeach && (
                        <Button onClick={() => void remove()}>Take {selected.size} out</Button>
                    )}
                    {section.canArchive && <Button onClick={() => void askArchive()}>Archive</Button>}
                </div>
            </header>
            <div className="flex min-h-0 flex-1">
                <DataTable
                    label={`Roster of ${section.name}`}
                    name="roster"
                    rows={section.roster}
                    id={(s) => s.id}
                    selected={selected}
                    onSelect={setSelected}
                    {...(school.coordinates
                        ? {
                              onOpen: (s: Schemas['RosterLine']) =>
                                  void navigate(`/s/${school.code}/roll?kind=student&person=${s.id}`),
                          }
                        : {})}
                    empty={
                        <Empty title="Nobody is in this section yet">
                            Show the code on the wall and let students come in, or bring in a list that names this section.
                        </Empty>
                    }
                    foot={`${section.roster.filter((s) => s.signedIn).length} of ${section.roster.length} have signed in, ${section.roster.filter((s) => s.hasCard).length} have a card, ${section.roster.filter((s) => s.hasGuardian).length} have a guardian on record`}
                    columns={[
                        { id: 'name', label: 'Name', value: (s) => s.name, width: 'minmax(150px, 2fr)' },
                        {
                            id: 'user',
                            label: 'User name',
                            value: (s) => s.userName,
                            cell: (s) => <span className="font-mono">{s.userName}</span>,
                            width: 'minmax(140px, 1.6fr)',
                        },
                        { id: 'since', label: 'Since', value: (s) => s.begins, cell: (s) => day(s.begins), width: '110px' },
                        { id: 'source', label: 'Came by', value: (s) => s.source, width: '84px' },
                        { id: 'signed', label: 'Signed in', value: (s) => (s.signedIn ? 'yes' : 'never'), width: '84px' },
                        { id: 'card', label: 'Card', value: (s) => (s.hasCard ? 'yes' : 'none'), width: '66px' },
                    ]}
                />
                {section.canTeach && (
                    <aside
                        aria-label="Code and staff"
                        className="w-[340px] shrink-0 overflow-auto border-l border-rule px-5 py-4"
                    >
                        <CodePanel section={section} onChange={refresh} />
                        <StaffPanel section={section} onChange={refresh} />
                    </aside>
                )}
                {!section.canTeach && (
                    <aside aria-label="Staff" className="w-[260px] shrink-0 overflow-auto border-l border-rule px-5 py-4">
                        <StaffPanel section={section} onChange={refresh} />
                    </aside>
                )}
            </div>
            <Dialog open={archiving !== null} onClose={() => setArchiving(null)} title={archiving?.title ?? ''}>
                <p>{archiving?.sentence}</p>
                <p className="mt-2 text-sm text-muted">Can be undone until {archiving && day(archiving.undoUntil)}.</p>
                <div className="mt-5 flex justify-end gap-3">
                    <Button onClick={() => setArchiving(null)}>Leave it open</Button>
                    <Button kind="primary" onClick={() => void archive()}>
                        Archive {section.name}
                    </Button>
                </div>
            </Dialog>
        </div>
    );
}
