import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';

/** Languages of the pages of students and guardians. Their words are the English sentences, in resources/lang/. */
export const LANGUAGES = [
    { code: 'en', name: 'English', dir: 'ltr' },
    { code: 'es', name: 'Español', dir: 'ltr' },
    { code: 'fr', name: 'Français', dir: 'ltr' },
    { code: 'ar', name: 'العربية', dir: 'rtl' },
    { code: 'vi', name: 'Tiếng Việt', dir: 'ltr' },
    { code: 'uk', name: 'Українська', dir: 'ltr' },
    { code: 'zh', name: '简体中文', dir: 'ltr' },
] as const;

const KEPT = 'vantrel.language';
const files = import.meta.glob<{ default: Record<string, string> }>('../../lang/*.json');

function first(): string {
    const wanted = [localStorage.getItem(KEPT), ...navigator.languages.map((l) => l.slice(0, 2))];
    return wanted.find((l) => LANGUAGES.some((known) => known.code === l)) ?? 'en';
}

export async function speak(code: string): Promise<void> {
    const load = files[`../../lang/${code}.json`];
    if (load && !i18next.hasResourceBundle(code, 'translation')) {
        i18next.addResourceBundle(code, 'translation', (await load()).default);
    }
    await i18next.changeLanguage(code);
}

export function keep(code: string): void {
    localStorage.setItem(KEPT, code);
}

export async function beginLanguage(): Promise<void> {
    await i18next.use(initReactI18next).init({
        lng: 'en',
        fallbackLng: false,
        // Keys are sentences, with their dots and colons.
        keySeparator: false,
        nsSeparator: false,
        returnEmptyString: false,
        interpolation: {
            escapeValue: true,
            // React escapes; here a name of another direction is set apart, so that it does not turn the sentence round
            // it.
            escape: (value: string) => (direction(i18next.language) === 'rtl' ? `\u2068${value}\u2069` : value),
        },
        react: { useSuspense: false },
    });
    await speak(first());
}

export function direction(code: string): 'ltr' | 'rtl' {
    return LANGUAGES.find((l) => l.code === code)?.dir ?? 'ltr';
}
