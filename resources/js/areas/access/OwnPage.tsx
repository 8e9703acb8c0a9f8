import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { api, data, type Schemas } from '@/api/client';
import { useMe } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { HeldPart } from './HeldPart';
import { HearsChoice } from './HearsChoice';
import { Leaf, LeafNote } from './Leaf';
import { useProblem } from './problem';

type Own = Schemas['OwnContactView'];

const KEY = ['own-contact'];

/** What a guardian chooses: how often they hear from the school, and where. */
export function OwnPage() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const me = useMe();
    const asked = useQuery({ queryKey: KEY, queryFn: () => data(api.GET('/api/own/contact')) });
    const own = asked.data;
    if (!own) return <Instead of={asked} />;
    return (
        <Leaf title={t('How the school reaches you')}>
            <HearsChoice
                kept={own}
                send={(wish) => data(api.POST('/api/own/hears', { body: wish }))}
                then={(kept: Own) => queries.setQueryData(KEY, kept)}
            />
            {me?.kind === 'guardian' && (
                <>
                    <ContactPart
                        key={own.email}
                        what="email"
                        title={t('Your mail address')}
                        value={own.email}
                        confirmed={own.emailConfirmed}
                    />
                    <ContactPart
                        key={own.phone}
                        what="phone"
                        title={t('Your phone')}
                        value={own.phone}
                        confirmed={own.phoneConfirmed}
                    />
                </>
            )}
            <HeldPart />
            <Link to="/" className="mt-4 inline-flex min-h-12 items-center underline underline-offset-4">
                {t('Back')}
            </Link>
        </Leaf>
    );
}

function ContactPart({
    what,
    title,
    value,
    confirmed,
}: {
    what: 'email' | 'phone';
    title: string;
    value: string;
    confirmed: boolean;
}) {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const words = useProblem();
    const [step, setStep] = useState<'shown' | 'typing' | 'new' | 'both'>('shown');
    const form = useSentForm({
        start: { value: confirmed ? '' : value },
        send: (body) => data(api.POST('/api/own/contact', { body: { ...body, what } })),
        stale: [],
        home: 'value',
        words,
        then: (begun: Schemas['ContactBegun']) => setStep(begun.old ? 'both' : 'new'),
    });
    const codes = useSentForm({
        start: { new: '', old: '' },
        send: (body) => data(api.POST('/api/own/contact/confirm', { body })),
        stale: [],
        home: 'new',
        words,
        then: (now: Own) => {
            setStep('shown');
            queries.setQueryData(KEY, now);
        },
    });
    return (
        <section className="mb-9">
            <h2 className="mb-2 text-lg">{title}</h2>
            <p className="mb-3">
                {value ? (
                    <bdi className="break-words" dir="ltr">
                        {value}
                    </bdi>
                ) : (
                    <span className="text-muted">{t('None on record.')}</span>
                )}
                {value && (
                    <span className="block text-sm text-muted">
                        {confirmed ? t('It is confirmed.') : t('It is not confirmed yet.')}
                    </span>
                )}
            </p>
            {step === 'shown' && (
                <Button large onClick={() => setStep('typing')}>
                    {confirmed || !value ? t('Change it') : t('Confirm or change it')}
                </Button>
            )}
            {step === 'typing' && (
                <form className="flex flex-col gap-4" onSubmit={form.submit}>
                    <Field
                        large
                        required
                        autoFocus
                        dir="ltr"
                        label={what === 'email' ? t('New mail address') : t('New phone')}
                        type={what === 'email' ? 'email' : 'tel'}
                        autoComplete={what === 'email' ? 'email' : 'tel'}
                        {...form.field('value')}
                    />
                    <Button large kind="primary" type="submit" disabled={form.busy}>
                        {t('Send me a code')}
                    </Button>
                    <button
                        type="button"
                        className="min-h-12 text-start underline underline-offset-4"
                        onClick={() => setStep('shown')}
                    >
                        {t('Back')}
                    </button>
                </form>
            )}
            {(step === 'new' || step === 'both') && (
                <form className="flex flex-col gap-4" onSubmit={codes.submit}>
                    {codes.error && <LeafNote bad>{codes.error}</LeafNote>}
                    <Field
                        large
                        mono
                        required
                        autoFocus
                        dir="ltr"
                        inputMode="numeric"
                        autoComplete="one-time-code"
                        label={t('Code sent to the new one')}
                        {...codes.field('new')}
                    />
                    {step === 'both' && (
                        <Field
                            large
                            mono
                            required
                            dir="ltr"
                            inputMode="numeric"
                            label={t('Code sent to the old one')}
                            hint={t('If you cannot read it any more, ask the school office.')}
                            {...codes.field('old')}
                        />
                    )}
                    <Button large kind="primary" type="submit" disabled={codes.busy}>
                        {t('Confirm')}
                    </Button>
                    <button
                        type="button"
                        className="min-h-12 text-start underline underline-offset-4"
                        onClick={() => setStep('typing')}
                    >
                        {t('Back')}
                    </button>
                </form>
            )}
        </section>
    );
}
