import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { coordinator, openRow, other, PASSWORD, signIn } from './people';

async function clean(page: Page): Promise<void> {
    await page.waitForLoadState('networkidle');
    const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
        .analyze();
    const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
    expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`)).toEqual([]);
}

for (const theme of ['light', 'dark'] as const) {
    test(`axe finds nothing serious on the coordinator's views, ${theme}`, async ({ browser }) => {
        // Fifteen views, each read whole by axe.
        test.setTimeout(600_000);
        const context = await browser.newContext({ colorScheme: theme, viewport: { width: 1280, height: 800 } });
        const page = await context.newPage();
        await page.goto('/');
        await clean(page);
        await coordinator(page);
        for (const area of [
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
        ]) {
            await page.goto(`/s/primary/${area}`);
            await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
            await clean(page);
        }
        await page.goto('/s/primary/intake');
        await openRow(page, /fall-list/);
        await expect(page.getByRole('button', { name: /ask/ }).first()).toBeVisible();
        await page.keyboard.press(']');
        await clean(page);
        await page.keyboard.press('c');
        await clean(page);
        if (theme === 'light') {
            // Dialogs share their frame; one theme is enough for what is in them.
            await page.keyboard.press('Escape');
            await page.keyboard.press('w');
            await expect(page.getByLabel('How to read this list')).toBeVisible();
            await clean(page);
            await page.keyboard.press('Escape');
            await page.keyboard.press('e');
            await expect(page.getByText('suggests its own')).toBeVisible();
            await clean(page);
        }
        await page.goto('/s/primary/roll');
        await openRow(page, /Achterberg/);
        await clean(page);
        await page.goto('/s/primary/sections');
        await openRow(page, /^3 Heron/);
        await page.getByRole('button', { name: 'Show it here' }).click();
        await expect(page.getByTestId('join-code')).toBeVisible();
        await clean(page);
        if (theme === 'light') {
            for (const button of ['New code', 'Make a poster', 'what each may do']) {
                await page.getByRole('button', { name: button }).click();
                await expect(page.getByRole('dialog')).toBeVisible();
                await clean(page);
                await page.keyboard.press('Escape');
            }
        }
        await page.getByRole('link', { name: 'On the wall' }).click();
        await expect(page.getByTestId('wall-code')).toBeVisible();
        await clean(page);
        await page.goto('/s/primary/look-alikes');
        await openRow(page, /over 99\.9 %/);
        await expect(page.getByText('Is it one person?')).toBeVisible();
        await clean(page);
        await context.close();
    });
}

/** Whatever can be touched is 48 px high, and nothing runs out of the page at the side. */
async function fitsThumbs(page: Page): Promise<void> {
    for (const touched of await page
        .locator('button:visible, a:visible, input:not([type=checkbox]):visible, select:visible')
        .all()) {
        expect((await touched.boundingBox())?.height ?? 0, await touched.innerText()).toBeGreaterThanOrEqual(48);
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
}

test('axe finds nothing serious on phone pages, and what is touched is 48 px high', async ({ browser }) => {
    const page = await other(browser, true);
    for (const path of [
        '/',
        '/in',
        '/in/KDM4X7R',
        '/invited#no-such-link',
        '/forgotten',
        '/new-password#none',
        '/confirm#none',
        '/room#none',
    ]) {
        await page.goto(path);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await clean(page);
        await fitsThumbs(page);
    }
    for (const [user, secret] of [
        ['wilhelmina.seabright', 'maple otter candy'],
        ['helene.marchetti@shoremail.example', PASSWORD],
    ] as const) {
        const own = await other(browser, true);
        await signIn(own, user, secret);
        await expect(own.getByRole('heading', { level: 1, name: /Hello|Your children/ })).toBeVisible();
        await clean(own);
        await fitsThumbs(own);
        await own.getByRole('link', { name: 'How you sign in' }).click();
        await expect(own.getByRole('heading', { level: 1 })).toBeVisible();
        await clean(own);
        await fitsThumbs(own);
        await own.context().close();
    }
    await page.context().close();
});
