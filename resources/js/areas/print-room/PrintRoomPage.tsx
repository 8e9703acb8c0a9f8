import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { type CardWish, printCards } from './printCards';
import { SheetPicture } from './SheetPicture';

/** Login cards: choose sections at the left, paper and order at the right, print. */
export function PrintRoomPage({ school }: { school: School }) {
    const [search] = useSearchParams();
    const say = useNotice();
    const [selected, setSelected] = useState<ReadonlySet<string>>(
        new Set((search.get('sections') ?? '').split(',').filter(Boolean)),
    );
    const [layout, setLayout] = useState<CardWish['layout']>('cards-a4');
    const [order, setOrder] = useState<CardWish['order']>('cut_stack');
    const [lost, setLost] = useState(false);
    const asked = useQuery({
        queryKey: ['sections', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id } } })),
    });
    const page = asked.data;
    const sections = page?.sections.filter((s) => s.students > 0) ?? [];
    const chosen = sections.filter((s) => selected.has(s.id));
    const cards = chosen.reduce((n, s) => n + s.students, 0);
    const { data: sheet } = useQuery({
        queryKey: ['card-sheet', school.id, layout, order, cards],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/card-sheet', {
                    params: { path: { school: school.id }, query: { layout, order, cards } },
                }),
            ),
        staleTime: Infinity,
        placeholderData: keepPreviousData,
    });
    const print = useAct(
        () => printCards(`/api/schools/${school.id}/cards`, { section_ids: [...selected], layout, order, lost }),
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
                <aside aria-label="How they are printed" className="beside flex flex-col gap-4 roomy:w-[300px]">
                    {sheet && <SheetPicture sheet={sheet} cut={order === 'cut_stack'} />}
                    <Choice
                        stacked
                        label="Paper"
                        value={layout}
                        onChange={setLayout}
                        options={(sheet?.layouts ?? []).map((l) => ({
                            value: l.layout,
                            label: l.label,
                        }))}
                    />
                    <Choice
                        stacked
                        label="Order"
                        value={order}
                        onChange={setOrder}
                        options={[
                            { value: 'cut_stack', label: 'for the guillotine' },
                            { value: 'reading', label: 'along the rows' },
                        ]}
                    />
                    <p className="text-sm text-muted">
                        {order === 'cut_stack'
                            ? 'Cut the whole stack, lay the piles on each other from left to right and top to bottom: the cards lie in order of section and name.'
                            : 'Each sheet reads from left to right; cut sheet by sheet.'}
                    </p>
                    <label className="flex gap-2 text-sm">
                        <input
                            type="checkbox"
                            className="mt-0.5 accent-ink"
                            checked={lost}
                            onChange={(event) => setLost(event.target.checked)}
                        />
                        <span>
                            The earlier cards are lost
                            <span className="block text-xs text-muted">
                                They stop working, and the passphrases are new.
                            </span>
                        </span>
                    </label>
                </aside>
            </div>
            <ApplyBar
                sentence={
                    cards === 0
                        ? 'Choose the sections whose cards you want.'
                        : `Prints ${cards.toLocaleString('en')} ${cards === 1 ? 'card' : 'cards'} for ${chosen.length} ${chosen.length === 1 ? 'section' : 'sections'} on ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}.${lost ? ' Cards printed before stop working.' : ' Cards printed before go on working.'}`
                }
                button={cards === 0 ? 'Print cards' : `Print ${many(cards, 'card')}`}
                disabled={cards === 0}
                danger={lost}
                busy={print.busy}
                onApply={print.run}
            />
        </div>
    );
}
