import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { api, data, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { LANGUAGES, type PaperSize, PAPERS, type Tag } from './letters';
import { handedOver, PeopleToPrint } from './PeopleToPrint';
import { PrintsKept } from './PrintsKept';
import { SectionsToPrint } from './SectionsToPrint';
import { Tick } from './Tick';
import { usePrint } from './usePrint';
import { useSections } from './useSections';
import { type Printed, whomWish, WhomPart, whomWords } from './WhomPart';
import { WordingDialog } from './WordingDialog';

const KINDS = [
    { value: 'family', label: 'Family letter: code and slip' },
    { value: 'summer', label: 'Summer letter: the login' },
] as const;

/** Letters to families: a page for each student, in the family's language. */
export function LettersPart({ school }: { school: School }) {
    const { state } = useLocation();
    const navigate = useNavigate();
    const say = useNotice();
    const people = handedOver(state);
    const named = people.length > 0;
    const { asked, withStudents, chosen, selected, setSelected } = useSections(school.id);
    const [kind, setKind] = useState<'family' | 'summer'>('family');
    const [printed, setPrinted] = useState<Printed>('everyone');
    const [since, setSince] = useState('');
    const [language, setLanguage] = useState<Tag | 'own'>('own');
    const [otherwise, setOtherwise] = useState<Tag>('en');
    const [paper, setPaper] = useState<PaperSize>('a4');
    const [without, setWithout] = useState(false);
    const [editing, setEditing] = useState(false);
    const ready = (named || chosen.length > 0) && (printed !== 'since' || since !== '');
    const wish = {
        ...(named ? { person_ids: people.map((p) => p.id) } : { section_ids: [...selected] }),
        ...whomWish(printed, since),
        kind,
        paper,
        otherwise,
        ...(language === 'own' ? {} : { language }),
    };
    const counted = useQuery({
        queryKey: ['letters', school.id, wish],
        queryFn: () =>
            data(
                api.POST('/api/schools/{school}/letters/counts', {
                    params: { path: { school: school.id } },
                    body: wish,
                }),
            ),
        enabled: ready,
        placeholderData: keepPreviousData,
        retry: false,
    });
    const counts = ready ? counted.data : undefined;
    const print = usePrint(
        () =>
            data(
                api.POST('/api/schools/{school}/letters', {
                    params: { path: { school: school.id } },
                    body: { ...wish, ...(without ? { without } : {}) },
                }),
            ),
        {
            stale: [['slips', school.id]],
            then: () => say('The letters opened in a new window and are kept here for a day.'),
            failed: (said) => say(said, { bad: true }),
        },
    );
    if (!asked.data) return <Instead of={asked} what="the sections" />;
    const refused = ready && counted.error ? sentence(counted.error) : '';
    const letters = counts?.letters ?? 0;
    const lacking = (counts?.lacking.length ?? 0) > 0;
    const whom = named ? 'those chosen' : many(chosen.length, 'section');
    const after =
        kind === 'family'
            ? 'Each has a code of its own; letters printed before go on working.'
            : 'Cards printed before go on working.';
    const said =
        refused ||
        (ready
            ? `Prints ${many(letters, 'letter')} for ${whom}${whomWords(printed)}. ${after}`
            : 'Choose the sections whose families you write to.');
    return (
        <>
            <div className="split">
                {named ? (
                    <PeopleToPrint
                        people={people}
                        onSections={() => void navigate(`/s/${school.code}/print-room?part=letters`, { replace: true })}
                    />
                ) : (
                    <SectionsToPrint
                        sections={withStudents}
                        selected={selected}
                        onSelect={setSelected}
                        empty="Bring in a list first; then each family gets a page."
                        more={[]}
                    />
                )}
                <aside aria-label="Which letters" className="beside flex flex-col gap-4 roomy:w-[300px]">
                    <Choice stacked label="Letter" value={kind} onChange={setKind} options={[...KINDS]} />
                    <WhomPart
                        among={
                            kind === 'family'
                                ? ['everyone', 'since', 'slip_out']
                                : ['everyone', 'never_signed_in', 'since']
                        }
                        printed={printed}
                        since={since}
                        onChange={(value, day) => {
                            setPrinted(value);
                            setSince(day);
                        }}
                    />
                    <Choice
                        stacked
                        label="Language"
                        value={language}
                        onChange={setLanguage}
                        options={[{ value: 'own', label: 'each family’s own' }, ...LANGUAGES]}
                    />
                    {language === 'own' && (
                        <Choice
                            stacked
                            label="Where it is not known, or not written here"
                            value={otherwise}
                            onChange={setOtherwise}
                            options={[...LANGUAGES]}
                        />
                    )}
                    <Choice stacked label="Paper" value={paper} onChange={setPaper} options={[...PAPERS]} />
                    {counts && counts.languages.length > 0 && (
                        <dl className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-rule pt-2 text-sm">
                            {counts.languages.map((l) => (
                                <div key={l.language} className="contents">
                                    <dt>{l.name}</dt>
                                    <dd className="text-right tabular-nums">{l.letters}</dd>
                                </div>
                            ))}
                        </dl>
                    )}
                    {lacking && (
                        <div className="border-l-[3px] border-madder pl-3 text-sm">
                            <p className="mb-2">Your wording is missing in {counts?.lacking.join(', ')}.</p>
                            <Tick
                                label="Use the standard wording there"
                                hint="And leave your own paragraph out."
                                checked={without}
                                onChange={setWithout}
                            />
                        </div>
                    )}
                    <div>
                        <Button onClick={() => setEditing(true)}>Edit the wording</Button>
                    </div>
                    <PrintsKept school={school.id} />
                </aside>
            </div>
            <ApplyBar
                sentence={said}
                button={letters === 0 ? 'Print letters' : `Print ${many(letters, 'letter')}`}
                disabled={!ready || letters === 0 || (lacking && !without)}
                busy={print.busy}
                onApply={print.run}
            >
                {print.progress}
            </ApplyBar>
            <WordingDialog school={school} kind={kind} open={editing} onClose={() => setEditing(false)} />
        </>
    );
}
