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
