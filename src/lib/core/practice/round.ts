import { z } from 'zod';
import { signIds, type SignId } from '../vocabulary/signs';
import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { count, oneOf, share } from '../vocabulary/fields';
import { situations } from '../vocabulary/words';
import { scenePot } from '../rehearse/scene';

/** Most that a practice tree is drawn by. */
export const SEED_MOST = 2_147_483_647;

const conditionList = conditionIds as [ConditionId, ...ConditionId[]];
const condition = () => oneOf(conditionList);

/** What a practice tree is drawn by: the same wish makes the same tree, in any yard and on any day. */
export const practiceWish = z.strictObject({
	seed: count(0, SEED_MOST),
	conditions: z
		.array(condition())
		.max(2)
		.nullable()
		.default(null)
		.describe('What ails it; none for a healthy tree, null leaves it to the seed'),
	situation: oneOf(situations)
		.nullable()
		.default(null)
		.describe('Where it stands; null leaves it to the seed'),
	kindId: z
		.string()
		.max(60)
		.nullable()
		.default(null)
		.describe('One of the kinds that practice trees are of; null leaves it to the seed')
});
export type PracticeWish = z.infer<typeof practiceWish>;

/** What is done to a tree that has no numbers of its own. */
export const remedyNames = {
	'cut-rot': 'rot cut back to sound wood',
	'free-roots': 'girdling roots taken off',
	'open-collar': 'collar opened down to the flare',
	loosen: 'soil loosened',
	'open-ball': 'bound ball opened',
	'new-mix': 'planted in fresh mix that drains',
	'smaller-pot': 'a smaller pot',
	'larger-pot': 'a larger pot',
	soak: 'soaked from below',
	wash: 'pests washed off or treated',
	flush: 'mix flushed',
	shelter: 'sheltered',
	shade: 'shaded',
	light: 'moved to more light',
	turn: 'watered all round and turned',
	support: 'graft supported',
	drain: 'ground drained or tree set higher',
	refer: 'shown to somebody who is licensed'
} as const;
export type Remedy = keyof typeof remedyNames;
export const remedies = Object.keys(remedyNames) as [Remedy, ...Remedy[]];

/** What helps against each cause, the usual way first; nothing does where the list is empty. */
export const remediesOf: Record<ConditionId, readonly Remedy[]> = {
	'root-rot': ['cut-rot'],
	'sour-root-zone': ['new-mix', 'drain'],
	'girdling-roots': ['free-roots'],
	'buried-collar': ['open-collar'],
	compaction: ['loosen'],
	'pot-bound': ['open-ball'],
	'collapsed-mix': ['new-mix'],
	'dry-core': ['soak'],
	drought: ['soak'],
	'over-potting': ['smaller-pot'],
	'weather-injury': ['shelter'],
	pest: ['wash'],
	'salt-ph-nutrient': ['flush', 'new-mix'],
	'stem-rot': ['cut-rot'],
	'recent-root-loss': ['shade'],
	'low-light': ['light'],
	'not-used-to-place': [],
	'pot-too-small': ['larger-pot'],
	'uneven-water': ['turn'],
	'repotted-too-early': [],
	'graft-trouble': ['support'],
	'chemical-injury': ['flush'],
	'vascular-wilt': ['refer'],
	'root-killing-fungus': ['refer'],
	'rising-water': ['drain'],
	'soil-gas': ['refer'],
	dead: [],
	'something-else': []
};

/** Causes that only want to be left in peace: they go by themselves, unless roots or pot are touched. */
export const wantPeace: readonly ConditionId[] = [
	'not-used-to-place',
	'repotted-too-early',
	'recent-root-loss'
];

/** What can be read off a practice tree beside the signs of a look. */
export const readingNames = {
	leaves: 'leaves, buds and shoots',
	water: 'how dry it is, by hand',
	weight: 'its weight',
	roots: 'its roots, laid bare'
} as const;
export type Reading = keyof typeof readingNames;
export const readingKinds = Object.keys(readingNames) as [Reading, ...Reading[]];

/** How a practice tree is watered while days go by. */
export const careNames = {
	'by-need': 'when it feels dry enough',
	'every-days': 'every so many days',
	'by-hand': 'only when I water it myself'
} as const;
export type Care = keyof typeof careNames;
export const cares = Object.keys(careNames) as [Care, ...Care[]];
export const careRule = z.strictObject({
	water: oneOf(cares).default('by-need'),
	everyDays: count(1, 60).default(3),
	covers: z.boolean().default(true).describe('It is carried in or covered on a night too cold for it')
});
export type CareRule = z.infer<typeof careRule>;

export const decisions = ['now', 'later', 'leave'] as const;
export type PracticeDecision = (typeof decisions)[number];
export const decisionNames: Record<PracticeDecision, string> = {
	now: 'treat it now',
	later: 'treat it in its window',
	leave: 'leave it in peace'
};

/** Days are counted from 0, the day on which it was taken in. */
const day = { day: count(0, 728) };
const conditionChance = z.strictObject({ conditionId: condition(), chance: share() });

/** One thing that a trainee did, in the order in which it was done. */
export const practiceAct = z.discriminatedUnion('what', [
	z.strictObject({
		...day,
		what: z.literal('check'),
		signId: oneOf(signIds as [SignId, ...SignId[]])
	}),
	z.strictObject({ ...day, what: z.literal('read'), reading: oneOf(readingKinds) }),
	z.strictObject({
		...day,
		what: z.literal('say'),
		chances: z
			.array(conditionChance)
			.max(conditionIds.length)
			.describe('Causes that are not named count as 0')
	}),
	z.strictObject({ ...day, what: z.literal('decide'), decision: oneOf(decisions) }),
	z.strictObject({
		...day,
		what: z.literal('cut'),
		share: share().describe('Living root that it took'),
		rot: share().describe('Part of the rotten root that it cut out'),
		girdles: share().describe('Part of the girdling that it freed the trunk of'),
		bound: share().default(0).describe('Part of the bound ball that it opened')
	}),
	z.strictObject({
		...day,
		what: z.literal('plant'),
		pot: scenePot,
		restUntilDay: count(0, 1000)
			.describe('Day of the round of its first water, count')
			.nullable()
			.default(null)
			.describe('Planted dry: day of the round on which it is watered first; null where it is watered in')
	}),
	z.strictObject({
		...day,
		what: z.literal('water'),
		share: share().describe('Of the water that was missing')
	}),
	z.strictObject({
		...day,
		what: z.literal('treat'),
		remedy: oneOf(remedies),
		untilDay: count(0, 1000)
			.describe('Day of the round until which it stays, count')
			.nullable()
			.default(null)
			.describe('It stays until then; null for once or for good'),
		loss: share().default(0).describe('Living root that went with it')
	}),
	z.strictObject({ ...day, what: z.literal('crown'), share: share().describe('Of its leaf area') }),
	z.strictObject({ ...day, what: z.literal('care'), rule: careRule })
]);
export type PracticeAct = z.infer<typeof practiceAct>;

export const practiceActs = z
	.array(practiceAct)
	.max(5000)
	.default([])
	.refine((acts) => acts.every((act, i) => i === 0 || act.day >= (acts[i - 1]?.day ?? 0)), {
		error: 'must be in the order in which they were done'
	});
