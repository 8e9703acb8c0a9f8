import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useNavigate } from 'react-router';
import { api, ApiError, data, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { day, lastDay } from '@/ui/dates';
import { Leaf, LeafNote } from './Leaf';
import { type NewAccount, NewAccountFields } from './NewAccountFields';
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
    const [account, setAccount] = useState<NewAccount>({ given: '', family: '', password: '' });
    const [error, setError] = useState<{ field: string; text: string } | null>(null);
    const {
        data: invitation,
        error: missing,
        refetch,
    } = useQuery({ queryKey: ['invited', token], queryFn: () => data(api.POST('/api/invited', { body: { token } })) });
    const accept = async () => {
        setError(null);
        try {
            const me = await data(
                api.POST('/api/invited/accept', {
                    body: invitation?.signedInAsInvited
                        ? { token }
                        : { token, given_name: account.given, family_name: account.family, password: account.password },
                }),
            );
            queries.removeQueries({
                predicate: (query) => query.queryKey[0] !== 'me' && query.queryKey[0] !== 'invited',
            });
            queries.setQueryData(['me'], me);
            void navigate('/', { replace: true });
        } catch (e) {
            setError({ field: e instanceof ApiError ? (Object.keys(e.fields)[0] ?? '') : '', text: sentence(e) });
        }
    };
    const decline = async () => {
        try {
            await api.POST('/api/invited/decline', { body: { token } });
        } catch (e) {
            setError({ field: '', text: sentence(e) });
        }
        await refetch();
    };
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
            {error?.field === '' && <LeafNote bad>{t(error.text)}</LeafNote>}
            {invitation.signedInAsInvited ? (
                <Button large kind="primary" onClick={() => void accept()}>
                    {t('Accept')}
                </Button>
            ) : invitation.hasAccount ? (
                <Button large kind="primary" onClick={() => setSigningIn(true)}>
                    {t('Sign in as {{email}}', { email: invitation.email })}
                </Button>
            ) : (
                <form
                    className="flex flex-col gap-5"
                    onSubmit={(event) => {
                        event.preventDefault();
                        void accept();
                    }}
                >
                    <p>
                        {t('Your user name')}: <span className="break-words font-mono">{invitation.email}</span>
                    </p>
                    <NewAccountFields
                        value={account}
                        onChange={setAccount}
                        error={error}
                        password={{
                            label: t('Password'),
                            hint: t('At least 15 characters: several words are easiest.'),
                        }}
                    />
                    <Button large kind="primary" type="submit">
                        {t('Accept and make the account')}
                    </Button>
                </form>
            )}
            <div className="mt-4">
                <Button large kind="quiet" onClick={() => void decline()}>
                    {t('Decline')}
                </Button>
            </div>
        </Leaf>
    );
}
