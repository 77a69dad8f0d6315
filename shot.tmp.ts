import { readFileSync, writeFileSync } from 'node:fs';
import { Day } from './e2e/day';
const day = await Day.begin('Tides and Charts', 'http://127.0.0.1:4180');
const shot = async (n: string) => { await new Promise((r) => setTimeout(r, 1200)); writeFileSync(`/tmp/hand/${n}.png`, await day.visitor.picture()); };
await day.visitor.press('entrance.zip');
await day.visitor.reads('Harbour entrance');
await shot('1');
const rows = await day.visitor.driver.findElements({ css: '[role=row], tr, [role=option]' } as any);
for (const row of rows) if (/Passing|channel has/.test(await row.getText())) { await row.click(); break; }
await shot('2');
await day.hand('statements.csv', readFileSync('/tmp/hand/statements.csv'));
await day.visitor.press('statements.csv');
await shot('3');
console.log(await day.visitor.complaints());
await day.end();
