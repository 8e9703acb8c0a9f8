import { useTranslation } from 'react-i18next';

/** A login card in outline, to show where on it something stands. */
export function CardPicture() {
    const { t } = useTranslation();
    return (
        <svg
            role="img"
            aria-label={t(
                'A login card: the user name and the passphrase stand at the left, the square code at the right',
            )}
            viewBox="0 0 180 108"
            className="w-44"
        >
            <rect x="1" y="1" width="178" height="106" fill="none" stroke="var(--ink)" />
            <line x1="12" x2="96" y1="20" y2="20" stroke="var(--ink)" strokeWidth="5" />
            <line x1="12" x2="60" y1="31" y2="31" stroke="var(--rule)" strokeWidth="3" />
            <rect x="8" y="42" width="94" height="20" fill="none" stroke="var(--marigold)" strokeWidth="2" />
            <text x="13" y="56" fontSize="10" fill="var(--ink)">
                {t('user name')}
            </text>
            <rect x="8" y="68" width="94" height="20" fill="none" stroke="var(--marigold)" strokeWidth="2" />
            <text x="13" y="82" fontSize="10" fill="var(--ink)">
                {t('passphrase')}
            </text>
            <path
                d="M118 34h16v16h-16zM150 34h16v16h-16zM118 66h16v16h-16zM140 40h6M140 52h6v8h10v8M150 74h16M146 82h8"
                fill="none"
                stroke="var(--ink)"
                strokeWidth="4"
            />
        </svg>
    );
}
