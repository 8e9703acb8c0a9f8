import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import type { Me } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { GuardianFields } from './GuardianFields';
import { Leaf, LeafNote } from './Leaf';
import { useProblem } from './problem';

/** A guardian without a letter: which child at which school, and, without an account, who one is. */
export function SeekForm({ me, onBack, onKnown }: { me: Me | null; onBack: () => void; onKnown: () => void }) {
    const { t } = useTranslation();
    const words = useProblem();
    const asked = useQuery({ queryKey: ['family-schools'], queryFn: () => data(api.GET('/api/family/schools')) });
    const [answer, setAnswer] = useState<Schemas['FamilyAnswer'] | null>(null);
    const schools = asked.data?.schools ?? [];
    const only = schools.length === 1 ? (schools[0]?.id ?? '') : '';
    const form = useSentForm({
        start: {
            school: '',
            child_given_name: '',
            child_family_name: '',
            birth_date: '',
            given_name: '',
            family_name: '',
            email: '',
            phone: '',
        },
        send: async (typed) => {
            const body = { ...typed, school: only || typed.school };
            if (me) return data(api.POST('/api/family/seek-own', { body }));
            await data(api.POST('/api/family/seek', { body }));
            return { connected: false };
        },
        stale: [['home'], ['me']],
        home: 'child_given_name',
        words,
        then: setAnswer,
    });
    if (answer)
        return (
            <Leaf title={answer.connected ? t('You are connected') : t('The school will check')}>
                <p className="mb-5">
                    {answer.connected
                        ? t('What you have confirmed is on record at the school.')
                        : t('If what you wrote fits, you hear from the school by mail. If not, ask its office.')}
                </p>
                {me && (
                    <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                        {t('Your children')}
                    </Link>
                )}
            </Leaf>
        );
    if (!asked.data) return <Instead of={asked} />;
    return (
        <Leaf title={t('Ask the school without a letter')}>
            <p className="mb-5 text-muted">{t('The school looks for the child and checks who you are.')}</p>
            {form.error && <LeafNote bad>{form.error}</LeafNote>}
            <form className="flex flex-col gap-5" onSubmit={form.submit}>
                {!only && (
                    <div>
                        <label htmlFor="seek-school" className="mb-1 block">
                            {t('School')}
                        </label>
                        <select
                            id="seek-school"
                            required
                            className="min-h-12 w-full rounded-card border border-ink/60 bg-paper px-3 text-lg"
                            {...form.check('school')}
                        >
                            <option value="">{t('Choose the school')}</option>
                            {schools.map((school) => (
                                <option key={school.id} value={school.id}>
                                    {school.name}
                                </option>
                            ))}
                        </select>
                        {form.at('school') && (
                            <p role="alert" className="mt-1 text-sm text-madder">
                                {form.at('school')}
                            </p>
                        )}
                    </div>
                )}
                <Field large label={t('First name of the child')} required {...form.field('child_given_name')} />
                <Field large label={t('Last name of the child')} required {...form.field('child_family_name')} />
                <Field large label={t('The day it was born')} type="date" required {...form.field('birth_date')} />
                {!me && (
                    <fieldset className="flex flex-col gap-5">
                        <legend className="mb-3 border-b border-ink pb-1 text-lg font-semibold">
                            {t('Who you are')}
                        </legend>
                        <GuardianFields field={form.field} />
                    </fieldset>
                )}
                <Button large kind="primary" type="submit" disabled={form.busy}>
                    {t('Ask the school')}
                </Button>
            </form>
            <div className="mt-4 flex flex-col items-start">
                {!me && (
                    <button className="min-h-12 text-start underline underline-offset-4" onClick={onKnown}>
                        {t('I have an account already')}
                    </button>
                )}
                <button className="min-h-12 text-start underline underline-offset-4" onClick={onBack}>
                    {t('I have a letter with a code')}
                </button>
            </div>
        </Leaf>
    );
}
