import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
const browser = await chromium.connectOverCDP('http://127.0.0.1:9333');
const context = browser.contexts()[0];
const page = context.pages()[0] ?? (await context.newPage());
page.setDefaultTimeout(6000);
await page.setViewportSize({ width: 1280, height: 800 });
const U = 'http://127.0.0.1:4700';
const stage = (name) => page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
const text = async (sel = 'body') => { await page.waitForTimeout(500); const t = await page.locator(sel).first().innerText(); console.log('--- ' + page.url() + '\n' + t.replace(/\n{2,}/g, '\n')); };
const fields = async () => { for (const el of await page.locator('main input, main select, main textarea').all()) { if (!(await el.isVisible())) continue; const l = await el.evaluate((e) => (e.getAttribute('aria-label') ?? '') + '|' + [...(e.labels ?? [])].map((x) => x.innerText.replace(/\n/g, ' ')).join('/') + '|' + e.type + '|' + e.value); console.log('  F ' + l); } };
const shot = (n) => page.screenshot({ path: `/tmp/s/w/${n}.png` });
try { await eval(`(async()=>{${readFileSync(0, 'utf8')}})()`); } catch (e) { console.log('ERR', e.message.slice(0, 1500)); }
await browser.close();
