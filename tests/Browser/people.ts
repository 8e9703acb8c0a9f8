import { type Browser, expect, type Page } from '@playwright/test';

export const PASSWORD = 'lantern harbor morning';
export const COORDINATOR = 'ines.halloran@lanternfield.example';
export const TEACHER = 'petra.okonjo@lanternfield.example';
/** An assistant, whose password alone lets them in no more while they have a passkey. */
export const PASSKEYED = 'odile.kerr@lanternfield.example';

export async function signIn(page: Page, user: string, secret: string): Promise<void> {
    await page.goto('/');
    await page.getByRole('textbox', { name: 'User name' }).fill(user);
    await page.getByLabel('Passphrase or password').fill(secret);
    await page.getByRole('button', { name: 'Sign in' }).click();
}

export async function coordinator(page: Page, area = 'desk'): Promise<void> {
    await signIn(page, COORDINATOR, PASSWORD);
    await page.waitForURL('**/desk');
    await onPage(page, 'Desk');
    if (area !== 'desk') {
        await page.goto(`/s/primary/${area}`);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    }
}

/** A browser of another person: no cookie shared. */
export async function other(browser: Browser, phone = false): Promise<Page> {
    const context = await browser.newContext(
        phone ? { viewport: { width: 390, height: 844 } } : { viewport: { width: 1280, height: 800 } },
    );
    return context.newPage();
}

/** Opens the row of a table whose first cell holds this name. */
export async function openRow(page: Page, name: string | RegExp): Promise<void> {
    await page.getByRole('row', { name }).first().click();
}

export async function onPage(page: Page, heading: string | RegExp): Promise<void> {
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
}

/** The key for undo names what it would undo, and waits to be told. */
export async function undoLast(page: Page): Promise<void> {
    await page.keyboard.press('u');
    await expect(page.getByText(/^Everything goes back/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
}
