// Weighs the scripts of each entrance as a browser fetches them, compressed, and fails where one has grown past its
// budget. Called by bin/test static, after a build.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

/**
 * Thousands of bytes, gzip: what was measured and some 3 % more, as compression and libraries' small releases move it.
 * React DOM alone weighs 65 of them.
 */
const BUDGETS = [
    { who: 'a student’s or guardian’s own page', page: 'areas/access/HomePage', most: 132 },
    { who: 'signing in', page: 'areas/access/SignInPage', most: 148 },
    { who: 'joining by a code', page: 'areas/access/JoinPage', most: 153 },
    { who: 'a card held before the camera', page: 'areas/access/CardPage', most: 133 },
    { who: 'the list of a room', page: 'areas/access/RoomPage', most: 134 },
    { who: 'the wall', page: 'areas/sections/WallPage', most: 135 },
    { who: 'staff', page: 'shell/Staff', most: 260 },
];
const LANGUAGE = 'resources/lang/uk.json';

const manifest = JSON.parse(readFileSync('public/build/manifest.json', 'utf8'));
const weight = (file) => gzipSync(readFileSync(`public/build/${file}`)).length;

/** The chunk and all it imports. */
function reach(key, seen = new Set()) {
    if (seen.has(key)) return seen;
    seen.add(key);
    for (const next of manifest[key].imports ?? []) reach(next, seen);
    return seen;
}

let failed = false;
for (const { who, page, most } of BUDGETS) {
    const keys = reach('resources/js/main.tsx');
    const own = Object.keys(manifest).find((key) => key.startsWith(`resources/js/${page}.`));
    // A page that is not apart comes with the first script.
    if (own) reach(own, keys);
    reach(LANGUAGE, keys);
    const files = new Set([...keys].map((key) => manifest[key].file).filter((file) => file.endsWith('.js')));
    const kilobytes = [...files].reduce((sum, file) => sum + weight(file), 0) / 1000;
    const over = kilobytes > most;
    failed ||= over;
    console.log(`${over ? 'TOO HEAVY ' : ''}${who}: ${kilobytes.toFixed(1)} of ${most} kB of script, compressed`);
}
process.exit(failed ? 1 : 0);
