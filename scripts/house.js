// The order of the house: written here once, linted, checked for circles and drawn.
import { readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';

/**
 * Rooms of the core from the ground up; a room imports only from itself and from below. `tree` folds the whole record of a tree, so
 * that no calculation under it can ask for more than it needs.
 */
export const coreFloors = [
	{ name: 'maths', holds: 'calendar, directions, intervals, seeded draws' },
	{ name: 'text', holds: 'the one formatter, typed numbers and dates, cautions' },
	{ name: 'vocabulary', holds: 'kinds, places, signs, conditions, tasks, building blocks of schemas' },
	{ name: 'values', holds: 'working values with their marks' },
	{ name: 'climate', holds: 'seasons, windows, frost, usual and measured weather' },
	{ name: 'take-in', holds: 'a tree as it is taken in, its pictures' },
	{ name: 'examine', holds: 'diagnosis, measuring, soil, triage, looks' },
	{ name: 'roots', holds: 'map, plan, setting, reading and writing' },
	{ name: 'replant', holds: 'lifting, pots, mixes, ground, kit' },
	{ name: 'aftercare', holds: 'water, weather watch, tasks, field book, crown' },
	{ name: 'recovery', holds: 'forecast, decisions, verdict, outcomes' },
	{ name: 'tree', holds: 'how it stands: every fact once, from its whole record' },
	{ name: 'today', holds: 'what comes first among all trees' },
	{ name: 'simulate', holds: 'trees and weather with a known truth' },
	{ name: 'rehearse', holds: 'plans played forward: the year before it is lived' },
	{ name: 'practice', holds: 'invented trees with a hidden truth, to learn on' },
	{ name: 'compute', holds: 'every calculation by name, with schemas' }
];
const floorNames = coreFloors.map(({ name }) => name);

/** What the parts of the house may import besides themselves; of the core a list of rooms, or all. */
export const parts = {
	core: { from: [], holds: 'computes, and nothing else' },
	server: { from: ['core'], holds: 'records, journal, edges, kept results' },
	workers: { from: ['core'], holds: 'threads round the core' },
	ui: { from: ['core/text'], holds: 'shared parts, no domain knowledge' },
	views: { from: ['ui', 'core', 'workers'], holds: 'state and components of a stage' },
	demo: { from: ['server', 'core'], holds: 'the invented yard' },
	routes: { from: ['views', 'ui', 'server', 'core', 'demo'], holds: 'load, act, hand over' }
};

const aliases = /** @type {[string, string][]} */ ([
	['$core/', 'src/lib/core/'],
	['$ui/', 'src/lib/ui/'],
	['$views/', 'src/lib/views/'],
	['$demo/', 'src/demo/'],
	['$lib/', 'src/lib/']
]);

/**
 * Where an import leads, from the root of the project; null out of `src`.
 * @param {string} file path of the importing file from the root, with /
 * @param {string} specifier as written
 */
export function leadsTo(file, specifier) {
	const alias = aliases.find(([short]) => specifier.startsWith(short));
	const to = alias
		? alias[1] + specifier.slice(alias[0].length)
		: specifier.startsWith('.')
			? path.posix.join(path.posix.dirname(file), specifier)
			: null;
	return to?.startsWith('src/') ? to : null;
}

/** Part of the house, and room of the core, of a path from the root. @param {string} file */
export function roomOf(file) {
	const found = /^src\/(?:lib\/)?(core|server|workers|ui|views|demo|routes)\/([^/]+)/.exec(file);
	return found ? { part: found[1] ?? '', room: found[2] ?? '' } : null;
}

/**
 * Why an import is against the order of the house; null where it is not.
 * @param {string} file path of the importing file from the root
 * @param {string} specifier as written
 */
export function against(file, specifier) {
	const to = leadsTo(file, specifier);
	const own = roomOf(file);
	const other = to === null ? null : roomOf(to);
	if (!own || !other) return null;
	if (own.part !== other.part) {
		const may = parts[/** @type {keyof typeof parts} */ (own.part)].from;
		return may.some((one) => one === other.part || one === `${other.part}/${other.room}`)
			? null
			: `${own.part} never imports ${other.part}/${other.room}: it may use ${may.join(', ') || 'nothing but itself'}.`;
	}
	if (own.part !== 'core' || own.room === other.room) return null;
	const [mine, its] = [floorNames.indexOf(own.room), floorNames.indexOf(other.room)];
	if (mine < 0 || its < 0)
		return `core/${mine < 0 ? own.room : other.room} has no floor: add it to scripts/house.js.`;
	return its > mine ? `core/${own.room} stands under core/${other.room} and never imports it.` : null;
}

/** ESLint rule: no arrow against the order of the house, by alias or relative path, for values or types. */
export const floorsRule = {
	meta: { type: /** @type {const} */ ('problem'), schema: [] },
	/** @param {import('eslint').Rule.RuleContext} context */
	create(context) {
		const file = path.relative(context.cwd, context.filename).split(path.sep).join('/');
		/** @param {any} node */
		const look = (node) => {
			const specifier = node.source?.value;
			const why = typeof specifier === 'string' ? against(file, specifier) : null;
			if (why) context.report({ node, message: why });
		};
		return {
			ImportDeclaration: look,
			ExportNamedDeclaration: look,
			ExportAllDeclaration: look,
			ImportExpression: look
		};
	}
};

/** All source files under a folder, from the root. @param {string} folder @returns {string[]} */
const filesUnder = (folder) =>
	readdirSync(folder).flatMap((name) => {
		const file = path.posix.join(folder, name);
		return statSync(file).isDirectory() ? filesUnder(file) : /\.(ts|js|svelte)$/.test(name) ? [file] : [];
	});

/**
 * Every import among the files of `src`, types included.
 * @param {string} [root] folder of the project
 * @returns {Map<string, string[]>} by importing file
 */
export function importsOf(root = '.') {
	const files = filesUnder(path.posix.join(root, 'src')).map((file) => path.posix.relative(root, file));
	const known = new Set(files);
	return new Map(
		files.map((file) => {
			const text = readFileSync(path.posix.join(root, file), 'utf8');
			const found = [...text.matchAll(/(?:from\s+|import\s*\(?\s*)'([^']+)'/g)].flatMap((match) => {
				const to = leadsTo(file, match[1] ?? '');
				const whole = to === null ? undefined : [to, `${to}.ts`, `${to}.js`].find((one) => known.has(one));
				return whole ? [whole] : [];
			});
			return [file, [...new Set(found)]];
		})
	);
}

/**
 * Circles among files, each as the files in it.
 * @param {Map<string, string[]>} imports
 * @returns {string[][]}
 */
export function circles(imports) {
	/** @type {Map<string, number>} */ const order = new Map();
	/** @type {Map<string, number>} */ const low = new Map();
	/** @type {string[]} */ const stack = [];
	/** @type {string[][]} */ const found = [];
	/** @param {string} file @returns {number} */
	const visit = (file) => {
		let least = order.size;
		order.set(file, least);
		stack.push(file);
		for (const next of imports.get(file) ?? []) {
			if (!order.has(next)) least = Math.min(least, visit(next));
			else if (stack.includes(next)) least = Math.min(least, order.get(next) ?? least);
		}
		low.set(file, least);
		if (least === order.get(file)) {
			const circle = stack.splice(stack.indexOf(file));
			if (circle.length > 1) found.push(circle);
		}
		return least;
	};
	for (const file of imports.keys()) if (!order.has(file)) visit(file);
	return found;
}
