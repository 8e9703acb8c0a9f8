import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, ApiError, data, type Schemas, sentence } from '@/api/client';
import { signOut, useMe } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { codeSymbols, codeText } from './codeText';
import { Leaf } from './Leaf';
import { type NewAccount, NewAccountFields } from './NewAccountFields';
import { SignInPage } from './SignInPage';

type Step = 'code' | 'who' | 'sign-in' | 'new' | 'done';

/** Into a section by its code: with the account one has, or with a new one. */
export function JoinPage() {
    const { code: given = '' } = useParams();
    const me = useMe();
    const queries = useQueryClient();
    const navigate = useNavigate();
    const [code, setCode] = useState(codeText(given));
    const [step, setStep] = useState<Step>('code');
    const [error, setError] = useState('');
    const [joined, setJoined] = useState<Schemas['Joined'] | null>(null);
    const symbols = codeSymbols(code);
    // Whether it can be a code at all is said as soon as it is long enough; which codes exist is not.
    const { data: check } = useQuery({
        queryKey: ['code-check', symbols],
        queryFn: () => data(api.GET('/api/join/check', { params: { query: { code: symbols } } })),
        enabled: symbols.length >= 7,
        staleTime: Infinity,
    });
    const mistake = symbols.length >= 7 && check && !check.wellFormed ? check.message : '';
    const join = async () => {
        setError('');
        try {
            setJoined(await data(api.POST('/api/join', { body: { code: symbols } })));
            setStep('done');
            await queries.invalidateQueries();
        } catch (e) {
            setError(tooMany(e) ?? sentence(e));
        }
    };
    if (me === undefined) return null;
    if (step === 'sign-in' && me === null)
        return <SignInPage then={`/in/${symbols}`} note="Sign in, then you come into the section." />;
    if (step === 'new')
        return (
            <MakeAccount code={symbols} onDone={(done) => (setJoined(done), setStep('done'))} onBack={() => setStep('code')} />
        );
    if (step === 'done' && joined) {
        return (
            <Leaf title={joined.already ? `You are in ${joined.section} already` : `You are in ${joined.section}`}>
                {joined.userName && (
                    <p className="mb-6">
                        Your user name is
                        <b className="my-2 block font-mono text-xl">{joined.userName}</b>
                        Write it down. You sign in with it and the password you chose.
                    </p>
                )}
                <Button large kind="primary" onClick={() => void navigate('/')}>
                    My sections
                </Button>
            </Leaf>
        );
    }
    const ready = check?.wellFormed === true;
    return (
        <Leaf title={step === 'who' ? 'Do you have an account here?' : 'Type the code from the wall'}>
            {step === 'who' ? (
                <div className="flex flex-col gap-4">
                    <Button large kind="primary" onClick={() => setStep('sign-in')}>
                        Yes: I have a card or a password
                    </Button>
                    <Button large onClick={() => setStep('new')}>
                        No: make one
                    </Button>
                    <Button large kind="quiet" onClick={() => setStep('code')}>
                        Back to the code
                    </Button>
                </div>
            ) : (
                <form
                    className="flex flex-col gap-5"
                    onSubmit={(event) => {
                        event.preventDefault();
                        if (!ready) return;
                        if (me === null) setStep('who');
                        else void join();
                    }}
                >
                    <Field
                        large
                        mono
                        label="Code"
                        autoFocus
                        autoComplete="off"
                        autoCapitalize="characters"
                        spellCheck={false}
                        inputMode="text"
                        className="[&_input]:min-h-16 [&_input]:text-center [&_input]:text-3xl [&_input]:font-semibold [&_input]:tracking-wider"
                        value={code}
                        onChange={(event) => {
                            setCode(codeText(event.target.value));
                            setError('');
                        }}
                        error={error || mistake || undefined}
                        hint={ready ? 'That is a code.' : 'Capitals or small letters, both are right.'}
                    />
                    <Button large kind="primary" type="submit" disabled={!ready}>
                        {me === null ? 'Go on' : 'Come in'}
                    </Button>
                    {me !== null && (
                        <p className="text-sm text-muted">
                            You are signed in as {me.name}.{' '}
                            <button
                                type="button"
                                className="min-h-12 underline underline-offset-4"
                                onClick={() => void signOut()}
                            >
                                That is not me
                            </button>
                        </p>
                    )}
                </form>
            )}
        </Leaf>
    );
}

function MakeAccount({
    code,
    onDone,
    onBack,
}: {
    code: string;
    onDone: (joined: Schemas['Joined']) => void;
    onBack: () => void;
}) {
    const queries = useQueryClient();
    const [account, setAccount] = useState<NewAccount>({ given: '', family: '', password: '' });
    const [error, setError] = useState<{ field: string; text: string } | null>(null);
    const make = async () => {
        setError(null);
        try {
            const joined = await data(
                api.POST('/api/join/account', {
                    body: { code, given_name: account.given, family_name: account.family, password: account.password },
                }),
            );
            await queries.invalidateQueries({ queryKey: ['me'] });
            onDone(joined);
        } catch (e) {
            setError({
                field: e instanceof ApiError ? (Object.keys(e.fields)[0] ?? 'code') : 'code',
                text: tooMany(e) ?? sentence(e),
            });
        }
    };
    return (
        <Leaf title="Make an account">
            <form
                className="flex flex-col gap-5"
                onSubmit={(event) => {
                    event.preventDefault();
                    void make();
                }}
            >
                {error?.field === 'code' && <p className="border-l-[3px] border-madder pl-3 text-madder">{error.text}</p>}
                <NewAccountFields
                    value={account}
                    onChange={setAccount}
                    error={error}
                    passwordLabel="A password you will remember"
                    passwordHint="At least 8 characters. Three words that belong to nobody else are best."
                />
                <Button large kind="primary" type="submit">
                    Make the account and come in
                </Button>
                <Button large kind="quiet" onClick={onBack}>
                    Back
                </Button>
            </form>
        </Leaf>
    );
}

function tooMany(e: unknown): string | null {
    return e instanceof ApiError && e.status === 429
        ? 'Too many codes that open nothing were tried from here today. Ask your teacher to let you in.'
        : null;
}
