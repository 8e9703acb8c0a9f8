import { expect } from '@playwright/test';
import { coordinator, onPage, openRow, other, PASSWORD, signIn, TEACHER } from './people';
import { test } from './told';

const GUARDIAN = 'helene.marchetti@shoremail.example';

test('work is given, gone through, and missing on the guardian’s phone, in their language', async ({
    page,
    browser,
}) => {
    const title = `Harbor log ${String(Date.now() % 100_000)}`;
    await signIn(page, TEACHER, PASSWORD);
    await openRow(page, /^3 Heron/);
    await page.getByRole('link', { name: 'Notices, dates and work' }).click();
    await onPage(page, 'Notices, dates and work');
    await page.getByRole('button', { name: 'Write one' }).click();
    await page.getByLabel('What it is', { exact: true }).selectOption({ label: 'Work that is due' });
    await page.getByLabel('Due on').fill('2026-01-15');
    await page.getByLabel('In a few words', { exact: true }).fill(title);
    await page.getByText('In another language too').click();
    await page.getByLabel('In', { exact: true }).selectOption({ label: 'Français' });
    await page.getByLabel('The same in a few words').fill(`Carnet ${title}`);
    await page.getByRole('button', { name: 'Let it be read' }).click();
    const written = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: title }) });
    await written.getByRole('button', { name: 'Change…' }).click();
    // Due a while ago: told of as missing only once somebody has gone through it.
    const due = new Date(Date.now() - 3 * 86_400_000).toISOString().slice(0, 10);
    await page.getByLabel('Due on').fill(due);
    await page.getByRole('button', { name: 'Save changes' }).click();
    await written.getByRole('button', { name: 'Who has handed it in…' }).click();
    await page.getByRole('radiogroup', { name: 'Wilhelmina Seabright' }).getByLabel('missing').check();
    await page.getByRole('button', { name: 'Missing from 1: save' }).click();
    await expect(written.getByText(/missing from 1$/)).toBeVisible();

    const phone = await other(browser, true);
    await signIn(phone, GUARDIAN, PASSWORD);
    await onPage(phone, 'Your children');
    await expect(phone.getByRole('region', { name: /: Not handed in$/ }).getByText(title)).toBeVisible();
    await phone.getByLabel('Language').selectOption('fr');
    await expect(phone.getByRole('region', { name: /: Non rendu$/ }).getByText(`Carnet ${title}`)).toBeVisible();
    await phone.context().close();

    // Its writer is told that it has been seen, and by whom.
    await page.reload();
    await written.getByRole('button', { name: 'Who has seen it' }).click();
    await expect(written.getByText(/Hélène Marchetti/)).toBeVisible();
    await written.getByRole('button', { name: 'Withdraw' }).click();
    await expect(written).toHaveCount(0);
});

test('a gradebook’s work is looked at, brought in, met again, and taken back', async ({ page }) => {
    const title = `Tide tables ${String(Date.now() % 100_000)}`;
    const due = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
    const table = (name: string, ...lines: string[]) => ({
        name,
        mimeType: 'text/csv',
        buffer: Buffer.from(lines.join('\r\n')),
    });
    const files = [
        // A browser's second copy of a file it has downloaded before.
        table('lineItems (1).csv', 'sourcedId,title,dueDate,classSourcedId', `w1,${title},${due},c1`),
        table(
            'results.csv',
            'sourcedId,lineItemSourcedId,studentSourcedId,scoreStatus',
            'r1,w1,wilhelmina.seabright,submitted',
        ),
    ];
    await signIn(page, TEACHER, PASSWORD);
    await openRow(page, /^3 Heron/);
    await page.getByRole('link', { name: 'Notices, dates and work' }).click();
    await onPage(page, 'Notices, dates and work');
    const dialog = page.getByRole('dialog', { name: 'From a gradebook' });
    const look = async () => {
        await page.getByRole('button', { name: 'From a gradebook…' }).click();
        await dialog.locator('input[type=file]').setInputFiles(files);
        await dialog.getByRole('button', { name: 'Preview' }).click();
    };
    await look();
    await expect(dialog.getByText(title).first()).toBeVisible();
    await dialog.getByRole('button', { name: 'Bring it in' }).click();
    const brought = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: title }) });
    await expect(brought).toBeVisible();
    await expect(dialog).toHaveCount(0);
    await look();
    await expect(dialog.getByRole('button', { name: 'Nothing to bring in' })).toBeDisabled();
    await page.keyboard.press('Escape');
    await brought.getByRole('button', { name: 'Withdraw' }).click();
    await expect(brought).toHaveCount(0);
});

test('a letter to many is looked at, goes out by the gateway, and is read in the Mailroom', async ({ page }) => {
    const subject = `Boats ${String(Date.now() % 100_000)}`;
    await coordinator(page, 'mailroom/letters');
    await onPage(page, 'Letters to many');
    await page.getByRole('button', { name: 'Write one' }).click();
    await page.getByLabel('To', { exact: true }).selectOption('staff');
    await page.getByLabel('What it is about', { exact: true }).fill(subject);
    await page.getByLabel('Letter', { exact: true }).fill('Dear {{name}}, we meet at {{school}}.');
    const map = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n');
    await page
        .getByRole('dialog')
        .locator('input[type=file]')
        .setInputFiles({ name: 'map.pdf', mimeType: 'application/pdf', buffer: map });
    await expect(page.getByRole('dialog').getByText('map.pdf')).toBeVisible();
    await page.getByRole('button', { name: 'Look at it' }).click();
    await expect(page.getByText(/we meet at Lanternfield Primary\./)).toBeVisible();
    await page.getByLabel('In the quiet hours too').check();
    await page.getByRole('button', { name: /^Send \d+ letters$/ }).click();
    const line = page.getByRole('listitem').filter({ hasText: subject });
    await expect(line.getByText(/\d+ letters to all staff/)).toBeVisible();
    // A worker hands them to the stand-in.
    await expect(line.getByText(/on the way/)).toHaveCount(0);
    await page.goto(`/s/primary/mailroom?q=${encodeURIComponent(subject)}`);
    await openRow(page, new RegExp(subject));
    await expect(page.getByText(/^sent, /)).toBeVisible();
    await expect(page.getByText('map.pdf', { exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'as a page' }).click();
    const frame = page.frameLocator('iframe[title="The message as a page"]');
    await expect(frame.getByText(/we meet at Lanternfield Primary/)).toBeVisible();
});

test('a student is invited by mail, comes in by the link with one touch, and cannot use it twice', async ({
    page,
    browser,
}) => {
    await signIn(page, TEACHER, PASSWORD);
    await openRow(page, /^3 Heron/);
    await page.getByRole('link', { name: 'Invited by mail' }).click();
    await page.getByRole('button', { name: /^Invite students/ }).click();
    const address = `tove.${String(Date.now() % 1_000_000)}@shoremail.example`;
    await page.getByLabel('Addresses, student numbers or user names').fill(`${address}\nnobody-at-all`);
    await page.getByRole('button', { name: 'Preview' }).click();
    await expect(page.getByText(/nobody-at-all is no address/)).toBeVisible();
    await page.getByRole('button', { name: 'Send 1 link' }).click();
    const row = page.getByRole('row').filter({ hasText: address });
    await expect(row.getByText('sent', { exact: true })).toBeVisible();

    const desk = await other(browser);
    await coordinator(desk, `mailroom?q=${address}`);
    await openRow(desk, new RegExp(address));
    const link =
        /\/come#[\w-]+/.exec(
            await desk
                .getByText(/\/come#/)
                .first()
                .innerText(),
        )?.[0] ?? '';
    await desk.context().close();
    const phone = await other(browser, true);
    await phone.goto(link);
    await onPage(phone, 'Come into 3 Heron');
    await expect(row.getByText('link opened')).toBeVisible();
    await phone.getByLabel('First name').fill('Tove');
    await phone.getByLabel('Last name').fill('Ravnkilde');
    const born = phone.getByLabel('The day you were born');
    if (await born.isVisible()) await born.fill('2018-04-09');
    await phone.getByLabel('A password you will remember').fill('heron over the harbor');
    await phone.getByRole('button', { name: 'Ask to come in' }).click();
    await onPage(phone, 'You have asked to come in');
    await row.getByRole('link', { name: 'Answer at the door' }).click();
    const asking = page.getByRole('listitem').filter({ hasText: 'Tove Ravnkilde' });
    await asking.getByRole('button', { name: /Let in|let them in/ }).click();
    await onPage(phone, 'You are in 3 Heron');
    await phone.goto(link);
    await phone.reload();
    await expect(phone.getByText(/Sign in once the teacher has let you in/)).toBeVisible();
    await phone.context().close();
});

test('a guardian without a letter asks, is told nothing, and is found by the school', async ({ page, browser }) => {
    const name = `Quill${String.fromCharCode(97 + (Date.now() % 26))}${String.fromCharCode(97 + (Date.now() % 25))}`;
    const phone = await other(browser, true);
    await phone.goto('/family');
    await phone.getByRole('button', { name: 'I have no letter' }).click();
    await phone.getByLabel('School').selectOption({ label: 'Lanternfield Primary' });
    await phone.getByLabel('First name of the child').fill('Wilhelmina');
    await phone.getByLabel('Last name of the child').fill('Seabright');
    await phone.getByLabel('The day it was born').fill('2018-02-11');
    await phone.getByLabel('First name', { exact: true }).fill('Marlo');
    await phone.getByLabel('Last name', { exact: true }).fill(name);
    await phone.getByLabel('Your mail address').fill(`marlo.${name.toLowerCase()}@shoremail.example`);
    await phone.getByRole('button', { name: 'Ask the school' }).click();
    await onPage(phone, 'The school will check');
    await phone.context().close();

    await coordinator(page, 'guardians/requests');
    const asking = page.getByRole('listitem').filter({ hasText: `Marlo ${name} writes of` });
    await asking.getByRole('button', { name: 'It is Wilhelmina Seabright' }).click();
    const claim = page.getByRole('listitem').filter({ hasText: `Marlo ${name} asks to be connected` });
    await expect(claim.getByText(/Hélène Marchetti, connected/)).toBeVisible();
    await claim.getByRole('button', { name: 'Turn down…' }).click();
    await page.getByLabel('Reason').fill('An aunt');
    await page.getByRole('dialog').getByRole('button', { name: 'Turn down' }).click();
    await expect(page.getByText(new RegExp(`Marlo ${name} for Wilhelmina Seabright: turned down`))).toBeVisible();
});
