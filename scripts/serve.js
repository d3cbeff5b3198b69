// Serves the built app: one clear sentence when it cannot, a clean stop on SIGTERM.
import { createServer } from 'node:http';

const port = Number(process.env.PORT ?? 4747);
const host = process.env.HOST ?? '127.0.0.1';

// Without a proxy in front, the address that the browser used is the origin, by whichever name it came.
const PLAIN = 'x-bruntle-protocol';
process.env.BODY_SIZE_LIMIT ??= '12M';
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

for (const signal of /** @type {const} */ (['SIGTERM', 'SIGINT']))
	process.once(signal, () => {
		server.close(() => process.exit(0));
		server.closeIdleConnections();
		setTimeout(() => process.exit(0), 3000).unref();
	});
