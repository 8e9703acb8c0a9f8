import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { useMe, useSignOut } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { codeSymbols, codeText } from './codeText';
import { Joined } from './Joined';
import { Leaf } from './Leaf';
import { NewcomerSteps } from './NewcomerSteps';
import { useProblem } from './problem';
import { SignInPage } from './SignInPage';

type Step = 'code' | 'who' | 'sign-in' | 'new' | 'done';

/** Into a section by its code: with the account one has, with the one on the school's list, or by asking. */
export function JoinPage() {
    const { t } = useTranslation();
    const { code: given = '' } = useParams();
    const me = useMe();
    const signOut = useSignOut();
    const queries = useQueryClient();
    const [code, setCode] = useState(codeText(given));
    const [step, setStep] = useState<Step>('code');
    const [joined, setJoined] = useState<Schemas['Joined'] | null>(null);
    const symbols = codeSymbols(code);
    // Whether it can be a code at all is said as soon as it is long enough; which codes exist is not.
    const { data: check } = useQuery({
        queryKey: ['code-check', symbols],
        queryFn: () => data(api.GET('/api/join/check', { params: { query: { code: symbols } } })),
        enabled: symbols.length >= 7,
        staleTime: Infinity,
    });
    const mistake =
        symbols.length >= 7 && check && !check.wellFormed ? t(check.sentence, { symbol: check.symbol }) : '';
    const join = useAct(() => data(api.POST('/api/join', { body: { code: symbols } })), {
        words: useProblem(),
        then: (done) => {
            setJoined(done);
            setStep('done');
        },
    });
    if (me === undefined) return null;
    if (step === 'sign-in' && me === null)
        return <SignInPage then={`/in/${symbols}`} note={t('Sign in, then you come into the section.')} />;
    if (step === 'new')
        return (
            <NewcomerSteps
                code={symbols}
                onIn={(done) => {
                    setJoined(done);
                    setStep('done');
                    void queries.invalidateQueries();
                }}
                onBack={() => setStep('code')}
                onSignIn={() => setStep('sign-in')}
            />
        );
    if (step === 'done' && joined) return <Joined joined={joined} />;
    const ready = check?.wellFormed === true;
    if (step === 'who')
        return (
            <Leaf title={t('Do you have an account here?')}>
                <div className="flex flex-col gap-4">
                    <Button large kind="primary" onClick={() => setStep('sign-in')}>
                        {t('Yes: I have a card or a password')}
                    </Button>
                    <Button large onClick={() => setStep('new')}>
                        {t('No, or I do not know')}
                    </Button>
                    <Button large kind="quiet" onClick={() => setStep('code')}>
                        {t('Back to the code')}
                    </Button>
                </div>
            </Leaf>
        );
    return (
        <Leaf title={t('Type the code from the wall')}>
            <form
                className="flex flex-col gap-5"
                onSubmit={(event) => {
                    event.preventDefault();
                    if (!ready) return;
                    if (me === null) setStep('who');
                    else join.run();
                }}
            >
                <Field
                    large
                    mono
                    label={t('Code')}
                    autoFocus
                    autoComplete="off"
                    autoCapitalize="characters"
                    spellCheck={false}
                    inputMode="text"
                    dir="ltr"
                    className="[&_input]:min-h-16 [&_input]:text-center [&_input]:text-3xl [&_input]:font-semibold [&_input]:tracking-wider"
                    value={code}
                    onChange={(event) => {
                        setCode(codeText(event.target.value));
                        join.clear();
                    }}
                    error={join.error || mistake || undefined}
                    hint={ready ? t('That is a code.') : t('Capitals or small letters, both are right.')}
                />
                <Button large kind="primary" type="submit" disabled={!ready || join.busy}>
                    {me === null ? t('Go on') : t('Come in')}
                </Button>
                {me !== null && (
                    <p className="text-sm text-muted">
                        {t('You are signed in as {{name}}.', { name: me.name })}{' '}
                        <button type="button" className="min-h-12 underline underline-offset-4" onClick={signOut}>
                            {t('Not you?')}
                        </button>
                    </p>
                )}
            </form>
        </Leaf>
    );
}
