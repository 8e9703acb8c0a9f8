import { useState } from 'react';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { undoable } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { useNotice } from '@/ui/Notice';
import { PlanSummary } from '@/ui/PlanSummary';
import { usePlan } from '@/ui/usePlan';
import { many } from '@/ui/words';
import { useLanguages } from './useLanguages';

type What = 'grade' | 'leave' | 'back' | 'turn' | 'mend' | 'language' | 'shown';

const WHAT: { value: What; label: string }[] = [
    { value: 'grade', label: 'put into a grade' },
    { value: 'leave', label: 'they have left' },
    { value: 'back', label: 'they are back' },
    { value: 'turn', label: 'turn given and family name round' },
    { value: 'mend', label: 'mend names in capitals' },
    { value: 'language', label: 'language of the family' },
    { value: 'shown', label: 'name on cards' },
];

interface Props {
    school: School;
    people: string[];
    onClose: () => void;
    onDone: () => void;
}

/** Many students changed at once: chosen, looked at, applied. */
export function ChangeManyDialog({ school, people, onClose, onDone }: Props) {
    const say = useNotice();
    const [what, setWhat] = useState<What>('grade');
    const [grade, setGrade] = useState('');
    const [language, setLanguage] = useState('');
    const [shown, setShown] = useState<'' | 'full' | 'initial'>('');
    const languages = useLanguages();
    const wish = {
        what,
        people,
        ...(what === 'grade' ? { grade } : {}),
        ...(what === 'language' ? { language } : {}),
        ...(what === 'shown' && shown ? { shown } : {}),
    };
    const path = { params: { path: { school: school.id } } };
    const { plan, last, apply, busy, error } = usePlan({
        key: ['change-many', school.id, wish],
        ready: what !== 'grade' || grade !== '',
        look: () => data(api.POST('/api/schools/{school}/people/change/plan', { ...path, body: wish })),
        apply: (seen) => data(api.POST('/api/schools/{school}/people/change', { ...path, body: { ...wish, ...seen } })),
        then: (done) => {
            say(`${done.title}. You can undo this in the Ledger.`);
            onDone();
        },
    });
    const count = plan?.tallies.find((t) => t.key === 'changed')?.count ?? 0;
    return (
        <Dialog open wide onClose={onClose} title={`Change ${many(people.length, 'student')}`}>
            <div className="flex flex-wrap items-end gap-4">
                <Choice stacked label="What" value={what} onChange={setWhat} options={WHAT} />
                {what === 'grade' && (
                    <Choice
                        stacked
                        label="Grade"
                        value={grade}
                        onChange={setGrade}
                        options={[
                            { value: '', label: 'choose one' },
                            ...school.grades.map((g) => ({ value: g.code, label: g.short })),
                        ]}
                    />
                )}
                {what === 'language' && (
                    <Choice
                        stacked
                        label="Language"
                        value={language}
                        onChange={setLanguage}
                        options={[{ value: '', label: 'not known' }, ...languages]}
                    />
                )}
                {what === 'shown' && (
                    <Choice
                        stacked
                        label="Shown"
                        value={shown}
                        onChange={setShown}
                        options={[
                            { value: '', label: 'as the school has it' },
                            { value: 'full', label: 'in full' },
                            { value: 'initial', label: 'family name as a letter' },
                        ]}
                    />
                )}
            </div>
            {error && (
                <p role="alert" className="mt-4 text-sm text-madder">
                    {error}
                </p>
            )}
            {last && (what !== 'grade' || grade !== '') && (
                <div className={`mt-5 ${plan ? '' : 'opacity-50'}`} aria-busy={!plan}>
                    <PlanSummary plan={last} />
                    <p className="mt-1 text-sm text-muted">{undoable(last.undoUntil)}</p>
                </div>
            )}
            <DialogFoot onCancel={onClose} disabled={busy || count === 0} onClick={() => apply()}>
                Change {many(count, 'student')}
            </DialogFoot>
        </Dialog>
    );
}
