// Takes the pictures of docs/screenshots from a running instance with the demo district. Called by bin/shots.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as playwright } from '@playwright/test';
import { chromium } from './chromium.mjs';

const [base, out, only = ''] = process.argv.slice(2);
mkdirSync(out, { recursive: true });
const browser = await playwright.launch(chromium);
const PASSWORD = 'lantern harbor morning';

async function page(user, secret, { width = 1280, height = 800, dark = false } = {}) {
    const context = await browser.newContext({
        viewport: { width, height },
        colorScheme: dark ? 'dark' : 'light',
        reducedMotion: 'reduce',
    });
    const tab = await context.newPage();
    tab.on('pageerror', (error) => console.error('page error:', error.message));
    await tab.goto(base);
    if (user) {
        await tab.getByRole('textbox', { name: 'User name' }).fill(user);
        await tab.getByLabel('Passphrase or password').fill(secret);
        await tab.getByRole('button', { name: 'Sign in' }).click();
        await tab.getByRole('button', { name: 'Sign in', exact: true }).waitFor({ state: 'detached' });
        await tab.waitForLoadState('networkidle');
    }
    return tab;
}

async function shot(tab, name) {
    if (only && !name.includes(only)) return;
    await tab.waitForLoadState('networkidle').catch(() => undefined);
    await tab.waitForTimeout(350);
    await tab.screenshot({ path: `${out}/${name}.png` });
    console.log(name);
}

const desk = await page('ines.halloran@lanternfield.example', PASSWORD);
await desk.waitForURL('**/desk');
await shot(desk, 'desk');
await desk.goto(`${base}/s/primary/intake`);
await shot(desk, 'intake');
await desk.getByRole('row', { name: /fall-list/ }).click();
await desk
    .getByRole('button', { name: /an answer/ })
    .first()
    .waitFor();
await desk.waitForTimeout(300);
await desk.keyboard.press(']');
await desk.keyboard.press(']');
await desk.keyboard.press(']');
await desk.keyboard.press(']');
await shot(desk, 'plan');
const odd = join(mkdtempSync(join(tmpdir(), 'vantrel-')), 'Room lists.csv');
writeFileSync(
    odd,
    [
        'Lanternfield Primary - Room lists,,,,,,',
        'Student,,,,Parent 1,,',
        'Name,ID,DOB,Notes,Name,E-mail,Phone',
        'Homeroom: 3 Heron   Teacher: Ms. Vale,,,,,,',
        '"QUILL, ADA",21890,3/12/2018,bus 4,Mother: Rosa Quill,rosa.quill@example.example,555-010-0141',
        '"Rowe, Tim (IEP)",21891,11/25/2017,,"Rowe, Anne",anne.rowe@example,555-010-0142',
        ',,,,John Rowe,,555-010-0143',
        '"Wu, Kai",21892,2/30/2018,,Li & Mei Wu,mei.wu@example.example,',
        'Total: 3,,,,,,',
        'Homeroom: 4 Plover   Teacher: Mr. Marsh,,,,,,',
        '"Haddad, Noor",21893,5/4/2017,new,Sami Haddad,sami.haddad@example.example,555-010-0144',
        '"Okafor, Bo - NEW",21894,6/1/2017,,,,n/a',
        'Printed 9/1/2026,,,,,,',
    ].join('\n'),
);
await desk.goto(`${base}/s/primary/intake`);
await desk.locator('input[type=file]').first().setInputFiles(odd);
await desk.getByRole('button', { name: /Apply/ }).first().waitFor();
await desk.waitForTimeout(500);
await desk.keyboard.press('s');
await desk.waitForURL('**/sheet');
await desk.getByText('QUILL, ADA').first().waitFor();
await shot(desk, 'sheet');
await desk.goto(`${base}/s/primary/roll?kind=student&q=haddad`);
await desk.getByRole('row').nth(2).click();
await shot(desk, 'roll');
await desk.goto(`${base}/s/primary/sections`);
await shot(desk, 'sections');
await desk.getByRole('row', { name: /^3 Heron/ }).click();
await desk.getByRole('button', { name: 'Show it here' }).click();
await shot(desk, 'section');
const wall = await desk.getByTestId('join-code').innerText();
await desk.getByRole('link', { name: 'On the wall' }).click();
await shot(desk, 'wall');
await desk.goto(`${base}/s/primary/print-room`);
for (const name of ['3 Curlew', '3 Heron']) await desk.getByRole('row', { name: new RegExp(name) }).click();
await shot(desk, 'print-room');
await desk.goto(`${base}/s/primary/guardians`);
await desk.getByRole('row').nth(3).click();
await shot(desk, 'guardians');
await desk.goto(`${base}/s/primary/look-alikes`);
await desk.getByRole('row').nth(3).click();
await shot(desk, 'merge');
await desk.getByRole('button', { name: 'Merge the two' }).click();
await desk.getByText('Merged. All old cards go on working.').waitFor();
for (const said of ['move 020320 to 3 plover', 'place 020065 in reading support']) {
    await desk.keyboard.press('/');
    await desk.keyboard.type(said);
    await desk.getByRole('option').first().waitFor();
    await desk.keyboard.press('Enter');
    await desk
        .getByText(/^Done: /)
        .first()
        .waitFor();
}
await desk.goto(`${base}/s/primary/year-turn`);
await shot(desk, 'year-turn');
await desk.goto(`${base}/s/primary/mailroom`);
await desk.getByRole('row').nth(2).click();
await shot(desk, 'mailroom');
await desk.goto(`${base}/s/primary/ledger`);
await desk.getByRole('row').nth(1).click();
await desk.getByText('Undo all of this').waitFor();
await shot(desk, 'ledger');
await desk.goto(`${base}/s/primary/settings`);
await shot(desk, 'settings');
const teacher = await page('petra.okonjo@lanternfield.example', PASSWORD, { dark: true });
await teacher.getByRole('row').filter({ hasText: '3 Heron' }).first().click();
await teacher.getByRole('link', { name: 'Notices, dates and work' }).click();
await teacher.getByRole('heading', { level: 2 }).first().waitFor();
await shot(teacher, 'notices');
const phone = { width: 390, height: 844 };
const guardian = await page('helene.marchetti@shoremail.example', PASSWORD, phone);
await guardian.getByRole('heading', { name: 'Not handed in' }).scrollIntoViewIfNeeded();
await guardian.getByRole('heading', { name: 'Wilhelmina Seabright' }).evaluate((heading) => heading.scrollIntoView());
await shot(guardian, 'children-phone');
const guest = await page(null, '', phone);
await guest.goto(`${base}/in/${wall.replaceAll('-', '')}`);
await guest.getByRole('button', { name: 'Go on' }).click();
await guest.getByRole('button', { name: 'No, or I do not know' }).click();
await guest.getByLabel('First name').fill('Leilani');
await guest.getByLabel('Last name').fill('Garrow');
await guest.getByRole('button', { name: 'Go on' }).click();
await guest.getByRole('heading', { name: 'Are you on this list?' }).waitFor();
await shot(guest, 'join-phone');
// A room pass in a section that no other picture shows; its list in Arabic.
await desk.goto(`${base}/s/primary/sections`);
await desk.getByRole('row', { name: /^5 Curlew/ }).click();
await desk.waitForURL(/sections\/[0-9A-Z]{26}/);
const poster = await desk.evaluate(async (id) => {
    const token = decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1] ?? '');
    const response = await fetch(`/api/sections/${id}/room-pass`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Accept: 'application/json', 'X-XSRF-TOKEN': token },
        body: JSON.stringify({ hours: 'any', paper: 'a4' }),
    });
    return Array.from(new Uint8Array(await response.arrayBuffer()));
}, desk.url().split('/').pop());
const folder = mkdtempSync(join(tmpdir(), 'vantrel-shots-'));
writeFileSync(join(folder, 'pass.pdf'), Buffer.from(poster));
execFileSync('pdftoppm', ['-r', '120', '-png', join(folder, 'pass.pdf'), join(folder, 'page')]);
const room = execFileSync('zbarimg', ['-q', '--raw', join(folder, 'page-1.png')], {
    stdio: ['ignore', 'pipe', 'ignore'],
});
const tablet = await page(null, '', phone);
await tablet.goto(room.toString().trim());
await tablet.getByRole('combobox', { name: 'Language' }).selectOption('ar');
await shot(tablet, 'room-phone');
await browser.close();
