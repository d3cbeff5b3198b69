// Changes the code a little, place by place, and looks whether a test fails: ./bruntle mutate [core/today server …].
// Hours for the whole house, minutes for a room; what was found stands in docs/mutation.md, what went unnoticed in .bruntle/mutate/.
import { Stryker } from '@stryker-mutator/core';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';

const PAPER = 'docs/mutation.md';
const FOLDER = '.bruntle/mutate';
/** Words for people are read by a test of their own, sentence by sentence; here they would count as most of the changes. */
const LEFT_OUT = ['StringLiteral'];

const rooms = [...readdirSync('src/lib/core').map((room) => `core/${room}`), 'server'];
const asked = process.argv.slice(2);
const unknown = asked.filter((room) => !existsSync(`src/lib/${room}`));
if (unknown.length > 0) {
	console.error(
		`No such room or file: ${unknown.join(', ')}. The rooms are ${rooms.join(', ')}; a file is named as core/today/today.ts.`
	);
	process.exit(1);
}

/** Rows of the paper by room. @returns {Map<string, string>} */
function kept() {
	if (!existsSync(PAPER)) return new Map();
	const rows = readFileSync(PAPER, 'utf8').matchAll(/^\| ([\w/.-]+) \|.*\|$/gm);
	return new Map([...rows].map((row) => [row[1] ?? '', row[0]]).filter(([room]) => room !== 'room'));
}

mkdirSync(FOLDER, { recursive: true });
for (const room of asked.length > 0 ? asked : rooms) {
	const whole = statSync(`src/lib/${room}`).isDirectory();
	const found = await new Stryker({
		testRunner: 'vitest',
		plugins: ['@stryker-mutator/vitest-runner'],
		vitest: { configFile: 'vitest.config.ts' },
		mutate: [whole ? `src/lib/${room}/**/*.ts` : `src/lib/${room}`],
		mutator: { excludedMutations: LEFT_OUT },
		coverageAnalysis: 'perTest',
		ignoreStatic: true,
		concurrency: 2,
		timeoutMS: 20_000,
		reporters: ['progress', 'json'],
		jsonReporter: { fileName: `${FOLDER}/${room.replaceAll('/', '-')}.json` },
		tempDirName: `${FOLDER}/tmp`,
		ignorePatterns: ['build', 'test-results', 'docs', 'data']
	}).runMutationTest();
	/** @param {string[]} states */
	const count = (...states) => found.filter(({ status }) => states.includes(status)).length;
	const [noticed, missed] = [count('Killed', 'Timeout'), count('Survived', 'NoCoverage')];
	for (const { status, fileName, location, mutatorName, replacement } of found)
		if (status === 'Survived' || status === 'NoCoverage')
			console.log(
				`${fileName.slice(fileName.indexOf('src/lib/'))}:${location.start.line + 1} ${mutatorName}: ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 100)}`
			);
	const share = noticed + missed > 0 ? `${((100 * noticed) / (noticed + missed)).toFixed(1)} %` : 'none';
	console.log(`\n${room}: ${share} of ${noticed + missed} changes were noticed`);
	if (!whole) continue;
	const rows = kept().set(
		room,
		`| ${room} | ${noticed + missed} | ${share} | ${new Date().toISOString().slice(0, 10)} |`
	);
	writeFileSync(
		PAPER,
		`# Changes that the tests notice\n\nMade by \`./bruntle mutate\`, room by room: each change of a number, a comparison, a condition or a call is made alone, and the unit,\ncheck and server tests are run. Words for people are left out; they are read by \`tests/e2e/sentences.spec.ts\`. Wanted: 85 %.\n\n| room | changes | noticed | on |\n|---|---|---|---|\n${[
			...rows
		]
			.sort(([a], [b]) => (a < b ? -1 : 1))
			.map(([, row]) => row)
			.join('\n')}\n`
	);
}
process.exit(0);
