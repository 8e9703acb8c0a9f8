import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { useAskedMe } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { Joined } from './Joined';
import { Leaf, LeafNote } from './Leaf';
import { NameFields, NewPassword } from './NewAccountFields';
import { usePasswordHint, useProblem } from './problem';
import { SignInPage } from './SignInPage';
import { useToken } from './token';
import { WaitPage } from './WaitPage';

/** What the link of an invitation into a section leads to: coming in, for oneself or for one's child. */
export function ComePage() {
    const token = useToken();
    return <Come key={token} token={token} />;
}

function Come({ token }: { token: string }) {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const words = useProblem();
    const asked = useAskedMe();
    const me = asked.data;
    const [signingIn, setSigningIn] = useState(false);
    const [done, setDone] = useState<'came' | 'declined' | null>(null);
    const [request, setRequest] = useState<Schemas['JoinRequestView'] | null>(null);
    const [joined, setJoined] = useState<Schemas['Joined'] | null>(null);
    const link = useQuery({
        queryKey: ['come', token],
        queryFn: () => data(api.POST('/api/come', { body: { token } })),
        // Answered, the link works no more: what it showed stays.
        enabled: done === null && request === null && joined === null,
        staleTime: Infinity,
    });
    const accept = useAct(() => data(api.POST('/api/come/accept', { body: { token } })), {
        stale: [],
        words,
        then: () => setDone('came'),
    });
    const decline = useAct(() => api.POST('/api/come/decline', { body: { token } }), {
        stale: [],
        words,
        then: () => setDone('declined'),
    });
    if (joined) return <Joined joined={joined} />;
    if (request) return <WaitPage asked={request} onIn={setJoined} />;
    if (link.error && done === null)
        return (
            <Leaf title={t('This link opens nothing')}>
                <LeafNote>{words(link.error)}</LeafNote>
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {t('Sign in')}
                </Link>
            </Leaf>
        );
    const view = link.data;
    if (!view || me === undefined) return <Instead of={view ? asked : link} />;
    const { school, section, name, family } = view;
    if (done === 'declined')
        return (
            <Leaf title={t('Thank you for telling us')} above={school}>
                <p>{t('Nothing more comes to you about this.')}</p>
            </Leaf>
        );
    if (done === 'came')
        return (
            <Leaf
                title={
                    family
                        ? t('{{name}} is in {{section}}', { name, section })
                        : t('You are in {{section}}', { section })
                }
                above={school}
            >
                {!family && (
                    <p className="mb-6">
                        {t(
                            'Sign in with your card or your own password. If you have neither, ask your teacher for a card.',
                        )}
                    </p>
                )}
                <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                    {me === null ? t('Sign in') : family ? t('Your children') : t('My sections')}
                </Link>
            </Leaf>
        );
    if (signingIn) return <SignInPage then={`/come#${token}`} />;
    const own = name === '' && !family && me?.kind === 'student' ? me.name : '';
    const who = name || own;
    const not = (
        <button
            className="mt-4 min-h-12 text-start underline underline-offset-4"
            disabled={decline.busy}
            onClick={() => decline.run()}
        >
            {t('This is not for me')}
        </button>
    );
    const refused = (accept.error || decline.error) && <LeafNote bad>{accept.error || decline.error}</LeafNote>;
    if (who !== '')
        return (
            <Leaf
                title={
                    family
                        ? t('A place for {{name}} in {{section}}', { name: who, section })
                        : t('Come into {{section}}', { section })
                }
                above={school}
            >
                {refused}
                <p className="mb-6">
                    {own
                        ? t('You are signed in as {{name}}.', { name: own })
                        : family
                          ? t('{{name}} comes into the section. Nothing else changes.', { name: who })
                          : t('This link is for {{name}}. It brings you into the section; you sign in as before.', {
                                name: who,
                            })}
                </p>
                <Button large kind="primary" disabled={accept.busy} onClick={() => accept.run()}>
                    {family ? t('Yes, {{name}} comes in', { name: who }) : t('Come in')}
                </Button>
                {not}
            </Leaf>
        );
    return (
        <Leaf title={t('Come into {{section}}', { section })} above={school}>
            {refused}
            <AskForm
                token={token}
                view={view}
                onDone={(made) => {
                    if (made.state === 'approved') {
                        setJoined({ section: made.section, already: false, userName: made.userName });
                        void queries.invalidateQueries({ queryKey: ['me'] });
                    } else setRequest(made);
                }}
            />
            {!family && (
                <div className="mt-4">
                    <Button large onClick={() => setSigningIn(true)}>
                        {t('I have a card or a password after all')}
                    </Button>
                </div>
            )}
            {not}
        </Leaf>
    );
}

/** Somebody who is not on record says who they, or their child, are. */
function AskForm({
    token,
    view,
    onDone,
}: {
    token: string;
    view: Schemas['ComeView'];
    onDone: (made: Schemas['JoinRequestView']) => void;
}) {
    const { t } = useTranslation();
    const words = useProblem();
    const hint = usePasswordHint('student');
    const { family } = view;
    const form = useSentForm({
        start: { given_name: '', family_name: '', birth_date: '', number: '', password: '' },
        send: ({ birth_date, number, ...of }) =>
            data(
                api.POST('/api/come/ask', {
                    body: { token, ...of, ...(birth_date && { birth_date }), ...(number && { number }) },
                }),
            ),
        stale: [],
        words,
        then: onDone,
    });
    return (
        <form className="flex flex-col gap-5" onSubmit={form.submit}>
            {form.error && <LeafNote bad>{form.error}</LeafNote>}
            <p>
                {family
                    ? t('Your child’s name, as the school has it.')
                    : t('As the school has it: your name on lists and reports.')}
            </p>
            <NameFields field={form.field} />
            {view.asksBirthDate && (
                <Field
                    large
                    label={family ? t('The day your child was born') : t('The day you were born')}
                    type="date"
                    required
                    {...form.field('birth_date')}
                />
            )}
            {view.asksNumber && (
                <Field
                    large
                    mono
                    label={family ? t('Your child’s student number') : t('Your student number')}
                    required
                    {...form.field('number')}
                />
            )}
            <NewPassword
                label={family ? t('A password your child will remember') : t('A password you will remember')}
                hint={hint}
                {...form.field('password')}
            />
            <Button large kind="primary" type="submit" disabled={form.busy}>
                {t('Ask to come in')}
            </Button>
        </form>
    );
}
