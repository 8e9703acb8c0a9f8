import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** An answer that is not as asked: a problem detail (RFC 9457), or no answer at all. */
export class ApiError extends Error {
    constructor(
        readonly status: number,
        readonly title: string,
        detail: string,
        readonly fields: Record<string, string[]> = {},
        readonly changed: string[] = [],
        /** The detail with places for its values, where it has any: what another language begins from. */
        readonly said: { sentence: string; values: Record<string, string | number> } = { sentence: detail, values: {} },
    ) {
        super(detail);
    }
}

export function csrfToken(): string {
    const match = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie);
    return match?.[1] ? decodeURIComponent(match[1]) : '';
}

export async function problemOf(response: Response): Promise<ApiError> {
    const body = (await response
        .clone()
        .json()
        .catch(() => ({}))) as {
        title?: string;
        detail?: string;
        errors?: Record<string, string[]>;
        changed?: string[];
        sentence?: string;
        values?: Record<string, string | number>;
    };
    return new ApiError(
        response.status,
        body.title ?? 'That did not work',
        body.detail ?? 'The server gave no reason. Try again.',
        body.errors,
        body.changed,
        body.sentence ? { sentence: body.sentence, values: body.values ?? {} } : undefined,
    );
}

/** Milliseconds after which a page that nobody has touched asks by itself: that keeps no session open. */
const UNTOUCHED = 60_000;
let touched = Date.now();
if (typeof window !== 'undefined') {
    for (const kind of ['pointerdown', 'keydown', 'wheel', 'touchstart']) {
        window.addEventListener(kind, () => (touched = Date.now()), { capture: true, passive: true });
    }
}

/** Is told when the server knows nobody any more who was signed in. */
let ended: () => void = () => undefined;
export function whenSessionEnds(tell: () => void): void {
    ended = tell;
}

/** What is being done, so that it is done once however often it is asked for. */
let doing: string | null = null;

/** Sends what `ask` asks for under this key; `ask` asks before it waits for anything. */
export function once<T>(key: string, ask: () => Promise<T>): Promise<T> {
    doing = key;
    try {
        return ask();
    } finally {
        doing = null;
    }
}

/** What a request of one's own making carries to be done once: nothing where nothing is being done. */
export function onceHeader(): Record<string, string> {
    return doing === null ? {} : { 'Idempotency-Key': doing };
}

/** A key nobody else has; also where the page came over plain http, which has no randomUUID. */
export function newKey(): string {
    return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
        '',
    );
}

/**
 * What was last got from an address, and its entity tag: a page that looks again every few seconds is sent what has
 * changed. It is held here, not by the browser, which would write names of children to the disk.
 */
const had = new Map<string, { tag: string; text: string }>();
const MOST_HAD = 30;

const unchanged: Middleware = {
    onRequest({ request }) {
        const known = request.method === 'GET' ? had.get(request.url) : undefined;
        if (known) request.headers.set('If-None-Match', known.tag);
        return request;
    },
    async onResponse({ request, response }) {
        if (request.method !== 'GET') return response;
        const known = had.get(request.url);
        if (response.status === 304 && known)
            return new Response(known.text, { status: 200, headers: { 'Content-Type': 'application/json' } });
        const tag = response.headers.get('ETag');
        if (response.ok && tag) {
            had.delete(request.url);
            had.set(request.url, { tag, text: await response.clone().text() });
            for (const oldest of had.keys()) {
                if (had.size <= MOST_HAD) break;
                had.delete(oldest);
            }
        }
        return response;
    },
};

const session: Middleware = {
    onRequest({ request }) {
        if (Date.now() - touched > UNTOUCHED) request.headers.set('X-Vantrel-By-Itself', '1');
        request.headers.set('Accept', 'application/json');
        request.headers.set('X-XSRF-TOKEN', csrfToken());
        if (request.method !== 'GET')
            for (const [name, value] of Object.entries(onceHeader())) request.headers.set(name, value);
        return request;
    },
    async onResponse({ response }) {
        if (!response.ok) {
            // A token that has run out goes with its session.
            if (response.status === 401 || response.status === 419) ended();
            throw await problemOf(response);
        }
        return response;
    },
};

export const api = createClient<paths>({ baseUrl: '' });
// The answer passes the last one first.
api.use(session, unchanged);

/** The data of an answer; every refusal has been thrown by then. */
export async function data<T>(answer: Promise<{ data?: T }>): Promise<T> {
    return (await answer).data as T;
}

export function sentence(error: unknown): string {
    return error instanceof ApiError ? error.message : 'The server does not answer. Check the network, then try again.';
}
