import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useAct } from '@/api/act';
import type { Schemas } from '@/api/client';
import { LeafNote } from './Leaf';
import { useProblem } from './problem';

export type Hears = Pick<Schemas['HearsView'], 'often' | 'hour'>;

/** How often somebody hears from the school, and when; kept as it is touched. */
export function HearsChoice<R>({
    kept,
    send,
    then,
}: {
    kept: Hears;
    send: (wish: Hears) => Promise<R>;
    then: (answer: R) => void;
}) {
    const { t } = useTranslation();
    const words = useProblem();
    // What was touched stands at once; a refusal puts it back.
    const [wish, setWish] = useState<Hears | null>(null);
    const now = wish ?? kept;
    const save = useAct(send, {
        stale: [],
        words,
        then: (answer: R) => {
            then(answer);
            setWish(null);
        },
        failed: () => setWish(null),
    });
    const choose = (next: Hears) => {
        setWish(next);
        save.run(next);
    };
    return (
        <section className="mb-9">
            <h2 className="mb-2 text-lg">{t('How often you hear')}</h2>
            {save.error && <LeafNote bad>{save.error}</LeafNote>}
            <fieldset disabled={save.busy}>
                <legend className="sr-only">{t('How often you hear')}</legend>
                {(
                    [
                        ['daily', t('Every school day')],
                        ['weekly', t('Once a week')],
                        ['off', t('Only what is urgent')],
                    ] as const
                ).map(([often, label]) => (
                    <label key={often} className="flex min-h-12 items-center gap-3 border-b border-rule">
                        <input
                            type="radio"
                            name="often"
                            className="size-5 accent-ink"
                            checked={now.often === often}
                            onChange={() => choose({ often, hour: now.hour })}
                        />
                        {label}
                    </label>
                ))}
            </fieldset>
            {now.often !== 'off' && (
                <label className="mt-3 flex min-h-12 items-center justify-between gap-3">
                    {t('At what hour')}
                    <select
                        dir="ltr"
                        className="min-h-12 rounded-card border border-ink/60 bg-paper px-3"
                        value={now.hour}
                        disabled={save.busy}
                        onChange={(event) => choose({ often: now.often, hour: Number(event.target.value) })}
                    >
                        {[...Array(24).keys()].map((hour) => (
                            <option key={hour} value={hour}>
                                {String(hour).padStart(2, '0')}:00
                            </option>
                        ))}
                    </select>
                </label>
            )}
        </section>
    );
}
