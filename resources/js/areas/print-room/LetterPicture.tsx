import type { Schemas } from '@/api/client';
import { filledIn, type Tag } from './letters';

/** Children that are nobody, so that a name of the language stands in the picture. */
const NAMES: Record<Tag, string> = {
    en: 'Noor Haddad',
    es: 'Martín Echeverría Solís',
    fr: 'Zoé Lefèvre',
    ar: 'نور حداد',
    vi: 'Nguyễn Thị Phương',
    uk: 'Олена Шевчук',
    zh: '王小明',
};

interface Props {
    kind: Schemas['WordingView']['kind'];
    language: Tag;
    school: string;
    texts: Record<string, string>;
}

/** The page as it is being typed, small: what stands where, in the direction of its language. */
export function LetterPicture({ kind, language, school, texts }: Props) {
    const values = {
        student: NAMES[language],
        school,
        section: '3 Heron',
        address: window.location.host + (kind === 'family' ? '/family' : kind === 'summer' ? '/' : '/in'),
        code: 'AAA-AAAA',
    };
    const t = (name: string) => filledIn(texts[name] ?? '', values);
    const steps = (...names: string[]) => (
        <ol className="list-decimal ps-4">
            {names.map((name) => (
                <li key={name}>{t(name)}</li>
            ))}
        </ol>
    );
    const box =
        kind === 'summer'
            ? [
                  [t('user_label'), 'noor.haddad'],
                  [t('secret_label'), 'three short words'],
              ]
            : [[t('code_label'), kind === 'family' ? 'AAA-AAAA-AAA' : 'AAA-AAAA']];
    return (
        <div
            role="img"
            aria-label={`The page: ${t('heading')}`}
            dir={language === 'ar' ? 'rtl' : 'ltr'}
            lang={language}
            className="flex aspect-[210/297] flex-col gap-1.5 overflow-hidden border border-ink bg-paper p-3 text-[6.5px] leading-snug"
        >
            <p className="border-b border-ink font-semibold">{school}</p>
            <p className="font-serif text-[12px] font-semibold leading-tight">{t('heading')}</p>
            <p>{t('intro')}</p>
            <div className="flex items-center justify-between border border-ink p-2">
                <div>
                    {box.map(([label, value]) => (
                        <p key={label}>
                            {label}
                            <bdi className="block font-mono text-[9px] font-semibold">{value}</bdi>
                        </p>
                    ))}
                </div>
                <div className="size-8 border border-dashed border-ink" />
            </div>
            {kind === 'family' && (
                <>
                    <p className="font-semibold">{t('new_title')}</p>
                    {steps('new_1', 'new_2', 'new_3')}
                    <p className="font-semibold">{t('known_title')}</p>
                    {steps('known_1', 'known_2')}
                    <p>{t('check')}</p>
                </>
            )}
            {kind === 'summer' && (
                <>
                    {steps('step_1', 'step_2')}
                    <p>{t('keep')}</p>
                </>
            )}
            {kind === 'handout' && (
                <>
                    {steps('step_1', 'step_2', 'step_3')}
                    <p>{t('where')}</p>
                </>
            )}
            <p className="whitespace-pre-line">{t('note')}</p>
            {kind === 'family' && (
                <div className="mt-auto border-t border-dashed border-ink pt-1.5">
                    <p className="font-semibold">{t('slip_title')}</p>
                    <p>{t('slip_text')}</p>
                    <div className="mt-5 grid grid-cols-3 gap-2">
                        {['slip_name', 'slip_date', 'slip_signature'].map((name) => (
                            <p key={name} className="border-t border-ink">
                                {t(name)}
                            </p>
                        ))}
                    </div>
                </div>
            )}
        </div>
    );
}
