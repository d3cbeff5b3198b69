import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { ended, startServer } from './helpers';

/** Makes the demo yard once, its water reckoned; each file of tests works on a copy. */
export default async function makeDemo(): Promise<void> {
	const folder = path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo');
	await mkdir(folder, { recursive: true });
	const port = 4819;
	const server = await startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_DEMO: '1' });
	await fetch(`http://127.0.0.1:${port}/`);
	const gone = ended(server);
	server.kill();
	await gone;
}
