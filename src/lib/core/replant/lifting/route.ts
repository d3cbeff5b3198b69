import { measured, measuredWhole } from '../../text/measured';
import { z } from 'zod';
import { count, measure, note, oneOf } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

export const slopes = ['level', 'gentle', 'steep'] as const;

/** The way from the hole to the vehicle, and the vehicle. Null where nobody looked. */
export const routeSchema = z.strictObject({
	narrowestMm: measure(100, 20_000, 'mm').nullable().default(null).describe('Narrowest gate on the way'),
	carryM: measure(0, 5000, 'm').nullable().default(null),
	steps: count(0, 500).default(0),
	slope: oneOf(slopes).default('level'),
	payloadKg: measure(10, 50_000, 'kg').nullable().default(null).describe('What the vehicle may carry'),
	loadLengthMm: measure(200, 30_000, 'mm').nullable().default(null).describe('Length of its load space'),
	note: note(300)
});
export type Route = z.infer<typeof routeSchema>;
export const emptyRoute: Route = {
	narrowestMm: null,
	carryM: null,
	steps: 0,
	slope: 'level',
	payloadKg: null,
	loadLengthMm: null,
	note: ''
};

export const routeAnswerOutput = z.object({
	answer: z.enum(['stop', 'warn', 'ok', 'unknown']),
	text: z.string()
});
export type RouteAnswer = z.infer<typeof routeAnswerOutput>;

/**
 * Whether a ball goes through the gate, along the way and into the vehicle.
 * @param mostKg heaviest that the ball may be
 * @param heightM of the tree; null when not known
 * @param way how it is moved
 */
export function judgeRoute(
	route: Route,
	ball: {
		diameterMm: number;
		depthMm: number;
		mostKg: number;
		heightM: number | null;
		way: string;
		plantCount: number;
	},
	values: Values
): RouteAnswer[] {
	const answers: RouteAnswer[] = [];
	const wideMm = ball.diameterMm + values['route.gateSpareMm'];
	const kg = ball.mostKg * (1 + values['route.treeKg']);
	answers.push(
		route.narrowestMm === null
			? { answer: 'unknown', text: 'The narrowest gate on the way is not measured.' }
			: route.narrowestMm < ball.diameterMm
				? {
						answer: 'stop',
						text: `The narrowest gate, ${measured(route.narrowestMm, 'mm')}, does not take a ball of ${measured(ball.diameterMm, 'mm')}.`
					}
				: route.narrowestMm < wideMm
					? { answer: 'warn', text: 'It goes through the narrowest gate with little to spare.' }
					: { answer: 'ok', text: 'It goes through every gate.' }
	);
	if (route.carryM === null)
		answers.push({ answer: 'unknown', text: 'The way to the vehicle is not measured.' });
	else if (route.carryM > values['route.carryFarM'] && ball.way === 'by hand')
		answers.push({
			answer: 'warn',
			text: `${measured(route.carryM, 'm')} is too far to carry by hand: a barrow, or places to set it down.`
		});
	if (route.steps > 0 && ball.way !== 'by hand')
		answers.push({
			answer: 'warn',
			text: `${route.steps} steps: no barrow goes there; planks, or a sling and more hands.`
		});
	if (route.slope === 'steep')
		answers.push({ answer: 'warn', text: 'Steep: a rope above it, nobody below it.' });
	const loads = route.payloadKg === null ? null : Math.floor(route.payloadKg / kg);
	answers.push(
		loads === null || route.payloadKg === null
			? { answer: 'unknown', text: 'What the vehicle may carry is not known.' }
			: loads < 1
				? {
						answer: 'stop',
						text: `With wet clay and the tree it may weigh ${measuredWhole(kg, 'kg')}; the vehicle carries ${measured(route.payloadKg, 'kg')}.`
					}
				: {
						answer: 'ok',
						text:
							ball.plantCount > 1
								? `The vehicle carries ${loads} at a time: ${Math.ceil(ball.plantCount / loads)} journeys.`
								: 'The vehicle carries it.'
					}
	);
	if (route.loadLengthMm !== null && ball.heightM !== null) {
		const lengthMm = ball.heightM * 1000 + ball.depthMm;
		answers.push(
			lengthMm > route.loadLengthMm
				? {
						answer: 'warn',
						text: `Laid down it is ${measured(lengthMm / 1000, 'm')} long, the load space ${measured(route.loadLengthMm / 1000, 'm')}: tie the crown in, mark what stands out.`
					}
				: { answer: 'ok', text: 'It lies in the load space; wrap the crown against the wind of driving.' }
		);
	}
	return answers;
}
