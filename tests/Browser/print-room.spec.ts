import { expect, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { coordinator, onPage, other, undoLast } from './people';
import { test } from './told';

/** The text of what the page has just opened in another window, which a headless browser keeps to itself. */
async function textOf(page: Page, link: RegExp): Promise<string> {
    const href = await page.getByRole('link', { name: link }).first().getAttribute('href');
    const bytes = await page.evaluate(
        async (url) => Array.from(new Uint8Array(await (await fetch(url)).arrayBuffer())),
        href ?? '',
    );
    const file = join(mkdtempSync(join(tmpdir(), 'vantrel-print-')), 'print.pdf');
    writeFileSync(file, Buffer.from(bytes));
    return execFileSync('pdftotext', ['-raw', file, '-']).toString();
}

test('family letters in the family’s language, the words changed, a slip ticked off and put back', async ({ page }) => {
    await coordinator(page, 'print-room?part=letters');
    await onPage(page, 'Print room');
    await page.getByRole('row', { name: /^Select 1 Tern/ }).click();
    await expect(page.getByText(/Prints 20 letters for 1 section/)).toBeVisible();

    await page.getByRole('button', { name: 'Edit the wording' }).click();
    await page.getByLabel('Your own paragraph').fill('Questions? Ask Mr. Falk at {school}.');
    await expect(page.getByRole('img', { name: /To the family of/ })).toContainText('Ask Mr. Falk at');
    await page.getByRole('button', { name: 'Save wording' }).click();
    await expect(page.getByText(/It is missing in Spanish/)).toBeVisible();
    await page.getByRole('button', { name: 'Close', exact: true }).first().click();

    await page.getByLabel('Language', { exact: true }).selectOption('uk');
    await expect(page.getByText('Your wording is missing in Ukrainian.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Print 20 letters' })).toBeDisabled();
    await page.getByLabel('Use the standard wording there').check();
    await page.getByRole('button', { name: 'Print 20 letters' }).click();
    await expect(page.getByText('The letters opened in a new window and are kept here for a day.')).toBeVisible();
    const text = await textOf(page, /20 family letters/);
    expect(text).toContain('Родинний код');
    expect(text).not.toContain('Mr. Falk');

    await page.getByRole('button', { name: 'Signed slips' }).click();
    const out = page.getByRole('grid', { name: 'Slips not returned' });
    await expect(out.getByRole('row').nth(1)).toBeVisible();
    const slip = /^[A-Z0-9]{3}-[A-Z0-9]{4}$/m.exec(text)?.[0] ?? '';
    // As a scanner does: the code, and Enter.
    await page.getByLabel('Code of a slip').fill(slip);
    await page.keyboard.press('Enter');
    const name = await page.getByRole('status').getByRole('listitem').first().innerText();
    await expect(page.getByLabel('Code of a slip')).toBeFocused();
    await expect(out.getByText(name, { exact: true })).toHaveCount(0);
    await page.getByLabel('Code of a slip').fill(slip);
    await page.keyboard.press('Enter');
    await expect(page.getByText(`The slip of ${name} is ticked off already.`)).toBeVisible();
    await page.getByRole('heading', { level: 1 }).click();
    await undoLast(page);
    await expect(page.getByText(`Undone: Slip of ${name}.`)).toBeVisible();
    await expect(out.getByText(name, { exact: true })).toHaveCount(1);

    await page.getByRole('button', { name: 'Letters', exact: true }).click();
    await page.getByRole('button', { name: 'Edit the wording' }).click();
    await page.getByLabel('Your own paragraph').fill('');
    await page.getByRole('button', { name: 'Save wording' }).click();
    await expect(page.getByText('Saved. You can undo this in the Ledger.')).toBeVisible();
});

test('cards without the passphrase and with pictures, for those who never signed in; taken away again', async ({
    page,
}) => {
    await coordinator(page, 'print-room');
    await page.getByLabel('Select all loaded rows').check();
    await page.getByLabel('Print for', { exact: true }).selectOption('never_signed_in');
    await page.getByText('What stands on a card').click();
    await page.getByLabel('The passphrase', { exact: true }).uncheck();
    await page.getByLabel('A row of pictures').check();
    await expect(page.getByText(/Prints cards for \d+ sections, only those who never signed in/)).toBeVisible();
    await page.getByRole('button', { name: 'Print cards' }).click();
    await expect(page.getByText(/The cards opened in a new window/)).toBeVisible();
    const kept = page.getByRole('link', { name: /login cards?$/ }).first();
    const what = await kept.innerText();
    expect(await textOf(page, /login cards?$/)).not.toContain('Passphrase');
    const before = await page.getByRole('link', { name: what, exact: true }).count();
    await page
        .getByRole('button', { name: new RegExp(`^Delete ${what}`) })
        .first()
        .click();
    await expect(page.getByRole('link', { name: what, exact: true })).toHaveCount(before - 1);
});

test('a poster and handouts of a code', async ({ page }) => {
    await coordinator(page, 'print-room?part=codes');
    await page.getByRole('row', { name: /^Select 1 Heron/ }).click();
    const poster = page.waitForResponse((r) => r.url().endsWith('/codes/print'));
    await page.getByRole('button', { name: 'Print 1 page' }).click();
    expect((await poster).headers()['content-type']).toBe('application/pdf');
    await page.getByLabel('What', { exact: true }).selectOption('handout');
    await page.getByLabel('Arabic').check();
    await expect(page.getByText('Opens 2 pages for 1 section in another window.')).toBeVisible();
});

test('a letter’s code on a phone: who they are, the check beside the record, the link, the child', async ({
    page,
    browser,
}) => {
    await coordinator(page, 'print-room?part=letters');
    await page.getByRole('row', { name: /^Select 2 Tern/ }).click();
    await page.getByLabel('Language', { exact: true }).selectOption('en');
    await page.getByRole('button', { name: /^Print \d+ letters/ }).click();
    await expect(page.getByText('The letters opened in a new window and are kept here for a day.')).toBeVisible();
    const text = await textOf(page, /family letters/);
    const code = /^[A-Z0-9]{3}-[A-Z0-9]{4}-[A-Z0-9]{3}$/m.exec(text)?.[0] ?? '';

    const phone = await other(browser, true);
    await phone.goto(`/family#${code.replaceAll('-', '')}`);
    await onPage(phone, /^Are you a guardian of /);
    expect(phone.url()).not.toContain('#');
    await phone.getByLabel('First name').fill('Ottilie');
    await phone.getByLabel('Last name').fill('Brandt');
    await phone.getByLabel('Your mail address').fill('ottilie.brandt@shoremail.example');
    await phone.getByRole('button', { name: 'Ask the school' }).click();
    await onPage(phone, 'The school will check');

    await page.goto('/s/primary/guardians/requests');
    const asking = page.getByRole('listitem').filter({ hasText: 'Ottilie Brandt' });
    await asking.getByLabel('Someone not on record').check();
    await asking.getByRole('button', { name: 'Connect' }).click();
    await expect(page.getByText(/A link to set a password is on its way/)).toBeVisible();
    await page.goto('/s/primary/mailroom');
    await page
        .getByRole('row', { name: /ottilie\.brandt/ })
        .first()
        .click();
    const link = await page.getByRole('link', { name: /\/new-password#/ }).getAttribute('href');
    await phone.goto(link ?? '');
    await phone.getByLabel('New password').fill('four green boats at sea');
    await phone.getByRole('button', { name: 'Set the password' }).click();
    await phone.getByRole('textbox', { name: 'User name' }).fill('ottilie.brandt@shoremail.example');
    await phone.getByLabel('Passphrase or password').fill('four green boats at sea');
    await phone.getByRole('button', { name: 'Sign in' }).click();
    await onPage(phone, 'Your children');
    await expect(phone.getByText('2 Tern')).toBeVisible();
    await phone.context().close();
});
