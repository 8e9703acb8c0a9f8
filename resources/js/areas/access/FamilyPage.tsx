import { type FormEvent, useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Link, useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { useAskedMe } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useSentForm } from '@/ui/useSentForm';
import { codeText } from './codeText';
import { GuardianFields } from './GuardianFields';
import { Leaf, LeafNote } from './Leaf';
import { useProblem } from './problem';
import { SeekForm } from './SeekForm';
import { SignInPage } from './SignInPage';

/** What a family letter leads to: the code, then who one is; or, with an account, one touch. */
export function FamilyPage() {
    const { t } = useTranslation();
    const navigate = useNavigate();
    const words = useProblem();
    const asked = useAskedMe();
    const me = asked.data;
    const [code, setCode] = useState(() => codeText(window.location.hash.slice(1)));
    const [child, setChild] = useState<Schemas['FamilyView'] | null>(null);
    const [known, setKnown] = useState(false);
    const [done, setDone] = useState(false);
    const [seeking, setSeeking] = useState(false);
    const check = useAct((typed: string) => data(api.POST('/api/family/check', { body: { code: typed } })), {
        stale: [],
        home: 'code',
        words,
        then: setChild,
    });
    const connect = useAct(() => data(api.POST('/api/family/connect', { body: { code } })), {
        stale: [['home'], ['me']],
        words,
        then: (answer: Schemas['FamilyAnswer']) => (answer.connected ? void navigate('/children') : setDone(true)),
    });
    const form = useSentForm({
        start: { given_name: '', family_name: '', email: '', phone: '' },
        send: (body) => api.POST('/api/family/ask', { body: { ...body, code } }),
        stale: [],
        home: 'given_name',
        words,
        then: () => setDone(true),
    });
    // The square of a letter needs no typing. What it brought leaves the address, which others may see: only now, since
    // a page that is slow to come may be begun twice.
    useEffect(() => {
        if (window.location.hash !== '') window.history.replaceState(null, '', '/family');
        if (code.replaceAll('-', '').length === 10) check.run(code);
        // Once, with what the letter brought.
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, []);
    if (me === undefined) return <Instead of={asked} />;
    if (known && me === null) return <SignInPage then="/family" />;
    if (seeking) return <SeekForm me={me} onBack={() => setSeeking(false)} onKnown={() => setKnown(true)} />;
    if (done && child)
        return (
            <Leaf title={t('The school will check')} above={child.school}>
                <p className="mb-5">
                    {me
                        ? t('Once it has, {{name}} appears in your account.', { name: child.student })
                        : t(
                              'A link comes by mail: at once if your address is on record, else once the school has checked.',
                          )}
                </p>
                {me && (
                    <Link to="/" className="inline-flex min-h-12 items-center underline underline-offset-4">
                        {t('Your children')}
                    </Link>
                )}
            </Leaf>
        );
    if (!child)
        return (
            <Leaf title={t('The code of your letter')}>
                <form
                    className="flex flex-col gap-5"
                    onSubmit={(event: FormEvent) => {
                        event.preventDefault();
                        check.run(code);
                    }}
                >
                    <Field
                        large
                        mono
                        label={t('Family code')}
                        required
                        autoFocus
                        autoCapitalize="characters"
                        autoComplete="off"
                        spellCheck={false}
                        dir="ltr"
                        value={code}
                        onChange={(event) => setCode(codeText(event.target.value))}
                        error={check.field('code') || check.error || undefined}
                        hint={t('It is in the box on the letter, beside the square.')}
                    />
                    <Button large kind="primary" type="submit" disabled={check.busy}>
                        {t('Go on')}
                    </Button>
                </form>
                <button
                    className="mt-4 min-h-12 text-start underline underline-offset-4"
                    onClick={() => setSeeking(true)}
                >
                    {t('I have no letter')}
                </button>
            </Leaf>
        );
    if (me)
        return (
            <Leaf title={t('Are you a guardian of {{name}}?', { name: child.student })} above={child.school}>
                {connect.error && <LeafNote bad>{connect.error}</LeafNote>}
                <p className="mb-5">{t('You are signed in as {{name}}.', { name: me.name })}</p>
                <Button large kind="primary" disabled={connect.busy} onClick={() => connect.run()}>
                    {t('Yes, ask the school to connect us')}
                </Button>
            </Leaf>
        );
    return (
        <Leaf title={t('Are you a guardian of {{name}}?', { name: child.student })} above={child.school}>
            <p className="mb-5 text-muted">{t('Tell us who you are. The school checks before you see anything.')}</p>
            <form className="flex flex-col gap-5" onSubmit={form.submit}>
                <GuardianFields field={form.field} />
                <Button large kind="primary" type="submit" disabled={form.busy}>
                    {t('Ask the school')}
                </Button>
            </form>
            <button className="mt-4 min-h-12 text-start underline underline-offset-4" onClick={() => setKnown(true)}>
                {t('I have an account already')}
            </button>
        </Leaf>
    );
}
