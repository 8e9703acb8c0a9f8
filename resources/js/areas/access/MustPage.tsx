import { useQueryClient } from '@tanstack/react-query';
import { useTranslation } from 'react-i18next';
import { api, data } from '@/api/client';
import { type Me, useSignOut } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Leaf } from './Leaf';
import { SecondFactorSetup } from './SecondFactorSetup';
import { usePasswordHint } from './problem';
import { SetPassword } from './SetPassword';

/** What a school asks to be done before anything else: an own password, a second factor. */
export function MustPage({ me }: { me: Me }) {
    const signOut = useSignOut();
    const { t } = useTranslation();
    const queries = useQueryClient();
    const hint = usePasswordHint(me.kind);
    if (me.must === 'second_factor')
        return (
            <Leaf title={t('Your school asks for a second factor')}>
                <SecondFactorSetup onDone={() => void queries.invalidateQueries({ queryKey: ['me'] })} />
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
