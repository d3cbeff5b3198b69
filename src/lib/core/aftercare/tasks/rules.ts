import { z } from 'zod';
import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import { addDays, daysBetween } from '../../maths/calendar';
import type { SeasonFit } from '../../climate/windows';
import { dryRestDays } from '../crown/crown';
import type { Group } from '../../vocabulary/kind';
import type { CrownSchool, WaterSchool } from '../../vocabulary/words';
import type { Mark } from '../../values/define';
import type { Values } from '../../values/values';
import type { ReleaseCondition } from '../../vocabulary/task';
import { taskInput, type TaskInput, type TaskKind } from '../../vocabulary/task';

/** What the aftercare of one piece of work depends on. */
export interface WorkDone {
	workOn: string;
	group: Group;
	tender: boolean;
	coldestC: number;
	inGround: boolean;
	/** Living share removed at this work, 0 … 1. */
	livingLoss: number;
	/** It came out of the ground by this work. */
	lifted: boolean;
	rotWasCut: boolean;
	structuralCut: boolean;
	collarWork: boolean;
	seasonFit: SeasonFit;
	crownSchool: CrownSchool;
	waterSchool: WaterSchool;
	/** Its pot is too heavy for a scale. */
	tooHeavy: boolean;
	/** Share of the crown the remaining roots cannot feed, 0 … 1. */
	crownExcess: number;
	/** First day of a planned later root stage, if there is one. */
	nextStageOn: string | null;
	plantCount: number;
	/** Suckers were seen on it. */
	suckers: boolean;
	/** Share of its crown that was cut since the work, 0 … 1. */
	crownTaken: number;
	/** It bore leaves on the day of the work. */
	inLeaf: boolean;
	/** For one without leaves: the day its place usually brings them. */
	leafOutOn: string | null;
	/** First day on which it grows, once slow kinds may be fed; null where that is not known. */
	feedSeasonOn: string | null;
	/** First day, from the earliest of first buds on, at which buds still begin to move there; null where that is not known. */
	budsOn: string | null;
	/** Coldest night it stands with its roots cut, °C. */
	coldLimitC: number;
	/** First night of its place that may be colder, within a year; null where none is. */
	coldFromOn: string | null;
}

/** A piece of aftercare as its rule proposes it. */
export const proposedTaskOutput = taskInput.safeExtend({
	rule: z.string().describe('Name of the rule, stable')
});
export type ProposedTask = z.infer<typeof proposedTaskOutput>;

interface Draft {
	kind: TaskKind;
	title: string;
	reason: string;
	mark: Mark;
	fromDay: number;
	toDay: number;
	minutes: number;
	stage?: TaskInput['stage'];
	/** It comes up again after so many days. */
	everyDays?: number;
	/** What must be seen first, and by which day it is brought up all the same. */
	release?: { condition: ReleaseCondition; value?: number; byDay: number; after?: string };
}

/** What the tree shows before it is fed. */
const feedAfter: Record<Group, ReleaseCondition> = {
	deciduous: 'flush-hardened',
	'broadleaf-evergreen': 'buds-move',
	conifer: 'flush-hardened',
	tropical: 'leaves-out',
	succulent: 'buds-move',
	ericaceous: 'flush-hardened',
	palm: 'leaves-out'
};

/** Days after the work on which first buds are looked for, were it to grow all the time. */
export const firstBudsDays = (
	{ tender, group }: Pick<WorkDone, 'tender' | 'group'>,
	values: Values
): { from: number; to: number } =>
	group === 'broadleaf-evergreen' && !tender
		? { from: values['aftercare.evergreenBudsFrom'], to: values['aftercare.evergreenBudsTo'] }
		: { from: values['firstBuds.weeksFrom'] * 7, to: values['firstBuds.weeksTo'] * 7 };

/** Days by which looks for growth wait, where its first buds would fall into a time in which nothing moves. */
const restDays = (work: WorkDone, values: Values): number =>
	work.budsOn === null
		? 0
		: Math.max(0, daysBetween(work.workOn, work.budsOn) - firstBudsDays(work, values).from);

type Rule = (work: WorkDone, values: Values) => Draft | null;

/** What a dry rest follows on; nothing where no living root went. */
function restWhy({
	rotWasCut,
	livingLoss,
	lifted
}: Pick<WorkDone, 'rotWasCut' | 'livingLoss' | 'lifted'>): string {
	const gone =
		livingLoss > 0
			? [`${percent(livingLoss)} of the living root ${lifted ? 'is gone with the lift' : 'was taken'}`]
			: [];
	const why = [...(rotWasCut ? ['rot was cut'] : []), ...gone];
	return why.length > 0 ? `; ${why.join(', and ')}` : '';
}

/** Whether shelter after the work is brought up at all. */
const sheltered = ({ inGround, livingLoss }: WorkDone, values: Values): boolean =>
	!inGround && livingLoss >= values['aftercare.lossCounts'];

/** Fleshy plants in a dry rest get air; nothing is put over them, so nothing comes off. */
const dryAir = ({ group, waterSchool }: WorkDone): boolean =>
	group === 'succulent' && waterSchool === 'dry-rest';

/** Days from the work to its leaves; none where it bears them, or nobody knows when it will. */
const leafedFrom = ({
	inLeaf,
	leafOutOn,
	workOn
}: Pick<WorkDone, 'inLeaf' | 'leafOutOn' | 'workOn'>): number =>
	inLeaf || leafOutOn === null ? 0 : Math.max(0, daysBetween(workOn, leafOutOn));

/** Days of shelter, from the work, or from the leaves where it has none yet: demand begins with them. */
function shelterDays(
	{ group, seasonFit, inLeaf, leafOutOn, workOn }: WorkDone,
	values: Values
): Record<'least' | 'most', { from: number; days: number }> {
	const late = seasonFit === 'out-of-window' ? values['aftercare.shelterLate'] : 0;
	const from = leafedFrom({ inLeaf, leafOutOn, workOn });
	return {
		least: { from, days: values[`aftercare.shelter.${group}.least`] * 7 + late },
		most: { from, days: values[`aftercare.shelter.${group}.most`] * 7 + late }
	};
}

const shelterTitle: Record<Group, string> = {
	deciduous: 'Put it out of wind and sun',
	'broadleaf-evergreen': 'Shade it; mist it or bag it while it drops leaves',
	conifer: 'Shade it out of the wind, and mist its foliage',
	tropical: 'Stand it warm and humid, in bright shade',
	succulent: 'Stand it bright and airy',
	ericaceous: 'Part shade, out of the wind',
	palm: 'Stand it warm and humid, in bright shade'
};

/** Days in which it shows how fast it drinks: some days after its first water. */
function afterFirstWater(work: WorkDone, values: Values): Pick<Draft, 'fromDay' | 'toDay'> {
	const rest = work.waterSchool === 'at-once' ? { from: 0, to: 0 } : dryRestDays(work, values);
	return { fromDay: rest.from + values['aftercare.weighFrom'], toDay: rest.to + values['aftercare.weighTo'] };
}

/** Aftercare as rules: what was done to which group → work with a window and a reason. Order is the order of work. */
const rules: Record<string, Rule> = {
	'first-water': ({ waterSchool, group, livingLoss, lifted, rotWasCut, inGround }, values) =>
		waterSchool === 'at-once'
			? {
					kind: 'water',
					title: inGround
						? 'Soak the ground over its roots, slowly'
						: 'Water the whole surface slowly until a tenth runs through',
					reason:
						livingLoss < values['aftercare.lossCounts']
							? `No living root was cut: there is no wound to keep dry, and ${inGround ? 'soil' : 'mix'} and roots are to meet.`
							: `Roots are watered in at once, so that ${inGround ? 'soil' : 'mix'} and roots meet (${group === 'succulent' || rotWasCut ? 'chosen against the usual dry rest' : 'school: water at once'}).`,
					mark: 'trade',
					fromDay: 0,
					toDay: 1,
					minutes: 10
				}
			: {
					kind: 'dry-rest',
					title: 'First water after the dry rest',
					reason: `Cut surfaces dry and callus first${restWhy({ rotWasCut, livingLoss, lifted })} (school: dry first).`,
					mark: 'trade',
					fromDay: dryRestDays({ group, rotWasCut, livingLoss }, values).from,
					toDay: dryRestDays({ group, rotWasCut, livingLoss }, values).to,
					minutes: 10
				},
	'water-by-weight': (work, values) => {
		const { livingLoss, inGround, lifted, tooHeavy } = work;
		if (inGround || tooHeavy) return null;
		return {
			kind: 'water',
			title: lifted
				? 'Weigh it: how fast does it drink?'
				: 'Weigh it: is the old watering rhythm still right?',
			reason: lifted
				? `No watering rhythm is known yet for what is left of its roots (${percent(1 - livingLoss)} of what it had): weighed after water and before the next, it shows its own.`
				: livingLoss < values['aftercare.lossCounts']
					? 'After a change of pot, mix or place the old interval may no longer fit.'
					: `With ${percent(livingLoss)} less living root it drinks more slowly; the old interval would drown it.`,
			mark: 'trade',
			...afterFirstWater(work, values),
			minutes: 5
		};
	},
	'water-by-feel': (work, values) =>
		work.inGround || !work.tooHeavy
			? null
			: {
					kind: 'water',
					title: work.lifted
						? 'Feel or probe it: how fast does it dry?'
						: 'Feel or probe it: is the old watering rhythm still right?',
					reason:
						'Its pot is too heavy for a scale. Felt some days after water, and again before the next, the mix shows how fast its roots draw.',
					mark: 'trade',
					...afterFirstWater(work, values),
					minutes: 5
				},
	'shelter-on': (work, values) => {
		if (!sheltered(work, values)) return null;
		const { group, livingLoss, inLeaf, rotWasCut, crownExcess } = work;
		const dry = dryAir(work);
		const few =
			crownExcess > values['aftercare.crownExcess']
				? ` The roots left feed about ${percent(1 - crownExcess)} of the crown.`
				: '';
		return {
			kind: 'shelter',
			title: dry
				? 'Stand it bright, dry and airy: no mist, no bag, no cover'
				: !inLeaf
					? 'Shelter it from wind, and its stem from sun'
					: rotWasCut
						? 'Stand it bright and airy, out of wind and noon sun'
						: shelterTitle[group],
			reason: dry
				? 'Cut fleshy roots callus in dry air; what is kept moist and close rots.'
				: !inLeaf
					? 'Without leaves it drinks almost nothing: wind dries twigs and sun burns bark, and shade has nothing to shade yet.'
					: `${percent(livingLoss)} of the living root is missing; what the leaves ask for is held down until the roots drink again.${few}`,
			mark: 'trade',
			fromDay: 0,
			toDay: 1,
			minutes: 15
		};
	},
	'shelter-half': (work, values) => {
		if (!sheltered(work, values) || dryAir(work)) return null;
		const { least, most } = shelterDays(work, values);
		return {
			kind: 'shelter',
			title: work.inLeaf ? 'Take half the shade off' : 'Take half the wind and sun shelter off',
			reason: work.inLeaf
				? 'Shelter steps down in stages: half of it once buds move, the rest when the roots drink.'
				: 'Shelter steps down in stages: half of it once leaves are out, the rest when the roots drink.',
			mark: 'trade',
			fromDay: Math.round(least.from + least.days / 2),
			toDay: least.from + least.days,
			minutes: 5,
			release: {
				condition: work.inLeaf ? 'buds-move' : 'leaves-out',
				byDay: work.inLeaf ? least.from + least.days : most.from + most.days,
				after: 'shelter-on'
			}
		};
	},
	shelter: (work, values) => {
		if (!sheltered(work, values) || dryAir(work)) return null;
		const { least, most } = shelterDays(work, values);
		const weeks = (days: number): number => Math.round(days / 7);
		return {
			kind: 'shelter',
			title:
				work.group === 'conifer' && work.inLeaf
					? 'Take the rest of shade and misting off'
					: 'Take the rest of the shelter off',
			reason: `Shelter for ${weeks(least.days)} to ${weeks(most.days)} weeks${work.inLeaf ? '' : ' of its leaves'} holds demand down while ${percent(work.livingLoss)} of the living root is missing.`,
			mark: 'trade',
			fromDay: least.from + least.days,
			toDay: most.from + most.days,
			minutes: 10,
			release: {
				condition: 'root-function',
				value: values['aftercare.shelterOffFunction'],
				byDay: most.from + most.days,
				after: 'shelter-half'
			}
		};
	},
	cold: ({ tender, coldestC, coldLimitC, coldFromOn, workOn, livingLoss, inGround }, values) => {
		if (inGround || livingLoss < values['aftercare.lossCounts'] || coldFromOn === null) return null;
		const until = daysBetween(workOn, coldFromOn);
		return {
			kind: 'cold',
			title: `Where will it stand so that its roots stay above ${measured(coldLimitC, '°C')}?`,
			reason: `${
				tender
					? `It is tender (coldest ${measured(coldestC, '°C')}) and works with fewer roots.`
					: 'Freshly cut roots of hardy trees are kept from frost until they grow, over a winter until spring.'
			} A cold night of its place falls below that ${until === 0 ? 'at this time of the year already' : `from ${coldFromOn} on`}.`,
			mark: tender ? 'memory' : 'trade',
			fromDay: 0,
			toDay: Math.max(2, until - values['aftercare.coldAheadDays']),
			minutes: 5
		};
	},
	crown: (work, values) => {
		const { crownSchool, crownExcess, crownTaken } = work;
		// More is not cut at once.
		return crownSchool === 'balance' && crownTaken === 0 && crownExcess > values['aftercare.crownExcess']
			? {
					kind: 'crown',
					title: `Take about ${percent(Math.min(crownExcess, values['crown.takeMost']))} of the ${work.inLeaf ? 'leaf area' : 'buds'}, dead and crossing wood first`,
					reason: `The roots left feed about ${percent(1 - crownExcess)} of the crown (school: balance the crown)${crownExcess > values['crown.takeMost'] ? '; shade and shelter hold the rest' : ''}. A height cut is not a crown share.`,
					mark: 'trade',
					fromDay: 0,
					toDay: 3,
					minutes: 30
				}
			: null;
	},
	// In a pot its shelter says it; in the ground it cannot be carried anywhere.
	shade: (work, values) => {
		const { crownSchool, crownExcess, crownTaken, inGround, inLeaf, leafOutOn } = work;
		const cut = crownSchool === 'balance' || crownTaken > 0;
		const left = cut && crownTaken === 0 ? crownExcess - values['crown.takeMost'] : crownExcess;
		if (!inGround || left <= values['aftercare.crownExcess']) return null;
		// Bare twigs ask for no shade; they do once their leaves are out.
		if (!inLeaf && leafOutOn === null) return null;
		const from = leafedFrom(work);
		return {
			kind: 'shelter',
			title: cut
				? 'Shade, shelter and humidity for the leaves it keeps'
				: 'Shade, shelter and humidity instead of cutting leaves',
			reason: cut
				? `More is not cut at once, and roots feed about ${percent(1 - crownExcess)} of the crown${crownTaken > 0 ? ' that is left' : ''} (school: balance the crown).`
				: `Roots feed ${percent(1 - crownExcess)} of the crown; leaves and buds are left to feed new roots (school: keep the leaves).`,
			mark: 'memory',
			fromDay: from,
			toDay: from + 2,
			minutes: 15,
			// By the calendar its leaves come; it is seen whether they did.
			...(!inLeaf && { release: { condition: 'leaves-out' as const, byDay: from } })
		};
	},
	'rot-recheck': ({ rotWasCut, inGround }, values) =>
		rotWasCut
			? {
					kind: 'look',
					title: `Smell ${inGround ? 'a fresh hole beside its roots' : 'the drain holes'}; does it dry as it should?`,
					reason: 'Rot was cut: tissue that stays moist or smells again means it goes deeper.',
					mark: 'trade',
					fromDay: values['aftercare.rotRecheckFrom'],
					toDay: values['aftercare.rotRecheckTo'],
					minutes: 5,
					stage: 'examine'
				}
			: null,
	neighbours: ({ rotWasCut, inGround }, values) =>
		rotWasCut
			? {
					kind: 'neighbours',
					title: `Check the trees that share its ${inGround ? 'batch' : 'mix, batch'} or place`,
					reason: `Checking is cheap; rot seldom comes alone. ${inGround ? 'Look' : 'Weigh'} and smell, disturb none that looks well.`,
					mark: 'trade',
					fromDay: 0,
					toDay: values['aftercare.neighboursTo'],
					minutes: 20,
					stage: 'examine'
				}
			: null,
	'neighbours-again': ({ rotWasCut }, values) =>
		rotWasCut
			? {
					kind: 'neighbours',
					title: 'Look at its neighbours again',
					reason: 'What spread before the rot was found shows some weeks later.',
					mark: 'ours',
					fromDay: values['aftercare.neighboursAgainFrom'],
					toDay: values['aftercare.neighboursAgainTo'],
					minutes: 10,
					stage: 'examine'
				}
			: null,
	turning: (work, values) => {
		if (work.inGround) return null;
		const every = values['aftercare.turnEvery'];
		const from = values['aftercare.turnFrom'] + restDays(work, values);
		return {
			kind: 'turning',
			title: 'Turn it a quarter, for even light',
			reason: 'Shoots lean to the light; a pot that is turned grows evenly and dries evenly.',
			mark: 'trade',
			fromDay: from,
			toDay: from + every,
			everyDays: every,
			minutes: 2,
			release: { condition: 'buds-move', byDay: from + 2 * every }
		};
	},
	suckers: ({ group, suckers }, values) =>
		suckers && group !== 'conifer' && group !== 'palm'
			? {
					kind: 'suckers',
					title: 'Suckers: take them off, or keep them while it is weak',
					reason:
						'Practice splits: off each year for form or where rot sits low; kept for energy while it recovers.',
					mark: 'trade',
					fromDay: values['aftercare.suckersFrom'],
					toDay: values['aftercare.suckersTo'],
					everyDays: 365,
					minutes: 10
				}
			: null,
	'repot-need': ({ inGround, plantCount }, values) =>
		inGround
			? null
			: {
					kind: 'look',
					title: 'Is its pot filled? Repot only on need',
					reason: `Back to the pot about every two years, not each year without need: roots out of the holes, a solid mat, or it dries too fast${plantCount > 1 ? '; try a few of the lot' : ''}.`,
					mark: 'trade',
					fromDay: values['aftercare.repotFrom'],
					toDay: values['aftercare.repotTo'],
					everyDays: 365,
					minutes: 10,
					stage: 'examine'
				},
	feeding: (work, values) => {
		const { group, rotWasCut, livingLoss, tender, workOn, feedSeasonOn } = work;
		const after: Record<Group, string> = {
			deciduous: 'After the first flush has hardened',
			'broadleaf-evergreen': 'Lightly, once buds move',
			conifer: 'From next season',
			tropical: 'After new leaves',
			succulent: 'When it grows',
			ericaceous: 'Low in nitrogen, after the first year',
			palm: 'After new leaves'
		};
		const slow = group === 'conifer' || group === 'ericaceous';
		const least =
			values[slow ? 'aftercare.feedSlow' : tender ? 'aftercare.feedTender' : 'aftercare.feedUsual'];
		// A season does not begin in its winter, and no flush hardens while nothing grows.
		const season = slow && feedSeasonOn ? daysBetween(workOn, feedSeasonOn) : 0;
		const day = slow ? Math.max(least, season) : least + restDays(work, values);
		return {
			kind: 'feeding',
			title: `May feeding begin? ${after[group]}`,
			reason: rotWasCut
				? 'After rot nothing is fed until it grows.'
				: `Fewer roots (${percent(livingLoss)} taken) cannot use food yet; salts burn cut roots.`,
			mark: 'trade',
			fromDay: day,
			toDay: day + values['aftercare.feedSpan'],
			minutes: 5,
			...(!slow && {
				release: {
					condition: feedAfter[group],
					byDay: day + 2 * values['aftercare.feedSpan']
				}
			})
		};
	},
	'first-buds': (work, values) => {
		const slow = work.group === 'broadleaf-evergreen' && !work.tender;
		const days = firstBudsDays(work, values);
		const rest = restDays(work, values);
		const after = slow
			? 'First buds of evergreens, of those of dry country above all, may come only after two to three months'
			: `First buds are expected ${values['firstBuds.weeksFrom']} to ${values['firstBuds.weeksTo']} weeks after the work`;
		return {
			kind: 'look',
			title: slow ? 'Do buds move? Evergreens may take 2 to 3 months' : 'Do buds move?',
			reason: rest > 0 ? `${after}, and not before it grows again.` : `${after}.`,
			mark: 'trade',
			fromDay: days.from + rest,
			toDay: days.to + rest,
			minutes: 5,
			stage: 'recovery'
		};
	},
	'clear-growth': (work, values) => {
		const rest = restDays(work, values);
		return {
			kind: 'look',
			title: 'Measure shoots, leaf cover and the limit of dieback',
			reason: `Clear growth is expected at about ten weeks${rest > 0 ? ' of growing' : ''}; a dieback limit that is steady over two looks may be re-cut.`,
			mark: 'trade',
			fromDay: values['aftercare.clearGrowthFrom'] + rest,
			toDay: values['aftercare.clearGrowthTo'] + rest,
			minutes: 10,
			stage: 'recovery'
		};
	},
	'collar-again': ({ collarWork }, values) =>
		collarWork
			? {
					kind: 'collar',
					title: 'See the collar again',
					reason: 'Collar work is seen again at 60 days, then each year.',
					mark: 'trade',
					fromDay: values['aftercare.collarFrom'],
					toDay: values['aftercare.collarTo'],
					everyDays: values['aftercare.collarEvery'],
					minutes: 20,
					stage: 'examine'
				}
			: null,
	arborist: ({ structuralCut, inGround }, values) =>
		structuralCut && inGround
			? {
					kind: 'referral',
					title: 'A qualified arborist has to judge whether it may fall',
					reason: 'A structural root was cut on a tree in the ground: that is not for the eye to say.',
					mark: 'memory',
					fromDay: 0,
					toDay: values['aftercare.arboristTo'],
					minutes: 15,
					stage: 'examine'
				}
			: null,
	backup: ({ rotWasCut, lifted, livingLoss, crownSchool, crownExcess, crownTaken }, values) => {
		if (!rotWasCut && livingLoss < values['aftercare.backupLoss']) return null;
		// Where only dead root went, or root stayed in the ground, and no leaf is taken, nothing comes off that strikes.
		const comesOff =
			crownTaken > 0 ||
			(crownSchool === 'balance' && crownExcess > values['aftercare.crownExcess']) ||
			(!lifted && livingLoss >= values['aftercare.lossCounts']);
		return {
			kind: 'backup',
			title: comesOff
				? 'Strike cuttings from what comes off, labelled'
				: 'Take a cutting or two as a backup, labelled',
			reason: comesOff
				? 'A backup is cheap while the material is fresh.'
				: `${rotWasCut ? 'Where rot was found' : 'With so few roots left'} a backup is cheap while its shoots are sound.`,
			mark: 'trade',
			fromDay: 0,
			toDay: 2,
			minutes: 20
		};
	}
};

/**
 * The aftercare that a piece of work asks for: each with its window, its reason and its mark, in order of its first day.
 * @example roots of a deciduous tree cut in its window: water at once, weigh in a week, shelter off at 2–4 weeks …
 */
export function aftercareTasks(work: WorkDone, values: Values): ProposedTask[] {
	const proposed: ProposedTask[] = [];
	for (const [rule, make] of Object.entries(rules)) {
		const draft = make(work, values);
		if (!draft) continue;
		const { fromDay, toDay, stage = 'aftercare', title, release, everyDays, ...rest } = draft;
		proposed.push({
			...rest,
			rule,
			stage,
			title: work.plantCount > 1 ? `${title} (lot of ${work.plantCount})` : title,
			fromOn: addDays(work.workOn, fromDay),
			toOn: addDays(work.workOn, toDay),
			everyDays: everyDays ?? null,
			release: release
				? {
						condition: release.condition,
						value: release.value ?? 0,
						byOn: addDays(work.workOn, release.byDay),
						after: release.after ?? ''
					}
				: null
		});
	}
	if (work.nextStageOn)
		proposed.push({
			rule: 'next-stage',
			kind: 'root-stage',
			title: 'Next root stage: has the tree paid back the last one?',
			reason: 'The next stage is done when growth is regained, within the window of its kind.',
			mark: 'trade',
			stage: 'roots',
			fromOn: work.nextStageOn,
			toOn: addDays(work.nextStageOn, values['aftercare.stageSpan']),
			minutes: 60,
			everyDays: null,
			release: {
				condition: 'growth-regained',
				value: 0,
				byOn: addDays(work.nextStageOn, values['aftercare.stageSpan']),
				after: ''
			}
		});
	return proposed.sort((a, b) => (a.fromOn === b.fromOn ? 0 : a.fromOn < b.fromOn ? -1 : 1));
}
