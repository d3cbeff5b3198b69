import { createServer } from 'vite';
const vite = await createServer({ root:'/work/main', server: { middlewareMode: true, hmr: false, ws: false, fs:{strict:false} }, appType: 'custom', logLevel: 'error' });
const { run } = await vite.ssrLoadModule(process.argv[2]);
await run(); await vite.close(); process.exit(0);
