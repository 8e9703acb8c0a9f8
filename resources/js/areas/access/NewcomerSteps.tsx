import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useSentForm } from '@/ui/useSentForm';
import { Leaf, LeafNote } from './Leaf';
import { NameFields, NewPassword } from './NewAccountFields';
import { problem, usePasswordHint, useProblem } from './problem';
import { WaitPage } from './WaitPage';

interface Props {
    code: string;
    onIn: (joined: Schemas['Joined']) => void;
    onBack: () => void;
    onSignIn: () => void;
}

type Step = 'name' | 'listed' | 'proof' | 'ask' | 'wait';

/**
 * Somebody with a code and no account: are you on the school's list? If so, the account is yours; if not, ask to come
 * in.
 */
export function NewcomerSteps({ code, onIn, onBack, onSignIn }: Props) {
    const { t } = useTranslation();
    const [step, setStep] = useState<Step>('name');
    const [found, setFound] = useState<Schemas['ListedNames'] | null>(null);
    const [chosen, setChosen] = useState<Schemas['ListedName'] | null>(null);
    const [asked, setAsked] = useState<Schemas['JoinRequestView'] | null>(null);
    const { data: door, error: shut } = useQuery({
        queryKey: ['door', code],
        queryFn: () => data(api.POST('/api/join/door', { body: { code } })),
        staleTime: Infinity,
    });
    const words = useProblem();
    const look = useSentForm({
        start: { given_name: '', family_name: '' },
        send: (names) => data(api.POST('/api/join/names', { body: { code, ...names } })),
        stale: [],
        words,
        then: (listed) => {
            setFound(listed);
            setStep(listed.names.length > 0 ? 'listed' : 'ask');
        },
    });
    const claim = useSentForm({
        start: { proof: '', password: '' },
        send: (shown) =>
            data(api.POST('/api/join/claim', { body: { code, ...look.values, ...shown, key: chosen?.key ?? '' } })),
        stale: [],
        words,
        then: onIn,
    });
    const ask = useSentForm({
        start: { birth_date: '', number: '', email: '', password: '' },
        send: ({ password, ...more }) => {
            const filled = Object.fromEntries(Object.entries(more).filter(([, value]) => value !== ''));
            const own = door?.password ? { password } : {};
            return data(api.POST('/api/join/ask', { body: { code, ...look.values, ...own, ...filled } }));
        },
        stale: [],
        words,
        then: (request) => {
            setAsked(request);
            setStep('wait');
        },
    });
    const oops = (said: string) => said && <LeafNote bad>{said}</LeafNote>;
    const password = { label: t('A password you will remember'), hint: usePasswordHint('student') };
    if (shut)
        return (
            <Leaf title={t('This code opens nothing')}>
                <LeafNote bad>{problem(shut, t)}</LeafNote>
                <Button large onClick={onBack}>
                    {t('Back to the code')}
                </Button>
            </Leaf>
        );
    if (!door) return null;
    if (step === 'wait' && asked) return <WaitPage asked={asked} onIn={onIn} />;
    if (step === 'name')
        return (
            <Leaf title={t('What is your name?')} above={door.section}>
                {oops(look.error)}
                <form className="flex flex-col gap-5" onSubmit={look.submit}>
                    <NameFields field={look.field} />
                    <p className="text-sm text-muted">{t('As the school has it: your name on lists and reports.')}</p>
                    <Button large kind="primary" type="submit" disabled={look.busy}>
                        {t('Go on')}
                    </Button>
                    <Button large kind="quiet" onClick={onBack}>
                        {t('Back to the code')}
                    </Button>
                </form>
            </Leaf>
        );
    if (step === 'listed' && found)
        return (
            <Leaf title={t('Are you on this list?')} above={door.section}>
                <ul className="mb-6 flex flex-col gap-3">
                    {found.names.map((name) => (
                        <li key={name.key}>
                            <Button
                                large
                                className="w-full"
                                onClick={() => {
                                    setChosen(name);
                                    setStep('proof');
                                }}
                            >
                                <bdi>{name.name}</bdi>
                            </Button>
                        </li>
                    ))}
                </ul>
                <Button large kind="quiet" onClick={() => setStep('ask')}>
                    {t('No, none of these')}
                </Button>
            </Leaf>
        );
    if (step === 'proof' && chosen && found)
        return (
            <Leaf title={t('Show that you are {{name}}', { name: chosen.name })} above={door.section}>
                {oops(claim.error)}
                <form className="flex flex-col gap-5" onSubmit={claim.submit}>
                    <Field
                        large
                        mono={found.check === 'number'}
                        label={found.check === 'number' ? t('Your student number') : t('The day you were born')}
                        type={found.check === 'number' ? 'text' : 'date'}
                        required
                        {...claim.field('proof')}
                    />
                    <NewPassword {...password} {...claim.field('password')} />
                    <Button large kind="primary" type="submit" disabled={claim.busy}>
                        {t('Come in')}
                    </Button>
                    <Button large kind="quiet" onClick={onSignIn}>
                        {t('I have a card or a password after all')}
                    </Button>
                    <Button large kind="quiet" onClick={() => setStep('listed')}>
                        {t('Back')}
                    </Button>
                </form>
            </Leaf>
        );
    if (door.who === 'accounts')
        return (
            <Leaf title={t('Ask your teacher')} above={door.section}>
                <p className="mb-6">
                    {t('This code is for students who have an account. Your teacher can find yours, or make one.')}
                </p>
                <Button large onClick={onBack}>
                    {t('Back to the code')}
                </Button>
            </Leaf>
        );
    return (
        <Leaf title={t('Ask to come in')} above={door.section}>
            {oops(ask.error)}
            <p className="mb-5 text-muted">
                {door.who === 'domain'
                    ? t('You get a mail at your school address; the link in it lets you in.')
                    : door.looked
                      ? t(
                            'There have been many wrong codes here today, so your teacher looks at whoever comes. Ask to come in.',
                        )
                      : t('Your teacher sees your name and lets you in.')}
            </p>
            <form className="flex flex-col gap-5" onSubmit={ask.submit}>
                {door.birthDate && (
                    <Field large label={t('The day you were born')} type="date" required {...ask.field('birth_date')} />
                )}
                {door.number && <Field large mono label={t('Your student number')} required {...ask.field('number')} />}
                {door.mail !== 'no' && (
                    <Field
                        large
                        label={
                            door.mail === 'required'
                                ? t('Your address at the school')
                                : t('Mail address, if you have one')
                        }
                        type="email"
                        autoComplete="email"
                        dir="ltr"
                        required={door.mail === 'required'}
                        {...ask.field('email')}
                        {...(door.domains.length > 0 ? { hint: `…@${door.domains.join(', …@')}` } : {})}
                    />
                )}
                {door.password ? (
                    <NewPassword {...password} {...ask.field('password')} />
                ) : (
                    <p className="text-sm text-muted">
                        {t('You choose your password with the link that comes by mail.')}
                    </p>
                )}
                <Button large kind="primary" type="submit" disabled={ask.busy}>
                    {t('Ask to come in')}
                </Button>
                <Button large kind="quiet" onClick={() => setStep('name')}>
                    {t('Back')}
                </Button>
            </form>
        </Leaf>
    );
}
