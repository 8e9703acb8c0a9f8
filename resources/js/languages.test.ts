import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { LANGUAGES } from './shell/language';

// Pages of students and guardians. Staff read English: their parts of the same folder are not asked for.
const PAGES = [
    'CardPicture',
    'ForgottenPage',
    'HomePage',
    'JoinPage',
    'Joined',
    'Leaf',
    'NewAccountFields',
    'NewcomerSteps',
    'PictureKeys',
    'RoomPage',
    'SetPassword',
    'SignInPage',
    'WaitPage',
];
const STAFF = ['The code of your app', 'Six figures, or a recovery code'];
const access = join(__dirname, 'areas/access');
const lang = join(__dirname, '../lang');

function wordsOf(page: string): string[] {
    const code = readFileSync(join(access, `${page}.tsx`), 'utf8');
    return [...code.matchAll(/\bt\(\s*'((?:[^'\\]|\\.)*)'/g)].map((m) => m[1] ?? '');
}

function places(text: string): string[] {
    return (text.match(/\{\{\w+\}\}/g) ?? []).sort();
}

const wanted = [...new Set(PAGES.flatMap(wordsOf))].filter((word) => !STAFF.includes(word));

describe('the languages of students and guardians', () => {
    it('has a file for each but English, and no other', () => {
        expect(readdirSync(lang).sort()).toEqual(
            LANGUAGES.filter((l) => l.code !== 'en')
                .map((l) => `${l.code}.json`)
                .sort(),
        );
        expect(wanted.length).toBeGreaterThan(80);
    });
    for (const { code } of LANGUAGES.filter((l) => l.code !== 'en')) {
        it(`says everything in ${code}, with the same places`, () => {
            const words = JSON.parse(readFileSync(join(lang, `${code}.json`), 'utf8')) as Record<string, string>;
            expect(wanted.filter((word) => !words[word])).toEqual([]);
            expect(Object.entries(words).filter(([key, value]) => places(key).join() !== places(value).join())).toEqual([]);
        });
    }
    it('says the server’s sentences to children as the server says them', () => {
        const php =
            readFileSync(join(__dirname, '../../core/Codes/CodeMistake.php'), 'utf8') +
            readFileSync(join(__dirname, '../../core/Placement/JoinCodes.php'), 'utf8');
        const spanish = JSON.parse(readFileSync(join(lang, 'es.json'), 'utf8')) as Record<string, string>;
        for (const sentence of [
            'All places for this code are taken. Tell your teacher, who can let more in.',
            'One letter is wrong, or two changed places. Compare it with the wall, letter by letter.',
        ]) {
            expect(php).toContain(sentence);
            expect(spanish[sentence]).toBeTruthy();
        }
    });
});
