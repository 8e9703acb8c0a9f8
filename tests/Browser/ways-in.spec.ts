import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { type Browser, expect, type Page } from '@playwright/test';
import { coordinator, onPage, openRow, other, PASSWORD, signIn, undoLast } from './people';
import { settled } from './states';
import { test } from './told';

/** A section of its own with these students, placed from the Roll. */
async function section(page: Page, name: string): Promise<string> {
    await page.goto('/s/primary/sections');
    await expect(page.getByRole('heading', { level: 1, name: 'Sections' })).toBeVisible();
    await page.getByRole('button', { name: 'Make a section' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByRole('button', { name: 'Make the section with a code' }).click();
    await onPage(page, name);
    return page.url().split('/').pop() ?? '';
}

async function codeOf(page: Page): Promise<string> {
    await page.getByRole('button', { name: 'Show it here' }).click();
    return page.getByTestId('join-code').innerText();
}

/** The poster is printed through the page's own session; its QR is read as a tablet would. */
async function posterLink(page: Page, id: string, pictures: boolean): Promise<string> {
    const pdf = await page.evaluate(
        async ([section, withPictures]) => {
            const token = decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1] ?? '');
            const response = await fetch(`/api/sections/${String(section)}/room-pass`, {
                method: 'POST',
                headers: { 'Content-Type': 'application/json', Accept: 'application/json', 'X-XSRF-TOKEN': token },
                body: JSON.stringify({ hours: 'any', paper: 'a4', pictures: withPictures }),
            });
            return Array.from(new Uint8Array(await response.arrayBuffer()));
        },
        [id, pictures] as const,
    );
    const folder = mkdtempSync(join(tmpdir(), 'vantrel-pass-'));
    writeFileSync(join(folder, 'pass.pdf'), Buffer.from(pdf));
    execFileSync('pdftoppm', ['-r', '120', '-png', join(folder, 'pass.pdf'), join(folder, 'page')]);
    const text = execFileSync('pdftotext', [join(folder, 'pass.pdf'), '-']).toString();
    expect(text).toContain('not for families, not for photographs');
    return execFileSync('zbarimg', ['-q', '--raw', join(folder, 'page-1.png')], { stdio: ['ignore', 'pipe', 'ignore'] })
        .toString()
        .trim();
}

async function phonePage(browser: Browser): Promise<Page> {
    return other(browser, true);
}

test('a student on the list takes the waiting account from the wall’s code, and the wall shows the name', async ({
    page,
    browser,
}) => {
    await coordinator(page, 'sections');
    const club = `Kelp club ${Date.now() % 100_000}`;
    await section(page, club);
    const code = await codeOf(page);
    await page.getByRole('link', { name: 'On the wall' }).click();
    await expect(page.getByTestId('wall-code')).toHaveText(code);
    await expect(page.getByText(/letters are \d+ mm high and can be read from (\d+) m/)).toBeVisible();
    // A wall opened by its address alone shows nothing until it is asked.
    const again = await page.context().newPage();
    await again.goto(page.url());
    await onPage(again, 'The code is hidden');
    await again.close();

    const list = await other(browser);
    await coordinator(list, 'roll?kind=student&problem=never_signed_in');
    const sheet = list.getByRole('complementary').last();
    let name = '';
    let born = '';
    let before: string | null = null;
    const person = () => new URL(list.url()).searchParams.get('person');
    // Those who came without a birth date cannot show who they are by it.
    for (let n = 1; born === ''; n++) {
        const heading = sheet.getByRole('heading', { level: 2 }).first();
        // A row that the table draws anew under the pointer takes no click: whoever clicked would click again, until it
        // is another person than before; one row after the other may bear the same name.
        await expect(async () => {
            await list.getByRole('row').nth(n).click();
            await expect.poll(person, { timeout: 3000 }).not.toBe(before);
            await expect(heading).toHaveText(/\S \S/, { timeout: 3000 });
        }).toPass({ timeout: 40_000 });
        before = person();
        // What the sheet says is of this one once it has come.
        await settled(list);
        name = await heading.innerText();
        born = /(\d{4}-\d{2}-\d{2})/.exec(await sheet.innerText())?.[1] ?? '';
    }
    await list.context().close();
    const [given = '', ...family] = name.split(' ');

    const phone = await phonePage(browser);
    await phone.goto(`/in/${code.replaceAll('-', '')}`);
    await phone.getByRole('button', { name: 'Go on' }).click();
    await phone.getByRole('button', { name: 'No, or I do not know' }).click();
    await phone.getByLabel('First name').fill(given);
    await phone.getByLabel('Last name').fill(family.join(' '));
    await phone.getByRole('button', { name: 'Go on' }).click();
    await onPage(phone, 'Are you on this list?');
    expect(await phone.locator('main').innerText()).not.toContain(born);
    await phone.getByRole('listitem').getByRole('button').first().click();
    await phone.getByLabel('The day you were born').fill('2001-01-01');
    await phone.getByLabel('A password you will remember').fill('green boat stone');
    await phone.getByRole('button', { name: 'Come in' }).click();
    await expect(phone.getByRole('alert').or(phone.getByText('does not fit what the school has'))).toBeVisible();
    await phone.getByLabel('The day you were born').fill(born);
    await phone.getByRole('button', { name: 'Come in' }).click();
    await onPage(phone, `You are in ${club}`);
    await phone.context().close();
    await expect(page.getByText(new RegExp(`^${given} .\\.`)).first()).toBeVisible();
});

test('the room pass: two students in turn on one tablet, pictures and all, ended at once', async ({
    page,
    browser,
}) => {
    await coordinator(page, 'sections');
    await openRow(page, /^4 Tern/);
    await onPage(page, '4 Tern');
    const id = page.url().split('/').pop() ?? '';
    const tablet = await phonePage(browser);
    await tablet.goto(await posterLink(page, id, true));
    await onPage(tablet, 'Tap your name');
    const names = await tablet.getByRole('listitem').getByRole('button').allInnerTexts();
    for (const name of names) expect(name).toMatch(/^\S+( .\.)?$/u);
    const enter = async (n: number, first: boolean) => {
        await tablet.getByRole('listitem').getByRole('button').nth(n).click();
        await onPage(tablet, first ? /three pictures/ : /tap your three pictures/);
        for (const picture of ['boat', 'moon', 'key'])
            await tablet.getByRole('button', { name: picture, exact: true }).click();
        await onPage(tablet, /^Hello, /);
    };
    await enter(0, true);
    const who = await tablet.getByRole('heading', { level: 1 }).innerText();
    await expect(tablet.getByRole('link', { name: 'How you sign in' })).toHaveCount(0);
    await tablet.getByRole('button', { name: 'I am done' }).click();
    await onPage(tablet, 'Tap your name');
    await enter(names.length - 1, true);
    expect(await tablet.getByRole('heading', { level: 1 }).innerText()).not.toBe(who);
    await tablet.getByRole('button', { name: 'I am done' }).click();
    await onPage(tablet, 'Tap your name');
    await tablet.getByRole('listitem').getByRole('button').nth(0).click();
    for (const picture of ['moon', 'boat', 'key'])
        await tablet.getByRole('button', { name: picture, exact: true }).click();
    await expect(tablet.getByText('Those are not your pictures, or not in that order.')).toBeVisible();
    for (const picture of ['boat', 'moon', 'key'])
        await tablet.getByRole('button', { name: picture, exact: true }).click();
    await onPage(tablet, who);
    // Ended at the desk: out at the next touch.
    await page.reload();
    await page.getByRole('button', { name: 'End it now' }).click();
    await expect(page.getByText('The room pass has ended')).toBeVisible();
    await tablet.reload();
    await onPage(tablet, 'Sign in');
    await tablet.goBack();
    await tablet.context().close();
});

test('right to left, in Arabic: the pages of a phone turn round, names stay whole', async ({ page, browser }) => {
    await coordinator(page, 'sections');
    await openRow(page, /^4 Plover/);
    await onPage(page, '4 Plover');
    const link = await posterLink(page, page.url().split('/').pop() ?? '', true);
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'ar' });
    const phone = await context.newPage();
    const rightToLeft = async () => {
        const main = phone.locator('main');
        await expect(main).toHaveAttribute('dir', 'rtl');
        await expect(main).toHaveAttribute('lang', 'ar');
        const box = await phone.getByRole('heading', { level: 1 }).boundingBox();
        expect((box?.x ?? 0) + (box?.width ?? 0)).toBeGreaterThan(360);
        const { violations } = await new AxeBuilder({ page: phone })
            .withTags(['wcag2a', 'wcag2aa', 'wcag22aa'])
            .analyze();
        expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual(
            [],
        );
        for (const touched of await phone
            .locator('button:visible, a:visible, input:not([type=checkbox]):visible, select:visible')
            .all()) {
            expect((await touched.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(48);
        }
        expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    };
    await phone.goto('/');
    await onPage(phone, 'تسجيل الدخول');
    await rightToLeft();
    await phone.goto('/in');
    await onPage(phone, 'اكتب الرمز المعروض');
    await phone.getByLabel('الرمز').fill('kdm4x7k');
    await expect(phone.getByText('حرف خطأ أو حرفان تبادلا مكانهما')).toBeVisible();
    // What the server fills into its sentence is filled into the translated one.
    await phone.getByLabel('الرمز').fill('kdmax7k');
    await expect(phone.getByText(/لا تحتوي الرموز أبدًا على «.?A.?»/)).toBeVisible();
    // A code is read from the left in every language.
    await expect(phone.getByLabel('الرمز')).toHaveAttribute('dir', 'ltr');
    await rightToLeft();
    await phone.goto(link);
    await onPage(phone, 'المس اسمك');
    await rightToLeft();
    // The full stop of “Ada D.” stands after the initial, which is to its right.
    const first = phone.getByRole('listitem').first().locator('bdi');
    const places = await first.evaluate((bdi) => {
        const text = bdi.firstChild as Text;
        const at = (i: number) => {
            const range = document.createRange();
            range.setStart(text, i);
            range.setEnd(text, i + 1);
            return range.getBoundingClientRect().x;
        };
        return [at(0), at(text.length - 1)];
    });
    expect(places[0]).toBeLessThan(places[1] ?? 0);
    await phone.getByRole('listitem').getByRole('button').first().click();
    await rightToLeft();
    await context.close();
});

test('students are moved by a plan, looked at as of a day, and moved back by undo', async ({ page }) => {
    await coordinator(page, 'sections');
    await openRow(page, /^2 Plover/);
    await onPage(page, '2 Plover');
    const names: string[] = [];
    for (const n of [1, 2]) {
        const row = page.getByRole('row').nth(n);
        names.push((await row.innerText()).split('\n')[0] ?? '');
        await row.getByRole('checkbox').check();
    }
    await page.getByRole('button', { name: 'Move 2' }).click();
    const target = await page
        .getByLabel('Section', { exact: true })
        .locator('option', { hasText: '2 Tern' })
        .getAttribute('value');
    await page.getByLabel('Section', { exact: true }).selectOption(target);
    await expect(page.getByText(/2 students move from 2 Plover to 2 Tern on/)).toBeVisible();
    await page.getByRole('button', { name: 'Move 2 students' }).click();
    await expect(page.getByText('Done. You can undo this in the Ledger.')).toBeVisible();
    await expect(page.getByRole('row', { name: names[0] ?? '' })).toHaveCount(0);
    await page.getByLabel('Roster as of').fill('2026-09-01');
    await expect(page.getByRole('row', { name: names[0] ?? '' })).toBeVisible();
    await expect(page.getByRole('button', { name: /Print/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Back to today' }).click();
    await undoLast(page);
    await expect(page.getByText('Undone: From 2 Plover to 2 Tern.')).toBeVisible();
    await expect(page.getByRole('row', { name: names[0] ?? '' })).toBeVisible();
});

test('many sections from a pasted list, and a section as its student sees it', async ({ page }) => {
    await coordinator(page, 'sections');
    await page.getByRole('button', { name: 'Make many' }).click();
    await page.getByLabel(/One section per line/).fill('Drama 3; 3; 4; 20; Petra Okonjo\n3 Heron\nDrama 4; 4');
    await expect(page.getByText('Makes 2 sections, each with a code of its own. 1 name is left out.')).toBeVisible();
    await page.getByRole('button', { name: 'Make 2 sections' }).click();
    await expect(page.getByRole('row', { name: /^Drama 3/ })).toBeVisible();
    await undoLast(page);
    await expect(page.getByText('Undone: 2 new sections.')).toBeVisible();
    await openRow(page, /^3 Curlew/);
    await page.getByRole('button', { name: 'More' }).click();
    await page.getByRole('menuitem', { name: 'As a student sees it' }).click();
    await expect(page.getByText('You are looking, not signed in.')).toBeVisible();
    await onPage(page, /^Hello, /);
    await page.getByRole('button', { name: 'Back to the section' }).click();
    await onPage(page, '3 Curlew');
    await page.goto('/s/primary/ledger');
    await expect(page.getByRole('row', { name: /3 Curlew as .* sees it/ })).toBeVisible();
});

test('settings: a pattern with its live example, a year planned, ways to sign in', async ({ page }) => {
    await coordinator(page, 'settings');
    await page.getByLabel('Pattern').fill('{grade}{group} {subject}');
    await expect(page.getByText('2A Marine science and 2B Marine science')).toBeVisible();
    await page.getByLabel('Pattern').fill('{teacher}');
    await expect(page.getByText('“{teacher}” is not a place.')).toBeVisible();
    await page.getByRole('button', { name: 'Plan a year' }).click();
    await page.getByLabel('Name', { exact: true }).last().fill('2028-29');
    await page.getByLabel('First day').fill('2028-08-21');
    await page.getByLabel('Last day').fill('2029-06-09');
    await page.getByRole('button', { name: 'Plan the year' }).click();
    await expect(page.getByRole('cell', { name: '2028-29' })).toBeVisible();
    await undoLast(page);
    await expect(page.getByText('Undone: School year 2028-29.')).toBeVisible();
    await page.getByLabel('Grade 5').selectOption('own');
    await page.getByRole('button', { name: 'Save sign-in settings' }).click();
    await expect(page.getByText('Saved. You can undo this in the Ledger.')).toBeVisible();
    await undoLast(page);
    await expect(page.getByText('Undone: Settings of Lanternfield Primary.')).toBeVisible();
});

test('single sign-on through the stand-in, a forgotten password by the Mailroom, a second factor', async ({
    browser,
}) => {
    const staff = await other(browser);
    await staff.goto('/');
    await staff.getByRole('link', { name: 'Sign in with the school account' }).click();
    await staff.getByRole('link', { name: /petra\.okonjo/ }).click();
    await onPage(staff, 'Sections');
    await staff.context().close();

    const forgetful = await other(browser, true);
    await forgetful.goto('/');
    await forgetful.getByRole('link', { name: 'I forgot my password' }).click();
    // The page to sign in has a field of that name too.
    await onPage(forgetful, 'I forgot my password');
    await forgetful.getByLabel('User name').fill('marten.vale@lanternfield.example');
    await forgetful.getByRole('button', { name: 'Send me a link' }).click();
    await expect(forgetful.getByText('a link is on its way')).toBeVisible();
    const desk = await other(browser);
    await coordinator(desk, 'mailroom');
    await openRow(desk, /A new password for marten\.vale/);
    const link = await desk.getByRole('link', { name: /\/new-password#/ }).getAttribute('href');
    await desk.context().close();
    await forgetful.goto(link ?? '');
    await forgetful.getByLabel('New password').fill('four green boats at sea');
    await forgetful.getByRole('button', { name: 'Set the password' }).click();
    await expect(forgetful.getByText('Your new password is set. Sign in with it.')).toBeVisible();
    await forgetful.goto(link ?? '');
    await onPage(forgetful, 'This link does not work any more');
    await forgetful.context().close();

    const careful = await other(browser);
    await signIn(careful, 'ruben.aske@lanternfield.example', PASSWORD);
    await onPage(careful, 'Sections');
    await careful.goto('/account');
    await careful.getByRole('button', { name: 'Set it up' }).click();
    await careful.getByRole('button', { name: 'Set it up' }).click();
    const secret = await careful.getByText(/^[A-Z2-7]{32}$/).innerText();
    const code = () => execFileSync('oathtool', ['--totp', '--base32', secret]).toString().trim();
    await careful.getByLabel('The six figures the app shows').fill(code());
    await careful.getByRole('button', { name: 'Switch it on' }).click();
    const recovery = await careful
        .getByRole('listitem')
        .filter({ hasText: /^[0-9a-f]{4}-/ })
        .first()
        .innerText();
    await careful.getByRole('button', { name: 'I have written them down' }).click();
    await expect(careful.getByText('It is on. 10 recovery codes are left.')).toBeVisible();
    await careful.context().close();
    const next = await other(browser);
    await signIn(next, 'ruben.aske@lanternfield.example', PASSWORD);
    await onPage(next, 'The code of your app');
    await next.getByLabel('Six digits, or a recovery code').fill('000000');
    await next.getByRole('button', { name: 'Sign in' }).click();
    await expect(next.getByText('That code does not fit.')).toBeVisible();
    await next.getByLabel('Six digits, or a recovery code').fill(recovery);
    await next.getByRole('button', { name: 'Sign in' }).click();
    await onPage(next, 'Sections');
    await next.context().close();
});
