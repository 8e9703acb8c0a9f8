import { expect, type Page } from '@playwright/test';
import { other, PASSWORD, signIn } from './people';
import { ENTRANCES } from './states';
import { test } from './told';

/** Whatever can be touched is 48 px high, and nothing runs out of the page at the side: measured in one look. */
async function fitsThumbs(page: Page): Promise<void> {
    const small = () =>
        page.evaluate(() =>
            [...document.querySelectorAll('button, a, input:not([type=checkbox]), select')]
                .map((touched) => ({ box: touched.getBoundingClientRect(), touched }))
                .filter(({ box, touched }) => box.width > 0 && box.height > 0 && touched.checkVisibility())
                .filter(({ box }) => box.height < 48)
                .map(({ box, touched }) => `${touched.outerHTML.slice(0, 200)}: ${String(box.height)} px`),
        );
    await expect.poll(small).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
}

test('what is touched on a phone is 48 px high, on every page of students and families', async ({ browser }) => {
    const page = await other(browser, true);
    for (const path of ENTRANCES) {
        await page.goto(path);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await fitsThumbs(page);
    }
    for (const [user, secret] of [
        ['wilhelmina.seabright', 'maple otter candy'],
        ['helene.marchetti@shoremail.example', PASSWORD],
    ] as const) {
        const own = await other(browser, true);
        await signIn(own, user, secret);
        await expect(own.getByRole('heading', { level: 1, name: /Hello|Your children/ })).toBeVisible();
        await fitsThumbs(own);
        await own.getByRole('link', { name: 'How you sign in' }).click();
        await expect(own.getByRole('heading', { level: 1 })).toBeVisible();
        await fitsThumbs(own);
        await own.context().close();
    }
    await page.context().close();
});
