import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
const b = await chromium.connectOverCDP('http://127.0.0.1:9333');
const ctx = b.contexts()[0]; const page = ctx.pages()[0] ?? await ctx.newPage();
page.setDefaultTimeout(8000);
await page.setViewportSize({width:1280,height:800});
const U='http://127.0.0.1:4700';
const go = async (p)=>{ await page.goto(U+p); await page.waitForLoadState('networkidle'); };
const text = async (sel='main')=>{ await page.waitForTimeout(500); return (await page.locator(sel).first().innerText()).replace(/\n+/g,'\n'); };
const stage = async (n)=>{ await page.getByRole('navigation',{name:'Stages'}).getByRole('link',{name:n}).click(); await page.waitForLoadState('networkidle'); await page.waitForTimeout(400); };
const link = async (n)=>{ await page.getByRole('link',{name:n}).first().click(); await page.waitForLoadState('networkidle'); await page.waitForTimeout(400); };
const toasts = async()=>{ await page.waitForTimeout(600); for (const t of await page.locator('[data-sonner-toast]').allInnerTexts()) console.log('TOAST', t.replace(/\n/g,' | ')); for (const t of await page.getByRole('alert').allInnerTexts()) if(t.trim()) console.log('ALERT', t); };
const shot = (n)=>page.screenshot({path:`/tmp/s/${n}.png`});
const code = readFileSync(0,'utf8');
try { await (new (Object.getPrototypeOf(async function(){}).constructor)('page','go','text','stage','link','toasts','shot','U',code))(page,go,text,stage,link,toasts,shot,U); }
catch(e){ console.log('ERR', String(e.message).slice(0,1200)); }
process.exit(0);
