import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate, useSearchParams } from 'react-router';
import { api, data, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { FIRST, paperWish } from './paper';
import { PaperPart } from './PaperPart';
import { handedOver, PeopleToPrint } from './PeopleToPrint';
import { PrintsKept } from './PrintsKept';
import { SectionsToPrint } from './SectionsToPrint';
import { usePrint } from './usePrint';
import { useSections } from './useSections';
import { type Printed, whomWish, whomWords } from './WhomPart';

/** Login cards: choose sections at the left, paper and order at the right, print. */
export function CardsPart({ school }: { school: School }) {
    const [search] = useSearchParams();
    const { state } = useLocation();
    const navigate = useNavigate();
    const people = handedOver(state);
    const named = people.length > 0;
    const say = useNotice();
    const { asked, withStudents, chosen, selected, setSelected } = useSections(school.id);
    const [paper, setPaper] = useState(FIRST);
    const [printed, setPrinted] = useState<Printed>('everyone');
    const [since, setSince] = useState('');
    const [lost, setLost] = useState(named && search.get('lost') === 'yes');
    const most = named ? people.length : chosen.reduce((n, s) => n + s.students, 0);
    const cards = printed === 'everyone' ? most : 0;
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
    const print = usePrint(
        () =>
            data(
                api.POST('/api/schools/{school}/cards', {
                    params: { path: { school: school.id } },
                    body: {
                        ...(named ? { person_ids: people.map((p) => p.id) } : { section_ids: [...selected] }),
                        ...paperWish(paper),
                        ...whomWish(printed, since),
                        ...(paper.shorten ? { shorten: true } : {}),
                        lost,
                    },
                }),
            ),
        {
            stale: [['sections', school.id]],
            then: () => {
                setLost(false);
                say('The cards opened in a new window and are kept here for a day. Printing again makes new cards.');
            },
            failed: (said) => say(said, { bad: true }),
        },
    );
    if (!asked.data) return <Instead of={asked} what="the sections" />;
    const problem = error ? sentence(error) : '';
    const whom = named ? 'those chosen' : many(chosen.length, 'section');
    const none = most === 0 || (printed === 'since' && since === '');
    return (
        <>
            <div className="split">
                {named ? (
                    <PeopleToPrint
                        people={people}
                        onSections={() => void navigate(`/s/${school.code}/print-room`, { replace: true })}
                    />
                ) : (
                    <SectionsToPrint
                        sections={withStudents}
                        selected={selected}
                        onSelect={setSelected}
                        empty="Bring in a list, or let students come in by a join code; their cards are printed here."
                        more={[
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
                    printed={printed}
                    since={since}
                    onPrinted={(value, day) => {
                        setPrinted(value);
                        setSince(day);
                    }}
                >
                    <PrintsKept school={school.id} />
                </PaperPart>
            </div>
            <ApplyBar
                sentence={
                    most === 0
                        ? 'Choose the sections whose cards you want.'
                        : `Prints ${
                              printed === 'everyone'
                                  ? `${many(cards, 'card')} for ${whom} on ${many(sheet?.sheets ?? 0, 'sheet')}`
                                  : `cards for ${whom}${whomWords(printed)}`
                          }.${lost ? ' Cards printed before stop working.' : ' Cards printed before go on working.'}`
                }
                button={cards === 0 ? 'Print cards' : `Print ${many(cards, 'card')}`}
                disabled={none || problem !== ''}
                danger={lost}
                busy={print.busy}
                onApply={print.run}
            >
                {print.progress}
            </ApplyBar>
        </>
    );
}
