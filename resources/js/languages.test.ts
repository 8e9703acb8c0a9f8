import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { LANGUAGES } from './shell/language';

// Pages of students and guardians. Staff read English: their parts of the same folder are not asked for.
const PAGES = [
    'CardPage',
    'CardPicture',
    'ComePage',
    'FamilyPage',
    'ForgottenPage',
    'GuardianFields',
    'GuardianPage',
    'HeldPart',
    'HearsChoice',
    'HearsPage',
    'HomeBoard',
    'HomePage',
    'JoinPage',
    'Joined',
    'Leaf',
    'NewAccountFields',
    'NewcomerSteps',
    'OwnPage',
    'PictureKeys',
    'RoomPage',
    'SeekForm',
    'SetPassword',
    'SignInPage',
    'WaitPage',
];
const STAFF = [
    'The code of your app',
    'Your second factor',
    'Use your passkey',
    'For staff: use a passkey',
    'Six digits, or a recovery code',
];
const root = join(__dirname, '../..');
const lang = join(__dirname, '../lang');

/** Parts that stand on their pages too. */
const SHARED = ['ui/Instead.tsx', 'shell/session.ts'];

function wordsOf(page: string): string[] {
    return wordsIn(`areas/access/${page}.tsx`);
}

function wordsIn(file: string): string[] {
    return [...code(join(__dirname, file)).matchAll(/\bt\(\s*'((?:[^'\\]|\\.)*)'/g)].map((m) => m[1] ?? '');
}

function places(text: string): string[] {
    return (text.match(/\{\{\w+\}\}/g) ?? []).sort();
}

// Where the server speaks to students and guardians. What varies in a sentence stands beside it, so each is one string.
const SERVER = [
    'app/Door/JoinDesk.php',
    'app/Door/Http/ComeController.php',
    'app/Door/Http/NewcomerController.php',
    'app/Door/Http/RoomController.php',
    'app/Guardians/ContactDesk.php',
    'app/Guardians/FamilyDoor.php',
    'app/Guardians/GuardianLink.php',
    'app/Guardians/Http/FamilyController.php',
    'app/Guardians/Http/SeekController.php',
    'app/Guardians/TypedGuardian.php',
    'core/Guardians/Claims.php',
    'core/Guardians/Invites.php',
    'app/Accounts/Http/SecretController.php',
    'app/Accounts/SignInDesk.php',
    'app/Accounts/SingleSignOn.php',
    'app/Wiring/Problems.php',
    'core/Codes/CodeMistake.php',
    'core/Accounts/PasswordRules.php',
    'core/Plan/Enrolling.php',
    'core/Door/JoinCodes.php',
    'core/Door/JoinRequests.php',
    'core/Door/Newcomers.php',
    'core/Door/RoomPasses.php',
    'core/Door/StudentInvites.php',
    'core/Accounts/Pictures.php',
    'core/Accounts/Way.php',
];
const BEFORE = [
    /new Refusal\(\s*/,
    /self::\w+ =>\s+/,
    /self::problem\(\s*\d+,\s+'[^']*',\s+/,
    /\d+ => \[\s*'[^']*',\s+/,
];
const SENTENCE = new RegExp(`(?:${BEFORE.map((r) => r.source).join('|')})'((?:[^'\\\\]|\\\\.)*)'`, 'g');

/** Code with the pieces of a string that is written over several lines put together. */
function code(path: string): string {
    return readFileSync(path, 'utf8').replace(/' \.\s+'/g, '');
}
/** Answers to what only staff do. */
const TO_STAFF = new Set([
    // A phone says of too many tries that it takes a while.
    'There have been too many tries. Wait ',
    'That end has passed already. Choose a later one, or close the code.',
    'This code is closed. Open a new one.',
    'That end has passed already. Choose a later one.',
    'That is not the account of an active student.',
    'Nobody waits.',
    'None of these can be invited.',
    'One person sends at most ',
    'They asked from an account of their own, which is the one to connect.',
    'That account cannot be connected. Choose another.',
    'That is no guardian on record of this student.',
    'This has been answered already.',
    'Contact with this guardian is restricted. Turn the request down, or lift the restriction first.',
    'This invitation has been answered or withdrawn already.',
    'The school keeps the addresses of its staff. Ask the coordinator for another.',
    'That took too long. Sign in again from the start.',
    'The school’s sign-on signs in a way that is not accepted here.',
    'There is no single sign-on here.',
    'The school’s sign-on reports a different identity from the one configured here. Tell the coordinator.',
    'The school’s sign-on does not say where to go. Tell the coordinator.',
]);

function sources(folder: string): string[] {
    return readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
        .filter((file) => /\.(php|tsx?)$/.test(file) && !/\.test\.ts$|schema\.d\.ts$/.test(file))
        .map((file) => code(join(root, folder, file)));
}

/** Kinds of devices, as one’s own sessions are listed by; those that are names are the same in every language. */
const DEVICES = [
    ...code(join(root, 'app/Accounts/Views/SessionLine.php')).matchAll(/(?:=>|\?|:)\s+'((?:\w+ )+\w+)'/g),
].map((m) => m[1] ?? '');

const wanted = [...new Set([...PAGES.flatMap(wordsOf), ...SHARED.flatMap(wordsIn), ...DEVICES])].filter(
    (word) => !STAFF.includes(word),
);

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
            expect(Object.entries(words).filter(([key, value]) => places(key).join() !== places(value).join())).toEqual(
                [],
            );
        });
    }
    it('has every sentence of the server that a student or guardian can meet, as the server says it', () => {
        const sentences = SERVER.flatMap((file) =>
            [...code(join(root, file)).matchAll(SENTENCE)].map((m) => (m[1] ?? '').replaceAll("\\'", "'")),
        );
        expect(sentences.length).toBeGreaterThan(60);
        expect([...TO_STAFF].filter((sentence) => !sentences.includes(sentence))).toEqual([]);
        const met = [...new Set(sentences)].filter((sentence) => !TO_STAFF.has(sentence));
        for (const { code } of LANGUAGES.filter((l) => l.code !== 'en')) {
            const words = JSON.parse(readFileSync(join(lang, `${code}.json`), 'utf8')) as Record<string, string>;
            expect(met.filter((sentence) => !words[sentence])).toEqual([]);
        }
    });
    it('keeps no words that nobody says any more', () => {
        const said = ['resources/js', 'core', 'app', 'config'].flatMap(sources).join('\n');
        const spanish = JSON.parse(readFileSync(join(lang, 'es.json'), 'utf8')) as Record<string, string>;
        expect(Object.keys(spanish).filter((key) => !said.includes(key))).toEqual([]);
    });
});
