import {t,shot,bring,base,browser} from './.ui.mjs';
await bring('/work/main/demo/fall-list-grades-1-5.xlsx'); await t.keyboard.press('w'); await t.waitForTimeout(300); await t.getByLabel('How to read this list').selectOption('school'); await t.getByRole('button',{name:'Show the plan'}).click(); await t.getByRole('button',{name:/leaving/}).waitFor(); await t.waitForTimeout(500); await t.getByRole('button',{name:/leaving/}).click(); await t.waitForTimeout(900); await t.getByRole('row').nth(2).click(); await shot('11-everyone');
await t.keyboard.press('Escape'); await t.keyboard.press('e'); await t.getByText('suggests its own').waitFor(); await shot('12-weights');
await t.goto(`${base}/s/primary/roll`); await t.getByRole('heading',{name:'Roll'}).waitFor(); await t.waitForTimeout(500); await shot('13-roll');
await t.goto(`${base}/s/primary/sections`); await t.getByRole('row',{name:/^3 Heron/}).click(); await t.waitForTimeout(900); await shot('14-section');
await bring('/tmp/m/a.csv'); await t.keyboard.press('m'); await shot('15-mended');
await browser.close();
