import { type Browser, expect, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { coordinator, onPage } from './people';
import { test } from './told';

interface Tie {
    id: string;
    guardianId: string;
    guardian: string;
    studentId: string;
    student: string;
    email: string;
    state: string;
}

/** A guardian on record with two children, none of whom they are connected with. */
async function withTwoChildren(page: Page, nth: number): Promise<[Tie, Tie]> {
    const ties = await page.evaluate(async () => {
        const me = (await (await fetch('/api/me')).json()) as { schools: { id: string; code: string }[] };
        const school = me.schools.find((s) => s.code === 'primary')?.id ?? '';
        const found: Tie[] = [];
        for (let after: number | null = 0; after !== null;) {
            const answer = await fetch(`/api/schools/${school}/guardians?after=${after}`);
            const part = (await answer.json()) as { lines: Tie[]; next: number | null };
            found.push(...part.lines);
            after = part.next;
        }
        return found;
    });
    const pairs = [...new Set(ties.map((t) => t.guardianId))]
        .map((id) => ties.filter((t) => t.guardianId === id))
        .filter((own) => own.length === 2 && own.every((t) => t.state === 'listed' && t.email !== ''));
    const [one, two] = pairs[nth] ?? [];
    if (!one || !two) throw new Error('The demo has no such guardian.');
    return [one, two];
}

/** Prints the letter of one child, and reads the code on it. */
async function codeOf(page: Page, tie: Tie): Promise<string> {
    await page.goto(`/s/primary/guardians?q=${encodeURIComponent(tie.student)}`);
    await onPage(page, 'Guardians');
    await page
        .getByRole('row', { name: new RegExp(`^Select ${tie.student}`) })
        .first()
        .getByRole('checkbox')
        .check();
    await page.getByRole('button', { name: 'Letters', exact: true }).click();
    await onPage(page, 'Print room');
    await page.getByLabel('Language', { exact: true }).selectOption('en');
    await page.getByRole('button', { name: /^Print 1 letter/ }).click();
    await expect(page.getByText(/opened in a new window/)).toBeVisible();
    const kept = page.getByRole('link', { name: /family letter/ }).first();
    let code = '';
    await expect(async () => {
        const href = await kept.getAttribute('href');
        const bytes = await page.evaluate(
            async (url) => Array.from(new Uint8Array(await (await fetch(url)).arrayBuffer())),
            href ?? '',
        );
        const file = join(mkdtempSync(join(tmpdir(), 'vantrel-letter-')), 'letter.pdf');
        writeFileSync(file, Buffer.from(bytes));
        const text = execFileSync('pdftotext', ['-raw', file, '-']).toString();
        code = /\b[A-Z0-9]{3}-[A-Z0-9]{4}-[A-Z0-9]{3}\b/.exec(text)?.[0].replaceAll('-', '') ?? '';
        expect(code).toHaveLength(10);
    }).toPass({ timeout: 40_000 });
    return code;
}

/** What the pages of families say in a language. */
function speaker(language: string): (text: string, places?: Record<string, string>) => string {
    const words =
        language === 'en'
            ? {}
            : (JSON.parse(readFileSync(`resources/lang/${language}.json`, 'utf8')) as Record<string, string>);
    return (text, places = {}) =>
        Object.entries(places).reduce((said, [name, value]) => said.replace(`{{${name}}}`, value), words[text] ?? text);
}

async function phoneIn(browser: Browser, language: string): Promise<Page> {
    return (await browser.newContext({ viewport: { width: 390, height: 844 }, locale: language })).newPage();
}

for (const [nth, language] of ['en', 'ar'].entries()) {
    test(`a letter, a claim, the check, two children, and the end while signed in, in ${language}`, async ({
        page,
        browser,
    }) => {
        const t = speaker(language);
        await coordinator(page, 'guardians');
        const [one, two] = await withTwoChildren(page, nth * 3);
        const first = await codeOf(page, one);
        const [given = '', ...rest] = one.guardian.split(' ');
        const mail = `claimed.${language}@shoremail.example`;

        // At another address than the one on record, a person of the school looks first.
        const phone = await phoneIn(browser, language);
        await phone.goto(`/family#${first}`);
        await expect(phone.locator('main')).toHaveAttribute('dir', language === 'ar' ? 'rtl' : 'ltr');
        await phone.getByLabel(t('First name')).fill(given);
        await phone.getByLabel(t('Last name')).fill(rest.join(' '));
        await phone.getByLabel(t('Your mail address')).fill(mail);
        await phone.getByRole('button', { name: t('Ask the school') }).click();
        await onPage(phone, t('The school will check'));

        await page.goto('/s/primary/guardians/requests');
        const asking = page.getByRole('listitem').filter({ hasText: mail });
        await expect(asking.getByText(/The same: name/)).toBeVisible();
        await asking.getByRole('button', { name: 'Connect' }).click();
        await expect(page.getByText(/A link to set a password is on its way/)).toBeVisible();
        await page.goto('/s/primary/mailroom');
        await page
            .getByRole('row', { name: new RegExp(`^${mail}`) })
            .first()
            .click();
        const link = await page.getByRole('link', { name: /\/new-password#/ }).getAttribute('href');

        await phone.goto(link ?? '');
        await phone.getByLabel(t('New password')).fill('four green boats at sea');
        await phone.getByRole('button', { name: t('Set the password') }).click();
        await phone.getByRole('textbox', { name: t('User name') }).fill(mail);
        await phone.getByLabel(t('Passphrase or password')).fill('four green boats at sea');
        await phone.getByRole('button', { name: t('Sign in'), exact: true }).click();
        await onPage(phone, t('Your children'));
        await expect(phone.getByRole('heading', { level: 2 })).toHaveCount(1);

        // The address has answered by now, and is on record with the other child: no waiting.
        const second = await codeOf(page, two);
        await phone.goto(`/family#${second}`);
        await phone.getByRole('button', { name: t('Yes, ask the school to connect us') }).click();
        await onPage(phone, t('Your children'));
        await expect(phone.getByRole('heading', { level: 2 })).toHaveCount(2);
        await expect(phone.getByRole('heading', { level: 2, name: two.student })).toBeVisible();
        expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

        await phone.getByRole('link', { name: t('How the school reaches you') }).click();
        await phone.getByLabel(t('Every school day')).check();
        await expect(phone.getByLabel(t('Every school day'))).toBeChecked();

        // Disconnected while signed in: the next thing they touch asks who they are.
        await page.goto(`/s/primary/guardians?standing=connected&q=${encodeURIComponent(one.student)}`);
        await page.getByRole('row', { name: new RegExp(`^Select ${one.student}.*${one.guardian}`) }).click();
        await page.getByRole('button', { name: 'Disconnect…' }).click();
        await page.getByRole('button', { name: 'Disconnect', exact: true }).click();
        await expect(page.getByText(/^Disconnects /)).toBeVisible();
        await phone.goto('/');
        await onPage(phone, t('Sign in'));
        await phone.getByRole('textbox', { name: t('User name') }).fill(mail);
        await phone.getByLabel(t('Passphrase or password')).fill('four green boats at sea');
        await phone.getByRole('button', { name: t('Sign in'), exact: true }).click();
        await expect(phone.getByRole('heading', { level: 2 })).toHaveCount(1);
        await expect(phone.getByRole('heading', { level: 2, name: two.student })).toBeVisible();
        await phone.context().close();
    });
}

test('invited by mail: the link, a password, the child; and a no', async ({ page, browser }) => {
    await coordinator(page, 'guardians');
    const [one] = await withTwoChildren(page, 5);
    await page.goto(`/s/primary/guardians?q=${encodeURIComponent(one.student)}`);
    await page.getByRole('row', { name: new RegExp(`^Select ${one.student}.*${one.guardian}`) }).click();
    await page.getByRole('button', { name: 'Invite…' }).click();
    await page.getByRole('button', { name: 'Send the link' }).click();
    await expect(page.getByText(/A new link is on its way/)).toBeVisible();
    await page.goto('/s/primary/mailroom');
    await page
        .getByRole('row', { name: new RegExp(`^${one.email}`) })
        .first()
        .click();
    const link = await page.getByRole('link', { name: /\/guardian#/ }).getAttribute('href');
    const phone = await phoneIn(browser, 'en');
    await phone.goto(link ?? '');
    await onPage(phone, /^Are you a guardian of /);
    await phone.getByRole('button', { name: 'Yes, connect us' }).click();
    await phone.getByLabel('New password').fill('four green boats at sea');
    await phone.getByRole('button', { name: 'Set the password' }).click();
    await onPage(phone, 'Your children');
    await phone
        .getByRole('button', { name: /^Let go of/ })
        .first()
        .click();
    await phone.getByRole('button', { name: 'Let go', exact: true }).click();
    await onPage(phone, /Your children|Sign in/);
    await phone.context().close();
});
