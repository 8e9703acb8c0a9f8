import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { drawn, reach, settled, STATES } from './states';
import { test } from './told';

/** How somebody may have set up their eyes and their window. A page of 1280 px at 200 % is one of 640. */
const MODES = [
    { name: 'wide', width: 1280, height: 800, axe: [] },
    { name: 'dark', width: 1280, height: 800, colorScheme: 'dark', axe: ['color-contrast'] },
    { name: 'forced colours', width: 1280, height: 800, forcedColors: 'active' },
    { name: 'phone', width: 390, height: 844, axe: [] },
    { name: '200 %', width: 640, height: 400 },
    { name: '400 %', width: 320, height: 200 },
] as const;

/** Whether axe reads what lies over a page in every mode: `bin/campaign audit` does, each run of the tests in one. */
const ALL = process.env.VANTREL_AUDIT === 'all';

/**
 * What axe finds that is more than a matter of taste.
 *
 * @param sheets whether it reads the style sheets too, which are the same for every view
 */
async function flaws(page: Page, rules: readonly string[], sheets: boolean): Promise<string[]> {
    // Its program is brought into a page twice a call, 0.2 s of it, unless it is there: once a page is enough.
    const there = page.frames().length === 1 && (await page.evaluate(() => 'axe' in window));
    const axe = new AxeBuilder({ page, ...(there ? { axeSource: 'void 0;' } : {}) }).setLegacyMode(true);
    axe.options({
        preload: sheets,
        // Of what is in order a single element is enough: naming every one took a third of its time.
        resultTypes: ['violations'],
        runOnly:
            rules.length > 0
                ? { type: 'rule', values: [...rules] }
                : { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] },
    });
    const { violations } = await axe.analyze();
    return (
        violations
            .filter((v) => v.impact !== 'minor')
            // A menu scrolls with the arrow keys, which have it while it is open.
            .filter(
                (v) => v.id !== 'scrollable-region-focusable' || !v.nodes.every((n) => n.html.includes('role="menu"')),
            )
            .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`)
    );
}

/** What runs out of the window, is cut off, or has no room to be seen in. */
async function misfits(page: Page): Promise<string[]> {
    return page.evaluate(() => {
        const found: string[] = [];
        const across = document.documentElement.scrollWidth;
        if (across > innerWidth) found.push(`the page is ${across} px wide in ${innerWidth}`);
        const name = (e: Element) =>
            `${e.tagName.toLowerCase()} “${(e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40)}”`;
        const scrolls = (e: Element): boolean => {
            for (let up = e.parentElement; up; up = up.parentElement) {
                const style = getComputedStyle(up);
                if (/auto|scroll/.test(style.overflowX) || style.position === 'fixed') return true;
                if (style.clipPath !== 'none' || (style.position === 'absolute' && up.clientWidth <= 1)) return true;
            }
            return false;
        };
        for (const element of document.querySelectorAll('button, a, input, select, textarea, h1, h2, h3, p, th, td')) {
            const box = element.getBoundingClientRect();
            if (box.width <= 1 || box.height <= 1) continue;
            if ((box.right > innerWidth + 1 || box.left < -1) && !scrolls(element))
                found.push(`${name(element)} ends at ${Math.round(box.right)} of ${innerWidth}`);
        }
        for (const grid of document.querySelectorAll('[role=grid], [role=dialog], aside')) {
            const box = grid.getBoundingClientRect();
            const rows = grid.getAttribute('role') === 'grid' ? grid.querySelectorAll('[role=row]').length : 9;
            if (box.width < 200 || box.height < Math.min(100, 32 * rows))
                found.push(`${name(grid)} is ${Math.round(box.width)} x ${Math.round(box.height)} px`);
        }
        return found;
    });
}

for (const { who, phone, enter, states } of STATES) {
    test(`what a ${who} has before them can be read and reached in every window`, async ({ browser }) => {
        const context = await browser.newContext({
            viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
            reducedMotion: 'reduce',
        });
        const page = await context.newPage();
        const wrong: string[] = [];
        let sheets = true;
        await enter(page);
        await settled(page);
        for (const state of states) {
            await page.setViewportSize({ width: 1280, height: 800 });
            await reach(page, state);
            for (const mode of MODES) {
                await page.emulateMedia({
                    colorScheme: 'colorScheme' in mode ? mode.colorScheme : 'light',
                    forcedColors: 'forcedColors' in mode ? mode.forcedColors : 'none',
                    reducedMotion: 'reduce',
                });
                await page.setViewportSize({ width: mode.width, height: mode.height });
                await drawn(page);
                const read = 'axe' in mode && (ALL || mode.name === 'wide' || state.at !== undefined);
                const here = [...(await misfits(page)), ...(read ? await flaws(page, mode.axe, sheets) : [])];
                sheets &&= !read;
                wrong.push(...here.map((what) => `${state.name}, ${mode.name}: ${what}`));
            }
            await page.emulateMedia({ colorScheme: 'light', forcedColors: 'none' });
            await page.setViewportSize({ width: 1280, height: 800 });
            await drawn(page);
            if (state.close) {
                await state.close(page);
                await settled(page);
                // It comes back with the next frames, not within the one that closes what lay over the page.
                const lost = await page
                    .waitForFunction(() => document.activeElement !== document.body, null, { timeout: 3_000 })
                    .then(() => false)
                    .catch(() => true);
                if (lost) wrong.push(`${state.name}: the focus is lost once it is closed`);
            }
        }
        await context.close();
        expect(wrong).toEqual([]);
    });
}
