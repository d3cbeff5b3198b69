// Serves the built app: one clear sentence when it cannot, a clean stop on SIGTERM.
import { createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { createServer as createDoor } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import QRCode from 'qrcode';

const port = Number(process.env.PORT ?? 4747);
const sharing = process.env.BRUNTLE_SHARE === '1';
const host = (process.env.HOST ??= sharing ? '0.0.0.0' : '127.0.0.1');

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

const beside = (/** @type {string} */ name) => new URL(`../build/threads/${name}.js`, import.meta.url).href;
const NAMES_LOOKED_AT_MS = 60_000;

/**
 * The door of a shared yard: speaks TLS with whoever begins so, and plainly with this computer alone.
 * @param {import('node:http').RequestListener} answer
 * @returns {Promise<import('node:net').Server>}
 */
async function openDoor(answer) {
	const { certificatesIn, sharedAddresses, sharedNames } = await import(beside('share'));
	const folder = path.join(process.env.BRUNTLE_FOLDER ?? 'data', 'share');
	/** The certificate for the addresses of now, which pages are told as well. */
	const known = async () => {
		const { fingerprint, authorityFile, ...certificate } = await certificatesIn(folder);
		process.env.BRUNTLE_SHARED = JSON.stringify({
			addresses: sharedAddresses(port),
			fingerprint,
			certificateFile: authorityFile
		});
		return { ...certificate, minVersion: /** @type {const} */ ('TLSv1.2') };
	};
	const secure = createSecureServer(await known(), answer);
	// A laptop that goes from one network to another has other addresses, and needs a certificate for them.
	let names = sharedNames().join();
	setInterval(async () => {
		const by = sharedNames().join();
		if (by === names) return;
		try {
			secure.setSecureContext(await known());
			names = by;
		} catch (cause) {
			// It goes on with the one it has, and tries again.
			console.error('No certificate could be made for the addresses of now:', cause);
		}
	}, NAMES_LOOKED_AT_MS).unref();
	const plain = createServer((request, response) => {
		const from = (request.socket.remoteAddress ?? '').replace(/^::ffff:/, '');
		const named = /^[\w.:[\]-]+$/.test(request.headers.host ?? '');
		// A phone that does not know the yard yet takes its certificate, which is no secret, by this way.
		if (/^(127\.|::1$)/.test(from) || /^\/(key\/certificate|_app|mark)/.test(request.url ?? ''))
			answer(request, response);
		else if (named)
			response.writeHead(308, { location: `https://${request.headers.host}${request.url}` }).end();
		else response.writeHead(400).end();
	});
	const TLS_HANDSHAKE = 22;
	const SILENT_MS = 10_000;
	return createDoor((socket) => {
		socket.setTimeout(SILENT_MS, () => socket.destroy());
		socket.on('error', () => socket.destroy());
		socket.once('data', (first) => {
			socket.pause();
			socket.setTimeout(0);
			socket.unshift(first);
			(first[0] === TLS_HANDSHAKE ? secure : plain).emit('connection', socket);
			process.nextTick(() => socket.resume());
		});
	});
}

/** Says where the yard is, and how the next helper comes in. */
async function tellShared() {
	const { addresses } = JSON.parse(process.env.BRUNTLE_SHARED ?? '{"addresses":[]}');
	/** @type {string | null} */
	const key = await new Promise((told) => {
		if (!process.emit(/** @type {any} */ ('bruntle:invite'), /** @type {any} */ (told))) told(null);
	});
	console.log(`In this network, with a key: ${addresses.join('  ')}`);
	if (key === null) {
		console.log(
			`Nobody owns this yard yet. Open http://127.0.0.1:${port}/yard/people on this computer and make yourself its owner; until then nobody comes in from the network.`
		);
		return;
	}
	const link = `${addresses[0]}/invited/${key}`;
	console.log(
		`To bring one helper in, within a day:\n${await QRCode.toString(link, { type: 'terminal', small: true })}\n${link}`
	);
	console.log(
		`A phone that warns of the address takes the yard's certificate first: http://${addresses[0].slice('https://'.length)}/key/certificate`
	);
}

/** @type {import('node:http').RequestListener} */
const answer = async (request, response) => {
	const handler = await loading;
	request.headers[PLAIN] = 'encrypted' in request.socket ? 'https' : 'http';
	handler(request, response);
};
/** @type {(of: Promise<import('node:http').RequestListener>) => void} */
let loaded;
/** @type {Promise<import('node:http').RequestListener>} */
const loading = new Promise((resolve) => (loaded = resolve));

const server = sharing ? await openDoor(answer) : createServer(answer);
server.on('error', (error) => {
	const code = /** @type {NodeJS.ErrnoException} */ (error).code;
	if (code === 'EADDRINUSE') stop(`Port ${port} is in use. Choose another with --port.`);
	if (code === 'EACCES') stop(`Port ${port} may not be used by you. Choose one above 1023 with --port.`);
	stop(`Bruntle could not listen on ${host}:${port}: ${error.message}`);
});
// The port is taken before the yard is opened, so that a second start does not touch the data; who comes early waits.
server.listen(port, host, async () => {
	loaded(await loadHandler());
	console.log(
		`Bruntle is at http://${sharing ? '127.0.0.1' : host.includes(':') ? `[${host}]` : host}:${port}`
	);
	if (sharing) await tellShared();
});

// The devices of the demo are simulated by the same programs that can be pointed at any server.
/** @type {import('node:child_process').ChildProcess[]} */
const devices = [];
if (process.env.BRUNTLE_SIMULATORS === '1')
	server.once('listening', async () => {
		await loading;
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
		if ('closeIdleConnections' in server) server.closeIdleConnections();
		setTimeout(() => process.exit(0), 3000).unref();
	});
