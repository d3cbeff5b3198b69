import { nothingSeen, type SeenLook } from '../examine/looks/observation';
import { firmnessOfGrade } from '../examine/looks/seen-words';
import type { TreeRecords } from './case';
import type { Examination } from '../examine/diagnosis/examination';
import { topGrade, type SignId } from '../vocabulary/signs';
import { diebackLimit } from '../examine/measuring/dieback';
import type { Feel, MoistureData } from '../examine/measuring/moisture';
import { measuredFindings, type Measurement } from '../examine/measuring/measurement';
import type { Values } from '../values/values';

type Parts = Omit<Partial<SeenLook>, 'id' | 'version'>;
/** What a look can say. */
type Thing = Exclude<keyof Parts, 'observedOn'>;
const THINGS: readonly Thing[] = [...(Object.keys(nothingSeen) as (keyof typeof nothingSeen)[]), 'wiltedIn'];

/** What an examination saw of the things that a look asks for; what it did not look for stays out. */
function partsOfExamination({ findings }: Examination): Parts {
	const grade = (sign: SignId): number | null =>
		findings.find((finding) => finding.signId === sign)?.grade ?? null;
	const parts: Parts = {};
	const rocks = grade('leans-rocks');
	if (rocks !== null) parts.firmness = firmnessOfGrade(rocks) ?? 'loose';
	const smell = grade('sour-smell');
	if (smell !== null) parts.smell = smell === 0 ? 'none' : 'sour';
	const tips = grade('no-white-tips');
	if (tips !== null) parts.whiteTips = tips === 0;
	if ((grade('buds-late') ?? 0) > 0) parts.buds = 'none';
	const wet = (grade('wilts-wet') ?? 0) > 0;
	const dry = (grade('wilts-dry') ?? 0) > 0;
	if (wet || dry) parts.leafState = 'wilted';
	if (wet !== dry) parts.wiltedIn = wet ? 'wet' : 'dry';
	const pests = (['insects-seen', 'sticky-leaves', 'galls-wool', 'root-grubs'] as const)
		.map(grade)
		.filter((found) => found !== null);
	if (pests.length > 0) parts.pests = pests.some((found) => found > 0) ? 'some' : 'none';
	if ((grade('no-green-bark') ?? 0) > 0) parts.diebackLimitMm = 0;
	if ((grade('roots-out-of-holes') ?? 0) > 0) parts.rootsAtEdge = true;
	return parts;
}

/**
 * How wet its soil was when it was looked at: who finds a tree wilted in wet or dry soil has felt it, and who finds its pot light has lifted
 * it. On a day on which the soil was felt or the pot weighed for itself, that tells more, and the look nothing; what was felt on the day on
 * which it was set anew is what it stood in before. Of a pot that trees share it was felt for all in it.
 * @returns by day, as a hand feels it, with the id of the look
 */
export function feltInLooks({
	examinations,
	measurements,
	plantings,
	mates
}: Pick<TreeRecords, 'examinations' | 'measurements' | 'plantings' | 'mates'>): {
	on: string;
	id: string;
	data: MoistureData;
}[] {
	const days = new Map<string, { id: string; feels: Set<Feel> }>();
	const looks = [...examinations, ...mates.flatMap((mate) => mate.examinations)];
	for (const { id, examinedOn: on, findings } of looks)
		for (const { signId, grade } of findings) {
			const feel = grade > 0 ? FELT_BY_SIGN[signId] : undefined;
			if (!feel) continue;
			const day = days.get(on) ?? { id, feels: new Set() };
			day.feels.add(feel);
			days.set(on, day);
		}
	const told = new Set([
		...plantings.map(({ plantedOn }) => plantedOn),
		...measurements.flatMap(({ measuredOn, raw }) =>
			raw.tool === 'moisture' || raw.tool === 'weighing' ? [measuredOn] : []
		)
	]);
	return [...days].flatMap(([on, { id, feels }]) => {
		// Light for its size and dusty to the finger go together; wet and dry of one day do not, and tell nothing.
		const [feel] = feels.has('dry') ? (['dry'] as const) : feels;
		const wetAndDry = feels.has('wet') && feels.size > 1;
		return feel === undefined || wetAndDry || told.has(on)
			? []
			: [{ on, id, data: { feel, probeShare: null } }];
	});
}
const FELT_BY_SIGN: Partial<Record<SignId, Feel>> = {
	'wilts-wet': 'wet',
	'wilts-dry': 'dry',
	'pot-light': 'drying'
};

function partsOfMeasurement({ raw }: Measurement, values: Values): Parts {
	if (raw.tool !== 'scratch-tap') return {};
	const { limitMm, next } = diebackLimit(raw, values);
	// As for the diagnosis: a scratch or two is not a limit yet.
	return next === null || raw.points.length >= 4 ? { diebackLimitMm: Math.round(limitMm) } : {};
}

/** Signs that a repotting or a cut does not answer. */
const holdsOn: ReadonlySet<string> = new Set<SignId>(['leans-rocks', 'no-green-bark']);

/**
 * Everything that was seen of a tree, one look a day, oldest first: looks as they were written, and what examinations and
 * measurements saw of the same things. Of one day the record kept later has the last word on a thing, and a look before an
 * examination; nothing is taken from a record that does not speak of it.
 * @param things only these, where not all are asked for; a look that says nothing of them is left out
 */
export function looksSeen(
	records: Pick<TreeRecords, 'observations' | 'examinations' | 'measurements'>,
	values: Values,
	things?: readonly Thing[]
): SeenLook[] {
	const byDay = new Map<string, SeenLook>();
	// Asked for years of looks at thousands of trees: what a part says is written where it stands, without a copy for each.
	const add = (on: string, id: string, version: number, parts: Parts): void => {
		let day: Record<string, unknown> | undefined = byDay.get(on);
		const begun = (): Record<string, unknown> => {
			const seen: SeenLook = { ...nothingSeen, id, version, observedOn: on };
			byDay.set(on, seen);
			return seen;
		};
		for (const thing of things ?? THINGS) {
			const value = parts[thing] ?? null;
			if (value === null || value === '' || (Array.isArray(value) && value.length === 0)) continue;
			day ??= begun();
			day[thing] = value;
		}
		// A look is one whatever it says.
		if (!things && !day && parts.observedOn !== undefined) begun();
	};
	for (const one of records.examinations) add(one.examinedOn, one.id, one.version, partsOfExamination(one));
	for (const one of records.measurements)
		add(one.measuredOn, one.id, one.version, partsOfMeasurement(one, values));
	for (const look of records.observations) add(look.observedOn, look.id, look.version, look);
	return [...byDay.values()].sort((a, b) => a.observedOn.localeCompare(b.observedOn));
}

/** Days on which it was taken out of where it stood or set anew: that it stood firm before says nothing of how it stands since. */
export const movedDays = ({ plantings, lifts }: Pick<TreeRecords, 'plantings' | 'lifts'>): Set<string> =>
	new Set([
		...plantings.map(({ plantedOn }) => plantedOn),
		...lifts.flatMap(({ log }) => (log ? [log.liftedOn] : []))
	]);

/**
 * `looksSeen` from the work on that recovery is counted from, to judge how it does since. What an examination of that very day found
 * of leaves, buds, smell, tips and pests led to the work and says nothing of what followed; how it stood and how far it lived holds on, but
 * that it stood firm does not where its roots were cut or it was moved that day.
 * @param since day of the work and what it was; of a tree that was only taken in all looks count
 */
export function looksSince(
	records: Pick<TreeRecords, 'observations' | 'examinations' | 'measurements' | 'plantings' | 'lifts'>,
	since: { on: string; what: string },
	values: Values
): SeenLook[] {
	const led = ({ examinedOn }: Examination): boolean => since.what !== 'taking-in' && examinedOn === since.on;
	// Firm before its roots were cut, or before it was moved, is not firm after.
	const moved = since.what === 'root-work' || movedDays(records).has(since.on);
	const holds = ({ signId, grade }: Examination['findings'][number]): boolean =>
		holdsOn.has(signId) && !(moved && signId === 'leans-rocks' && firmnessOfGrade(grade) === 'firm');
	const examinations = records.examinations.map((one) =>
		led(one) ? { ...one, findings: one.findings.filter(holds) } : one
	);
	return looksSeen({ ...records, examinations }, values).filter((look) => look.observedOn >= since.on);
}

/**
 * Day on which its roots were last found to lie round the ball as a solid mat, since it was planted as it stands.
 * @returns null where they were not, or were found looser since
 */
export function packedSeenOn(
	{
		examinations,
		measurements,
		tree,
		plantings
	}: Pick<TreeRecords, 'examinations' | 'measurements' | 'tree' | 'plantings'>,
	on: string,
	values: Values
): string | null {
	const plantedOn = plantings.at(-1)?.plantedOn ?? '';
	const told = [
		...examinations.map(({ examinedOn, findings }) => ({ on: examinedOn, findings })),
		...measurements.map((one) => ({
			on: one.measuredOn,
			findings: measuredFindings([one], one.measuredOn, tree, values)
		}))
	]
		.filter((one) => one.on > plantedOn && one.on <= on)
		.sort((a, b) => a.on.localeCompare(b.on))
		.flatMap((one) =>
			one.findings.flatMap(({ signId, grade }) => (signId === 'solid-mat' ? [{ on: one.on, grade }] : []))
		)
		.at(-1);
	return told?.grade === topGrade('solid-mat') ? told.on : null;
}
