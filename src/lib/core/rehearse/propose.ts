import type { Values } from '../values/values';
import { rootWayNames, type RehearsedPlan } from '../recovery/rehearsal/plan';
import { rehearse } from './rehearse';
import type { RehearsalScene } from './scene';

/** A change of a plan, and the plan with it. */
interface Change {
	/** What part of the plan it is of: of each part one is taken. */
	part: 'roots' | 'crown' | 'pot' | 'place' | 'shade' | 'warnings' | 'water';
	words: string;
	plan: RehearsedPlan;
}

const decapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Every single change of a plan that makes sense for a tree. */
export function changesOf(scene: RehearsalScene, plan: RehearsedPlan, values: Values): Change[] {
	const changes: Change[] = [];
	const add = (part: Change['part'], words: string, change: Partial<RehearsedPlan>): void =>
		void changes.push({ part, words, plan: { ...plan, ...change } });
	if (scene.stages.length > 0)
		for (const roots of ['as-planned', 'half-now', 'wait'] as const)
			if (roots !== plan.roots) add('roots', `roots: ${rootWayNames[roots]}`, { roots });
	// Without a plan of its roots it can still be opened and cut back to sound wood.
	const rot = scene.rotChance ?? values['triage.rot-unknown'];
	if (scene.stages.length === 0 && plan.roots !== 'treat' && rot > 0)
		add('roots', `roots: ${rootWayNames.treat}`, { roots: 'treat' });
	if (scene.stages.length > 0)
		add('crown', plan.crown === 'balance' ? 'keep the leaves' : 'balance the crown', {
			crown: plan.crown === 'balance' ? 'keep-leaves' : 'balance'
		});
	for (const pot of scene.pots)
		if (pot.id !== (plan.potId ?? scene.pots[0]?.id)) add('pot', pot.label, { potId: pot.id });
	for (const place of scene.places)
		if (place.id !== (plan.placeId ?? scene.places[0]?.id) && mayStand(scene, place.kind))
			add('place', decapital(place.label), { placeId: place.id });
	if (!plan.shade) add('shade', 'shade it', { shade: true });
	if (!plan.warnings) add('warnings', 'heed warnings', { warnings: true });
	if (plan.water !== 'by-need') add('water', 'water by need', { water: 'by-need' });
	if (plan.water !== 'dry-first') add('water', 'dry first', { water: 'dry-first' });
	return changes;
}

/** A hardy kind needs its winter: it is never proposed for a heated place. */
const mayStand = (scene: RehearsalScene, kind: RehearsalScene['places'][number]['kind']): boolean =>
	kind !== 'garden' && (scene.recovery.tender || (kind !== 'heated' && kind !== 'indoors'));

/** Plans that the strongest one is looked for among, each in so many futures; as many as all of them are worth. */
const SCOUT_FUTURES = 81;

/**
 * The strongest other plan: each single change is played through a few futures, the best of each part that helps is taken, and they
 * are put together as long as that helps.
 * @param onProgress is told the share that is done, 0 … 1
 * @returns null where nothing is better than the plan as it stands
 */
export function strongestOther(
	scene: RehearsalScene,
	plan: RehearsedPlan,
	{ seed = 1, onProgress }: { seed?: number; onProgress?: (share: number) => void },
	values: Values
): RehearsedPlan | null {
	const changes = changesOf(scene, plan, values);
	if (changes.length === 0) return null;
	const scout = (plans: readonly RehearsedPlan[], from: number, to: number) =>
		rehearse(
			scene,
			plans,
			{
				futures: SCOUT_FUTURES,
				seed: seed + 1,
				...(onProgress ? { onProgress: (share) => onProgress(from + share * (to - from)) } : {})
			},
			values
		);
	const first = scout([plan, ...changes.map((change) => change.plan)], 0, 0.8);
	const gains = changes.map((change, i) => {
		const pair = first.pairs.find((one) => one.a === 0 && one.b === i + 1);
		return { change, gain: -(pair?.gap ?? 0), differs: pair?.differ ?? false };
	});
	const helps = gains.filter((one) => one.differs && one.gain > 0).sort((a, b) => b.gain - a.gain);
	// What helps is put together part by part, the strongest first.
	const taken: Change[] = [];
	for (const { change } of helps) if (!taken.some((one) => one.part === change.part)) taken.push(change);
	const [strongest] = taken;
	if (!strongest) {
		// Nothing helps: the nearest rival is shown, so that there is something to weigh.
		const rival = gains.sort((a, b) => b.gain - a.gain)[0]?.change;
		return rival ? named(rival.plan, [rival]) : null;
	}
	const together = taken.map((_, i) => {
		const parts = taken.slice(0, i + 1);
		return named(
			parts.reduce((made, { part, plan: changed }) => ({ ...made, ...partOf(part, changed) }), plan),
			parts
		);
	});
	if (together.length === 1) return together[0] ?? null;
	const second = scout(together, 0.8, 1);
	const best = second.order[0] ?? 0;
	// Of plans that come to the same the one with fewer changes is taken.
	const simplest = together.findIndex((_, i) => {
		const pair = second.pairs.find((one) => one.a === Math.min(i, best) && one.b === Math.max(i, best));
		return i === best || pair?.differ === false;
	});
	return together[simplest] ?? null;
}

/** The fields of a plan that a part of it is. */
function partOf(part: Change['part'], plan: RehearsedPlan): Partial<RehearsedPlan> {
	switch (part) {
		case 'roots':
			return { roots: plan.roots };
		case 'crown':
			return { crown: plan.crown };
		case 'pot':
			return { potId: plan.potId };
		case 'place':
			return { placeId: plan.placeId };
		case 'shade':
			return { shade: plan.shade };
		case 'warnings':
			return { warnings: plan.warnings };
		case 'water':
			return { water: plan.water, everyDays: plan.everyDays };
	}
}

const NAME_LONGEST = 60;

/** A plan called by what it changes. */
function named(plan: RehearsedPlan, changes: readonly Change[]): RehearsedPlan {
	const words = changes.map((change) => change.words).join('; ');
	const name = words.charAt(0).toUpperCase() + words.slice(1);
	return { ...plan, name: name.length > NAME_LONGEST ? `${name.slice(0, NAME_LONGEST - 1)}…` : name };
}
