// The first morning: classes come in at once, one after the other, while coordinators apply lists. Says how long each
// answer took from the moment it was asked for, and how much longer a list takes than before the doors open. Called by
// bin/bench morning.
import { readFileSync } from 'node:fs';
import http from 'node:http';
import { note } from './note.mjs';

const [base, file, seconds] = process.argv.slice(2);
const { classes, coordinators, rows } = JSON.parse(readFileSync(file, 'utf8'));
/** Milliseconds from the beginning of a list to that of the next of the same coordinator. */
const BETWEEN = 120_000;
const agent = new http.Agent({ keepAlive: true, maxSockets: 128 });

/** One who has a browser: cookies are kept and the token goes with what is sent. */
class Visitor {
    cookies = new Map();

    ask(method, path, body) {
        const begun = performance.now();
        const token = this.cookies.get('XSRF-TOKEN');
        const headers = {
            Accept: 'application/json',
            'Content-Type': 'application/json',
            Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
            ...(token ? { 'X-XSRF-TOKEN': decodeURIComponent(token) } : {}),
        };
        return new Promise((resolve, reject) => {
            const request = http.request(base + path, { method, agent, headers }, (response) => {
                const parts = [];
                for (const cookie of response.headers['set-cookie'] ?? []) {
                    const [pair] = cookie.split(';');
                    this.cookies.set(pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1));
                }
                response.on('data', (part) => parts.push(part));
                response.on('end', () => {
                    const text = Buffer.concat(parts).toString();
                    const json = /json/.test(response.headers['content-type'] ?? '') && text !== '';
                    resolve({
                        status: response.statusCode,
                        ms: performance.now() - begun,
                        body: json ? JSON.parse(text) : text,
                    });
                });
            });
            request.on('error', reject);
            request.end(body === undefined ? undefined : JSON.stringify(body));
        });
    }

    async must(method, path, body) {
        const answer = await this.ask(method, path, body);
        if (answer.status >= 300)
            throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 300)}`);
        return answer.body;
    }
}

const answers = { signIn: [], join: [] };
let letIn = 0;
let full = 0;
const other = new Map();

async function comeIn(token, code) {
    const student = new Visitor();
    await student.ask('GET', '/api/entrance');
    const signedIn = await student.ask('POST', '/api/sign-in/card', { token });
    answers.signIn.push(signedIn.ms);
    const joined = await student.ask('POST', '/api/join', { code });
    answers.join.push(joined.ms);
    const what = `${signedIn.status} ${joined.status}`;
    if (joined.status === 200) letIn++;
    else if (joined.status === 422 && /All places/.test(joined.body.detail ?? '')) full++;
    else other.set(what, (other.get(what) ?? 0) + 1);
}

const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

let lookedAgain = 0;

/** From the paste to the last record, in seconds; looked at again where something has changed since. */
async function apply(visitor, { school }, text) {
    const begun = performance.now();
    let list = await visitor.must('POST', `/api/schools/${school}/intakes`, { text });
    const settled = async () => {
        while (['reading', 'applying'].includes(list.state)) {
            await sleep(200);
            list = await visitor.must('GET', `/api/intakes/${list.id}`);
        }
    };
    await settled();
    for (let tries = 0; list.state === 'planned' && tries < 5; tries++) {
        if (tries > 0) lookedAgain++;
        list = await visitor.must('POST', `/api/intakes/${list.id}/apply`, { fingerprint: list.fingerprint });
        await settled();
    }
    if (list.state !== 'applied') throw new Error(`a list is ${list.state}: ${list.message}`);
    return (performance.now() - begun) / 1000;
}

async function signedIn(coordinator) {
    const visitor = new Visitor();
    await visitor.ask('GET', '/api/entrance');
    await visitor.must('POST', '/api/sign-in', {
        user_name: coordinator.user,
        secret: coordinator.password,
        stay: '',
    });
    return visitor;
}

const at = (list, share) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length;
const say = (name, list) =>
    console.log(
        `${name.padEnd(28)} p50 ${at(list, 0.5).toFixed(0)}  p95 ${at(list, 0.95).toFixed(0)} `,
        `most ${Math.max(...list).toFixed(0)} ms`,
    );

const offices = await Promise.all(coordinators.map(async (c) => [await signedIn(c), c]));
const before = await Promise.all(offices.map(([visitor, c]) => apply(visitor, c, c.lists.shift())));
const during = [];
let open = true;
const listsApplied = offices.map(async ([visitor, c]) => {
    while (open && c.lists.length > 0) {
        const next = performance.now() + BETWEEN;
        during.push(await apply(visitor, c, c.lists.shift()));
        while (open && performance.now() < next) await sleep(200);
    }
});
const begun = performance.now();
const pending = [];
for (const [i, { code, cards }] of classes.entries()) {
    const due = begun + (i * Number(seconds) * 1000) / classes.length;
    if (due > performance.now()) await sleep(due - performance.now());
    pending.push(...cards.map((card) => comeIn(card, code)));
}
await Promise.all(pending);
const took = (performance.now() - begun) / 1000;
open = false;
await Promise.all(listsApplied);
// A list meets all who have come in the meantime: it is held against what it takes with them, when it is quiet again.
const after = await Promise.all(offices.map(([visitor, c]) => apply(visitor, c, c.lists.shift())));
agent.destroy();

const slower = (2 * mean(during)) / (mean(before) + mean(after));
console.log(`${classes.length} classes of ${classes[0].cards.length} in ${took.toFixed(0)} s`);
say('sign in with the card', answers.signIn);
say('come in by the code', answers.join);
console.log(`let in ${letIn}, told that it is full ${full}, anything else ${JSON.stringify([...other])}`);
console.log(
    `a list of ${rows}, from the paste to the last record: ${mean(before).toFixed(1)} s before, ` +
        `${mean(after).toFixed(1)} s after, ` +
        `${mean(during).toFixed(1)} s meanwhile (${during.length} of them), ` +
        `${slower.toFixed(1)} times as long as the mean of both; ` +
        `looked at again ${lookedAgain} times`,
);
note('first morning: come in by the code, p95', at(answers.join, 0.95), 'ms', 1000);
note('first morning: a list meanwhile, beside before and after', slower, 'ratio', 2);
if (other.size > 0) process.exitCode = 1;
