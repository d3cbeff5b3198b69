import { wordsOf } from '../../vocabulary/words-of';
import { Z80 } from '../../maths/normal';
import { measuredWhole } from '../../text/measured';
import { holdsBy } from '../diagnosis/open-causes';
import { logistic, logOdds } from '../../maths/odds';
import { z } from 'zod';
import { daysBetween } from '../../maths/calendar';
import { seasonFits, seasonFitNames, type SeasonFit } from '../../climate/windows';
import { calendarDate, count, id, measure, note, oneOf, share, version } from '../../vocabulary/fields';
import { groups, type Group } from '../../vocabulary/kind';
import { ballMass, ballMassOutput, handsFor } from '../measuring/ball-mass';
import { permissions, reserves, type Reserves } from '../../vocabulary/words';
import type { Values } from '../../values/values';

export const purposes = ['lift', 'treat'] as const;
export const purposeNames: Record<(typeof purposes)[number], string> = {
	lift: 'lift it',
	treat: 'treat it where it stands'
};
export const vitalities = ['strong', 'fair', 'weak', 'dying'] as const;
export type Vitality = (typeof vitalities)[number];
export const pestStates = ['unknown', 'none', 'leaf', 'root'] as const;
export const pestStateNames: Record<(typeof pestStates)[number], string> = {
	unknown: 'not looked for',
	none: 'none seen',
	leaf: 'on leaf or twig',
	root: 'at the root'
};
export const triageDecisionNames = {
	go: 'Go',
	ask: 'Find out first',
	first: 'Worth it, with these first',
	nurse: 'Nurse it first',
	leave: 'Leave it'
};
export type TriageDecision = keyof typeof triageDecisionNames;
export const triageDecisions = wordsOf(triageDecisionNames);

/** What is looked at on the day, before lifting or treating. Null where it is not known. */
export const triageLook = z.strictObject({
	decidedOn: calendarDate(),
	purpose: oneOf(purposes),
	vitality: oneOf(vitalities),
	scratchAlive: z.boolean().nullable().default(null).describe('A scratched twig is green or moist white'),
	permission: oneOf(permissions),
	protectedSpecies: z.boolean().nullable().default(null).describe('Protected species or site'),
	servicesLocated: z.boolean().nullable().default(null).describe('Gas, power, water and telecoms located'),
	pests: oneOf(pestStates),
	rootsKept: share().nullable().default(null).describe('Share of the living roots that will come along'),
	ballDiameterMm: measure(50, 10_000, 'mm').nullable().default(null),
	ballDepthMm: measure(30, 5000, 'mm').nullable().default(null),
	helpers: count(0, 50).default(0).describe('People beside you'),
	machine: z.boolean().default(false).describe('A barrow, sling or machine for the weight'),
	dyingInPlace: z.boolean().default(false).describe('It will be lost where it stands, whatever is done')
});
export type TriageLook = z.infer<typeof triageLook>;

export const triageInput = triageLook.extend({
	decision: oneOf(triageDecisions),
	secondTreeId: id().nullable().default(null).describe('The tree that is taken if this one is not'),
	backups: count(0, 500).default(0).describe('Cuttings or divisions to take first'),
	note: note()
});
export type TriageInput = z.infer<typeof triageInput>;
export const triageSchema = triageInput.extend({ id: id(), version: version() });
export type Triage = z.infer<typeof triageSchema>;

/** What the app knows of the tree beside the look. */
export const triageSubject = z.strictObject({
	group: oneOf(groups),
	potted: z.boolean().default(false).describe('In a pot already: no site forbids what is done to it there'),
	reserves: oneOf(reserves),
	trunkDiameterMm: measure(1, 3000, 'mm'),
	seasonFit: oneOf(seasonFits),
	windowOn: calendarDate().nullable().default(null),
	rotChance: share()
		.nullable()
		.default(null)
		.describe('Chance of root or stem rot from the last look; null where nobody looked'),
	pressing: z
		.strictObject({
			subject: z.string().min(1).max(80).describe('How a sentence begins that says it holds: "Root rot is"'),
			chance: share()
		})
		.nullable()
		.default(null)
		.describe('What its last look says to act on now, since waiting costs more; null where nothing does')
});
export type TriageSubject = z.infer<typeof triageSubject>;

export const survivalFactorOutput = z.object({
	label: z.string(),
	effect: z.number().describe('What it does to the chance, in points of chance; 0 for what is not known'),
	known: z.boolean()
});
export type SurvivalFactor = z.infer<typeof survivalFactorOutput>;

export const survivalOutput = z.object({
	chance: z.number(),
	low: z.number().describe('80 % range'),
	high: z.number(),
	factors: z.array(survivalFactorOutput).describe('What moves it, strongest first')
});
export type Survival = z.infer<typeof survivalOutput>;

export const triageReasonOutput = z.object({
	weight: z
		.enum(['must', 'first', 'against', 'for'])
		.describe(
			'musts stop the work; first: it stands until it is settled, which a person can; others speak for or against it'
		),
	text: z.string()
});
export type TriageReason = z.infer<typeof triageReasonOutput>;

export const triageAdviceOutput = z.object({
	decision: z.enum(triageDecisions),
	reasons: z.array(triageReasonOutput),
	survival: survivalOutput,
	nursed: survivalOutput
		.nullable()
		.describe(
			'The chance after nursing: one step stronger, in its window; null where what presses leaves no time for it'
		),
	mass: ballMassOutput.nullable(),
	backups: z.number().describe('Cuttings or divisions to take first; 0 while it is likely enough to live')
});
export type TriageAdvice = z.infer<typeof triageAdviceOutput>;

/** What the share of roots that comes along does to the chance: by doublings of the usual share of a lift. */
function keptOdds(rootsKept: number | null, values: Values): number {
	const usual = values['triage.roots-usual'];
	const kept = rootsKept ?? Math.min(values['triage.roots-unknown'], usual);
	const doublings = Math.log2(Math.max(0.001, kept) / usual);
	const most = values['triage.roots-most'];
	return values['triage.roots-slope'] * Math.min(most, Math.max(-most, doublings));
}

/** Chance to live through the work, with its range and what moves it: additive in log-odds [our own]. */
export function survival(
	look: Pick<TriageLook, 'purpose' | 'vitality' | 'pests' | 'rootsKept' | 'scratchAlive'>,
	subject: Omit<TriageSubject, 'pressing' | 'potted'>,
	values: Values
): Survival {
	const base = logOdds(
		look.purpose === 'lift' ? values[`triage.lift.${subject.group as Group}`] : values['triage.treat']
	);
	const doublings = Math.max(0, Math.log2(subject.trunkDiameterMm / values['triage.size-mm']));
	const parts: { label: string; odds: number; known: boolean }[] = [
		{ label: `${look.vitality} today`, odds: values[`triage.vitality.${look.vitality}`], known: true },
		{
			label: seasonFitNames[subject.seasonFit],
			odds: values[`triage.season.${subject.seasonFit}`],
			known: true
		},
		{
			label: `pests ${pestStateNames[look.pests]}`,
			// Not looked for is not better than none seen, whatever the owner sets.
			odds:
				look.pests === 'unknown'
					? Math.min(values['triage.pests.unknown'], values['triage.pests.none'])
					: values[`triage.pests.${look.pests}`],
			known: look.pests !== 'unknown'
		},
		{ label: 'reserves', odds: values[`triage.reserves.${subject.reserves as Reserves}`], known: true },
		{
			label: 'chance of rot',
			// Not looked for is not better than none seen.
			odds: Math.min(0, values['triage.rot'] * (subject.rotChance ?? values['triage.rot-unknown'])),
			known: subject.rotChance !== null
		},
		...(look.purpose === 'lift'
			? [
					{ label: 'size', odds: values['triage.size'] * doublings, known: true },
					{
						label: 'share of roots kept',
						odds: keptOdds(look.rootsKept, values),
						known: look.rootsKept !== null
					}
				]
			: []),
		{
			label: 'alive under the bark',
			odds:
				look.scratchAlive === false
					? values['triage.vitality.dying']
					: look.scratchAlive === null
						? Math.min(0, values['triage.scratch-unknown'])
						: 0,
			known: look.scratchAlive !== null
		}
	];
	const odds = parts.reduce((sum, part) => sum + part.odds, base);
	const unknown = parts.filter((part) => !part.known).length;
	const spread = Math.hypot(
		values['triage.spread-base'],
		values['triage.spread-unknown'] * Math.sqrt(unknown)
	);
	const chance = logistic(odds);
	return {
		chance,
		low: logistic(odds - Z80 * spread),
		high: logistic(odds + Z80 * spread),
		factors: parts
			.map(({ label, odds: part, known }) => ({ label, effect: chance - logistic(odds - part), known }))
			.filter((factor) => !factor.known || Math.abs(factor.effect) >= values['triage.effectLeast'])
			.sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect))
	};
}

const stronger: Record<Vitality, Vitality> = {
	strong: 'strong',
	fair: 'strong',
	weak: 'fair',
	dying: 'weak'
};

/** Whether the law of species and sites is asked: whatever is lifted, and what is worked on where it grows. */
export const asksProtected = (
	{ purpose }: Pick<TriageLook, 'purpose'>,
	{ potted }: Pick<TriageSubject, 'potted'>
): boolean => purpose === 'lift' || !potted;

/**
 * Go, nurse first or leave, with reasons. What must not be (a protected tree, root pests, dead under the bark) leaves it where it is; a low
 * chance does so too unless it is lost where it stands. What can be settled (permission, services, hands) comes first, and the tree is
 * worth no less for it.
 * What its last look says to act on now leaves no time to nurse it.
 * Both schools on weak trees stand: leave it, or rescue it because there is nothing to lose.
 */
export function triageAdvice(look: TriageLook, subject: TriageSubject, values: Values): TriageAdvice {
	const now = survival(look, subject, values);
	const { pressing } = subject;
	const nursed = pressing
		? null
		: survival(
				{ ...look, vitality: stronger[look.vitality], pests: look.pests === 'leaf' ? 'none' : look.pests },
				{
					...subject,
					seasonFit: subject.windowOn === null ? subject.seasonFit : ('in-window' satisfies SeasonFit)
				},
				values
			);
	const mass =
		look.ballDiameterMm !== null && look.ballDepthMm !== null
			? ballMass(look.ballDiameterMm, look.ballDepthMm, values)
			: null;
	const reasons: TriageReason[] = [];
	const must = (text: string): void => void reasons.push({ weight: 'must', text });
	const settle = (text: string): void => void reasons.push({ weight: 'first', text });
	const against = (text: string): void => void reasons.push({ weight: 'against', text });
	const speaksFor = (text: string): void => void reasons.push({ weight: 'for', text });
	const lifting = look.purpose === 'lift';

	if (look.permission === 'not-yet') settle('Permission, in writing.');
	if (look.protectedSpecies === true) must('The species or the site is protected: ask the authority first.');
	if (lifting && look.servicesLocated === false)
		settle('Have buried services located; nobody digs before they are.');
	if (lifting && look.pests === 'root') must('Root pests: do not lift, they ruin roots and travel along.');
	if (look.scratchAlive === false && look.vitality === 'dying')
		must('Dead under the bark: scratch lower and on another side before anything else.');
	if (lifting && mass && !look.machine && mass.people > look.helpers + 1)
		settle(
			`About ${measuredWhole(mass.usualKg, 'kg')} needs ${handsFor(mass.people, values)}; ${look.helpers + 1} ${look.helpers === 0 ? 'is' : 'are'} there.`
		);
	else if (lifting && mass && !look.machine && mass.people > values['lifting.people-most'])
		settle(
			`About ${measuredWhole(mass.usualKg, 'kg')} is for a machine: no number of people can take hold of it.`
		);

	if (subject.seasonFit !== 'in-window') against(`It is ${seasonFitNames[subject.seasonFit]}.`);
	if (look.vitality === 'weak' || look.vitality === 'dying')
		against(`It is ${look.vitality}; a weak tree is a poor candidate.`);
	if (look.pests === 'leaf') against('Pests on leaf or twig: wash them off first.');
	if (look.vitality === 'strong') speaksFor('It is strong today.');
	if (subject.seasonFit === 'in-window') speaksFor('It is in its window.');
	if (look.dyingInPlace) speaksFor('It is lost where it stands: there is nothing to lose.');
	if (pressing) speaksFor(`${holdsBy(pressing)}: what is done about it now costs less than waiting.`);

	const stopped = reasons.some((reason) => reason.weight === 'must');
	// What may forbid the work, or kill somebody, holds it until it is answered.
	const open = [
		...(look.protectedSpecies === null && asksProtected(look, subject)
			? ['whether the species or the site is protected']
			: []),
		...(lifting && look.servicesLocated === null ? ['whether services lie there'] : [])
	];
	if (open.length > 0) against(`Find out first: ${open.join(', and ')}. Nothing is begun before.`);
	// What presses where it stands is treated there, however weak the tree: to leave it or to nurse it first is to lose it.
	const noTime = look.dyingInPlace || (pressing !== null && !lifting);
	const gain = nursed ? nursed.chance - now.chance : 0;
	const weighed: TriageDecision = stopped
		? 'leave'
		: noTime || (now.chance >= values['triage.go-from'] && gain < values['triage.nurse-gain'])
			? 'go'
			: nursed && gain >= values['triage.nurse-gain'] && nursed.chance >= values['triage.leave-under']
				? 'nurse'
				: now.chance < values['triage.leave-under']
					? 'leave'
					: 'go';
	const unsettled = reasons.some((reason) => reason.weight === 'first');
	// What a person can settle does not make a tree worth less: it stands before the work.
	const decision: TriageDecision =
		(weighed === 'go' || weighed === 'nurse') && unsettled
			? 'first'
			: weighed === 'go' && open.length > 0
				? 'ask'
				: weighed;
	// Enough that one takes with the wanted chance: 1 − (1 − p)ⁿ.
	const backups =
		now.low < values['triage.backups-under']
			? Math.ceil(
					Math.log(1 - values['triage.backups-sure']) / Math.log(1 - values['triage.cutting-strikes'])
				)
			: 0;
	return { decision, reasons, survival: now, nursed, mass, backups };
}

/** True when a decision is too old to work by. */
export const needsNewLook = (triage: Pick<Triage, 'decidedOn'>, today: string, values: Values): boolean =>
	daysBetween(triage.decidedOn, today) > values['triage.new-look-days'];
