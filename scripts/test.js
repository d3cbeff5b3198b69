// Runs everything that must hold, and sums it in one plain line at the end.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const CHROMIUM = '/usr/bin/chromium';
const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-test-'));
/** With more room for what lives shortly, a tenth of the time goes less into clearing up. */
const ROOM = { NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --max-semi-space-size=64`.trim() };
let passed = 0;
let failed = 0;

/** @param {string[]} command @param {Record<string, string>} [env] @returns {Promise<number>} */
const run = (command, env = {}) =>
	new Promise((resolve) => {
		const [program = '', ...args] = command;
		const child = spawn(program, args, { stdio: 'inherit', env: { ...process.env, ...ROOM, ...env } });
		child.on('error', () => resolve(1));
		child.on('close', (code) => resolve(code ?? 1));
	});

/** @param {string} name @param {Promise<number>} work */
async function step(name, work) {
	const began = Date.now();
	const code = await work;
	console.log(
		`\n== ${name}: ${code === 0 ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - began) / 1000)} s`
	);
	if (code === 0) passed++;
	else failed++;
	return code === 0;
}

/**
 * Adds what a runner reports; a runner that fails without naming a failure counts as one.
 * @param {string} name @param {string} file @param {(report: any) => { passed: number, failed: number }} read @param {number} code
 */
function count(name, file, read, code) {
	let found = { passed: 0, failed: 0 };
	try {
		found = read(JSON.parse(readFileSync(file, 'utf8')));
	} catch {
		console.error(`\n== ${name} left no report`);
	}
	if (code !== 0 && found.failed === 0) found.failed = 1;
	if (code === 0 && found.passed === 0) found.failed += 1;
	console.log(`\n== ${name}: ${found.passed} passed, ${found.failed} failed`);
	passed += found.passed;
	failed += found.failed;
}

function finish() {
	console.log(`\n${passed} passed, ${failed} failed`);
	process.exit(failed === 0 ? 0 : 1);
}

function needChromium() {
	if (existsSync(CHROMIUM)) return true;
	console.log('Installing Chromium from Debian for the end-to-end tests.');
	const options = {
		stdio: /** @type {const} */ (['ignore', 'ignore', 'inherit']),
		env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
	};
	const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
	for (const command of [
		[...sudo, 'apt-get', 'update', '-qq'],
		[...sudo, 'apt-get', 'install', '-y', '-qq', 'chromium']
	]) {
		const [program = '', ...args] = command;
		spawnSync(program, args, options);
	}
	if (existsSync(CHROMIUM)) return true;
	console.error(
		'The end-to-end tests need Debian’s Chromium at /usr/bin/chromium, and it could not be installed. Run: apt-get install chromium'
	);
	return false;
}

const npx = (/** @type {string[]} */ ...args) => ['npx', '--no-install', ...args];

await run(npx('svelte-kit', 'sync'));
// Each of these keeps one core busy for long, the longest first: two at a time, the next as soon as one is over.
let built = false;
const waiting = [
	async () => (built = await step('build', run(['./bruntle', 'build']))),
	() =>
		step(
			'types',
			run(npx('svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human'))
		),
	() => step('lint', run(npx('eslint', '.', '--max-warnings', '0'))),
	() => step('format', run(npx('prettier', '--check', '--log-level', 'warn', '.')))
];
const inTurn = async () => {
	for (let next = waiting.shift(); next; next = waiting.shift()) await next();
};
await Promise.all([inTurn(), inTurn()]);

const unitReport = path.join(folder, 'unit.json');
const unitCode = await run(
	npx('vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unitReport}`)
);
count(
	'unit and check tests',
	unitReport,
	(report) => ({
		passed: report.numPassedTests,
		failed: report.numFailedTests + (report.numFailedTestSuites > 0 && report.numFailedTests === 0 ? 1 : 0)
	}),
	unitCode
);

if (!built) finish();
if (!(await step('browser', Promise.resolve(needChromium() ? 0 : 1)))) finish();

const e2eReport = path.join(folder, 'e2e.json');
const e2eCode = await run(npx('playwright', 'test'), { BRUNTLE_REPORT: e2eReport });
count(
	'end to end',
	e2eReport,
	(report) => ({ passed: report.stats.expected + report.stats.flaky, failed: report.stats.unexpected }),
	e2eCode
);
finish();
