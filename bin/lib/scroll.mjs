// How smoothly a table of many rows scrolls: the Roll with ROWS students in it, wheeled through in Chromium from end to
// end. Prints the time between frames. Run by bin/bench scroll.
import { chromium } from 'playwright-core';
import { note } from './note.mjs';

const [base, rows = '50000'] = process.argv.slice(2);
const people = Array.from({ length: Number(rows) }, (_, i) => ({
    id: `01K3CNQ${String(i).padStart(19, '0')}`,
    name: `Given${i % 977} Family${i}`,
    goesBy: i % 40 === 0 ? 'Short' : '',
    kind: 'student',
    grade: String(1 + (i % 12)),
    number: String(100000 + i),
    sections: `Homeroom ${i % 900}, Art, Music, Reading support`,
    userName: `given${i % 977}.family${i}`,
    email: '',
    state: 'active',
    signedIn: i % 3 === 0,
    guardians: i % 3,
}));
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(base);
await page
    .getByLabel(/user name/i)
    .first()
    .fill('ines.halloran@lanternfield.example');
await page
    .getByLabel(/password/i)
    .first()
    .fill('lantern harbor morning');
await page.keyboard.press('Enter');
await page.waitForURL(/\/s\//);
const body = JSON.stringify({ people, next: null, total: people.length });
await page.route(/\/api\/schools\/[^/]+\/people\?/, (route) =>
    route.fulfill({ contentType: 'application/json', body }),
);
await page.goto(`${base}/s/primary/roll`);
await page.getByText(`${people.length.toLocaleString('en')} found`).waitFor();
await page.getByText('Given1 Family1').waitFor();
await page.waitForTimeout(1000);
await page.evaluate(() => {
    window.frames_ = [];
    let last = performance.now();
    const tick = (now) => {
        window.frames_.push(now - last);
        last = now;
        requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
});
await page.mouse.move(640, 500);
const box = await page
    .getByRole('grid')
    .or(page.getByRole('table'))
    .first()
    .evaluate((e) => {
        let at = e;
        while (at && at.scrollHeight <= at.clientHeight) at = at.parentElement ?? null;
        return at ? at.scrollHeight : 0;
    });
// As a hand does: some rows at a time, then in leaps, to the end and back.
for (let i = 0; i < 150; i++) await page.mouse.wheel(0, 240);
for (let i = 0; i < 120; i++) await page.mouse.wheel(0, Math.ceil(box / 120));
for (let i = 0; i < 60; i++) await page.mouse.wheel(0, -2000);
await page.waitForTimeout(500);
const frames = (await page.evaluate(() => window.frames_)).slice(2).sort((a, b) => a - b);
const seen = await page.getByText(/^Given\d+ Family4\d{4}/).count();
const at = (share) => frames[Math.min(frames.length - 1, Math.floor(share * frames.length))].toFixed(1);
note('the Roll scrolled, 95 % of the frames within', Number(at(0.95)), 'ms', 34);
const late = frames.filter((f) => f > 50).length;
console.log(
    `${people.length.toLocaleString('en')} rows: ${frames.length} frames, half within ${at(0.5)} ms, ` +
        `95 % within ${at(0.95)} ms, the longest ${at(1)} ms, ${late} over 50 ms; ${seen > 0 ? 'the end was reached' : 'the end was not reached'}`,
);
await browser.close();
