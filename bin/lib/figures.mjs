// Lays what the benches have measured beside what they measured last, and marks what is more than 1.2 times worse.
// Called by bin/bench all: figures.mjs MEASURED prints; figures.mjs MEASURED KEPT PAGE also writes both, the figures
// kept and the page between its two marks.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const WORSE = 1.2;
const [measured, kept, page] = process.argv.slice(2);
const lines = (file) =>
    readFileSync(file, 'utf8')
        .split('\n')
        .filter(Boolean)
        .map((line) => JSON.parse(line));
const before = new Map(
    (kept && existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')) : []).map((f) => [f.what, f]),
);
const today = new Date().toISOString().slice(0, 10);
const now = lines(measured).map((f) => ({ ...f, on: today }));
if (now.length === 0) throw new Error('no bench has measured anything');
const say = ({ value, unit }) => (unit === 'ratio' ? value.toFixed(2) : `${+value.toPrecision(3)} ${unit}`);
const times = (f, than) => (f.more ? than / f.value : f.value / than);
// Of a bench that was not run, what it measured last stands as it is.
const seen = new Set(now.map((f) => f.what));
const all = [...now, ...(page ? [...before.values()].filter((f) => !seen.has(f.what)) : [])];
const rows = all.map((f) => {
    const last = seen.has(f.what) ? before.get(f.what) : f.was;
    const grown = last && last.value > 0 && f.value > 0 ? times(f, last.value) : null;
    return [
        f.what,
        say(f),
        f.goal === null ? '' : `${f.more ? '≥' : '≤'} ${say({ ...f, value: f.goal })}`,
        f.goal === null ? '' : times(f, f.goal) <= 1 ? 'yes' : '**no**',
        last ? say({ ...f, value: last.value }) : '',
        grown !== null && grown > WORSE ? `**${grown.toFixed(1)} times worse**` : '',
        f.on,
    ];
});
const head = ['what', 'now', 'goal', 'kept', 'the time before', '', 'measured'];
const table = [head, head.map((name) => (name === 'now' ? '---:' : '---')), ...rows]
    .map((cells) => `| ${cells.join(' | ')} |`)
    .join('\n');
console.log(table);
if (kept && page) {
    const was = ({ what }) => (before.has(what) ? { was: { value: before.get(what).value } } : {});
    writeFileSync(
        kept,
        JSON.stringify(
            all.map((f) => (seen.has(f.what) ? { ...f, ...was(f) } : f)),
            null,
            1,
        ) + '\n',
    );
    const text = readFileSync(page, 'utf8');
    const [from, to] = ['<!-- bin/bench all -->', '<!-- /bin/bench all -->'];
    if (!text.includes(from) || !text.includes(to)) throw new Error(`${page} has no place for the figures`);
    writeFileSync(
        page,
        text.slice(0, text.indexOf(from) + from.length) + `\n\n${table}\n\n` + text.slice(text.indexOf(to)),
    );
}
