import type { Page } from '@playwright/test';

/** All that is asked for but who one is. */
export const ASKED = /\/api\/(?!me$|entrance|sign-in)/;

/** What can befall an answer on its way. */
export const FAULTS = {
    'the server stumbles': (page: Page) =>
        page.route(ASKED, (route) =>
            route.fulfill({ status: 500, contentType: 'text/html', body: '<h1>Internal Server Error</h1>' }),
        ),
    'the network is gone': (page: Page) => page.route(ASKED, (route) => route.abort('connectionfailed')),
};

/**
 * Takes what stands between the page and the server away again. What is on its way is let through first: taken away
 * under the feet of a handler that waits, the browser goes on with the request by itself, and the handler fails.
 */
export const lift = (page: Page) => page.unrouteAll({ behavior: 'wait' });
