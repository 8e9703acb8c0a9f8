import { useState } from 'react';
import { useTranslation } from 'react-i18next';

/** Line drawings on a field of 24 by 24, told apart by outline alone. */
const DRAWINGS: Record<string, string> = {
    boat: 'M3 15h18l-3 5H6zM12 15V3l6 9h-6',
    leaf: 'M5 19C4 9 10 4 20 4c0 10-5 16-15 15zM5 19 14 10',
    key: 'M8 12a4 4 0 1 0-8 0 4 4 0 0 0 8 0zm0 0h14v4M18 12v3',
    kite: 'M12 2l7 8-7 8-7-8zM12 2v16M5 10h14M12 18c-2 2 2 2 0 4',
    shell: 'M12 21C5 21 2 15 3 9c2-4 6-6 9-6s7 2 9 6c1 6-2 12-9 12zM12 21V3M12 21 6 6M12 21 18 6',
    bell: 'M5 17h14c-2-2-2-5-2-8a5 5 0 0 0-10 0c0 3 0 6-2 8zM10 20h4M12 2v2',
    house: 'M3 11l9-8 9 8M5 10v11h14V10M10 21v-6h4v6',
    sun: 'M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8zM12 1v4M12 19v4M1 12h4M19 12h4M4 4l3 3M17 17l3 3M20 4l-3 3M7 17l-3 3',
    fish: 'M2 12c4-7 11-7 15 0-4 7-11 7-15 0zM17 12l5-5v10zM7 11v.5',
    cup: 'M4 6h13v8a5 5 0 0 1-5 5H9a5 5 0 0 1-5-5zM17 8h2a2 2 0 0 1 0 6h-2M3 22h15',
    tree: 'M12 22v-7M12 2l6 7h-3l4 6H5l4-6H6z',
    moon: 'M19 15A8 8 0 1 1 10 4a7 7 0 0 0 9 11z',
};

/** Twelve pictures, three of which are tapped in turn. */
export function PictureKeys({ choice, onDone }: { choice: string[]; onDone: (pictures: string[]) => void }) {
    const { t } = useTranslation();
    const [tapped, setTapped] = useState<string[]>([]);
    const tap = (picture: string) => {
        const next = [...tapped, picture];
        setTapped(next);
        if (next.length === 3) onDone(next);
    };
    return (
        <div>
            <p
                className="mb-4 text-center font-mono text-2xl"
                role="status"
                aria-label={t('{{count}} of 3 tapped', { count: tapped.length })}
            >
                {[0, 1, 2].map((i) => (i < tapped.length ? '●' : '○')).join(' ')}
            </p>
            <ul className="grid grid-cols-3 gap-3">
                {choice.map((picture) => (
                    <li key={picture}>
                        <button
                            aria-label={t(picture)}
                            onClick={() => tap(picture)}
                            disabled={tapped.length === 3}
                            className="flex aspect-square w-full items-center justify-center rounded-card border border-ink/40 hover:border-ink"
                        >
                            <svg
                                viewBox="-1 -1 26 26"
                                className="w-3/5"
                                fill="none"
                                stroke="currentColor"
                                strokeWidth="1.3"
                                strokeLinejoin="round"
                                strokeLinecap="round"
                                aria-hidden="true"
                            >
                                <path d={DRAWINGS[picture] ?? ''} />
                            </svg>
                        </button>
                    </li>
                ))}
            </ul>
        </div>
    );
}
