import { expect } from '@playwright/test';
import { coordinator, onPage, openRow, other, PASSWORD, signIn, TEACHER, undoLast } from './people';
import { test } from './told';

test('the Roll: find, filter, sort, choose columns, select a range, keep a view, go through rows', async ({ page }) => {
    await coordinator(page, 'roll');
    await page.getByRole('searchbox').fill('velazquez');
    await expect(page.getByRole('row', { name: /Velázquez/ }).first()).toBeVisible();
    await page.getByRole('searchbox').fill('');
    await page.getByLabel('Problem', { exact: true }).selectOption('unplaced');
    await expect(page.getByText('4 found')).toBeVisible();
    await page.getByRole('button', { name: 'Keep this view' }).click();
    await page.getByLabel('Name of the view').fill('To place');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /no section/ }).click();
    await page.getByRole('button', { name: 'To place', exact: true }).click();
    await expect(page).toHaveURL(/problem=unplaced/);
    const names = () =>
        page
            .getByRole('gridcell')
            .filter({ hasText: /^[A-ZÀ-Ž]\S+ \S/ })
            .allInnerTexts();
    const before = await names();
    // The server sorts: the last come first, also those who were not loaded yet.
    await expect(page.getByRole('columnheader', { name: /^Name/ })).toHaveAttribute('aria-sort', 'ascending');
    await page.getByRole('button', { name: /^Name/ }).click();
    await expect(page.getByRole('columnheader', { name: /^Name/ })).toHaveAttribute('aria-sort', 'descending');
    await expect.poll(names).toEqual([...before].reverse());
    await page.getByRole('button', { name: 'Choose columns' }).click();
    await page.getByLabel('User name').uncheck();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('columnheader', { name: 'User name' })).toHaveCount(0);
    const rows = page.getByRole('rowgroup').nth(1).getByRole('row');
    await rows.nth(0).click({ modifiers: ['Control'] });
    await rows.nth(2).click({ modifiers: ['Shift'] });
    await expect(page.getByText('3 selected')).toBeVisible();
    await page.getByRole('searchbox').blur();
    await rows.nth(0).click();
    const first = await page.getByRole('complementary').getByRole('heading', { level: 2 }).innerText();
    await page.keyboard.press('j');
    await expect(page.getByRole('complementary').getByRole('heading', { level: 2 })).not.toHaveText(first);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('complementary')).toHaveCount(0);
});

test('the command box finds people, prints cards for a section, and undoes', async ({ page }) => {
    await coordinator(page);
    await page.keyboard.press('/');
    await page.keyboard.type('wilhelm seab');
    await page.getByRole('option', { name: /Wilhelmina Seabright/ }).click();
    await expect(page.getByRole('complementary', { name: 'Wilhelmina Seabright' })).toBeVisible();
    await page.keyboard.press('/');
    await page.keyboard.type('cards 2 tern');
    await page.getByRole('option', { name: /Cards for 2 Tern/ }).click();
    await expect(page.getByText(/Prints \d+ cards for 1 section/)).toBeVisible();
    await page.goto('/s/primary/sections');
    await onPage(page, 'Sections');
    await page.keyboard.press('n');
    await page.getByLabel('Name', { exact: true }).fill('Tide pools');
    await page.getByRole('button', { name: 'Make the section with a code' }).click();
    await onPage(page, 'Tide pools');
    await expect(page.getByText('Nobody is in this section yet')).toBeVisible();
    await undoLast(page);
    await expect(page.getByText('Undone: Section Tide pools.')).toBeVisible();
    await page.goto('/s/primary/sections');
    await expect(page.getByRole('row', { name: /^Tide pools/ })).toHaveCount(0);
});

test('a teacher sees the own sections and no coordinator’s area; an assistant only reads and prints', async ({
    browser,
}) => {
    const teacher = await other(browser);
    await signIn(teacher, TEACHER, PASSWORD);
    await onPage(teacher, 'Sections');
    await expect(teacher.getByRole('navigation', { name: 'Areas' }).getByRole('link')).toHaveCount(1);
    await teacher.goto('/s/primary/ledger');
    await onPage(teacher, 'Sections');
    await openRow(teacher, /^3 Heron/);
    await teacher.getByRole('button', { name: 'More' }).click();
    await expect(teacher.getByRole('menuitem', { name: 'Archive' })).toBeVisible();
    await teacher.context().close();
    const assistant = await other(browser);
    await signIn(assistant, 'odile.kerr@lanternfield.example', PASSWORD);
    await openRow(assistant, /^3 Heron/);
    await expect(assistant.getByRole('button', { name: 'Print cards' })).toBeVisible();
    await expect(assistant.getByText('Join code')).toHaveCount(0);
    await assistant.getByRole('button', { name: 'More' }).click();
    await expect(assistant.getByRole('menuitem', { name: 'As a student sees it' })).toBeVisible();
    await expect(assistant.getByRole('menuitem', { name: 'Archive' })).toHaveCount(0);
    await assistant.context().close();
});

test('broken files are answered where they were dropped, with what to do', async ({ page }) => {
    await coordinator(page, 'intake');
    for (const [name, content, says] of [
        ['empty.csv', '', 'The file is empty'],
        ['photo.xlsx', '\x89PNG\r\n\x1a\nxxxx', 'This is a picture'],
        ['cut.xlsx', 'PK\x03\x04 cut', 'cut off or damaged'],
    ] as const) {
        await page
            .getByLabel('The list')
            .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content, 'latin1') });
        await expect(page.getByRole('alert')).toContainText(`${name}: `);
        await expect(page.getByRole('alert')).toContainText(says);
    }
    await page.getByLabel('The list').setInputFiles({
        name: 'addresses.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from('a@b.example,c@d.example\n'),
    });
    await expect(page.getByRole('heading', { name: 'addresses.csv cannot be read' })).toBeVisible();
    await page.getByRole('button', { name: 'Discard this list' }).click();
    await onPage(page, 'Intake');
});

test('last year stays readable under a tinted line after the turn', async ({ page }) => {
    await signIn(page, 'ines.halloran@lanternfield.example', PASSWORD);
    await page.waitForURL('**/desk');
    await page.goto('/s/upper/year-turn');
    await page.getByRole('button', { name: 'Turn to 2027-28' }).click();
    await page.getByLabel('Type 2027-28 to turn the year').fill('2027-28');
    await page.getByRole('button', { name: 'Turn the year' }).click();
    await onPage(page, 'Ledger');
    await page.getByRole('button', { name: /School and year/ }).click();
    await page.getByRole('menuitem', { name: /Sections of 2026-27/ }).click();
    await expect(page.getByText(/0 open, \d+ archived/)).toBeVisible();
    await expect(page.getByRole('button', { name: /School and year: Highmoor Upper, 2026-27/ })).toBeVisible();
    await openRow(page, /^9 Heron/);
    await expect(page.getByText(/read-only; cards can still be printed/)).toBeVisible();
    await expect(page.getByRole('row').nth(1)).toBeVisible();
    await page.goto('/s/upper/ledger');
    await openRow(page, /2026-27 to 2027-28/);
    await page.getByRole('button', { name: 'Undo all of this…' }).click();
    await page.getByRole('dialog').getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByRole('button', { name: /School and year: Highmoor Upper, 2026-27/ })).toBeVisible();
});
