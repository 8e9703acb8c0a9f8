import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, ApiError, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { QrCode } from '@/ui/QrCode';
import { problem } from './problem';

/** Setting up a second factor: the secret, a first code, then the recovery codes, which are shown this once. */
export function SecondFactorSetup({ onDone }: { onDone: () => void }) {
    const { t } = useTranslation();
    const [begun, setBegun] = useState<Schemas['SecondFactorView'] | null>(null);
    const [recovery, setRecovery] = useState<string[]>([]);
    const [code, setCode] = useState('');
    const [error, setError] = useState('');
    const [asks, setAsks] = useState(false);
    const [current, setCurrent] = useState('');
    const begin = () =>
        run(async () => {
            try {
                setBegun(await data(api.POST('/api/second-factor', { body: current ? { current } : {} })));
            } catch (e) {
                // Signed in a while ago: whoever sets this up shows once more who they are.
                if (e instanceof ApiError && e.fields.current) setAsks(true);
                if (!(e instanceof ApiError && e.fields.current && !asks)) throw e;
            }
        });
    const run = async (work: () => Promise<void>) => {
        setError('');
        try {
            await work();
        } catch (e) {
            setError(problem(e, t).text);
        }
    };
    if (recovery.length > 0)
        return (
            <div>
                <p className="mb-3">
                    {t(
                        'Write these down and keep them away from the phone. Each lets you in once if the phone is lost.',
                    )}
                </p>
                <ul className="mb-5 columns-2 font-mono text-sm" dir="ltr">
                    {recovery.map((r) => (
                        <li key={r}>{r}</li>
                    ))}
                </ul>
                <Button large kind="primary" onClick={onDone}>
                    {t('I have written them down')}
                </Button>
            </div>
        );
    if (!begun)
        return (
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void begin();
                }}
            >
                <p>{t('You need an app on your phone that shows codes of six figures.')}</p>
                {asks && (
                    <Field
                        large
                        label={t('Your password now')}
                        type="password"
                        required
                        autoFocus
                        autoComplete="current-password"
                        hint={t('Once more: whoever sets this up decides who can sign in.')}
                        value={current}
                        onChange={(event) => setCurrent(event.target.value)}
                    />
                )}
                {error && <p className="text-madder">{error}</p>}
                <Button large kind="primary" type="submit">
                    {t('Set it up')}
                </Button>
            </form>
        );
    return (
        <form
            className="flex flex-col gap-5"
            onSubmit={(event) => {
                event.preventDefault();
                void run(async () =>
                    setRecovery((await data(api.POST('/api/second-factor/confirm', { body: { code } }))).recovery),
                );
            }}
        >
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
                value={code}
                onChange={(event) => setCode(event.target.value)}
                error={error || undefined}
            />
            <Button large kind="primary" type="submit">
                {t('Switch it on')}
            </Button>
        </form>
    );
}
