import { chromium } from '@playwright/test';
const [,, url, out, w, h, click] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: +w, height: +h } });
p.on('pageerror', (e) => console.log('PAGEERROR', e.message)); p.on('console', (m) => m.type()==='error' && console.log('CONSOLE', m.text()));
await p.goto(url); await p.waitForTimeout(2500);
if (click) for (const c of click.split('|')) { await p.getByRole('button', { name: c }).first().click(); await p.waitForTimeout(400); }
await p.screenshot({ path: out, fullPage: process.env.FULL === '1' });
await b.close();
