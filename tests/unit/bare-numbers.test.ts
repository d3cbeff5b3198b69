import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { expect, it } from 'vitest';

const CORE = 'src/lib/core';
/** Numbers that count, halve or turn, and hours, days, months and degrees of a circle. */
const STRUCTURE = new Set([
	'0',
	'1',
	'2',
	'3',
	'4',
	'6',
	'7',
	'8',
	'10',
	'12',
	'24',
	'45',
	'60',
	'90',
	'100',
	'180',
	'360',
	'365',
	'400',
	'1000'
]);
/** Rooms in which numbers are what is written down: the values themselves, lists, schemas of questions, and worlds of the tests. */
const ROOMS = ['values', 'vocabulary', 'compute', 'simulate'];

/** Bare numbers that are compared with and stand for a reason, by file. */
const reasons: Record<string, [numbers: string[], why: string]> = {
	'climate/leaf.ts': [['364'], 'a season of a whole year has no end'],
	'climate/normals.ts': [['500'], 'so many results are remembered'],
	'climate/series.ts': [['0.5'], 'half a degree and no less is spoken of'],
	'examine/measuring/girdling.ts': [['0.5'], 'grades as the sign names them: a third, half'],
	'examine/soil/bulk-density.ts': [['2.65'], 'density of quartz: no soil is denser'],
	'examine/soil/penetrometer-csv.ts': [['120'], 'no probe goes 120 cm deep: such a column is in millimetres'],
	'examine/soil/texture.ts': [['25', '50'], 'ribbons of the flow diagram, Thien 1979'],
	'recovery/growth-curve.ts': [['200'], 'rounds of a fit'],
	'recovery/outcomes/kaplan-meier.ts': [['0.5'], 'a median is a half'],
	'recovery/outcomes/outcomes.ts': [
		['0.1', '0.25', '0.4'],
		'classes that a curve is drawn for, as they are named'
	],
	'recovery/root-courses.ts': [['11'], 'points of a quadrature'],
	'recovery/standing-chain.ts': [['200', '40'], 'so many results are remembered; rounds of a search'],
	'replant/ground/sulphur.ts': [['4.5'], 'end of the table it is read from'],
	'replant/lifting/ball-size.ts': [['20', '30'], 'classes of ANSI Z60.1'],
	'replant/lifting/niosh.ts': [
		['63', '175', '175', '135', '75'],
		'NIOSH lifting equation, Waters et al. 1993'
	],
	'replant/pots/fit.ts': [['0.2'], 'step of a search, mm'],
	'roots/io/quick-entry.ts': [
		['0.2', '1500', '20_000', '5000', '20_000', '20_000', '20_000', '20_000'],
		'bounds of what may be typed, as the schema of a root has them'
	],
	'roots/map/outline.ts': [['5', '50'], 'five stems of BS 5837; so many results are remembered'],
	'roots/map/root-edit.ts': [
		['540', '0.5'],
		'bounds of an angle as a root has it; half a millimetre is no move'
	],
	'roots/map/root-map.ts': [['720', '720', '720'], 'bounds of an angle as a root has it'],
	'roots/plan/reduction/explanation.ts': [['0.5'], 'a whole number of the solver, rounded'],
	'roots/plan/reduction/reduction-plan.ts': [['0.5', '0.5', '0.5'], 'whole numbers of the solver, rounded'],
	'text/percent.ts': [
		['0.01', '0.99', '0.5'],
		'a chance is never said to be none or all; likely is more likely than not'
	],
	'text/search.ts': [['5'], 'letters from which a word may be typed a little wrong'],
	'tree/line-of-care.ts': [['0.995', '0.005'], 'less than one in a hundred is said so, not rounded to none']
};

/** Numbers that something is compared with, written in the middle of a calculation. */
function bareNumbers(): { file: string; number: string }[] {
	const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter(
		(file) => file.endsWith('.ts') && !ROOMS.some((room) => file.startsWith(`${room}/`))
	);
	return files.flatMap((file) => {
		const source = ts.createSourceFile(
			file,
			readFileSync(path.join(CORE, file), 'utf8'),
			ts.ScriptTarget.Latest,
			true
		);
		const found: ReturnType<typeof bareNumbers> = [];
		const visit = (node: ts.Node): void => {
			if (ts.isNumericLiteral(node) && ts.isBinaryExpression(node.parent)) {
				const sign = node.parent.operatorToken.kind;
				const compares =
					sign >= ts.SyntaxKind.LessThanToken && sign <= ts.SyntaxKind.ExclamationEqualsEqualsToken;
				// A tolerance is written as a power of ten.
				if (compares && !STRUCTURE.has(node.text) && !node.getText(source).includes('e'))
					found.push({ file, number: node.getText(source) });
			}
			ts.forEachChild(node, visit);
		};
		visit(source);
		return found;
	});
}

it('what a calculation is decided by is a working value, or stands here with its reason', () => {
	const found = new Map<string, string[]>();
	for (const { file, number } of bareNumbers()) found.set(file, [...(found.get(file) ?? []), number]);
	expect(Object.fromEntries([...found].sort())).toEqual(
		Object.fromEntries(Object.entries(reasons).map(([file, [numbers]]) => [file, numbers]))
	);
	for (const [file, [, why]] of Object.entries(reasons)) expect(why.length, file).toBeGreaterThan(10);
});
