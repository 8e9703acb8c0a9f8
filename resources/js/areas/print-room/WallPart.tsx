import { useState } from 'react';
import { useAct } from '@/api/act';
import { openPdf } from '@/api/pdf';
import type { School } from '@/shell/session';
import { ApplyBar } from '@/ui/ApplyBar';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Empty } from '@/ui/Empty';
import { DataTable } from '@/ui/DataTable';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { LANGUAGES, type PaperSize, PAPERS, type Tag } from './letters';
import { Tick } from './Tick';
import { useSections } from './useSections';
import { WordingDialog } from './WordingDialog';

const KINDS = [
    { value: 'poster', label: 'Poster for the wall' },
    { value: 'slips', label: 'Slips to cut and hand out' },
    { value: 'handout', label: 'Handout, step by step' },
] as const;

type Kind = (typeof KINDS)[number]['value'];

const ABOUT: Record<Kind, string> = {
    poster: 'The code as large as the page lets it be; the page says from how far it is read.',
    slips: 'Twelve to a page, with the code, its square and where to go.',
    handout: 'How a student comes in with the code, a page for each language.',
};

/** Posters, slips and handouts of the codes of sections. */
export function WallPart({ school }: { school: School }) {
    const { asked, all, selected, setSelected } = useSections(school.id);
    const [kind, setKind] = useState<Kind>('poster');
    const [paper, setPaper] = useState<PaperSize>('a4');
    const [languages, setLanguages] = useState<ReadonlySet<Tag>>(new Set(['en']));
    const [copies, setCopies] = useState('30');
    const [without, setWithout] = useState(false);
    const [editing, setEditing] = useState(false);
    const say = useNotice();
    const open = all.filter((s) => s.hasCode && s.state === 'open');
    const chosen = open.filter((s) => selected.has(s.id));
    const pages =
        chosen.length *
        (kind === 'handout' ? languages.size : kind === 'slips' ? Math.ceil(Math.max(1, Number(copies)) / 12) : 1);
    const print = {
        section_ids: chosen.map((s) => s.id),
        kind,
        paper,
        ...(kind === 'handout' ? { languages: [...languages], without } : {}),
        ...(kind === 'slips' ? { copies: Number(copies) } : {}),
    };
    const printing = useAct(() => openPdf(`/api/schools/${school.id}/codes/print`, print), {
        stale: [],
        failed: (said) => say(said, { bad: true }),
    });
    if (!asked.data) return <Instead of={asked} what="the sections" />;
    return (
        <>
            <div className="split">
                <DataTable
                    label="Sections with a code"
                    name="print-codes"
                    rows={open}
                    id={(s) => s.id}
                    selected={selected}
                    onSelect={setSelected}
                    onOpen={(s) => {
                        const next = new Set(selected);
                        if (!next.delete(s.id)) next.add(s.id);
                        setSelected(next);
                    }}
                    empty={
                        <Empty title="No section has a code">
                            Open one on the page of a section; then its poster is printed here.
                        </Empty>
                    }
                    columns={[
                        { id: 'name', label: 'Section', value: (s) => s.name, width: 'minmax(140px, 2fr)' },
                        { id: 'kind', label: 'Kind', value: (s) => s.kind, width: '100px' },
                        { id: 'students', label: 'Students', value: (s) => s.students, width: '90px' },
                    ]}
                />
                <aside aria-label="What is printed of a code" className="beside flex flex-col gap-4 roomy:w-[300px]">
                    <Choice stacked label="What" value={kind} onChange={setKind} options={[...KINDS]} />
                    <p className="text-sm text-muted">{ABOUT[kind]}</p>
                    <Choice stacked label="Paper" value={paper} onChange={setPaper} options={[...PAPERS]} />
                    {kind === 'slips' && (
                        <Field
                            label="Slips for each section"
                            type="number"
                            min={1}
                            max={60}
                            value={copies}
                            onChange={(event) => setCopies(event.target.value)}
                        />
                    )}
                    {kind === 'handout' && (
                        <>
                            <fieldset className="flex flex-col gap-2">
                                <legend className="mb-1 text-sm">Languages</legend>
                                {LANGUAGES.map((l) => (
                                    <Tick
                                        key={l.value}
                                        label={l.label}
                                        checked={languages.has(l.value)}
                                        onChange={(on) => {
                                            const next = new Set(languages);
                                            if (on) next.add(l.value);
                                            else next.delete(l.value);
                                            setLanguages(next);
                                        }}
                                    />
                                ))}
                            </fieldset>
                            <Tick
                                label="Standard wording where yours is missing"
                                hint="In languages your school has not written its own words in."
                                checked={without}
                                onChange={setWithout}
                            />
                            <div>
                                <Button onClick={() => setEditing(true)}>Edit the wording</Button>
                            </div>
                        </>
                    )}
                    <p className="text-sm text-muted">
                        A room pass is printed on the page of its section, and is for that room only.
                    </p>
                </aside>
            </div>
            <ApplyBar
                sentence={
                    chosen.length === 0
                        ? 'Choose the sections whose codes you want on paper.'
                        : `Opens ${many(pages, 'page')} for ${many(chosen.length, 'section')} in another window. Nothing changes.`
                }
                button={pages === 0 ? 'Print' : `Print ${many(pages, 'page')}`}
                disabled={pages === 0 || (kind === 'slips' && !(Number(copies) >= 1 && Number(copies) <= 60))}
                busy={printing.busy}
                onApply={printing.run}
            />
            <WordingDialog school={school} kind="handout" open={editing} onClose={() => setEditing(false)} />
        </>
    );
}
