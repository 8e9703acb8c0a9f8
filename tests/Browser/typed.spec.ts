import { expect } from '@playwright/test';
import { FAULTS, lift } from './faults';
import { COORDINATOR, coordinator, onPage, other, PASSWORD } from './people';
import { settled } from './states';
import { test } from './told';

test('what is typed outlives a stumbling server, a dead network and the end of the session', async ({ browser }) => {
    const page = await other(browser);
    await coordinator(page);
    // Of a school whose sections no other test counts.
    await page.goto('/s/upper/sections');
    await page.getByRole('button', { name: 'Make a section' }).click();
    const name = page.getByLabel('Name', { exact: true });
    // One of its own, however often the tests run on one instance.
    const called = `Faults ${Date.now()}`;
    await name.fill(called);
    const make = page.getByRole('dialog').getByRole('button', { name: /^Make/ });
    for (const fail of Object.values(FAULTS)) {
        await fail(page);
        await make.click();
        await expect(page.getByRole('dialog').getByText(/does not answer|gave no reason|went wrong/)).toBeVisible();
        await expect(name).toHaveValue(called);
        await lift(page);
    }
    await page.context().clearCookies();
    await make.click();
    await expect(page.getByText('You are signed out, Ines Halloran.')).toBeVisible();
    await page.getByRole('textbox', { name: 'User name' }).fill(COORDINATOR);
    await page.getByLabel('Passphrase or password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(name).toHaveValue(called);
    await make.click();
    await onPage(page, called);
    await settled(page);
    await page.context().close();
});
