import { expect } from '@playwright/test';
import { coordinator, onPage, PASSWORD } from './people';
import { test } from './told';

const drop = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

test('a list of everyone: who leaves, the words, the password, and the way back', async ({ page }) => {
    await coordinator(page, 'intake');
    await page.getByLabel('The list').setInputFiles('demo/fall-list-grades-1-5.xlsx');
    await onPage(page, 'fall-list-grades-1-5.xlsx');
    await page.getByRole('button', { name: 'additions' }).click();
    await page.getByLabel('How to read this list').selectOption('It is everyone in grade 5');
    await expect(
        page.getByText('It takes your password', { exact: false }).or(page.getByText('it takes your password')),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Show the plan' }).click();
    const leaving = page.getByRole('group', { name: 'Show rows by verdict' }).getByRole('button', { name: /leaving/ });
    await expect(leaving).toBeVisible();
    await leaving.click();
    await expect(page.getByText('leaves: not in the list').first()).toBeVisible();
    const words = page.getByLabel(/^Type “\d+ leave”/);
    if (await words.isVisible()) {
        const label = (await page.locator('label', { hasText: 'Type “' }).innerText()).replace(/.*“(.*)”.*/, '$1');
        await words.fill(label);
        await page.getByRole('button', { name: 'Confirm' }).click();
        await expect(words).toHaveCount(0);
    }
    await page.getByRole('button', { name: /^Apply the other/ }).click();
    await page.getByLabel('Your password, once more').fill('not this one');
    await page.getByRole('button', { name: /Apply: .* leave/ }).click();
    await expect(page.getByText('this is not it')).toBeVisible();
    await page.getByLabel('Your password, once more').fill(PASSWORD);
    await page.getByRole('button', { name: /Apply: .* leave/ }).click();
    await expect(page.getByText('The people are in the Roll')).toBeVisible({ timeout: 30_000 });
    await page.getByRole('button', { name: 'Undo the whole list…' }).click();
    await expect(page.getByText(/Everything goes back: \d+ records/)).toBeVisible();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(page.getByText(/^Undone: /)).toBeVisible();
});

test('repairs, layout questions and a paste, from the keyboard', async ({ page }) => {
    await coordinator(page, 'intake');
    await page
        .getByLabel('The list')
        .setInputFiles(
            drop('loud.csv', 'Name,Grade,DOB\n"QUILL, ORLANDA",3,03/04/2018\n"TIDEWELL, OSGAR",3,05/06/2018\n'),
        );
    await onPage(page, 'loud.csv');
    await expect(page.getByText('Which comes first in the dates of DOB')).toBeVisible();
    await page.getByRole('button', { name: 'The day', exact: true }).click();
    await expect(page.getByText('Which comes first in the dates of DOB')).toHaveCount(0);
    await expect(page.getByRole('row', { name: /Orlanda Quill/ })).toBeVisible();
    await page.keyboard.press('m');
    await page.getByRole('button', { name: 'Keep as written' }).click();
    await expect(page.getByText('One column or cell is left as written.')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('row', { name: /ORLANDA QUILL/ })).toBeVisible();
    await page.getByRole('button', { name: 'Discard list…' }).click();
    await page.getByRole('button', { name: 'Discard the list' }).click();
    await onPage(page, 'Intake');
    await page.getByRole('button', { name: 'Paste a list' }).click();
    await page.getByLabel(/Cells copied from a spreadsheet/).fill('Name\tGrade\nOrlanda Quill\t3\nOsgar Tidewell\t3');
    await page.getByRole('button', { name: 'Read the list' }).click();
    await onPage(page, 'Pasted list');
    await expect(page.getByText('2 rows, header in row 1')).toBeVisible();
});

test('the rows that need work come back as a workbook, and questions of one kind are answered alike', async ({
    page,
}) => {
    await coordinator(page, 'intake');
    await page.getByLabel('The list').setInputFiles('demo/fall-list-grades-1-5.xlsx');
    await onPage(page, 'fall-list-grades-1-5.xlsx');
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Download the rows to fix' }).click();
    expect((await download).suggestedFilename()).toBe('fall-list-grades-1-5, rows to mend.xlsx');
    const ask = page.getByRole('group', { name: 'Show rows by verdict' }).getByRole('button', { name: /an answer/ });
    const before = Number((await ask.innerText()).match(/\d+/)?.[0]);
    await page.keyboard.press(']');
    await page.getByLabel(/Answer all \d+ of this kind alike/).check();
    await page.getByRole('group', { name: 'Answers' }).getByRole('button').first().click();
    await expect(async () => {
        const now = Number((await ask.innerText()).match(/\d+/)?.[0]);
        expect(now).toBeLessThan(before - 1);
    }).toPass({ timeout: 40_000 });
});
