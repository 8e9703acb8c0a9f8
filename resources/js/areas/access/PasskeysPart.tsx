import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { canPasskeys } from '@/api/passkey';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Instead } from '@/ui/Instead';
import { AddPasskey } from './AddPasskey';
import { LeafNote } from './Leaf';
import { PasswordNow } from './PasswordNow';
import { useProblem } from './problem';
import { RecoveryCodes } from './RecoveryCodes';

/** The passkeys of whoever is signed in: seen, added, removed. */
export function PasskeysPart() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const words = useProblem();
    const [recovery, setRecovery] = useState<string[]>([]);
    const [removing, setRemoving] = useState<string | null>(null);
    const [password, setPassword] = useState('');
    const asked = useQuery({ queryKey: ['passkeys'], queryFn: () => data(api.GET('/api/passkeys')) });
    const end = useAct(
        (passkey: string) =>
            data(
                api.POST('/api/passkeys/{passkey}/end', {
                    params: { path: { passkey } },
                    body: password ? { current: password } : {},
                }),
            ),
        {
            stale: [['second-factor'], ['passkeys']],
            words,
            then: () => {
                setRemoving(null);
                setPassword('');
            },
        },
    );
    const page = asked.data;
    if (!page) return <Instead of={asked} size="part" />;
    const here = canPasskeys() && page.address === window.location.origin;
    const again = end.error !== '' && end.field('current') !== '';
    return (
        <section className="mb-9">
            <h2 className="mb-3 text-lg">{t('Passkeys')}</h2>
            {recovery.length > 0 ? (
                <RecoveryCodes codes={recovery} onDone={() => setRecovery([])} />
            ) : (
                <>
                    <p className="mb-4">
                        {t(
                            'A passkey signs you in by the finger, face or screen code of your device. There is nothing to type, and nothing anybody could ask you for. Once you have one, your password alone lets nobody in.',
                        )}
                    </p>
                    {page.passkeys.length > 0 && (
                        <ul className="mb-5">
                            {page.passkeys.map((p) => (
                                <li key={p.id} className="border-b border-rule py-2">
                                    <div className="flex min-h-12 items-center justify-between gap-4">
                                        <span>
                                            {p.name}
                                            <span className="block text-sm text-muted">
                                                {p.lastUsed
                                                    ? t('added {{added}}, last used {{used}}', {
                                                          added: day(p.madeAt),
                                                          used: day(p.lastUsed),
                                                      })
                                                    : t('added {{added}}', { added: day(p.madeAt) })}
                                            </span>
                                        </span>
                                        {removing !== p.id && (
                                            <Button
                                                large
                                                kind="quiet"
                                                aria-label={t('Remove: {{name}}', { name: p.name })}
                                                onClick={() => (end.clear(), setRemoving(p.id))}
                                            >
                                                {t('Remove…')}
                                            </Button>
                                        )}
                                    </div>
                                    {removing === p.id && (
                                        <form
                                            className="flex flex-col gap-3 pb-3"
                                            onSubmit={(event) => (event.preventDefault(), end.run(p.id))}
                                        >
                                            <p>{t('It stops signing you in at once, on every device that has it.')}</p>
                                            {again && (
                                                <PasswordNow
                                                    value={password}
                                                    onChange={(event) => setPassword(event.target.value)}
                                                    error={end.field('current')}
                                                />
                                            )}
                                            {end.error && !again && <LeafNote bad>{end.error}</LeafNote>}
                                            <span className="flex gap-3">
                                                <Button large kind="danger" type="submit" disabled={end.busy}>
                                                    {t('Remove it')}
                                                </Button>
                                                <Button large onClick={() => setRemoving(null)}>
                                                    {t('Keep it')}
                                                </Button>
                                            </span>
                                        </form>
                                    )}
                                </li>
                            ))}
                        </ul>
                    )}
                    {here ? (
                        <AddPasskey
                            onAdded={(now) => {
                                setRecovery(now.recovery);
                                queries.setQueryData(['passkeys'], { ...now, recovery: [] });
                                void queries.invalidateQueries({ queryKey: ['second-factor'] });
                            }}
                        />
                    ) : (
                        <p className="text-sm text-muted">
                            {page.address === ''
                                ? t(
                                      'None can be added here: browsers make passkeys at an address with a name that begins with https. Whoever looks after the server can set that up.',
                                  )
                                : page.address !== window.location.origin
                                  ? t('None can be added here: open this page at {{address}}.', {
                                        address: page.address,
                                    })
                                  : t('This browser makes no passkeys. Another one, or a newer one, does.')}
                        </p>
                    )}
                </>
            )}
        </section>
    );
}
