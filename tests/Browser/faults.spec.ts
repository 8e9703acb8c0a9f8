import { expect, type Page, test } from '@playwright/test';
import { COORDINATOR, coordinator, onPage, other, PASSWORD } from './people';
import { settled } from './states';

/** Every view of a coordinator; all of them begin with something asked of the server. */
const VIEWS = [
    'desk',
    'intake',
    'roll',
    'transfers',
    'sections',
    'print-room',
    'look-alikes',
    'year-turn',
    'mailroom',
    'ledger',
    'settings',
];

/** All that is asked for but who one is. */
const ASKED = /\/api\/(?!me$|entrance|sign-in)/;

/** What an empty list says of itself. */
const NO_FACT = new RegExp(
    [
        'Nobody (is here|has asked)',
        'Nothing (waits|has been)',
        'No (lists|section|look-alikes|mail|matches)',
        'Good\\.',
        'is gone',
        'has been removed',
    ].join('|'),
);

const FAULTS = {
    'the server stumbles': (page: Page) =>
        page.route(ASKED, (route) =>
            route.fulfill({ status: 500, contentType: 'text/html', body: '<h1>Internal Server Error</h1>' }),
        ),
    'the network is gone': (page: Page) => page.route(ASKED, (route) => route.abort('connectionfailed')),
};

for (const [fault, fail] of Object.entries(FAULTS)) {
    test(`no view states a fact, or nothing, when ${fault}`, async ({ browser }) => {
        const page = await other(browser);
        await coordinator(page);
        // A dead network is tried three times before it is said: a few views stand for all, which share what says so.
        for (const view of fault === 'the network is gone' ? VIEWS.filter((_, i) => i % 4 === 0) : VIEWS) {
            await fail(page);
            await page.goto(`/s/primary/${view}`);
            const alert = page.locator('#sheet').getByRole('alert').first();
            await expect(alert, view).toBeVisible();
            await expect(alert, view).toContainText('That could not be loaded.');
            await expect(page.locator('#sheet'), view).not.toContainText(NO_FACT);
            await page.unroute(ASKED);
            await alert.getByRole('button', { name: 'Try again' }).click();
            await expect(alert, view).toBeHidden();
            await expect(page.getByRole('heading', { level: 1 }), view).toBeVisible();
        }
        await page.context().close();
    });
}

test('every view says that it is on its way while the server takes its time', async ({ browser }) => {
    const page = await other(browser);
    await coordinator(page);
    for (const view of VIEWS) {
        let go: () => void = () => undefined;
        const held = new Promise<void>((resolve) => (go = resolve));
        await page.route(ASKED, async (route) => {
            await held;
            await route.continue().catch(() => undefined);
        });
        await page.goto(`/s/primary/${view}`);
        await expect(
            page
                .locator('#sheet')
                .getByText(/^Loading |^Reading |^One moment/)
                .first(),
            view,
        ).toBeVisible();
        go();
        await page.unroute(ASKED, undefined);
        await expect(page.getByRole('heading', { level: 1 }), view).toBeVisible();
    }
    await page.context().close();
});

test('what is typed outlives a stumbling server, a dead network and the end of the session', async ({ browser }) => {
    const page = await other(browser);
    await coordinator(page);
    // Of a school whose sections no other test counts.
    await page.goto('/s/upper/sections');
    await page.getByRole('button', { name: 'Make a section' }).click();
    const name = page.getByLabel('Name', { exact: true });
    await name.fill('Faults 3');
    const make = page.getByRole('dialog').getByRole('button', { name: /^Make/ });
    for (const fail of Object.values(FAULTS)) {
        await fail(page);
        await make.click();
        await expect(page.getByRole('dialog').getByText(/does not answer|gave no reason|went wrong/)).toBeVisible();
        await expect(name).toHaveValue('Faults 3');
        await page.unroute(ASKED);
    }
    await page.context().clearCookies();
    await make.click();
    await expect(page.getByText('You are signed out, Ines Halloran.')).toBeVisible();
    await page.getByRole('textbox', { name: 'User name' }).fill(COORDINATOR);
    await page.getByLabel('Passphrase or password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(name).toHaveValue('Faults 3');
    await make.click();
    await onPage(page, 'Faults 3');
    await settled(page);
    await page.context().close();
});
