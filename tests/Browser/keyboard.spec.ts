import { expect, type Page } from '@playwright/test';
import { onPage, PASSWORD } from './people';
import { test } from './told';

/** Where the focus is, by accessible name, role or tag. */
async function focused(page: Page): Promise<string> {
    return page.evaluate(() => {
        const e = document.activeElement as HTMLElement | null;
        return e ? `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent ?? ''}`.trim() : '';
    });
}

async function tabTo(page: Page, wanted: RegExp, most = 60): Promise<void> {
    for (let i = 0; i < most; i++) {
        if (wanted.test(await focused(page))) return;
        await page.keyboard.press('Tab');
    }
    throw new Error(`Tab never reached ${String(wanted)}; the focus is on ${await focused(page)}`);
}

test('sign in, apply a list, answer a question, undo it and show a code, by keyboard alone', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('textbox', { name: 'User name' })).toBeFocused();
    await page.keyboard.type('ines.halloran@lanternfield.example');
    await page.keyboard.press('Tab');
    await page.keyboard.type(PASSWORD);
    await page.keyboard.press('Enter');
    await onPage(page, 'Desk');

    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    await expect(page.getByRole('dialog').getByText('Go to Intake')).toBeVisible();
    await page.keyboard.press('Escape');

    await page.keyboard.press('g');
    await page.keyboard.press('i');
    await onPage(page, 'Intake');
    const chooser = page.waitForEvent('filechooser');
    // A key may overtake the order to catch the browser's own window: once the page answers, the order has been heard.
    await page.evaluate(() => undefined);
    await page.keyboard.press('b');
    await (await chooser).setFiles('demo/fall-list-grades-1-5.xlsx');
    await onPage(page, 'fall-list-grades-1-5.xlsx');
    await expect(page.getByText(/Apply adds 42 students/)).toBeVisible();

    await page.keyboard.press(']');
    await expect(page.getByRole('group', { name: 'Answers' })).toBeVisible();
    const asks = page.getByRole('group', { name: 'Show rows by verdict' }).getByRole('button', { name: /an answer/ });
    const before = Number.parseInt(await asks.innerText());
    await page.keyboard.press('1');
    await expect.poll(async () => Number.parseInt(await asks.innerText())).toBeLessThan(before);
    await page.keyboard.press('Escape');

    await expect(page.getByRole('button', { name: /^Apply the other/ })).toBeEnabled();
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('The people are in the Roll and in their sections.')).toBeVisible({ timeout: 30_000 });
    await tabTo(page, /^BUTTON Undo the whole list/, 120);
    await page.keyboard.press('Enter');
    await expect(page.getByText(/Everything goes back/)).toBeVisible();
    await tabTo(page, /^BUTTON Undo$/, 10);
    await page.keyboard.press('Enter');
    await expect(page.getByText('This list was applied and undone.')).toBeVisible();

    await page.keyboard.press('/');
    await page.keyboard.type('code 3 heron');
    await expect(page.getByRole('option', { name: /Code of 3 Heron on the wall/ })).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('wall-code')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('wall-code')).toHaveCount(0);

    await page.keyboard.press('/');
    await page.keyboard.type('3 heron');
    await expect(page.getByRole('option', { name: /^3 Heron/ })).toBeVisible();
    await page.keyboard.press('Enter');
    await onPage(page, '3 Heron');
    await tabTo(page, /^BUTTON Show it here/, 120);
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('join-code')).toBeVisible();
});
