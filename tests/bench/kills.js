// Kills a server with SIGKILL in the middle of its writes, again and again, and looks whether anything that it acknowledged is lost, or
// anything is half there: node tests/bench/kills.js 1000. Wants a built server.
import { createClient } from '@libsql/client';
import { spawn } from 'node:child_process';
import { createHash, randomInt } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const kills = Number(process.argv[2] ?? 100);
const WRITERS = 4;
const LONGEST_MS = 1500;
const port = 4890;
const at = `http://127.0.0.1:${port}`;
const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-kills-'));
const database = path.join(folder, 'yard.db');

/** @param {Record<string, string>} more */
async function start(more = {}) {
	const child = spawn('node', ['scripts/serve.js'], {
		env: {
			...process.env,
			DATABASE_URL: `file:${database}`,
			BRUNTLE_NOW: '2026-04-18T09:00:00Z',
			BRUNTLE_DEMO: '1',
			BRUNTLE_BACKUPS: '0',
			PORT: String(port),
			...more
		},
		stdio: ['ignore', 'pipe', 'inherit']
	});
	await new Promise((resolve, reject) => {
		child.stdout.on('data', (said) => String(said).includes('Bruntle is at') && resolve(undefined));
		child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
	});
	return child;
}
const killed = (/** @type {import('node:child_process').ChildProcess} */ child) =>
	new Promise((resolve) => {
		child.removeAllListeners('exit');
		child.once('exit', resolve);
		child.kill('SIGKILL');
	});

const first = await start();
const { trees } = await (await fetch(`${at}/api/v1/trees`)).json();
const pattern = await (
	await fetch(`${at}/api/v1/trees/${trees.find((/** @type {any} */ one) => one.tag === 'P-09').id}`)
).text();
await killed(first);

/** The same case under other identities: a few hundred rows of a dozen tables in one write. */
const caseOf = (/** @type {number} */ number) => {
	const { kind, places, ...own } = JSON.parse(pattern);
	const anew = JSON.parse(
		JSON.stringify(own).replaceAll(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g, (uuid) =>
			own.tree.placeId === uuid || own.tree.referenceTreeId === uuid
				? uuid
				: uuid.slice(0, 24) +
					createHash('sha256')
						.update(uuid + number)
						.digest('hex')
						.slice(0, 12)
		)
	);
	anew.tree = { ...anew.tree, tag: `K-${number}`, referenceTreeId: null };
	return { kind, places, ...anew };
};
/** Records of a case, the journal left out: a server writes an entry of its own into it. */
const sizeOf = (/** @type {Record<string, unknown>} */ { journal: _told, ...one }) =>
	Object.values(one).reduce(
		(/** @type {number} */ sum, part) => sum + (Array.isArray(part) ? part.length : 1),
		0
	);

/** @type {Map<string, { acknowledged: boolean, size: number }>} */
const sent = new Map();
let number = 0;
let going = true;
async function writeOn() {
	while (going) {
		const doc = caseOf(number++);
		const entry = { acknowledged: false, size: sizeOf(doc) };
		sent.set(doc.tree.id, entry);
		try {
			const answer = await fetch(`${at}/api/v1/trees?kind=ours`, {
				method: 'POST',
				headers: { 'content-type': 'application/json', origin: at },
				body: JSON.stringify(doc)
			});
			if (!going) return;
			if (answer.status === 201) entry.acknowledged = true;
			else throw new Error(`${answer.status} ${await answer.text()}`);
		} catch (cause) {
			if (going && cause instanceof Error && /^\d{3} /.test(cause.message)) throw cause;
			return;
		}
	}
}

let [lost, half, kept, unsaid] = [0, 0, 0, 0];
const begun = Date.now();
/** @type {Set<string>} */
const looked = new Set();
/** Each tree sent since the last kill, at the server started after it: there and whole, or of one nobody was told of. */
async function lookThrough() {
	for (const [id, { acknowledged, size }] of sent) {
		if (looked.has(id)) continue;
		looked.add(id);
		const answer = await fetch(`${at}/api/v1/trees/${id}`);
		const there = answer.status === 200;
		const whole = there && sizeOf(await answer.json()) === size;
		if (acknowledged && !there) lost++;
		else if (there && !whole) half++;
		else if (there && acknowledged) kept++;
		else if (there) unsaid++;
	}
}
let child = await start();
for (let round = 0; round < kills; round++) {
	going = true;
	const writing = Array.from({ length: WRITERS }, writeOn);
	await new Promise((resolve) => setTimeout(resolve, randomInt(20, LONGEST_MS)));
	// What is acknowledged from now on was on its way before the kill, and counts.
	await killed(child);
	going = false;
	await Promise.all(writing);
	child = await start();
	await lookThrough();
	if ((round + 1) % 50 === 0 || round + 1 === kills)
		console.log(
			`${round + 1} kills, ${Math.round((Date.now() - begun) / 1000)} s: ${kept} acknowledged and there, ${lost} lost, ${half} half there, ${unsaid} there that nobody was told of`
		);
}
await killed(child);
const client = createClient({ url: `file:${database}` });
const { rows } = await client.execute('PRAGMA integrity_check');
const ids = [...sent].filter(([, { acknowledged }]) => acknowledged).map(([id]) => id);
let gone = 0;
for (const id of ids) {
	const { rows: found } = await client.execute({ sql: 'select 1 from tree where id = ?', args: [id] });
	if (found.length === 0) gone++;
}
client.close();
console.log(
	`At the end: integrity ${rows[0]?.integrity_check}, ${ids.length - gone} of ${ids.length} acknowledged trees there.`
);
rmSync(folder, { recursive: true, force: true });
process.exit(lost + half + gone > 0 || rows[0]?.integrity_check !== 'ok' ? 1 : 0);
