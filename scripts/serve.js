// Serves the built app: one clear sentence when it cannot, a clean stop on SIGTERM.
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';

const port = Number(process.env.PORT ?? 4747);
const host = process.env.HOST ?? '127.0.0.1';

// Without a proxy in front, the address that the browser used is the origin, by whichever name it came.
const PLAIN = 'x-bruntle-protocol';
process.env.BODY_SIZE_LIMIT ??= '24M';
// Threads of the server, built beside it.
process.env.BRUNTLE_THREADS ??= fileURLToPath(new URL('../build/threads/', import.meta.url));
if (!process.env.ORIGIN) process.env.PROTOCOL_HEADER ??= PLAIN;

function stop(sentence) {
	console.error(sentence);
	process.exit(1);
}

/** @returns {Promise<import('http').RequestListener>} */
async function loadHandler() {
	try {
		return (await import('../build/handler.js')).handler;
	} catch (cause) {
		const reason = cause instanceof Error ? cause.message : String(cause);
		if (process.env.BRUNTLE_DEBUG) console.error(cause);
		return stop(`Bruntle could not start: ${reason}`);
	}
}

const server = createServer();
server.on('error', (error) => {
	const code = /** @type {NodeJS.ErrnoException} */ (error).code;
	if (code === 'EADDRINUSE') stop(`Port ${port} is in use. Choose another with --port.`);
	if (code === 'EACCES') stop(`Port ${port} may not be used by you. Choose one above 1023 with --port.`);
	stop(`Bruntle could not listen on ${host}:${port}: ${error.message}`);
});
// The port is taken before the yard is opened, so that a second start does not touch the data; who comes early waits.
server.listen(port, host, async () => {
	const loading = loadHandler();
	server.on('request', async (request, response) => {
		const handler = await loading;
		request.headers[PLAIN] = 'http';
		handler(request, response);
	});
	await loading;
	console.log(`Bruntle is at http://${host.includes(':') ? `[${host}]` : host}:${port}`);
});

// The devices of the demo are simulated by the same programs that can be pointed at any server.
/** @type {import('node:child_process').ChildProcess[]} */
const devices = [];
if (process.env.BRUNTLE_SIMULATORS === '1')
	server.once('listening', async () => {
		await loadHandler();
		const { spawn } = await import('node:child_process');
		const day = (process.env.BRUNTLE_NOW ?? new Date().toISOString()).slice(0, 10);
		for (const kind of ['scale', 'soil-probe', 'air'])
			devices.push(
				spawn(
					process.execPath,
					[
						fileURLToPath(new URL('device.js', import.meta.url)),
						kind,
						`http://127.0.0.1:${port}`,
						`simulated-${kind}-of-the-demo`,
						'5',
						`${day}T06:10:00Z`
					],
					{ stdio: 'ignore' }
				)
			);
	});

for (const signal of /** @type {const} */ (['SIGTERM', 'SIGINT']))
	process.once(signal, () => {
		for (const device of devices) device.kill();
		server.close(() => {
			// The database is whole in its one file before this ends.
			if (!process.emit(/** @type {any} */ ('bruntle:stop'), /** @type {any} */ (() => process.exit(0))))
				process.exit(0);
		});
		server.closeIdleConnections();
		setTimeout(() => process.exit(0), 3000).unref();
	});
