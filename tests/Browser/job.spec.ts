import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { coordinator, onPage, openRow, other, PASSWORD, signIn, TEACHER } from './people';
import { test } from './told';

test('the whole job: list, code, co-teacher, cards, merge, archive, year turn', async ({ page, browser }) => {
    test.setTimeout(600_000);

    await test.step('2. the Desk has real counts', async () => {
        await coordinator(page);
        await onPage(page, 'Desk');
        await expect(page.getByText(/\d+ students, \d+ guardians, 34 staff, 44 sections/)).toBeVisible();
        await expect(page.getByRole('link', { name: 'Look-alikes' }).first()).toBeVisible();
    });

    await test.step('3. a spreadsheet comes in: columns, plan, apply, find, undo', async () => {
        await page.getByRole('link', { name: 'Intake' }).first().click();
        await page.getByLabel('The list').setInputFiles('demo/new-families-surname-first.csv');
        await onPage(page, 'new-families-surname-first.csv');
        await expect(page.getByText('40 rows, header in row 1')).toBeVisible();
        await expect(page.getByRole('button', { name: 'family name first' })).toBeVisible();
        await page.getByRole('button', { name: /columns named/ }).click();
        await expect(page.getByLabel('What Homeroom holds')).toHaveValue('homeroom');
        await page.getByLabel('What Phone holds').selectOption('left out');
        await expect(page.getByLabel('What Phone holds')).toHaveValue('');
        await page.getByLabel('What Phone holds').selectOption('guardian phone');
        await page.getByRole('button', { name: 'Back to the plan' }).click();
        await expect(page.getByText('Apply adds 40 students and 40 guardians.')).toBeVisible();
        await page.getByRole('button', { name: 'Apply', exact: true }).click();
        await expect(page.getByText('The people are in the Roll and in their sections.')).toBeVisible({
            timeout: 30_000,
        });
        await page.goto('/s/primary/roll?kind=student&q=kowalczyk+ulrika');
        await openRow(page, /Ulrika Kowalczyk/);
        await expect(
            page.getByRole('complementary', { name: 'Ulrika Kowalczyk' }).getByRole('link', { name: 'K Heron' }),
        ).toBeVisible();
        await page.getByRole('link', { name: 'Ledger', exact: true }).click();
        await openRow(page, /new-families/);
        await page.getByRole('button', { name: 'Undo all of this…' }).click();
        await page.getByRole('dialog').getByRole('button', { name: /^Undo/ }).click();
        await expect(page.getByRole('row', { name: /new-families.*undone/ })).toBeVisible();
        await page.goto('/s/primary/roll?kind=student&q=kowalczyk+ulrika');
        // Others who fit in part are found; she is not there any more.
        await expect(page.getByText(/^\d+ found$/)).toBeVisible();
        await expect(page.getByRole('row', { name: /Ulrika Kowalczyk/ })).toHaveCount(0);
    });

    let code = '';
    await test.step('4. a join code: shown, on the wall, replaced', async () => {
        await page.goto('/s/primary/sections');
        await openRow(page, /^3 Heron/);
        await onPage(page, '3 Heron');
        await expect(page.getByTestId('join-code')).toHaveCount(0);
        await page.getByRole('button', { name: 'Show it here' }).click();
        const old = await page.getByTestId('join-code').innerText();
        expect(old).toMatch(/^[BCDFGHJKMNPQRSTVWXZ3479]{3}-[BCDFGHJKMNPQRSTVWXZ3479]{4}$/);
        await page.getByRole('button', { name: 'New code' }).click();
        await page.getByRole('button', { name: 'Open the code' }).click();
        await expect(page.getByTestId('join-code')).not.toHaveText(old);
        code = await page.getByTestId('join-code').innerText();
        await page.getByRole('link', { name: 'On the wall' }).click();
        await expect(page.getByTestId('wall-code')).toHaveText(code);
        const box = await page.getByTestId('wall-code').boundingBox();
        expect(box?.width).toBeGreaterThan(1280 * 0.8);
        const guest = await other(browser, true);
        await guest.goto(`/in/${old.replaceAll('-', '')}`);
        await guest.getByRole('button', { name: 'Go on' }).click();
        await guest.getByRole('button', { name: 'No, or I do not know' }).click();
        await expect(guest.getByText('opens nothing, or not any more')).toBeVisible();
        await guest.context().close();
    });

    await test.step('5. students come in, one with a new account, one with an old; the wall shows names', async () => {
        const phone = await other(browser, true);
        await phone.goto('/in');
        await phone.getByLabel('Code').fill(code.replaceAll('-', '').toLowerCase().replace(/^./, 'x'));
        await expect(phone.getByText(/One letter is wrong|That is a code/)).toBeVisible();
        await phone.getByLabel('Code').fill(code.replaceAll('-', ' ').toLowerCase());
        await expect(phone.getByLabel('Code')).toHaveValue(code);
        await phone.getByRole('button', { name: 'Go on' }).click();
        await phone.getByRole('button', { name: 'No, or I do not know' }).click();
        await phone.getByLabel('First name').fill('Marlo');
        await phone.getByLabel('Last name').fill('Quillfeather');
        await phone.getByRole('button', { name: 'Go on' }).click();
        await onPage(phone, 'Ask to come in');
        await phone.getByLabel('The day you were born').fill('2017-05-04');
        await phone.getByLabel('A password you will remember').fill('green boat stone');
        await phone.getByRole('button', { name: 'Ask to come in' }).click();
        await onPage(phone, 'You have asked to come in');
        // The wall says that somebody waits; the teacher lets them in, and both sides go on by themselves.
        await expect(page.getByText(/3 at the door/)).toBeVisible();
        const teacher = await other(browser);
        await signIn(teacher, TEACHER, PASSWORD);
        await openRow(teacher, /^3 Heron/);
        const asking = teacher.getByRole('listitem').filter({ hasText: 'Marlo Quillfeather' });
        await asking.getByRole('button', { name: 'Let in' }).click();
        await expect(asking).toHaveCount(0);
        await teacher.context().close();
        await onPage(phone, 'You are in 3 Heron');
        await expect(phone.getByText('marlo.quillfeather')).toBeVisible();
        await expect(page.getByText('Marlo Q.')).toBeVisible();
        await phone.context().close();

        await page.goto('/s/primary/sections');
        await openRow(page, /^Harbor choir/);
        await page.getByRole('button', { name: 'Show it here' }).click();
        const choir = await page.getByTestId('join-code').innerText();
        const student = await other(browser, true);
        await signIn(student, 'wilhelmina.seabright', 'maple otter candy');
        await onPage(student, 'Hello, Wilhelmina');
        await student.getByRole('link', { name: 'I have a code' }).click();
        await student.getByLabel('Code').fill(choir);
        await student.getByRole('button', { name: 'Come in' }).click();
        await onPage(student, 'You are in Harbor choir');
        await student.getByRole('button', { name: 'My sections' }).click();
        await expect(student.getByText('Harbor choir')).toBeVisible();
        await student.context().close();
        await page.getByRole('button', { name: 'Close it' }).click();
        await page.getByRole('button', { name: 'Close the code' }).click();
        await expect(page.getByText('No code is open')).toBeVisible();
        await page.getByRole('button', { name: 'Open a code' }).click();
        await page.getByRole('button', { name: 'Open the code' }).click();
        await expect(page.getByTestId('join-code')).not.toHaveText(choir);
    });

    await test.step('6. a co-teacher is invited, accepts from the mail, works there; the inviter sees it', async () => {
        await page.goto('/s/primary/sections');
        await openRow(page, /^3 Heron/);
        await page.getByLabel('Invite by e-mail').fill('nela.quist@lanternfield.example');
        await page.getByRole('button', { name: 'Send the invitation' }).click();
        const line = page.getByRole('listitem').filter({ hasText: 'nela.quist@lanternfield.example' });
        await expect(line.getByText('invited')).toBeVisible();
        const mailroom = await other(browser);
        await coordinator(mailroom, 'mailroom');
        await openRow(mailroom, /nela\.quist/);
        const link = await mailroom.getByRole('link', { name: /\/invited#/ }).getAttribute('href');
        await mailroom.context().close();
        const colleague = await other(browser);
        await colleague.goto(link ?? '');
        await onPage(colleague, 'Ines Halloran asks you into 3 Heron');
        await colleague.getByLabel('First name').fill('Nela');
        await colleague.getByLabel('Last name').fill('Quist');
        await colleague.getByLabel('Password').fill('four green boats at sea');
        await colleague.getByRole('button', { name: 'Accept and make the account' }).click();
        await onPage(colleague, 'Sections');
        await openRow(colleague, /^3 Heron/);
        await expect(colleague.getByRole('button', { name: 'Print cards' })).toBeVisible();
        await colleague.getByRole('button', { name: 'More' }).click();
        await expect(colleague.getByRole('menuitem', { name: 'Change name, period, seats' })).toBeVisible();
        await expect(colleague.getByRole('menuitem', { name: 'Archive' })).toHaveCount(0);
        await colleague.keyboard.press('Escape');
        await colleague.getByRole('button', { name: 'Show it here' }).click();
        await expect(colleague.getByTestId('join-code')).toHaveText(code);
        // No reload on this side.
        await expect(line.getByText('accepted', { exact: true })).toBeVisible();
        await colleague.context().close();
    });

    await test.step('7. login cards: printed, a QR scanned, a passphrase typed', async () => {
        const folder = mkdtempSync(join(tmpdir(), 'vantrel-cards-'));
        await page.goto('/s/primary/print-room');
        await openRow(page, /^Select 3 Heron/);
        await expect(page.getByText(/Prints 2[34] cards for 1 section on 3 sheets/)).toBeVisible();
        const printed = page.waitForResponse((r) => r.url().endsWith('/cards') && r.status() === 200);
        await page.getByRole('button', { name: /Print 2[34] cards/ }).click();
        // The viewer window of a headless browser keeps the pages to itself: they come through this page's session.
        const { id } = (await (await printed).json()) as { id: string };
        const pdf = await page.evaluate(
            async (print) => Array.from(new Uint8Array(await (await fetch(`/api/prints/${print}/file`)).arrayBuffer())),
            id,
        );
        await expect(page.getByRole('link', { name: /2[34] login cards/ })).toBeVisible();
        writeFileSync(join(folder, 'cards.pdf'), Buffer.from(pdf));
        // Each place of the first sheet by itself, as a camera is held before a card: zbarimg may pass over one of
        // many squares in one picture. Cut as a stack, 23 or 24 cards lie on three sheets, eight on each.
        const codes: string[] = [];
        for (let place = 0; place < 10; place++) {
            const corner = ['-x', String(620 * (place % 2)), '-y', String(350 * Math.floor(place / 2))];
            const one = ['-r', '150', '-png', '-singlefile', ...corner, '-W', '620', '-H', '350'];
            execFileSync('pdftoppm', [...one, join(folder, 'cards.pdf'), join(folder, 'card')]);
            const read = spawnSync('zbarimg', ['-q', '--raw', join(folder, 'card.png')], { encoding: 'utf8' }).stdout;
            codes.push(...read.trim().split('\n').filter(Boolean));
        }
        expect(codes).toHaveLength(8);
        const scanner = await other(browser, true);
        await scanner.goto(codes[0] ?? '');
        await onPage(scanner, /^Hello, /);
        await scanner.context().close();
        const text = execFileSync('pdftotext', ['-raw', join(folder, 'cards.pdf'), '-']).toString();
        const card = /User name\s+(\S+)\s+Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/.exec(text);
        const typist = await other(browser, true);
        await signIn(typist, card?.[1] ?? '', card?.[2] ?? '');
        await onPage(typist, /^Hello, /);
        await typist.context().close();
    });

    await test.step('8. two accounts of one child: compared, merged, both sign in, undone', async () => {
        await page.goto('/s/primary/look-alikes');
        const people = /(\d+) people with several accounts/;
        await expect(page.getByText(people)).toBeVisible();
        const before = Number(people.exec(await page.getByText(people).innerText())?.[1]);
        await openRow(page, /over 99\.9 %/);
        await expect(page.getByText('Is it one person?')).toBeVisible();
        await expect(page.getByText('All old cards and user names go on working.')).toBeVisible();
        await page.getByRole('button', { name: 'Merge the two' }).click();
        await expect(page.getByText('Merged. All old cards go on working.')).toBeVisible();
        await expect(page.getByText(`${before - 1} people with several accounts`)).toBeVisible();
        await page.getByRole('button', { name: 'Undo', exact: true }).click();
        await expect(page.getByText(`${before} people with several accounts`)).toBeVisible();
    });

    await test.step('9. a section archived, a year turned, all of it undone', async () => {
        await page.goto('/s/primary/sections');
        await openRow(page, /^Art 1/);
        await page.getByRole('button', { name: 'More' }).click();
        await page.getByRole('menuitem', { name: 'Archive' }).click();
        await page.getByRole('button', { name: 'Archive Art 1' }).click();
        await expect(page.getByText(/read-only; cards can still be printed/)).toBeVisible();
        await expect(page.getByRole('button', { name: 'Print cards' })).toBeEnabled();
        await page.goto('/s/primary/year-turn');
        await onPage(page, '2026-27 to 2027-28');
        await expect(page.getByText(/Archives 43 sections, moves \d+ students up a grade/)).toBeVisible();
        await page.getByRole('button', { name: 'Turn to 2027-28' }).click();
        await expect(page.getByRole('button', { name: 'Turn the year' })).toBeDisabled();
        await page.getByLabel('Type 2027-28 to turn the year').fill('2027-28');
        await page.getByRole('button', { name: 'Turn the year' }).click();
        await onPage(page, 'Ledger');
        await expect(
            page.getByRole('button', { name: /School and year: Lanternfield Primary, 2027-28/ }),
        ).toBeVisible();
        const late = await other(browser, true);
        await late.goto(`/in/${code.replaceAll('-', '')}`);
        await late.getByRole('button', { name: 'Go on' }).click();
        await late.getByRole('button', { name: 'Yes: I have a card or a password' }).click();
        await late.getByRole('textbox', { name: 'User name' }).fill('wilhelmina.seabright');
        await late.getByLabel('Passphrase or password').fill('maple otter candy');
        await late.getByRole('button', { name: 'Sign in' }).click();
        await late.getByRole('button', { name: 'Come in' }).click();
        await expect(late.getByText('opens nothing, or not any more')).toBeVisible();
        await late.context().close();
        await openRow(page, /2026-27 to 2027-28/);
        await page.getByRole('button', { name: 'Undo all of this…' }).click();
        await page.getByRole('dialog').getByRole('button', { name: /^Undo/ }).click();
        await expect(
            page.getByRole('button', { name: /School and year: Lanternfield Primary, 2026-27/ }),
        ).toBeVisible();
        await page.goto('/s/primary/sections');
        await expect(page.getByText('43 open, 1 archived')).toBeVisible();
    });
});
