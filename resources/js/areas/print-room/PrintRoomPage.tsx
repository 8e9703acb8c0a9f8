import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate, useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { FIRST, paperWish } from './paper';
import { PaperPart } from './PaperPart';
import { printCards } from './printCards';

type Person = Schemas['PersonLine'];

/** Students chosen in the Roll, as it hands them over. */
function handedOver(state: unknown): Person[] {
    const people = (state as { people?: Person[] } | null)?.people;
    return Array.isArray(people) ? people : [];
}

/** Login cards: choose sections at the left, paper and order at the right, print. */
export function PrintRoomPage({ school }: { school: School }) {
    const [search] = useSearchParams();
    const { state } = useLocation();
    const navigate = useNavigate();
    const people = handedOver(state);
    const named = people.length > 0;
    const say = useNotice();
    const [selected, setSelected] = useState<ReadonlySet<string>>(
        new Set((search.get('sections') ?? '').split(',').filter(Boolean)),
    );
    const [paper, setPaper] = useState(FIRST);
    const [lost, setLost] = useState(named && search.get('lost') === 'yes');
    const asked = useQuery({
        queryKey: ['sections', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
    });
    const page = asked.data;
    const sections = page?.sections.filter((s) => s.students > 0) ?? [];
    const chosen = sections.filter((s) => selected.has(s.id));
    const cards = named ? people.length : chosen.reduce((n, s) => n + s.students, 0);
    const { data: sheet, error } = useQuery({
        queryKey: ['card-sheet', school.id, paperWish(paper), cards],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/card-sheet', {
                    params: { path: { school: school.id }, query: { ...paperWish(paper), cards } },
                }),
            ),
        staleTime: Infinity,
        placeholderData: keepPreviousData,
    });
    const { data: ready } = useQuery({
        queryKey: ['card-sheet', school.id, 'ready'],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/card-sheet', {
                    params: { path: { school: school.id }, query: { ...paperWish(FIRST), cards: 0 } },
                }),
            ),
        staleTime: Infinity,
    });
    const print = useAct(
        () =>
            printCards(`/api/schools/${school.id}/cards`, {
                ...(named ? { person_ids: people.map((p) => p.id) } : { section_ids: [...selected] }),
                ...paperWish(paper),
                ...(paper.shorten ? { shorten: true } : {}),
                lost,
            }),
        {
            stale: [['sections', school.id]],
            then: () => {
                setLost(false);
                say(
                    'The cards are in the other window. Nothing is kept here; printing again makes further cards for the same accounts.',
                );
            },
            failed: (said) => say(said, { bad: true }),
        },
    );
    if (!page) return <Instead of={asked} what="the sections" />;
    const sheets = sheet?.sheets ?? 0;
    const problem = error ? sentence(error) : '';
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Print room</h1>
                    <p className="text-sm text-muted">
                        Login cards: name, user name, passphrase, and a QR to point a camera at
                    </p>
                </div>
            </div>
            <div className="split">
                {named ? (
                    <DataTable
                        label="Students to print"
                        name="print-people"
                        rows={people}
                        id={(p) => p.id}
                        empty={null}
                        foot={
                            <span className="flex items-center justify-between">
                                <span>{many(people.length, 'student')} chosen in the Roll</span>
                                <button
                                    className="underline underline-offset-4"
                                    onClick={() => void navigate(`/s/${school.code}/print-room`, { replace: true })}
                                >
                                    Choose sections instead
                                </button>
                            </span>
                        }
                        columns={[
                            { id: 'name', label: 'Name', value: (p) => p.name, width: 'minmax(160px, 2fr)' },
                            { id: 'grade', label: 'Grade', value: (p) => p.grade, width: '70px' },
                            {
                                id: 'sections',
                                label: 'Sections',
                                value: (p) => p.sections,
                                width: 'minmax(140px, 2fr)',
                            },
                            { id: 'user', label: 'User name', value: (p) => p.userName, width: 'minmax(140px, 1fr)' },
                        ]}
                    />
                ) : (
                    <DataTable
                        label="Sections to print"
                        name="print"
                        rows={sections}
                        id={(s) => s.id}
                        selected={selected}
                        onSelect={setSelected}
                        onOpen={(s) => {
                            const next = new Set(selected);
                            if (next.has(s.id)) next.delete(s.id);
                            else next.add(s.id);
                            setSelected(next);
                        }}
                        empty={
                            <Empty title="No section has students">
                                Bring in a list, or let students come in by a join code; their cards are printed here.
                            </Empty>
                        }
                        columns={[
                            { id: 'name', label: 'Section', value: (s) => s.name, width: 'minmax(140px, 2fr)' },
                            { id: 'kind', label: 'Kind', value: (s) => s.kind, width: '100px' },
                            { id: 'students', label: 'Students', value: (s) => s.students, width: '90px' },
                            {
                                id: 'without',
                                label: 'Without a card',
                                value: (s) => s.students - s.withCard,
                                cell: (s) => s.students - s.withCard || <span className="text-muted">none</span>,
                                width: '120px',
                            },
                            { id: 'state', label: 'State', value: (s) => s.state, width: '100px', extra: true },
                        ]}
                    />
                )}
                <PaperPart
                    school={school.id}
                    paper={paper}
                    onChange={(changes) => setPaper({ ...paper, ...changes })}
                    sheet={sheet}
                    layouts={ready?.layouts ?? []}
                    problem={problem}
                    lost={lost}
                    onLost={setLost}
                />
            </div>
            <ApplyBar
                sentence={
                    cards === 0
                        ? 'Choose the sections whose cards you want.'
                        : `Prints ${many(cards, 'card')} for ${named ? 'those chosen' : many(chosen.length, 'section')} on ${many(sheets, 'sheet')}.${lost ? ' Cards printed before stop working.' : ' Cards printed before go on working.'}`
                }
                button={cards === 0 ? 'Print cards' : `Print ${many(cards, 'card')}`}
                disabled={cards === 0 || problem !== ''}
                danger={lost}
                busy={print.busy}
                onApply={print.run}
            />
        </div>
    );
}
