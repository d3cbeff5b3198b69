import { z } from 'zod';
import { measured, measuredWhole } from '../../text/measured';
import { coldLimit, nearCold, type NewShoots } from '../../climate/cold-limit';
import type { Exposure, LightLevel, Place } from '../../vocabulary/place';
import { growingSeason, nightTemperature } from '../../climate/normals';
import { addDays, yearOf } from '../../maths/calendar';
import { isTender, type Group, type Kind } from '../../vocabulary/kind';
import type { Values } from '../../values/values';

export const siteAnswerOutput = z.object({
	what: z.enum(['cold', 'light', 'wind', 'drainage', 'reach', 'season']),
	answer: z
		.enum(['stop', 'warn', 'ok', 'unknown'])
		.describe('stop: the work would be lost there · warn: only with care · ok · unknown: nobody looked'),
	because: z.string()
});
export type SiteAnswer = z.infer<typeof siteAnswerOutput>;

/** Light and wind a group wants or stands [our own, from common practice]; recovering trees stand less of both. */
const needs: Record<Group, { light: readonly LightLevel[]; wind: Exposure }> = {
	deciduous: { light: ['sun', 'part'], wind: 'some' },
	'broadleaf-evergreen': { light: ['sun', 'part', 'shade'], wind: 'some' },
	conifer: { light: ['sun', 'part'], wind: 'exposed' },
	tropical: { light: ['sun', 'part'], wind: 'sheltered' },
	succulent: { light: ['sun'], wind: 'some' },
	ericaceous: { light: ['part', 'sun', 'shade'], wind: 'some' },
	palm: { light: ['sun', 'part'], wind: 'sheltered' }
};
const lightWords: Record<LightLevel, string> = { sun: 'full sun', part: 'part shade', shade: 'shade' };
const windOrder: readonly Exposure[] = ['sheltered', 'some', 'exposed'];
const windWords: Record<Exposure, string> = {
	sheltered: 'sheltered',
	some: 'some wind',
	exposed: 'exposed'
};

/** Coldest cold night of the twelve months from a day at a place, °C. */
function coldestNightC(place: Place, from: string, values: Values): number {
	let coldest = Infinity;
	for (let day = 0; day < 365; day += 3)
		coldest = Math.min(coldest, nightTemperature(place, addDays(from, day), values).coldC);
	return coldest;
}

/** What is asked of a place for one tree. */
interface SiteQuestion {
	inGround: boolean;
	today: string;
	/** Minutes until a test hole has emptied; null when not tried. */
	drainMin: number | null;
	/** Last day on which its roots were cut or lifted; null where they never were. */
	rootsCutOn: string | null;
	newShoots: NewShoots;
}

/** What it stands now by the one rule of cold, and what it stands through the winter once its roots are grown. */
function coldAnswer(
	kind: Kind,
	place: Place,
	{ inGround, today, rootsCutOn, newShoots }: SiteQuestion,
	values: Values
): SiteAnswer {
	const degrees = (c: number): string => measuredWhole(c, '°C');
	const limitC = kind.coldestC - (inGround ? values['site.groundHardierC'] : 0);
	const rule = coldLimit({ kind, place, lastCutOn: rootsCutOn, inGround, newShoots }, today, values);
	const nowC = rule.limitC;
	const winterC = coldestNightC(place, today, values);
	const tonightC = nightTemperature(place, today, values).coldC;
	const near = tonightC >= nowC && tonightC < nowC + nearCold(place, values);
	return {
		what: 'cold',
		answer:
			tonightC < nowC || (inGround && winterC < limitC)
				? 'stop'
				: near || winterC < limitC + values['site.coldMarginC']
					? 'warn'
					: 'ok',
		because: `A cold night of this season there is about ${degrees(tonightC)}, and it stands ${degrees(nowC)} now${rule.why ? `, ${rule.why}` : ''}${near ? `: have ${inGround ? 'fleece' : 'cover'} ready` : ''}; one of the year is about ${degrees(winterC)}, and ${kind.commonName} stands ${degrees(limitC)} hardened ${inGround ? 'in the ground' : 'in a pot'}${winterC < limitC && !inGround ? ': move it or cover it before then' : ''}.`
	};
}

function lightAnswer(kind: Kind, light: Place['light']): SiteAnswer {
	if (light === null)
		return { what: 'light', answer: 'unknown', because: 'The light there is not written down.' };
	const wants = needs[kind.group].light;
	const has = `It has ${lightWords[light]} there`;
	return wants.includes(light)
		? { what: 'light', answer: 'ok', because: `${has}.` }
		: {
				what: 'light',
				answer: 'warn',
				because: `${has} and wants ${wants.map((one) => lightWords[one]).join(' or ')}.`
			};
}

function windAnswer(kind: Kind, wind: Place['wind']): SiteAnswer {
	if (wind === null)
		return { what: 'wind', answer: 'unknown', because: 'The wind there is not written down.' };
	return windOrder.indexOf(wind) > windOrder.indexOf(needs[kind.group].wind)
		? {
				what: 'wind',
				answer: 'warn',
				because: `It is ${windWords[wind]} there; shelter it, tie it, or choose another place.`
			}
		: { what: 'wind', answer: 'ok', because: `Wind: ${windWords[wind]}.` };
}

function reachAnswer(waterM: number | null, values: Values): SiteAnswer {
	if (waterM === null)
		return { what: 'reach', answer: 'unknown', because: 'How far water is, is not written down.' };
	const away = `Water is ${measured(waterM, 'm')} away`;
	return waterM > values['site.waterFarM']
		? { what: 'reach', answer: 'warn', because: `${away}: a tree off the daily path is forgotten.` }
		: { what: 'reach', answer: 'ok', because: `${away}.` };
}

function drainageAnswer(drainMin: number | null, values: Values): SiteAnswer {
	if (drainMin === null)
		return {
			what: 'drainage',
			answer: 'unknown',
			because: 'Fill a hole with water twice and time the second: drainage is not known.'
		};
	const hours = Math.round(drainMin / 6) / 10;
	return drainMin > values['site.drainMin']
		? {
				what: 'drainage',
				answer: 'stop',
				because: `A test hole held water for ${hours} h: roots drown. Drain it, plant on a mound, or choose another place.`
			}
		: { what: 'drainage', answer: 'ok', because: `A test hole emptied in ${hours} h.` };
}

/**
 * A place against the limits of a kind, before a tree is set there: cold, season, light, wind, reach of water, and in the ground
 * drainage. In the ground roots stand colder than in a pot.
 */
export function siteCheck(kind: Kind, place: Place, question: SiteQuestion, values: Values): SiteAnswer[] {
	const { inGround, today, drainMin } = question;
	const season = growingSeason(place, isTender(kind), yearOf(today), values);
	return [
		coldAnswer(kind, place, question, values),
		{
			what: 'season',
			answer: season === null ? 'stop' : 'ok',
			because:
				season === null
					? `It never grows warm enough there for ${kind.commonName}.`
					: 'It has a growing season there.'
		},
		lightAnswer(kind, place.light),
		windAnswer(kind, place.wind),
		reachAnswer(place.waterM, values),
		...(inGround ? [drainageAnswer(drainMin, values)] : [])
	];
}

/** The worst of the answers. */
export const siteVerdict = (answers: readonly SiteAnswer[]): SiteAnswer['answer'] =>
	(['stop', 'warn', 'unknown'] as const).find((word) => answers.some(({ answer }) => answer === word)) ??
	'ok';
