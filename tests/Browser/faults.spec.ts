import { expect, type Page } from '@playwright/test';
import { ASKED, FAULTS, lift } from './faults';
import { coordinator, openRow, other, PASSWORD, signIn } from './people';
import { comesIn, ENTRANCES, settled } from './states';
import { test } from './told';

/** Every view of a coordinator that is reached by an address; all begin with something asked of the server. */
const VIEWS = [
    'desk',
    'desk/coverage',
    'intake',
    'roll',
    'transfers',
    'guardians',
    'guardians/requests',
    'sections',
    'print-room',
    'print-room?part=slips',
    'look-alikes',
    'year-turn',
    'mailroom',
    'ledger',
    'settings',
];

/** Those, and the pages of one list, one section and one pair, whose addresses the demo draws. */
async function addresses(page: Page): Promise<string[]> {
    const found = [
        ...VIEWS.map((view) => `/s/primary/${view}`),
        ...['desk', 'roll', 'look-alikes'].map((view) => `/s/all/${view}`),
    ];
    for (const [view, row] of [
        ['intake', /fall-list/],
        ['sections', /^3 Heron/],
        ['look-alikes', /over 99\.9 %/],
    ] as const) {
        await page.goto(`/s/primary/${view}`);
        await openRow(page, row);
        await expect(page).not.toHaveURL(new RegExp(`/${view}$`));
        found.push(new URL(page.url()).pathname);
    }
    return found;
}

/** What an empty list says of itself. */
const NO_FACT = new RegExp(
    [
        'Nobody (is here|has asked)',
        'Nothing (waits|has been)',
        'No (lists|section|look-alikes|mail|matches|family letters|guardians)',
        'Every slip',
        'Good\\.',
        'is gone',
        'has been removed',
    ].join('|'),
);

for (const [fault, fail] of Object.entries(FAULTS)) {
    test(`no view states a fact, or nothing, when ${fault}`, async ({ browser }) => {
        const page = await other(browser);
        await coordinator(page);
        for (const view of await addresses(page)) {
            await fail(page);
            await page.goto(view);
            const alert = page.locator('#sheet').getByRole('alert').first();
            await expect(alert, view).toBeVisible();
            await expect(alert, view).toContainText('That could not be loaded.');
            await expect(page.locator('#sheet'), view).not.toContainText(NO_FACT);
            await lift(page);
            await alert.getByRole('button', { name: 'Try again' }).click();
            await expect(alert, view).toBeHidden();
            await expect(page.getByRole('heading', { level: 1 }), view).toBeVisible();
        }
        await page.context().close();
    });

    test(`pages of students and families say so too when ${fault}`, async ({ browser }) => {
        for (const [user, secret] of [
            ['wilhelmina.seabright', 'maple otter candy'],
            ['helene.marchetti@shoremail.example', PASSWORD],
        ] as const) {
            const page = await other(browser, true);
            await signIn(page, user, secret);
            await expect(page.getByRole('link', { name: 'How you sign in' })).toBeVisible();
            for (const path of ['/', '/account']) {
                await fail(page);
                await page.goto(path);
                const alert = page.getByRole('alert').first();
                await expect(alert, path).toContainText('That could not be loaded.');
                await lift(page);
                await alert.getByRole('button', { name: 'Try again' }).click();
                await expect(alert, path).toBeHidden();
            }
            await page.context().close();
        }
    });
}

test('every view offers to sign in again where the session has ended', async ({ browser }) => {
    const page = await other(browser);
    await coordinator(page);
    for (const view of await addresses(page)) {
        await page.route(ASKED, (route) =>
            route.fulfill({
                status: 401,
                contentType: 'application/problem+json',
                body: '{"detail":"Sign in first."}',
            }),
        );
        await page.goto(view);
        await expect(page.getByText('You are signed out, Ines Halloran.'), view).toBeVisible();
        await lift(page);
        // The account is still signed in: coming back to the window is enough, as after signing in elsewhere.
        await page.evaluate(() => window.dispatchEvent(new Event('focus')));
        await expect(page.getByText('You are signed out, Ines Halloran.'), view).toBeHidden();
        await expect(page.getByRole('heading', { level: 1 }), view).toBeVisible();
    }
    await page.context().close();
});

test('every view says that it is on its way while the server takes its time', async ({ browser }) => {
    const page = await other(browser);
    await coordinator(page);
    for (const view of await addresses(page)) {
        let go: () => void = () => undefined;
        const held = new Promise<void>((resolve) => (go = resolve));
        await page.route(ASKED, async (route) => {
            await held;
            await route.continue();
        });
        await page.goto(view);
        await expect(
            page
                .locator('#sheet')
                .getByText(/^Loading |^Reading |^One moment/)
                .first(),
            view,
        ).toBeVisible();
        go();
        await expect(page.locator('#sheet').getByText(/^Loading /), view).toHaveCount(0);
        await lift(page);
        await expect(page.getByRole('heading', { level: 1 }), view).toBeVisible();
    }
    await page.context().close();
});

/** Shares of the window that moved while nobody touched it, as the browser adds them up (Layout Instability, WICG). */
const SHIFTED = () =>
    new Promise<{ sum: number; what: string[] }>((tell) => {
        const what: string[] = [];
        let sum = 0;
        new PerformanceObserver((list) => {
            for (const entry of list.getEntries() as (PerformanceEntry & {
                value: number;
                sources: { node: Node | null }[];
            })[]) {
                sum += entry.value;
                what.push(
                    ...entry.sources.map(({ node }) => `${node?.nodeName} ${node?.textContent?.slice(0, 30) ?? ''}`),
                );
            }
        }).observe({ type: 'layout-shift', buffered: true });
        setTimeout(() => tell({ sum, what }), 100);
    });

const STILL: { who: string; phone: boolean; enter: (page: Page) => Promise<unknown>; at: readonly string[] }[] = [
    { who: 'nobody', phone: true, enter: (page) => page.goto('/'), at: ENTRANCES },
    {
        who: 'a student',
        phone: true,
        enter: comesIn('wilhelmina.seabright', 'maple otter candy'),
        at: ['/', '/account'],
    },
    {
        who: 'a guardian',
        phone: true,
        enter: comesIn('helene.marchetti@shoremail.example', PASSWORD),
        at: ['/', '/account'],
    },
    { who: 'a coordinator', phone: false, enter: coordinator, at: VIEWS.map((view) => `/s/primary/${view}`) },
];

test('no page moves under the finger while answers come late', async ({ browser }) => {
    const moved: string[] = [];
    for (const { who, phone, enter, at } of STILL) {
        const page = await other(browser, phone);
        await enter(page);
        await settled(page);
        for (const path of at) {
            // Each answer comes later than the one before, so that whatever it brings comes by itself.
            let asked = 0;
            await page.route(/\/api\//, async (route) => {
                await new Promise((resolve) => setTimeout(resolve, 90 + 60 * (asked++ % 4)));
                await route.continue();
            });
            await page.goto('about:blank');
            await page.goto(path);
            await expect(page.getByRole('heading', { level: 1 }), path).toBeVisible();
            await settled(page);
            const { sum, what } = await page.evaluate(SHIFTED);
            if (sum >= 0.02) moved.push(`${path} of ${who}: ${sum.toFixed(3)}, ${what.join('; ')}`);
            await lift(page);
        }
        await page.context().close();
    }
    expect(moved).toEqual([]);
});
