import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, data } from '@/api/client';
import { canPasskeys } from '@/api/passkey';
import { type Me, useSignOut } from '@/shell/session';
import { Button } from '@/ui/Button';
import { AddPasskey } from './AddPasskey';
import { Leaf } from './Leaf';
import { RecoveryCodes } from './RecoveryCodes';
import { SecondFactorSetup } from './SecondFactorSetup';
import { usePasswordHint } from './problem';
import { SetPassword } from './SetPassword';

/** What a school asks to be done before anything else: an own password, a second factor. */
export function MustPage({ me }: { me: Me }) {
    const signOut = useSignOut();
    const { t } = useTranslation();
    const queries = useQueryClient();
    const hint = usePasswordHint(me.kind);
    const [app, setApp] = useState(false);
    const [recovery, setRecovery] = useState<string[]>([]);
    const finished = () => void queries.invalidateQueries({ queryKey: ['me'] });
    if (me.must === 'second_factor')
        return (
            <Leaf title={t('Your school asks for a second factor')}>
                {recovery.length > 0 ? (
                    <RecoveryCodes codes={recovery} onDone={finished} />
                ) : app || !canPasskeys() ? (
                    <SecondFactorSetup onDone={finished} />
                ) : (
                    <>
                        <p className="mb-5">
                            {t(
                                'Besides your password, or instead of it: a passkey on this device, by its finger, face or screen code; or an app on your phone that shows codes.',
                            )}
                        </p>
                        <AddPasskey
                            kind="primary"
                            onAdded={(page) => (page.recovery.length > 0 ? setRecovery(page.recovery) : finished())}
                        />
                        <div className="mt-4">
                            <Button large onClick={() => setApp(true)}>
                                {t('Use an app for codes instead')}
                            </Button>
                        </div>
                    </>
                )}
                <div className="mt-6">
                    <Button large kind="quiet" onClick={signOut}>
                        {t('Sign out')}
                    </Button>
                </div>
            </Leaf>
        );
    return (
        <Leaf title={t('Choose a password of your own')}>
            <p className="mb-5">
                {me.kind === 'staff'
                    ? t('From now on you sign in with it; the one you were given ends.')
                    : t(
                          'From now on you sign in with it. The passphrase on your card ends; the square on it goes on working.',
                      )}
            </p>
            <SetPassword
                hint={hint}
                onSet={async (password) =>
                    queries.setQueryData(['me'], await data(api.POST('/api/password', { body: { password } })))
                }
            />
            <div className="mt-5">
                <Button large kind="quiet" onClick={signOut}>
                    {t('Sign out')}
                </Button>
            </div>
        </Leaf>
    );
}
