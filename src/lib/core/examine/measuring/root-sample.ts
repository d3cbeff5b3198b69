import { z } from 'zod';
import { counted } from '../../text/plural';
import { count } from '../../vocabulary/fields';
import { gradeWord } from '../../vocabulary/signs';
import { wilsonInterval } from '../../maths/wilson';
import type { Values } from '../../values/values';

export const rootSampleData = z
	.strictObject({ alive: count(0, 5000), dead: count(0, 5000) })
	.refine((sample) => sample.alive + sample.dead > 0, {
		path: ['alive'],
		error: 'must count at least one root'
	});
export type RootSampleData = z.infer<typeof rootSampleData>;

export const rootSampleOutput = z.object({
	count: z.number(),
	liveShare: z.number(),
	low: z.number().describe('Wilson 95 % interval of the living share'),
	high: z.number(),
	grade: z
		.number()
		.nullable()
		.describe('Grade of the share of dead roots, once it is decided; null while more roots must be drawn'),
	open: z.array(z.number()).describe('Grades the interval still allows'),
	more: z
		.number()
		.describe('About how many more roots decide it, if they come out as those so far; 0 when it is decided')
});
export type RootSampleResult = z.infer<typeof rootSampleOutput>;

/** Most further roots that are asked for. */
const MOST_MORE = 400;

/**
 * Grade of the sign of the share of dead roots.
 * @param deadShare 0 … 1
 * @returns 0 … 2
 */
export const deadRootsGrade = (deadShare: number, values: Values): number =>
	deadShare >= values['measuring.dead-many'] ? 2 : deadShare >= values['measuring.dead-some'] ? 1 : 0;

function judged(alive: number, total: number, values: Values) {
	const { low, high } = wilsonInterval(alive, total);
	const [least, most] = [deadRootsGrade(1 - high, values), deadRootsGrade(1 - low, values)];
	const open = Array.from({ length: most - least + 1 }, (_, i) => least + i);
	const enough = total >= values['measuring.sample-least'];
	return {
		low,
		high,
		open,
		decided: enough && (open.length === 1 || high - low <= values['measuring.sample-width'])
	};
}

/**
 * The living share of a random sample of roots, and whether it is enough to decide: not too few, and the whole interval
 * lies within one grade, or it is so narrow that the share lies on a limit and its own grade will do.
 * @see Wilson 1927; checked against Newcombe 1998
 */
export function rootSample({ alive, dead }: RootSampleData, values: Values): RootSampleResult {
	const total = alive + dead;
	const { low, high, open, decided } = judged(alive, total, values);
	let more = 0;
	if (!decided)
		do more++;
		while (
			more < MOST_MORE &&
			!judged(Math.round((alive / total) * (total + more)), total + more, values).decided
		);
	return {
		count: total,
		liveShare: alive / total,
		low,
		high,
		grade: decided ? deadRootsGrade(dead / total, values) : null,
		open,
		more
	};
}

/** Whether a sample is enough, in words, and what more would decide. */
export function sampleSaid({ grade, open, more }: RootSampleResult): string {
	const word = (one: number): string => gradeWord('roots-dead-share', one);
	if (grade !== null)
		return `Enough: ${word(grade)} dead${open.length > 1 ? '; it lies close to a limit, and more roots would hardly change what is done' : ''}.`;
	const between = open.length > 1 ? ` between ${open.map(word).join(' and ')}` : '';
	return `Sample more: about ${counted(more, 'further root')} would decide${between}.`;
}

/**
 * Where to draw the next root, so that the sample is spread over the ball and not picked by eye: the golden angle round
 * the ball, a binary radical inverse down it.
 * @param drawn roots drawn so far
 */
export function nextSamplePlace(drawn: number): { azimuthDeg: number; depthShare: number } {
	let depthShare = 0;
	for (let bit = 0.5, rest = drawn + 1; rest > 0; rest >>= 1, bit /= 2) if (rest & 1) depthShare += bit;
	return { azimuthDeg: (drawn * 137.507764) % 360, depthShare };
}
