import { type ReactNode, useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import { direction, keep, LANGUAGES, speak } from '@/shell/language';

interface Props {
    title: string;
    children: ReactNode;
    above?: ReactNode;
    wide?: boolean;
    /** What is to stand here is on its way. */
    busy?: boolean;
}

/** The page of a student, a guardian or someone invited: one thing, in the middle, phone first, in their language. */
export function Leaf({ title, children, above, wide = false, busy = false }: Props) {
    const { t, i18n } = useTranslation();
    useEffect(() => {
        document.title = typeof above === 'string' && above !== '' ? `${title} – ${above}` : title;
    }, [title, above]);
    useEffect(() => {
        const before = document.documentElement.lang;
        document.documentElement.lang = i18n.language;
        // Whoever signs in again on top of a page goes on in the language of that page.
        return () => void (document.documentElement.lang = before);
    }, [i18n.language]);
    return (
        <main
            aria-busy={busy}
            lang={i18n.language}
            dir={direction(i18n.language)}
            className={`mx-auto flex min-h-full w-full flex-col px-5 py-8 ${wide ? 'max-w-3xl' : 'max-w-md'}`}
        >
            <div className="mb-8 flex items-center justify-between gap-4 border-b border-ink">
                <p className="font-serif font-semibold">
                    <bdi>{above ?? 'Vantrel'}</bdi>
                </p>
                <label className="shrink-0">
                    <span className="sr-only">{t('Language')}</span>
                    <select
                        value={i18n.language}
                        onChange={(event) => {
                            keep(event.target.value);
                            void speak(event.target.value);
                        }}
                        className="min-h-12 bg-paper text-sm text-muted"
                    >
                        {LANGUAGES.map((l) => (
                            <option key={l.code} value={l.code} lang={l.code}>
                                {l.name}
                            </option>
                        ))}
                    </select>
                </label>
            </div>
            <h1 className="mb-5 text-2xl leading-tight">{title}</h1>
            {children}
        </main>
    );
}

/** What went wrong, or what should be known first. */
export function LeafNote({ bad = false, children }: { bad?: boolean; children: ReactNode }) {
    return (
        <p
            role={bad ? 'alert' : undefined}
            className={`mb-5 border-s-[3px] ps-3 ${bad ? 'border-madder text-madder' : 'border-marigold'}`}
        >
            {children}
        </p>
    );
}
