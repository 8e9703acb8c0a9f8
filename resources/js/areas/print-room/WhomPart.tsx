import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';

export type Printed = 'everyone' | 'never_signed_in' | 'no_card' | 'card_lost' | 'since' | 'slip_out';

const NAMES: Record<Printed, string> = {
    everyone: 'everyone',
    never_signed_in: 'those who never signed in',
    no_card: 'those without a card',
    card_lost: 'those whose card is lost',
    since: 'those who came since a day',
    slip_out: 'those who have not returned the slip',
};

interface Props {
    among: Printed[];
    printed: Printed;
    since: string;
    onChange: (printed: Printed, since: string) => void;
}

/** Which of those chosen it is for. */
export function WhomPart({ among, printed, since, onChange }: Props) {
    return (
        <>
            <Choice
                stacked
                label="Print for"
                value={printed}
                onChange={(value) => onChange(value, since)}
                options={among.map((value) => ({ value, label: NAMES[value] }))}
            />
            {printed === 'since' && (
                <Field
                    label="Came on or after"
                    type="date"
                    value={since}
                    onChange={(event) => onChange(printed, event.target.value)}
                />
            )}
        </>
    );
}

/** What the server takes of it. */
export function whomWish(printed: Printed, since: string) {
    return printed === 'everyone' ? {} : printed === 'since' ? { printed, since } : { printed };
}

/** In a sentence: "of those who never signed in, ". */
export function whomWords(printed: Printed): string {
    return printed === 'everyone' ? '' : `, only ${NAMES[printed]}`;
}
