// Changes the code a little, place by place, and looks whether a test fails: ./bruntle mutate [core/today server …].
// Hours for the whole house, minutes for a room or for a draw of lines over all of it (--draw 300); what was found stands in
// docs/mutation.md, what went unnoticed, as it comes, in .bruntle/mutate/unnoticed.txt.
import { Stryker } from '@stryker-mutator/core';
import { randomLcg, shuffler } from 'd3';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { atLoad } from './mutants-at-load.js';

const PAPER = 'docs/mutation.md';
const FOLDER = '.bruntle/mutate';
/** Words for people are read by a test of their own, sentence by sentence; here they would count as most of the changes. */
const LEFT_OUT = ['StringLiteral'];

const rooms = [...readdirSync('src/lib/core').map((room) => `core/${room}`), 'server'];
const { values: told, positionals: asked } = parseArgs({
	allowPositionals: true,
	options: { draw: { type: 'string' }, seed: { type: 'string', default: '1' } }
});
const drawn = Number(told.draw ?? 0);
const seed = Number(told.seed);
if (!Number.isInteger(drawn) || drawn < 0 || !Number.isInteger(seed) || (drawn > 0 && asked.length > 0)) {
	console.error(
		'--draw and --seed want whole numbers, and a draw is over the whole house: --draw 300 --seed 2.'
	);
	process.exit(1);
}
const unknown = asked.filter((room) => !existsSync(`src/lib/${room}`));
if (unknown.length > 0) {
	console.error(
		`No such room or file: ${unknown.join(', ')}. The rooms are ${rooms.join(', ')}; a file is named as core/today/today.ts.`
	);
	process.exit(1);
}

/** Lines of code drawn without order from all rooms, each as likely as any other, as "file:line-line". @returns {string[]} */
function drawLines() {
	const lines = ['core', 'server'].flatMap((floor) =>
		readdirSync(`src/lib/${floor}`, { recursive: true, encoding: 'utf8' })
			// Of the tables the migrations were made: what is changed in them now takes no effect.
			.filter((name) => name.endsWith('.ts') && name !== path.join('db', 'schema.ts'))
			.flatMap((name) => {
				const file = `src/lib/${floor}/${name}`;
				return readFileSync(file, 'utf8')
					.split('\n')
					.flatMap((line, at) =>
						/^\s*(\/?\*|\/\/|import\b|$)/.test(line) ? [] : [`${file}:${at + 1}-${at + 1}`]
					);
			})
	);
	const next = randomLcg(seed / 2 ** 16 + 0.1);
	return shuffler(next)(lines).slice(0, drawn);
}

/** Rows of the paper by room. @returns {Map<string, string>} */
function kept() {
	if (!existsSync(PAPER)) return new Map();
	const rows = readFileSync(PAPER, 'utf8').matchAll(/^\| ([\w/., -]+) \|.*\|$/gm);
	return new Map(
		[...rows]
			.map((row) => [row[1] ?? '', row[0]])
			.filter(([room]) => room !== 'room' && !room?.startsWith('-'))
	);
}

mkdirSync(FOLDER, { recursive: true });
writeFileSync(`${FOLDER}/unnoticed.txt`, '');
const DRAW = `drawn lines, seed ${seed}`;
for (const room of drawn > 0 ? [DRAW] : asked.length > 0 ? asked : rooms) {
	const whole = room === DRAW || statSync(`src/lib/${room}`).isDirectory();
	const found = await new Stryker({
		testRunner: 'vitest',
		plugins: ['@stryker-mutator/vitest-runner', `${process.cwd()}/scripts/mutants-told.js`],
		vitest: { configFile: 'vitest.config.ts' },
		mutate: room === DRAW ? drawLines() : [whole ? `src/lib/${room}/**/*.ts` : `src/lib/${room}`],
		mutator: { excludedMutations: LEFT_OUT },
		coverageAnalysis: 'perTest',
		ignoreStatic: true,
		concurrency: 2,
		timeoutMS: 20_000,
		dryRunTimeoutMinutes: 20,
		reporters: ['progress', 'json', 'told'],
		jsonReporter: { fileName: `${FOLDER}/${room.replaceAll(/[/ ]/g, '-')}.json` },
		tempDirName: `${FOLDER}/tmp`,
		ignorePatterns: ['build', 'test-results', 'docs', 'data']
	}).runMutationTest();
	// What takes effect when a module is read cannot be tried without reading all anew: tables are held by the kept prints.
	const tried = found.filter(({ fileName, location }) => !atLoad(fileName, location));
	/** @param {string[]} states */
	const count = (...states) => tried.filter(({ status }) => states.includes(status)).length;
	const [noticed, missed] = [count('Killed', 'Timeout'), count('Survived', 'NoCoverage')];
	const share = noticed + missed > 0 ? `${((100 * noticed) / (noticed + missed)).toFixed(1)} %` : 'none';
	console.log(`\n${room}: ${share} of ${noticed + missed} changes were noticed`);
	if (!whole) continue;
	const rows = kept().set(
		room,
		`| ${room} | ${noticed + missed} | ${share} | ${new Date().toISOString().slice(0, 10)} |`
	);
	writeFileSync(
		PAPER,
		`# Changes that the tests notice\n\nMade by \`./bruntle mutate\`, room by room: each change of a number, a comparison, a condition or a call is made alone, and the unit,\ncheck and server tests are run. Words for people are left out; they are read by \`tests/e2e/sentences.spec.ts\`. So is what takes effect when a module\nis read, as tables do: the kept prints hold those. Wanted: 85 %.\n\n| room | changes | noticed | on |\n|---|---|---|---|\n${[
			...rows
		]
			.sort(([a], [b]) => (a < b ? -1 : 1))
			.map(([, row]) => row)
			.join('\n')}\n`
	);
}
process.exit(0);
