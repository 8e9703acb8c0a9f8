import {t,shot,bring,base,browser} from './.ui.mjs';
await t.goto(`${base}/s/primary/intake`); await shot('1-intake');
await bring('/work/main/demo/clubs-a-sheet-each.ods'); await shot('2-clubs');
await bring('/tmp/m/a.csv'); await t.getByRole('row').nth(1).click(); await shot('3-repairs');
await t.keyboard.press('Escape'); await t.keyboard.press('m'); await shot('4-mended');
await t.keyboard.press('Escape'); await t.waitForTimeout(200); await t.keyboard.press('c'); await shot('5-columns');
await bring('/work/main/demo/fall-list-grades-1-5.xlsx'); await t.keyboard.press('w'); await t.waitForTimeout(300); await t.getByLabel('How to read this list').selectOption('school'); await shot('6-whose'); await t.getByRole('button',{name:'Show the plan'}).click(); await t.waitForTimeout(3500); await shot('7-everyone');
await t.keyboard.press(']'); await shot('8-question');
await browser.close();
