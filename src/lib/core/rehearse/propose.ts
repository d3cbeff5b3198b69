import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import type { RehearsedPlan, RootWay } from '../recovery/rehearsal/plan';
import { rehearse } from './rehearse';
import type { RehearsalScene } from './scene';

/** A change of a plan, and the plan with it. */
interface Change {
	/** What part of the plan it is of: of each part one is taken. */
	part: 'roots' | 'crown' | 'pot' | 'place' | 'shade' | 'warnings' | 'water';
	words: string;
	plan: RehearsedPlan;
}

/** Changes of roots and pot as a plan is called by them. */
const rootWords: Record<RootWay, string> = {
	'as-planned': 'root work as planned',
	'half-now': 'half of the root work now',
	wait: 'root work a year later',
	treat: 'cut back to sound wood'
};
const potWords: Readonly<Record<string, string>> = {
	now: 'left in its pot',
	planned: 'planting as planned',
	larger: 'larger pot, fresh mix',
	fresh: 'its pot, fresh mix',
	draining: 'mix that drains well'
};

const decapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Every single change of a plan that makes sense for a tree. */
export function changesOf(scene: RehearsalScene, plan: RehearsedPlan, values: Values): Change[] {
	const changes: Change[] = [];
	const add = (part: Change['part'], words: string, change: Partial<RehearsedPlan>): void =>
		void changes.push({ part, words, plan: { ...plan, ...change } });
	if (scene.stages.length > 0)
		for (const roots of ['as-planned', 'half-now', 'wait'] as const)
			if (roots !== plan.roots) add('roots', rootWords[roots], { roots });
	// Without a plan of its roots it can still be opened and cut back to sound wood.
	const rot = scene.rotChance ?? values['triage.rot-unknown'];
	const { lastCutOn } = scene;
	const justCut =
		lastCutOn !== null && daysBetween(lastCutOn, scene.recovery.today) < values['stages.leastDaysApart'];
	if (!justCut && scene.stages.length === 0 && plan.roots !== 'treat' && rot >= values['rehearse.treatFrom'])
		add('roots', rootWords.treat, { roots: 'treat' });
	if (scene.stages.length > 0)
		add('crown', plan.crown === 'balance' ? 'keep the leaves' : 'balance the crown', {
			crown: plan.crown === 'balance' ? 'keep-leaves' : 'balance'
		});
	for (const pot of scene.pots)
		if (pot.id !== (plan.potId ?? scene.pots[0]?.id))
			add('pot', potWords[pot.id] ?? decapital(pot.label.replace(/,.*$/, '')), { potId: pot.id });
	for (const place of scene.places)
		if (place.id !== (plan.placeId ?? scene.places[0]?.id) && mayStand(scene, place.kind))
			add('place', decapital(place.label), { placeId: place.id });
	if (!plan.shade) add('shade', 'shade it', { shade: true });
	if (!plan.warnings) add('warnings', 'heed warnings', { warnings: true });
	if (plan.water !== 'by-need') add('water', 'water by need', { water: 'by-need' });
	if (plan.water !== 'dry-first') add('water', 'dry first', { water: 'dry-first' });
	return changes;
}

/** A hardy kind needs its winter, a tender one has to be out of it: neither is proposed for what would spoil it. */
const mayStand = (scene: RehearsalScene, kind: RehearsalScene['places'][number]['kind']): boolean =>
	kind !== 'garden' &&
	scene.recovery.tender === (kind === 'heated' || kind === 'indoors' || kind === 'greenhouse');

/** Futures that plans are looked through with, and so many times something is put on top of what helps already. */
const SCOUT_FUTURES = 81;
const ROUNDS = 3;

/**
 * The strongest other plan: each single change is played through a few futures and the best that helps is taken, then what helps most
 * on top of it, and so on.
 * @param onProgress is told the share that is done, 0 … 1
 * @returns the nearest rival where nothing helps; null where nothing can be changed
 */
export function strongestOther(
	scene: RehearsalScene,
	plan: RehearsedPlan,
	{ seed = 1, onProgress }: { seed?: number; onProgress?: (share: number) => void },
	values: Values
): RehearsedPlan | null {
	let best = plan;
	const taken: Change[] = [];
	let rival: Change | null = null;
	for (let round = 0; round < ROUNDS; round++) {
		const changes = changesOf(scene, best, values).filter(
			({ part }) => !taken.some((one) => one.part === part)
		);
		if (changes.length === 0) break;
		const played = rehearse(
			scene,
			[best, ...changes.map((change) => change.plan)],
			{
				futures: SCOUT_FUTURES,
				seed: seed + 1,
				onProgress: (share) => onProgress?.((round + share) / ROUNDS)
			},
			values
		);
		const gains = changes
			.map((change, i) => {
				const pair = played.pairs.find((one) => one.a === 0 && one.b === i + 1);
				return { change, gain: -(pair?.gap ?? 0), differs: pair?.differ ?? false };
			})
			.sort((a, b) => b.gain - a.gain);
		rival ??= gains[0]?.change ?? null;
		const helps = gains.find((one) => one.differs && one.gain > 0)?.change;
		if (!helps) break;
		taken.push(helps);
		best = helps.plan;
	}
	// Nothing helps: the nearest rival is shown, so that there is something to weigh.
	if (taken.length === 0) return rival && named(rival.plan, [rival]);
	return named(best, taken);
}

const NAME_LONGEST = 60;

/** A plan called by what it changes. */
function named(plan: RehearsedPlan, changes: readonly Change[]): RehearsedPlan {
	const words = changes.map((change) => change.words).join('; ');
	const name = words.charAt(0).toUpperCase() + words.slice(1);
	return { ...plan, name: name.length > NAME_LONGEST ? `${name.slice(0, NAME_LONGEST - 1)}…` : name };
}
