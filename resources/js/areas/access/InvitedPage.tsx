import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { Button } from '@/ui/Button';
import { day, lastDay } from '@/ui/dates';
import { useSentForm } from '@/ui/useSentForm';
import { Leaf, LeafNote } from './Leaf';
import { NameFields, NewPassword } from './NewAccountFields';
import { usePasswordHint, useProblem } from './problem';
import { SignInPage } from './SignInPage';
import { useToken } from './token';

const ENDED: Record<string, string> = {
    accepted: 'This invitation has been accepted. Sign in to work in the section.',
    declined: 'You declined this invitation. If that was a slip, ask for a new one.',
    withdrawn: 'This invitation has been withdrawn.',
    expired: 'This invitation has expired. Ask for it to be sent again.',
};

/** What the link of an invitation opens. */
export function InvitedPage() {
    const { t } = useTranslation();
    const token = useToken();
    const navigate = useNavigate();
    const queries = useQueryClient();
    const [signingIn, setSigningIn] = useState(false);
    const {
        data: invitation,
        error: missing,
        refetch,
    } = useQuery({ queryKey: ['invited', token], queryFn: () => data(api.POST('/api/invited', { body: { token } })) });
    const words = useProblem();
    const hint = usePasswordHint('staff');
    const accept = useSentForm({
        start: { given_name: '', family_name: '', password: '' },
        send: (account) =>
            data(
                api.POST('/api/invited/accept', {
                    body: invitation?.signedInAsInvited ? { token } : { token, ...account },
                }),
            ),
        stale: [],
        words,
        then: (me) => {
            queries.removeQueries({
                predicate: (query) => query.queryKey[0] !== 'me' && query.queryKey[0] !== 'invited',
            });
            queries.setQueryData(['me'], me);
            void navigate('/', { replace: true });
        },
    });
    const decline = useAct(() => api.POST('/api/invited/decline', { body: { token } }), {
        stale: [['invited', token]],
        words,
        failed: () => void refetch(),
    });
    const refused = accept.error || decline.error;
    if (missing)
        return (
            <Leaf title={t('This link leads nowhere')}>
                {t('It may have been sent again since: use the link in the newest mail.')}
            </Leaf>
        );
    if (!invitation) return null;
    if (signingIn)
        return (
            <SignInPage
                then={`/invited#${token}`}
                note={t('Sign in as {{email}}, then answer the invitation.', { email: invitation.email })}
            />
        );
    if (invitation.state !== 'invited') {
        return (
            <Leaf title={invitation.section} above={invitation.school}>
                <p className="mb-6">{t(ENDED[invitation.state] ?? '')}</p>
                <Button large onClick={() => void navigate('/')}>
                    {t('To the start')}
                </Button>
            </Leaf>
        );
    }
    return (
        <Leaf
            title={t('{{inviter}} asks you into {{section}}', {
                inviter: invitation.inviter,
                section: invitation.section,
            })}
            above={invitation.school}
        >
            <p className="mb-6">
                {t(`As ${invitation.role}.`)}
                {invitation.beginsOn && invitation.endsOn && (
                    <>
                        {' '}
                        {t('From {{from}} up to {{to}}.', {
                            from: day(invitation.beginsOn),
                            to: lastDay(invitation.endsOn),
                        })}
                    </>
                )}{' '}
                <span className="text-muted">{t('Open until {{day}}.', { day: day(invitation.expiresAt) })}</span>
            </p>
            <p className="mb-1">{t('You can:')}</p>
            <ul className="mb-6 list-disc ps-5 text-muted">
                {invitation.powers.map((power) => (
                    <li key={power}>{power}</li>
                ))}
            </ul>
            {refused && <LeafNote bad>{refused}</LeafNote>}
            {invitation.signedInAsInvited ? (
                <form onSubmit={accept.submit}>
                    <Button large kind="primary" type="submit" disabled={accept.busy}>
                        {t('Accept')}
                    </Button>
                </form>
            ) : invitation.hasAccount ? (
                <Button large kind="primary" onClick={() => setSigningIn(true)}>
                    {t('Sign in as {{email}}', { email: invitation.email })}
                </Button>
            ) : (
                <form className="flex flex-col gap-5" onSubmit={accept.submit}>
                    <p>
                        {t('Your user name')}: <span className="break-words font-mono">{invitation.email}</span>
                    </p>
                    <NameFields field={accept.field} />
                    <NewPassword label={t('Password')} hint={hint} {...accept.field('password')} />
                    <Button large kind="primary" type="submit" disabled={accept.busy}>
                        {t('Accept and make the account')}
                    </Button>
                </form>
            )}
            <div className="mt-4">
                <Button large kind="quiet" disabled={decline.busy} onClick={() => decline.run()}>
                    {t('Decline')}
                </Button>
            </div>
        </Leaf>
    );
}
