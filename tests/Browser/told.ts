import { type BrowserContext, type Page, type Request, test as base } from '@playwright/test';

const KINDS = ['pointerdown', 'pointerup', 'click', 'keydown', 'submit', 'resize'];
const LINES = 60;

const underWay = new WeakMap<Page, Set<Request>>();

/** What a page has asked for and has no answer to yet, as addresses. */
export function unanswered(page: Page): string[] {
    return [...(underWay.get(page) ?? [])].map((request) => `${request.method()} ${request.url()}`);
}

/** Playwright's own wait for a quiet network is over for good once a page was quiet for the first time. */
function listen(page: Page): void {
    const asked = new Set<Request>();
    underWay.set(page, asked);
    page.on('request', (request) => {
        // What a page that is left had asked for is answered to nobody.
        if (request.isNavigationRequest() && request.frame() === page.mainFrame()) asked.clear();
        asked.add(request);
    });
    page.on('requestfinished', (request) => asked.delete(request));
    page.on('requestfailed', (request) => asked.delete(request));
}

/** A test that says, where it fails, what was pressed and what the server answered in the last moments before. */
export const test = base.extend<{ told: undefined }>({
    told: [
        async ({ browser }, use, info) => {
            const lines: string[] = [];
            const begun = Date.now();
            const tell = (line: string) => lines.push(`${((Date.now() - begun) / 1000).toFixed(3)} ${line}`);
            const follow = async (context: BrowserContext) => {
                context.on('page', listen);
                context.on('console', (message) => message.type() === 'debug' && tell(message.text()));
                context.on('weberror', (error) => tell(`error: ${error.error().message}`));
                context.on('response', (answer) => {
                    const { pathname } = new URL(answer.url());
                    if (!answer.ok() || !pathname.startsWith('/build/'))
                        tell(`${answer.status()} ${answer.request().method()} ${pathname}`);
                });
                context.on('requestfailed', (asked) =>
                    tell(`no answer: ${asked.method()} ${asked.url()}, ${asked.failure()?.errorText ?? ''}`),
                );
                await context.addInitScript((kinds) => {
                    for (const kind of kinds) {
                        const say = (event: Event) => {
                            const on = event.target instanceof Element ? event.target : document.documentElement;
                            const what = on instanceof HTMLInputElement ? on.name : (on.textContent ?? '').slice(0, 30);
                            const how = event instanceof MouseEvent ? `at ${event.clientX}, ${event.clientY} ` : '';
                            const key = event instanceof KeyboardEvent ? `${event.key} ` : '';
                            console.debug(
                                `${kind} ${key}${how}on ${on.tagName} “${what}”, ${innerWidth} x ${innerHeight}`,
                            );
                        };
                        addEventListener(kind, say, { capture: true, passive: true });
                    }
                }, KINDS);
                return context;
            };
            const plain = browser.newContext.bind(browser);
            browser.newContext = async (options) => follow(await plain(options));
            await use(undefined);
            browser.newContext = plain;
            if (info.status !== info.expectedStatus) console.log([info.title, ...lines.slice(-LINES)].join('\n'));
        },
        { auto: true },
    ],
});
