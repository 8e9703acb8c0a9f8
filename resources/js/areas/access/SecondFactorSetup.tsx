import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { fieldOf } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { QrCode } from '@/ui/QrCode';
import { useSentForm } from '@/ui/useSentForm';
import { PasswordNow } from './PasswordNow';
import { useProblem } from './problem';
import { RecoveryCodes } from './RecoveryCodes';

/** Setting up an app for codes: the secret, a first code, then the recovery codes, which are shown this once. */
export function SecondFactorSetup({ onDone }: { onDone: () => void }) {
    const { t } = useTranslation();
    const words = useProblem();
    const [begun, setBegun] = useState<Schemas['SecondFactorView'] | null>(null);
    const [recovery, setRecovery] = useState<string[]>([]);
    const [asks, setAsks] = useState(false);
    const begin = useSentForm({
        start: { current: '' },
        send: ({ current }) => data(api.POST('/api/second-factor', { body: current ? { current } : {} })),
        stale: [],
        words: (error) => {
            // Signed in a while ago: whoever sets this up shows once more who they are, which is no mistake of theirs.
            const first = !asks && fieldOf(error) === 'current';
            if (first) setAsks(true);
            return first ? '' : words(error);
        },
        then: setBegun,
    });
    const confirm = useSentForm({
        start: { code: '' },
        send: (body) => data(api.POST('/api/second-factor/confirm', { body })),
        stale: [],
        home: 'code',
        words,
        // With a passkey there are some already.
        then: (done) => (done.recovery.length > 0 ? setRecovery(done.recovery) : onDone()),
    });
    if (recovery.length > 0) return <RecoveryCodes codes={recovery} onDone={onDone} />;
    if (!begun)
        return (
            <form className="flex flex-col gap-4" onSubmit={begin.submit}>
                <p>{t('You need an app on your phone that shows codes of six figures.')}</p>
                {asks && <PasswordNow {...begin.field('current')} />}
                {begin.error && (
                    <p role="alert" className="text-madder">
                        {begin.error}
                    </p>
                )}
                <Button large kind="primary" type="submit" disabled={begin.busy}>
                    {t('Set it up')}
                </Button>
            </form>
        );
    return (
        <form className="flex flex-col gap-5" onSubmit={confirm.submit}>
            <QrCode
                path={begun.qr}
                size={begun.qrSize}
                label={t('The key for your app as a QR code')}
                className="w-56"
            />
            <p className="text-sm text-muted">
                {t('Point the app at the square, or type this key:')}{' '}
                <span className="break-all font-mono text-ink">{begun.secret}</span>
            </p>
            <Field
                large
                mono
                label={t('The six figures the app shows')}
                required
                autoComplete="one-time-code"
                inputMode="numeric"
                {...confirm.field('code')}
            />
            <Button large kind="primary" type="submit" disabled={confirm.busy}>
                {t('Switch it on')}
            </Button>
        </form>
    );
}
