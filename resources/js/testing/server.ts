import { afterEach, vi } from 'vitest';

/** What the page has sent: method and path, and the body where there was one. */
export interface Sent {
    what: string;
    body: unknown;
}

type Answer = unknown | ((body: unknown) => unknown);

let answers: Record<string, Answer> = {};
let sent: Sent[] = [];

/** An answer that is a refusal, as the server words it. */
export class Refused {
    constructor(
        readonly status: number,
        readonly detail: string,
        readonly errors: Record<string, string[]> = {},
    ) {}
}

/**
 * Says what the server answers, by method and path, with the query where that matters; whatever is not said fails like
 * a dead network.
 */
export function serverAnswers(by: Record<string, Answer>): void {
    answers = { ...answers, ...by };
}

export function sentTo(what: string): unknown[] {
    return sent.filter((s) => s.what === what).map((s) => s.body);
}

afterEach(() => {
    answers = {};
    sent = [];
});

// The client takes fetch when it is loaded, so this stands before any page is.
vi.stubGlobal('fetch', async (request: Request): Promise<Response> => {
    const url = new URL(request.url);
    const whole = `${request.method} ${url.pathname}${url.search}`;
    const what = whole in answers ? whole : `${request.method} ${url.pathname}`;
    const text = await request.text();
    const body: unknown = text === '' ? null : JSON.parse(text);
    sent.push({ what, body });
    if (!(what in answers)) throw new TypeError(`nothing answers ${what}`);
    const said = answers[what];
    const answer: unknown = typeof said === 'function' ? (said as (body: unknown) => unknown)(body) : said;
    const json = (status: number, value: unknown) =>
        new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } });
    return answer instanceof Refused
        ? json(answer.status, { title: 'No', detail: answer.detail, errors: answer.errors })
        : json(200, answer);
});
