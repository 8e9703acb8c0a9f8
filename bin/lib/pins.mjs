// Whether node_modules holds what package-lock.json says. npm ci asks for the binaries of every other platform too,
// which a registry need not hold; so the packages are installed by the lock file, and this looks at what came.
import { readFileSync } from 'node:fs';

const packages = (file) => JSON.parse(readFileSync(file, 'utf8')).packages;
const want = packages('package-lock.json');
const have = packages('node_modules/.package-lock.json');
const wrong = [];
for (const [path, lock] of Object.entries(want)) {
    if (path === '') continue;
    const found = have[path];
    if (!found) {
        if (!lock.optional && !lock.devOptional && !lock.peer) wrong.push(`${path} ${lock.version} is missing`);
    } else if (found.version !== lock.version) {
        wrong.push(`${path} is ${found.version}, not ${lock.version}`);
    }
}
for (const [path, found] of Object.entries(have)) {
    // Binaries for other platforms come and go with the registry; they are not used.
    if (!want[path] && !found.optional && !found.inBundle)
        wrong.push(`${path} ${found.version} is not in package-lock.json`);
}
for (const line of wrong) console.error(`  ${line}`);
process.exit(wrong.length === 0 ? 0 : 1);
