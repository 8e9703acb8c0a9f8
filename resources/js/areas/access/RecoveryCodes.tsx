import { useTranslation } from 'react-i18next';
import { Button } from '@/ui/Button';

/** What lets somebody in when their second factor is lost: shown this once. */
export function RecoveryCodes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
    const { t } = useTranslation();
    return (
        <div>
            <p className="mb-3">
                {t('Write these down and keep them away from your devices. Each lets you in once if a device is lost.')}
            </p>
            <ul className="mb-5 columns-2 font-mono text-sm" dir="ltr">
                {codes.map((r) => (
                    <li key={r}>{r}</li>
                ))}
            </ul>
            <Button large kind="primary" onClick={onDone}>
                {t('I have written them down')}
            </Button>
        </div>
    );
}
