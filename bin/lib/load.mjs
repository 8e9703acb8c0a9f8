// Sends requests at a fixed rate, whether the ones before have been answered or not, and then as fast as they are
// answered. Says what it measured: latency from the moment a request was due. Called by bin/bench joins.
import { readFileSync } from 'node:fs';
import http from 'node:http';
import { note } from './note.mjs';

const [base, file, rate = '100', seconds = '20'] = process.argv.slice(2);
const joiners = readFileSync(file, 'utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));
const agent = new http.Agent({ keepAlive: true, maxSockets: 64 });

function send(method, path, headers, body, due) {
    return new Promise((resolve, reject) => {
        const request = http.request(base + path, { method, agent, headers }, (response) => {
            response.resume();
            response.on('end', () => resolve({ ms: performance.now() - due, status: response.statusCode }));
        });
        request.on('error', reject);
        request.end(body);
    });
}

let next = 0;
const join = (due) => {
    const j = joiners[next++];
    return send(
        'POST',
        '/api/join',
        { 'Content-Type': 'application/json', Accept: 'application/json', Cookie: j.cookie, 'X-CSRF-TOKEN': j.token },
        JSON.stringify({ code: j.code }),
        due,
    );
};
let turn = 0;
/** A page for whoever is signed in that asks the database for nothing of its own: what all pages cost first. */
const signedIn = (due) =>
    send('GET', '/api/languages', { Cookie: joiners[turn++ % Math.min(1000, joiners.length)].cookie }, undefined, due);
const empty = (due) => send('GET', '/up', {}, undefined, due);

function words(name, answers, tookMs) {
    const ms = answers.map((a) => a.ms).sort((a, b) => a - b);
    const at = (share) => ms[Math.min(ms.length - 1, Math.floor(ms.length * share))].toFixed(1);
    const good = answers.filter((a) => a.status === 200).length;
    console.log(
        `${name.padEnd(44)} ${(answers.length / (tookMs / 1000)).toFixed(0).padStart(5)}/s`,
        ` p50 ${at(0.5).padStart(6)}  p95 ${at(0.95).padStart(6)}  p99 ${at(0.99).padStart(6)} ms `,
        `${good} of ${answers.length} answered 200`,
    );
    return { perSecond: answers.length / (tookMs / 1000), p95: Number(at(0.95)) };
}

async function atRate(name, work, perSecond, forSeconds) {
    const begun = performance.now();
    const answers = [];
    const count = perSecond * forSeconds;
    const pending = [];
    for (let i = 0; i < count; i++) {
        const due = begun + (i * 1000) / perSecond;
        const wait = due - performance.now();
        if (wait > 0.5) await new Promise((resolve) => setTimeout(resolve, wait));
        pending.push(work(due).then((answer) => answers.push(answer)));
    }
    await Promise.all(pending);
    return words(name, answers, performance.now() - begun);
}

async function asFastAsAnswered(name, work, clients, count) {
    const begun = performance.now();
    const answers = [];
    let left = count;
    await Promise.all(
        Array.from({ length: clients }, async () => {
            while (left-- > 0) answers.push(await work(performance.now()));
        }),
    );
    return words(name, answers, performance.now() - begun);
}

// Every worker has compiled and opened what it needs before anything is measured.
await Promise.all(
    Array.from({ length: 4 }, async () => {
        for (let i = 0; i < Math.min(40, joiners.length / 16); i++) await join(performance.now());
    }),
);
for (let i = 0; i < 40; i++) await empty(performance.now());
const bare = await atRate(`empty route of the framework, ${rate} a second`, empty, Number(rate), Number(seconds));
const joined = await atRate(`joins, ${rate} a second`, join, Number(rate), Number(seconds));
const most = await asFastAsAnswered('empty route, 4 clients as fast as answered', empty, 4, 2000);
const signed = await asFastAsAnswered('signed in, for nothing, as fast as answered', signedIn, 4, 2000);
const left = Math.min(1200, joiners.length - next);
const joins = await asFastAsAnswered('joins, 4 clients as fast as answered', join, 4, left);
note('joins as fast as answered, beside the empty route', joins.perSecond / most.perSecond, 'ratio', 0.5, true);
note('signed in, for nothing, beside the empty route', signed.perSecond / most.perSecond, 'ratio', 0.5, true);
note(`joins at ${rate} a second, p95 beside the empty route`, joined.p95 / bare.p95, 'ratio', 5);
agent.destroy();
