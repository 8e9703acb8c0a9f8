import { useState } from 'react';
import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';

interface Props {
    list: Schemas['IntakeDetail'];
    school: School;
    /** Questions about the whole list, not about a row. */
    questions: Schemas['IntakeDetail']['questions'];
    onTell: (answers: Record<string, string | null>) => void;
    onReadAs: (everyone: string | null, words?: string) => void;
    onDomain: (domain: string) => void;
}

/** What is to be known or said of a list as a whole: what stops it, what it asks, what is worth a look. */
export function ListNotes({ list, school, questions, onTell, onReadAs, onDomain }: Props) {
    const [words, setWords] = useState('');
    const planned = list.state === 'planned';
    if (
        !list.message &&
        !list.rosterOf &&
        [list.blockers, list.warnings, questions, list.domains].every((some) => some.length === 0)
    ) {
        return null;
    }
    return (
        <ul className="max-h-48 overflow-auto px-6 pb-2 text-sm">
            {list.message && <li className="mb-1 border-l-[3px] border-marigold pl-3">{list.message}</li>}
            {list.blockers.map((blocker) => (
                <li key={blocker} className="mb-2 border-l-[3px] border-madder pl-3">
                    {blocker}
                    {list.words !== '' && planned && (
                        <form
                            className="mt-1 flex items-end gap-2"
                            onSubmit={(event) => {
                                event.preventDefault();
                                onReadAs(list.everyone, words.trim());
                            }}
                        >
                            <Field
                                label={`Type “${list.words}”`}
                                value={words}
                                onChange={(event) => setWords(event.target.value)}
                                autoComplete="off"
                            />
                            <Button type="submit" disabled={words.trim() !== list.words}>
                                Confirm
                            </Button>
                        </form>
                    )}
                </li>
            ))}
            <ListQuestions questions={questions} open={planned} onTell={onTell} />
            {list.rosterOf && list.everyone === null && planned && (
                <li className="mb-1 flex flex-wrap items-center gap-3 border-l-[3px] border-marigold pl-3">
                    <span>
                        This is the roster of one section. Whoever was deleted from it stays, as it is read now.
                    </span>
                    <Button onClick={() => onReadAs(`section:${list.rosterOf}`)}>
                        Read it as everyone in the section
                    </Button>
                </li>
            )}
            {list.domains.map((domain) => (
                <li key={domain} className="mb-1 flex flex-wrap items-center gap-3 border-l-[3px] border-marigold pl-3">
                    <span>
                        Most addresses of this list end in {domain}, which is not a mail domain of {school.name}.
                    </span>
                    {planned && <Button onClick={() => onDomain(domain)}>Add {domain} to the school</Button>}
                </li>
            ))}
            {list.warnings.map((w) => (
                <li key={w} className="mb-1 border-l-[3px] border-rule pl-3">
                    {w}
                </li>
            ))}
        </ul>
    );
}

/** Questions about how a list is to be read, each with its answers. */
export function ListQuestions({
    questions,
    open,
    onTell,
}: Pick<Props, 'questions' | 'onTell'> & {
    /** Whether they can still be answered. */
    open: boolean;
}) {
    return questions.map((q) => (
        <li key={q.id} className="mb-1 flex flex-wrap items-center gap-x-3 gap-y-1 border-l-[3px] border-marigold pl-3">
            <span>
                <strong>{q.text}</strong> {q.detail}
            </span>
            {open &&
                q.choices.map((c) => (
                    <Button key={c.key} title={c.consequence} onClick={() => onTell({ [q.id]: c.key })}>
                        {c.label}
                    </Button>
                ))}
        </li>
    ));
}
