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

function ofText(text: string): unknown {
    return text === '' ? null : JSON.parse(text);
}

/** Fields of a form that carries files, each file as its name. */
function ofForm(form: RequestInit['body']): unknown {
    return form instanceof FormData
        ? Object.fromEntries([...form.entries()].map(([key, v]) => [key, v instanceof File ? v.name : v]))
        : null;
}

// The client takes fetch when it is loaded, so this stands before any page is.
vi.stubGlobal('fetch', async (request: Request | string, init?: RequestInit): Promise<Response> => {
    const [method, address] =
        typeof request === 'string' ? [init?.method ?? 'GET', request] : [request.method, request.url];
    const url = new URL(address, 'http://localhost');
    const whole = `${method} ${url.pathname}${url.search}`;
    const what = whole in answers ? whole : `${method} ${url.pathname}`;
    const body: unknown = typeof request === 'string' ? ofForm(init?.body) : ofText(await request.text());
    sent.push({ what, body });
    if (!(what in answers)) throw new TypeError(`nothing answers ${what}`);
    const said = answers[what];
    const answer: unknown = typeof said === 'function' ? await (said as (body: unknown) => unknown)(body) : said;
    const json = (status: number, value: unknown) =>
        new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } });
    return answer instanceof Refused
        ? json(answer.status, { title: 'No', detail: answer.detail, errors: answer.errors })
        : json(200, answer);
});
