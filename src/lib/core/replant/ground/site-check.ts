import { measured } from '../../text/measured';
import { coldLimit } from '../../climate/cold-limit';
import type { Exposure, LightLevel, Place } from '../../vocabulary/place';
import { growingSeason, nightTemperature } from '../../climate/normals';
import { addDays, yearOf } from '../../maths/calendar';
import { isTender, type Group, type Kind } from '../../vocabulary/kind';
import type { Values } from '../../values/values';

export interface SiteAnswer {
	what: 'cold' | 'light' | 'wind' | 'drainage' | 'reach' | 'season';
	/** stop: the work would be lost there · warn: only with care · ok · unknown: nobody looked. */
	answer: 'stop' | 'warn' | 'ok' | 'unknown';
	because: string;
}

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

/**
 * A place against the limits of a kind, before a tree is set there: what it stands now by the one rule of cold, and what it stands through
 * the winter once its roots are grown. In the ground roots stand colder than in a pot.
 * @param rootsCutOn last day on which its roots were cut or lifted; null where they never were
 * @param drainMin minutes until a test hole has emptied; null when not tried
 */
export function siteCheck(
	kind: Kind,
	place: Place,
	{
		inGround,
		today,
		drainMin,
		rootsCutOn,
		newShoots
	}: {
		inGround: boolean;
		today: string;
		drainMin: number | null;
		rootsCutOn: string | null;
		newShoots: boolean;
	},
	values: Values
): SiteAnswer[] {
	const degrees = (c: number): string => measured(Math.round(c), '°C');
	const hardier = inGround ? values['site.groundHardierC'] : 0;
	const limitC = kind.coldestC - hardier;
	const rule = coldLimit({ kind, lastCutOn: rootsCutOn, inGround, newShoots }, today, values);
	const nowC = rule.why === '' ? limitC : rule.limitC;
	const winterC = coldestNightC(place, today, values);
	const tonightC = nightTemperature(place, today, values).coldC;
	const season = growingSeason(place, isTender(kind), yearOf(today), values);
	const need = needs[kind.group];
	const answers: SiteAnswer[] = [
		{
			what: 'cold',
			answer:
				tonightC < nowC || (inGround && winterC < limitC)
					? 'stop'
					: winterC < limitC + values['site.coldMarginC']
						? 'warn'
						: 'ok',
			because: `A cold night of this season there is about ${degrees(tonightC)}, and it stands ${degrees(nowC)} now${rule.why ? `, ${rule.why}` : ''}; one of the year is about ${degrees(winterC)}, and ${kind.commonName} stands ${degrees(limitC)} hardened ${inGround ? 'in the ground' : 'in a pot'}${winterC < limitC && !inGround ? ': move it or cover it before then' : ''}.`
		},
		{
			what: 'season',
			answer: season === null ? 'stop' : 'ok',
			because:
				season === null
					? `It never grows warm enough there for ${kind.commonName}.`
					: 'It has a growing season there.'
		},
		place.light === null
			? { what: 'light', answer: 'unknown', because: 'The light there is not written down.' }
			: {
					what: 'light',
					answer: need.light.includes(place.light) ? 'ok' : 'warn',
					because: need.light.includes(place.light)
						? `It has ${lightWords[place.light]} there.`
						: `It has ${lightWords[place.light]} there and wants ${need.light.map((light) => lightWords[light]).join(' or ')}.`
				},
		place.wind === null
			? { what: 'wind', answer: 'unknown', because: 'The wind there is not written down.' }
			: {
					what: 'wind',
					answer: windOrder.indexOf(place.wind) > windOrder.indexOf(need.wind) ? 'warn' : 'ok',
					because:
						windOrder.indexOf(place.wind) > windOrder.indexOf(need.wind)
							? `It is ${windWords[place.wind]} there; shelter it, tie it, or choose another place.`
							: `Wind: ${windWords[place.wind]}.`
				},
		place.waterM === null
			? { what: 'reach', answer: 'unknown', because: 'How far water is, is not written down.' }
			: {
					what: 'reach',
					answer: place.waterM > values['site.waterFarM'] ? 'warn' : 'ok',
					because:
						place.waterM > values['site.waterFarM']
							? `Water is ${measured(place.waterM, 'm')} away: a tree off the daily path is forgotten.`
							: `Water is ${measured(place.waterM, 'm')} away.`
				}
	];
	if (inGround)
		answers.push(
			drainMin === null
				? {
						what: 'drainage',
						answer: 'unknown',
						because: 'Fill a hole with water twice and time the second: drainage is not known.'
					}
				: {
						what: 'drainage',
						answer: drainMin > values['site.drainMin'] ? 'stop' : 'ok',
						because:
							drainMin > values['site.drainMin']
								? `A test hole held water for ${Math.round(drainMin / 6) / 10} h: roots drown. Drain it, plant on a mound, or choose another place.`
								: `A test hole emptied in ${Math.round(drainMin / 6) / 10} h.`
					}
		);
	return answers;
}

/** The worst of the answers. */
export const siteVerdict = (answers: readonly SiteAnswer[]): SiteAnswer['answer'] =>
	(['stop', 'warn', 'unknown'] as const).find((word) => answers.some(({ answer }) => answer === word)) ??
	'ok';
