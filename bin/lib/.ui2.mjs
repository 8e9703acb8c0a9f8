import {t,shot,bring,base,browser} from './.ui.mjs';
await bring('/work/main/demo/fall-list-grades-1-5.xlsx'); await t.keyboard.press('w'); await t.waitForTimeout(300); await t.getByLabel('How to read this list').selectOption('school'); await t.getByRole('button',{name:'Show the plan'}).click(); await t.getByText('leaving').first().waitFor(); await t.waitForTimeout(1500); await shot('7-everyone');
await t.getByLabel(/Type/).fill('134 leave'); await t.getByRole('button',{name:'Confirm'}).click(); await t.waitForTimeout(3500); await t.getByRole('button',{name:/Apply/}).click(); await t.waitForTimeout(400); await shot('9-password');
await t.keyboard.press('Escape'); await t.getByRole('button',{name:/leaving/}).click(); await t.waitForTimeout(800); await t.getByRole('row').nth(2).click(); await shot('10-leaving');
await browser.close();
