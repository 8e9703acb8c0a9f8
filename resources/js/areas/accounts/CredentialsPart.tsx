import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { fieldOf, useAct } from '@/api/act';
import { openPdf } from '@/api/pdf';
import { api, data, type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { day, moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { useNotice } from '@/ui/Notice';
import { OffBoardDialog } from './OffBoardDialog';
import { OwnPassword } from './OwnPassword';

type Credential = Schemas['CredentialLine'];

const WORDS: Record<string, string> = {
    password: 'Own password',
    passphrase: 'Passphrase',
    card: 'Card',
    sign_on: 'School sign-on',
    passkey: 'Passkey',
    second_factor: 'Second factor',
    link: 'Link in a mail',
    session: 'Signed in',
};

/** Every way to sign in of one person, to be ended one by one or all at once; and for staff, seeing them off. */
export function CredentialsPart({ person, school }: { person: Schemas['PersonDetail']; school: string }) {
    const queries = useQueryClient();
    const say = useNotice();
    const [ending, setEnding] = useState<Credential | 'all' | null>(null);
    const [leaving, setLeaving] = useState(false);
    const [password, setPassword] = useState('');
    const params = { params: { path: { person: person.id } } };
    const { data: page, error } = useQuery({
        queryKey: ['credentials', person.id],
        queryFn: () => data(api.GET('/api/people/{person}/credentials', params)),
    });
    const close = () => {
        setEnding(null);
        setPassword('');
        act.clear();
    };
    const act = useAct((work: () => Promise<Schemas['CredentialPage']>) => work(), {
        stale: [['person', person.id]],
        then: (now) => {
            queries.setQueryData(['credentials', person.id], now);
            say(now.said);
            close();
        },
        failed: (said, e) => {
            if (fieldOf(e) !== 'password') say(said, { bad: true });
        },
    });
    const end = (c: Credential) =>
        act.run(() =>
            data(
                api.POST('/api/people/{person}/credentials/end', {
                    ...params,
                    body: { kind: c.kind, id: c.id, ...(password ? { password } : {}) },
                }),
            ),
        );
    // For whom no mail has reached: a password for the first sign-in, on paper.
    const slip = useAct(() => openPdf(`/api/people/${person.id}/sign-in-slip`, {}), {
        stale: [['credentials', person.id]],
        failed: (said) => say(said, { bad: true }),
    });
    const endAll = () => act.run(() => data(api.POST('/api/people/{person}/credentials/end-all', params)));
    const sendLink = () => act.run(() => data(api.POST('/api/people/{person}/sign-in-link', params)));
    return (
        <section className="mt-5" aria-label="Ways to sign in">
            <h3 className="mb-1 border-b border-rule pb-1 text-base">Ways to sign in</h3>
            {error ? (
                <p role="alert" className="text-sm text-madder">
                    {sentence(error)}{' '}
                    <button
                        className="underline underline-offset-4"
                        onClick={() => void queries.invalidateQueries({ queryKey: ['credentials', person.id] })}
                    >
                        Try again
                    </button>
                </p>
            ) : !page ? (
                <p className="text-sm text-muted" role="status">
                    Looking them up…
                </p>
            ) : (
                <>
                    {page.address && (
                        <p className="mb-2 text-sm">
                            <span className="break-words">{page.address}</span>{' '}
                            <span className={page.confirmed ? 'text-muted' : 'font-semibold'}>
                                {page.confirmed ? 'is confirmed' : 'is not confirmed'}
                            </span>
                            <span className="block text-xs text-muted">
                                {[page.addressSays, page.addressAt ? day(page.addressAt) : '']
                                    .filter(Boolean)
                                    .join(', ')}
                                {!page.confirmed && '; nothing personal goes there'}
                            </span>
                        </p>
                    )}
                    {page.credentials.length === 0 && (
                        <p className="text-sm text-muted">None: no password, no card, not signed in anywhere.</p>
                    )}
                    <ul className="text-sm">
                        {page.credentials.map((c) => (
                            <li
                                key={c.kind + c.id}
                                className="flex items-start justify-between gap-3 border-b border-rule py-1.5"
                            >
                                <span className="min-w-0">
                                    {WORDS[c.kind]}{' '}
                                    <span
                                        className={
                                            c.kind === 'password' || c.kind === 'passphrase' || c.kind === 'card'
                                                ? 'break-words font-mono'
                                                : ''
                                        }
                                    >
                                        {c.what}
                                    </span>
                                    <span className="block text-xs text-muted">{facts(c)}</span>
                                </span>
                                <button
                                    className="min-h-6 shrink-0 text-xs text-muted underline underline-offset-4"
                                    aria-label={`End: ${WORDS[c.kind]} ${c.what}`}
                                    onClick={() => setEnding(c)}
                                >
                                    end
                                </button>
                            </li>
                        ))}
                    </ul>
                    <div className="mt-3 flex flex-wrap gap-2">
                        {page.canSendLink && (
                            <Button disabled={act.busy} onClick={() => sendLink()}>
                                Send a sign-in link
                            </Button>
                        )}
                        {person.kind !== 'student' && page.credentials.every((c) => c.lastUsed === null) && (
                            <Button disabled={slip.busy} onClick={() => slip.run()}>
                                Print a slip
                            </Button>
                        )}
                        {page.credentials.length > 1 && <Button onClick={() => setEnding('all')}>End all…</Button>}
                        {page.canLeave && (
                            <Button kind="danger" onClick={() => setLeaving(true)}>
                                Leaves the staff…
                            </Button>
                        )}
                    </div>
                </>
            )}
            <Dialog
                open={ending !== null}
                onClose={close}
                title={ending === 'all' ? `End every way to sign in of ${person.name}` : `End this way to sign in`}
            >
                <p className="mb-2 text-sm">
                    {ending === 'all'
                        ? 'Passwords, passphrases, cards, school sign-on, links and every open session end at once. User names stay.'
                        : ending &&
                          `${WORDS[ending.kind]} ${ending.what}: stops working at once${ending.kind === 'session' ? '.' : ', and sessions it opened end with the next click.'}`}
                </p>
                <p className="mb-5 text-sm text-muted">
                    {person.name} is told by mail where there is a confirmed address. A new card or a link lets them in
                    again.
                </p>
                {ending !== null && ending !== 'all' && ['second_factor', 'passkey'].includes(ending.kind) && (
                    <div className="mb-5">
                        <OwnPassword value={password} onChange={setPassword} error={act.field('password')} />
                    </div>
                )}
                <div className="flex gap-3">
                    <Button
                        kind="danger"
                        disabled={act.busy}
                        onClick={() => (ending === 'all' ? endAll() : ending && end(ending))}
                    >
                        {ending === 'all' ? 'End all' : 'End it'}
                    </Button>
                    <Button onClick={close}>Cancel</Button>
                </div>
            </Dialog>
            {leaving && (
                <OffBoardDialog
                    person={person}
                    school={school}
                    onClose={() => setLeaving(false)}
                    onDone={(now) => {
                        queries.setQueryData(['credentials', person.id], now);
                        setLeaving(false);
                        say(now.said);
                        void queries.invalidateQueries();
                    }}
                />
            )}
        </section>
    );
}

function facts(c: Credential): string {
    if (c.kind === 'session') return [c.by, c.where, c.lastUsed ? moment(c.lastUsed) : ''].filter(Boolean).join(', ');
    return [
        c.since ? `since ${day(c.since)}` : '',
        c.by,
        c.kind === 'second_factor' || c.kind === 'link'
            ? ''
            : c.lastUsed
              ? `last used ${moment(c.lastUsed)}, ${c.where}`
              : 'never used',
    ]
        .filter(Boolean)
        .join('; ');
}
