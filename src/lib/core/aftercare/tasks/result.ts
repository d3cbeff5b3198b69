import type { ExaminationInput } from '../../examine/diagnosis/examination';
import type { RawReading } from '../../examine/measuring/measurement';
import type { ObservationInput } from '../../examine/looks/observation';
import type { WateringInput } from '../water/watering';
import { ruleOf, workedOn } from './source';
import type { Task } from '../../vocabulary/task';

/** What a piece of work asks for, beyond being done: it is filed as that record, and that record closes the work. */
export const resultKinds = [
	'watering',
	'weight',
	'felt',
	'buds',
	'growth',
	'smell',
	'firmness',
	'backup',
	'soil',
	'crown',
	'place',
	'planting',
	'referral'
] as const;
export type ResultKind = (typeof resultKinds)[number];

/** By the rule a task was made from. */
const byRule: Readonly<Record<string, ResultKind>> = {
	'first-water': 'watering',
	'water-by-weight': 'weight',
	'water-by-feel': 'felt',
	'first-buds': 'buds',
	'clear-growth': 'growth',
	'rot-recheck': 'smell',
	backup: 'backup',
	'ground.measure-again': 'soil',
	'ground.ties': 'firmness',
	cold: 'place',
	'rehearsed-place': 'place',
	'rehearsed-replant': 'planting',
	referral: 'referral',
	arborist: 'referral'
};

/** What a task asks for when it is done; null where the tick is all. */
export function resultAsked(task: Pick<Task, 'kind' | 'source'>): ResultKind | null {
	const byItsRule = byRule[ruleOf(task.source)];
	if (byItsRule) return byItsRule;
	// How much of the crown is gone counts; where it is shaded instead, the tick is all.
	if (task.kind === 'crown') return 'crown';
	if (task.kind === 'referral') return 'referral';
	return task.kind === 'water' || task.kind === 'dry-rest' ? 'watering' : null;
}

/** What a watering answers. */
export const answeredByWatering = (watering: WateringInput): ResultKind[] => [
	'watering',
	...(watering.beforeKg !== null || watering.afterKg !== null ? (['weight', 'felt'] as const) : [])
];

/** What a measurement answers. */
export const answeredByMeasurement = (raw: RawReading): ResultKind[] =>
	raw.tool === 'weighing'
		? ['weight', 'felt']
		: raw.tool === 'moisture'
			? ['felt']
			: raw.tool === 'outflow'
				? ['watering']
				: raw.tool === 'penetrometer' || raw.tool === 'soil-cores'
					? ['soil']
					: [];

/** What a look answers. Buds that do not move yet answer nothing: they are looked for again. That it stands firm says nothing of its ties. */
export const answeredByLook = (look: ObservationInput): ResultKind[] => [
	...(look.buds === 'swelling' || look.buds === 'open' ? (['buds'] as const) : []),
	...(look.weightKg !== null ? (['weight', 'felt'] as const) : []),
	...(look.leafCover !== null || look.shootExtensionMm !== null ? (['growth'] as const) : []),
	...(look.smell !== null ? (['smell'] as const) : [])
];

/** What an examination answers. */
export const answeredByExamination = ({ findings }: Pick<ExaminationInput, 'findings'>): ResultKind[] =>
	findings.some((finding) => finding.signId === 'sour-smell') ? ['smell'] : [];

const EARLY: ReadonlySet<ResultKind> = new Set(['watering', 'buds', 'backup', 'place', 'planting']);

/**
 * The open tasks that a record of a day answers: those that ask for it and whose time had begun, or, of a task that would have waited for its
 * day, where the thing was done all the same.
 */
export function tasksAnswered<T extends Pick<Task, 'kind' | 'source' | 'state' | 'fromOn'>>(
	tasks: readonly T[],
	answers: readonly ResultKind[],
	on: string
): T[] {
	return tasks.filter((task) => {
		if (task.state !== 'open') return false;
		const asked = resultAsked(task);
		if (asked === null || asked === 'referral' || !answers.includes(asked)) return false;
		// Water given, buds seen, a pot or a place found before their day make the later question idle; the others wait for their time.
		const early = EARLY.has(asked);
		const worked = workedOn(task.source) ?? task.fromOn;
		return task.fromOn <= on || (early && worked <= on);
	});
}

/**
 * Whether an open task of an earlier work falls away where a later one asks the same by the same rule, on its own turn or again. What others
 * have to see stays until they said it.
 */
export function fallsAway(
	earlier: Pick<Task, 'title' | 'kind' | 'source'>,
	later: Pick<Task, 'title' | 'kind' | 'source'>
): boolean {
	const [from, to] = [workedOn(earlier.source), workedOn(later.source)];
	if (earlier.kind === 'referral' || from === null || to === null || from >= to) return false;
	const rule = ruleOf(earlier.source);
	// Another lift left another hole.
	if (rule === 'hole') return false;
	return (
		rule === ruleOf(later.source) ||
		(rule === 'again' && earlier.kind === later.kind && earlier.title === later.title)
	);
}
