import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { live } from '@/api/live';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { day, lastDay, undoable } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Downloads } from '@/ui/Downloads';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { State } from '@/ui/State';
import { usePlan } from '@/ui/usePlan';
import { many } from '@/ui/words';
import { CodePanel } from './CodePanel';
import { MoveDialog } from './MoveDialog';
import { RequestsPanel } from './RequestsPanel';
import { ClaimReserve, MakeReserves } from './Reserves';
import { RoomPassPanel } from './RoomPassPanel';
import { SectionForm, wishBody } from './SectionForm';
import { SectionMenu } from './SectionMenu';
import { StaffPanel } from './StaffPanel';
import { usePrint } from '../print-room/usePrint';

/** One section: its roster at the left; the door, code, room pass, staff and invitations at the right. */
export function SectionPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const say = useNotice();
    const [search, setSearch] = useSearchParams();
    const asOf = search.get('as_of') ?? '';
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    const [dialog, setDialog] = useState<'move' | 'edit' | 'reserves' | 'archive' | null>(null);
    // The command box leads here with the question already put.
    const archiving = dialog === 'archive' || search.get('do') === 'archive';
    const leaveOpen = () => {
        setDialog(null);
        if (search.has('do')) setSearch({}, { replace: true });
    };
    const [claiming, setClaiming] = useState<Schemas['RosterLine'] | null>(null);
    const path = { params: { path: { section: id } } };
    const asked = useQuery({
        queryKey: ['section', id, asOf],
        queryFn: () =>
            data(
                api.GET('/api/sections/{section}', {
                    params: { path: { section: id }, query: asOf ? { as_of: asOf } : {} },
                }),
            ),
        // An invitation answered elsewhere, a student who came in: seen without reloading.
        refetchInterval: asOf ? false : live(3_000),
        placeholderData: (before) => before,
    });
    const section = asked.data;
    const refresh = () => queries.invalidateQueries({ queryKey: ['section', id] });
    const may = (power: string) => section?.powers.includes(power) === true;
    const failed = (said: string) => {
        say(said, { bad: true });
        void refresh();
    };
    const print = usePrint(
        () =>
            data(
                api.POST('/api/sections/{section}/cards', {
                    ...path,
                    body: { person_ids: [...selected], layout: 'cards-a4', order: 'reading' },
                }),
            ),
        { stale: [['section', id]], failed },
    );
    const archive = usePlan({
        key: ['archive', id],
        ready: archiving,
        look: () => data(api.GET('/api/sections/{section}/archive', path)),
        apply: (seen) => api.POST('/api/sections/{section}/archive', { ...path, body: seen }),
        then: () => {
            leaveOpen();
            say('Archived. You can undo this in the Ledger.');
        },
    });
    const forgetPictures = useAct(
        (person: string) =>
            api.DELETE('/api/sections/{section}/people/{person}/pictures', {
                params: { path: { section: id, person } },
            }),
        {
            stale: [['section', id]],
            then: () => say('Forgotten: the child chooses three pictures again.'),
            failed,
        },
    );
    useKey('p', 'Print cards', () => print.run(), Boolean(section?.roster.length));
    useKey('m', 'Move selected students', () => setDialog('move'), selected.size > 0 && may('place_students'));
    useKey('e', 'Change the section', () => setDialog('edit'), may('edit_section'));
    useKey(
        'w',
        'Code on the wall',
        () => void navigate(`/wall/${id}`, { state: { asked: true } }),
        section?.hasCode === true && may('use_code'),
    );
    if (!section)
        return (
            <Instead
                of={asked}
                what="the section"
                gone="It is not one of your sections, or it has been removed."
                way={
                    <Link className="underline" to={`/s/${school.code}/sections`}>
                        Back to the sections
                    </Link>
                }
            />
        );
    const archived = section.state === 'archived';
    const other = !section.today;
    const students = section.roster.filter((s) => !s.reserve);
    const clashes = section.roster.filter((s) => s.clash).length;
    return (
        <div className="page">
            <header
                className={`flex flex-wrap items-end justify-between gap-4 border-b border-rule px-6 py-4 ${archived || other ? 'bg-tint' : ''}`}
            >
                <div>
                    <h1 className="text-2xl">{section.name}</h1>
                    <p className="text-sm text-muted">
                        {[
                            section.kind,
                            section.grade && `grade ${section.grade}`,
                            section.period && `period ${section.period}`,
                            section.year,
                            section.seats === null
                                ? many(students.length, 'student')
                                : `${students.length} of ${section.seats} seats taken`,
                        ]
                            .filter(Boolean)
                            .join(', ')}
                        {archived && section.archivedOn && (
                            <span className="ml-3 text-ink">
                                <State
                                    name="archived"
                                    word={`archived ${day(section.archivedOn)}: read-only; cards can still be printed`}
                                />
                            </span>
                        )}
                    </p>
                </div>
                <div className="flex flex-wrap items-center gap-3">
                    <label className="flex items-center gap-2 text-sm">
                        <span className={other ? 'font-semibold' : 'text-muted'}>
                            {other ? 'Roster of' : 'Roster of today'}
                        </span>
                        <input
                            type="date"
                            aria-label="Roster as of"
                            value={section.asOf}
                            onChange={(event) => {
                                setSelected(new Set());
                                setSearch(event.target.value ? { as_of: event.target.value } : {}, { replace: true });
                            }}
                            className="min-h-8 rounded-card border border-ink/60 bg-paper px-2 text-sm"
                        />
                    </label>
                    {other && <Button onClick={() => setSearch({}, { replace: true })}>Back to today</Button>}
                    <Downloads
                        label="Roster as"
                        href={(format) => `/api/sections/${id}/roster?format=${format}&as_of=${section.asOf}`}
                        formats={['xlsx', 'ods', 'csv']}
                    />
                    {!other && (
                        <Button onClick={() => print.run()} disabled={section.roster.length === 0}>
                            Print{' '}
                            {selected.size > 0 ? `${selected.size} ${selected.size === 1 ? 'card' : 'cards'}` : 'cards'}
                        </Button>
                    )}
                    {!other && selected.size > 0 && may('place_students') && (
                        <Button kind="primary" onClick={() => setDialog('move')}>
                            Move {selected.size}
                        </Button>
                    )}
                    <SectionMenu school={school} id={id} may={may} onChoose={setDialog} />
                </div>
            </header>
            <div className="split">
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
                                  s.reserve
                                      ? setClaiming(s)
                                      : void navigate(`/s/${school.code}/roll?kind=student&person=${s.id}`),
                          }
                        : {})}
                    empty={
                        other ? (
                            <Empty title={`Nobody was in this section on ${day(section.asOf)}`} />
                        ) : (
                            <Empty title="Nobody is in this section yet">
                                Show the code on the wall and let students come in, or bring in a list that names this
                                section.
                            </Empty>
                        )
                    }
                    foot={`${students.filter((s) => s.signedIn).length} of ${students.length} have signed in, ${students.filter((s) => s.hasCard).length} have a card, ${students.filter((s) => s.hasGuardian).length} have a guardian on record${clashes > 0 ? `, ${clashes} with a clash` : ''}`}
                    columns={[
                        {
                            id: 'name',
                            label: 'Name',
                            value: (s) => s.name,
                            cell: (s) => (
                                <span className="flex items-baseline gap-2">
                                    <span className={s.reserve ? 'text-muted' : ''}>{s.name}</span>
                                    {s.clash && (
                                        <span
                                            className="truncate text-xs text-muted"
                                            title={`Also in ${s.clash} at the same period`}
                                        >
                                            <State name="ask" word={`also ${s.clash}`} />
                                        </span>
                                    )}
                                    {s.reserve && may('place_students') && (
                                        <button
                                            className="text-xs underline underline-offset-4"
                                            onClick={(event) => {
                                                event.stopPropagation();
                                                setClaiming(s);
                                            }}
                                        >
                                            assign to a student
                                        </button>
                                    )}
                                </span>
                            ),
                            width: 'minmax(150px, 1.8fr)',
                        },
                        {
                            id: 'user',
                            label: 'User name',
                            value: (s) => s.userName,
                            cell: (s) => <span className="font-mono">{s.userName}</span>,
                            width: 'minmax(150px, 1.8fr)',
                        },
                        {
                            id: 'since',
                            label: 'Enrolled',
                            value: (s) => s.begins,
                            cell: (s) => (s.ends ? `to ${lastDay(s.ends)}` : `since ${day(s.begins)}`),
                            width: '122px',
                        },
                        { id: 'source', label: 'Joined by', value: (s) => s.source, width: '76px' },
                        {
                            id: 'signed',
                            label: 'Signed in',
                            value: (s) => (s.signedIn ? 'yes' : 'never'),
                            width: '76px',
                        },
                        { id: 'card', label: 'Card', value: (s) => (s.hasCard ? 'yes' : 'none'), width: '58px' },
                        ...(section.roomPass?.pictures
                            ? [
                                  {
                                      id: 'pictures',
                                      label: 'Pictures',
                                      value: (s: Schemas['RosterLine']) => (s.pictures ? 'chosen' : ''),
                                      cell: (s: Schemas['RosterLine']) =>
                                          s.pictures ? (
                                              <button
                                                  className="text-sm underline decoration-rule underline-offset-4"
                                                  onClick={(event) => {
                                                      event.stopPropagation();
                                                      forgetPictures.run(s.id);
                                                  }}
                                              >
                                                  choose again
                                              </button>
                                          ) : (
                                              ''
                                          ),
                                      width: '110px',
                                  },
                              ]
                            : []),
                    ]}
                />
                <aside
                    aria-label="Door, code and staff"
                    className={`beside ${may('use_code') ? 'roomy:w-[340px]' : 'roomy:w-[260px]'}`}
                >
                    {may('answer_requests') && <RequestsPanel section={section} onChange={refresh} />}
                    {may('use_code') && <CodePanel section={section} onChange={refresh} />}
                    {may('room_pass') && <RoomPassPanel section={section} onChange={refresh} />}
                    <StaffPanel section={section} onChange={refresh} />
                    <p className="mt-7 border-t border-rule pt-3 text-sm">
                        <Link
                            className="underline decoration-rule underline-offset-4"
                            to={`/s/${school.code}/sections/${id}/notices`}
                        >
                            Notices, dates and work
                        </Link>
                        {may('place_students') && (
                            <Link
                                className="mt-2 block underline decoration-rule underline-offset-4"
                                to={`/s/${school.code}/sections/${id}/invited`}
                            >
                                Invited by mail
                            </Link>
                        )}
                    </p>
                </aside>
            </div>
            {dialog === 'move' && (
                <MoveDialog
                    school={school}
                    section={section}
                    people={[...selected]}
                    onClose={() => setDialog(null)}
                    onDone={() => {
                        setDialog(null);
                        setSelected(new Set());
                    }}
                />
            )}
            {dialog === 'reserves' && (
                <MakeReserves section={section} onClose={() => setDialog(null)} onDone={refresh} />
            )}
            {claiming && (
                <ClaimReserve section={section} reserve={claiming} onClose={() => setClaiming(null)} onDone={refresh} />
            )}
            {dialog === 'edit' && (
                <SectionForm
                    title={`Change ${section.name}`}
                    button="Save changes"
                    start={{
                        name: section.name,
                        kind: section.kind === 'homeroom' ? 'homeroom' : 'class',
                        grade: section.grade ?? '',
                        period: section.period,
                        seats: section.seats?.toString() ?? '',
                    }}
                    onClose={() => setDialog(null)}
                    onSave={async (wish) => {
                        await api.POST('/api/sections/{section}', { ...path, body: wishBody(wish) });
                        await queries.invalidateQueries({ queryKey: ['sections', school.id] });
                        await refresh();
                        setDialog(null);
                    }}
                />
            )}
            <Dialog open={archiving} onClose={leaveOpen} title={archive.last?.title ?? `Archive ${section.name}`}>
                {archive.error && (
                    <p role="alert" className="text-sm text-madder">
                        {archive.error}
                    </p>
                )}
                {archive.plan && (
                    <>
                        <p>{archive.plan.sentence}</p>
                        <p className="mt-2 text-sm text-muted">{undoable(archive.plan.undoUntil)}</p>
                    </>
                )}
                <DialogFoot
                    onCancel={leaveOpen}
                    cancel="Leave it open"
                    disabled={archive.busy || !archive.plan}
                    onClick={() => archive.apply()}
                >
                    Archive {section.name}
                </DialogFoot>
            </Dialog>
        </div>
    );
}
