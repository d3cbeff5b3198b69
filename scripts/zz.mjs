import { createServer } from 'vite';
const v = await createServer({ server: { middlewareMode: true, hmr: false, watch: null }, appType: 'custom', logLevel: 'error' });
const m = await v.ssrLoadModule('/tests/bench/wall-pictures.ts');
for (const r of await m.wallPictureRows()) console.log(r.holds ? ' ok ' : 'OVER', r.what, '|', r.measured, '|', r.budget);
await v.close(); process.exit(0);
