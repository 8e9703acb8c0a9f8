import type { ReactNode } from 'react';
import type { Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';
import { CardPicture } from './CardPicture';
import { FIRST, type Own, type Paper, paperQuery, type Shows } from './paper';
import { SheetPicture } from './SheetPicture';
import { Tick } from './Tick';
import { type Printed, WhomPart } from './WhomPart';

interface Props {
    school: string;
    paper: Paper;
    onChange: (changes: Partial<Paper>) => void;
    sheet: Schemas['SheetPreview'] | undefined;
    layouts: Schemas['LayoutChoice'][];
    /** Why the layout cannot be, at the field it is about; '' for none. */
    problem: string;
    lost: boolean;
    onLost: (lost: boolean) => void;
    printed: Printed;
    since: string;
    onPrinted: (printed: Printed, since: string) => void;
    children: ReactNode;
}

const OWN: { field: keyof Own; label: string }[] = [
    { field: 'columns', label: 'Across' },
    { field: 'rows', label: 'Down' },
    { field: 'width', label: 'Width, mm' },
    { field: 'height', label: 'Height, mm' },
    { field: 'gap_x', label: 'Gap across, mm' },
    { field: 'gap_y', label: 'Gap down, mm' },
    { field: 'margin', label: 'Least margin, mm' },
];

const shown: { field: keyof Shows; label: string; hint?: string }[] = [
    { field: 'section', label: 'The section' },
    { field: 'secret', label: 'The passphrase' },
    { field: 'square', label: 'The square for a camera' },
    { field: 'school', label: 'The school' },
    { field: 'address', label: 'Where to sign in' },
    { field: 'pictures', label: 'A row of pictures', hint: 'Says what to do, for children who do not read yet.' },
];

/** On which paper, in which order, and what it will look like. */
export function PaperPart({
    school,
    paper,
    onChange,
    sheet,
    layouts,
    problem,
    lost,
    onLost,
    printed,
    since,
    onPrinted,
    children,
}: Props) {
    const cut = sheet?.stacked ?? false;
    const own = paper.own;
    return (
        <aside aria-label="How they are printed" className="beside flex flex-col gap-4 roomy:w-[300px]">
            {sheet && !problem && (
                <div className="flex items-center gap-4">
                    <SheetPicture sheet={sheet} cut={cut} />
                    {sheet.face && <CardPicture sheet={sheet} face={sheet.face} />}
                </div>
            )}
            <WhomPart
                among={['everyone', 'never_signed_in', 'no_card', 'card_lost', 'since']}
                printed={printed}
                since={since}
                onChange={onPrinted}
            />
            <Choice
                stacked
                label="Paper"
                value={paper.layout}
                onChange={(layout) => onChange({ layout, used: 0 })}
                options={layouts.map((l) => ({ value: l.layout, label: l.label }))}
            />
            {paper.layout === 'own' && (
                <fieldset className="flex flex-col gap-3 border-l-[3px] border-rule pl-3">
                    <legend className="sr-only">Your own layout</legend>
                    <Choice
                        stacked
                        label="Sheet"
                        value={own.paper}
                        onChange={(value) => onChange({ own: { ...own, paper: value } })}
                        options={[
                            { value: 'a4', label: 'A4, upright' },
                            { value: 'a4-across', label: 'A4, across' },
                            { value: 'letter', label: 'Letter, upright' },
                            { value: 'letter-across', label: 'Letter, across' },
                        ]}
                    />
                    <div className="grid grid-cols-2 gap-3">
                        {OWN.map(({ field, label }) => (
                            <Field
                                key={field}
                                label={label}
                                type="number"
                                min={0}
                                step="any"
                                value={own[field] as string}
                                onChange={(event) => onChange({ own: { ...own, [field]: event.target.value } })}
                            />
                        ))}
                    </div>
                    <Tick
                        label="The sheets come cut already"
                        checked={own.cut}
                        onChange={(value) => onChange({ own: { ...own, cut: value } })}
                    />
                    {problem && (
                        <p role="alert" className="text-sm text-madder">
                            {problem}
                        </p>
                    )}
                </fieldset>
            )}
            <Choice
                stacked
                label="Order"
                value={paper.order}
                onChange={(order) => onChange({ order })}
                options={[
                    { value: 'cut_stack', label: 'for the guillotine' },
                    { value: 'reading', label: 'along the rows' },
                ]}
            />
            <p className="text-sm text-muted">
                {cut
                    ? 'Cut the whole stack, lay the piles on each other from left to right and top to bottom: the cards lie in order of section and name.'
                    : 'Each sheet reads from left to right; cut sheet by sheet.'}
            </p>
            {sheet && sheet.columns * sheet.rows > 1 && (
                <Field
                    label="Begin at place"
                    type="number"
                    min={1}
                    max={sheet.columns * sheet.rows}
                    value={paper.used + 1}
                    onChange={(event) => {
                        const place = Math.trunc(Number(event.target.value));
                        onChange({ used: Math.min(Math.max(place, 1), sheet.columns * sheet.rows) - 1 });
                    }}
                    hint="Of a sheet of labels begun before, the first that is still there."
                />
            )}
            <details className="text-sm" open={shown.some(({ field }) => paper.shows[field] !== FIRST.shows[field])}>
                <summary className="min-h-6 cursor-pointer underline underline-offset-4">What stands on a card</summary>
                <div className="mt-2 flex flex-col gap-2">
                    {shown.map(({ field, label, hint }) => (
                        <Tick
                            key={field}
                            label={label}
                            {...(hint ? { hint } : {})}
                            checked={paper.shows[field]}
                            onChange={(value) => onChange({ shows: { ...paper.shows, [field]: value } })}
                        />
                    ))}
                </div>
            </details>
            {problem && paper.layout !== 'own' && (
                <p role="alert" className="text-sm text-madder">
                    {problem}
                </p>
            )}
            <Tick
                label="Fold marks"
                hint="Where a card is folded in the middle, words inside."
                checked={paper.fold}
                onChange={(fold) => onChange({ fold })}
            />
            <Tick
                label="A back to each sheet"
                hint="School and address, mirrored for printing on both sides."
                checked={paper.backs}
                onChange={(backs) => onChange({ backs })}
            />
            <Tick
                label="Shorten long names"
                hint="A letter for the family name, where the whole of it does not fit."
                checked={paper.shorten}
                onChange={(shorten) => onChange({ shorten })}
            />
            <Tick
                label="The earlier cards are lost"
                hint="They stop working, and the passphrases are new."
                checked={lost}
                onChange={onLost}
            />
            {!problem && (
                <a
                    className="text-sm underline underline-offset-4"
                    href={`/api/schools/${school}/card-test?${new URLSearchParams(paperQuery(paper))}`}
                    target="_blank"
                    rel="noreferrer"
                >
                    Test page with a ruler
                </a>
            )}
            {children}
        </aside>
    );
}
