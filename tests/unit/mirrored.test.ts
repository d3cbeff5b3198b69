import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '$core/maths/calendar';
import { placeSchema } from '$core/vocabulary/place';
import { growingSeason, nightTemperature } from '$core/climate/normals';
import { seasonFit } from '$core/climate/windows';
import { kindSchema } from '$core/vocabulary/kind';
import { shippedKinds } from '$core/vocabulary/shipped';
import { defaultValues as values } from '$core/values/values';
import { leafCalendar } from '$core/tree/tree-demand';
import { proposeAftercare } from '$lib/server/aftercare';
import { cut, plantingOn, treeRecords } from '../records';

/** Half a year: what the stand-in climate lags by between the hemispheres. */
const HALF_YEAR = 182;
const kinds = shippedKinds.map((kind) => kindSchema.parse({ ...kind, version: 1 }));
const at = (latitudeDeg: number, kind: 'open' | 'cold-frame' | 'greenhouse') =>
	placeSchema.parse({ id: 'p', version: 1, name: 'Bench', kind, latitudeDeg, note: '' });
const cases = fc.record({
	kind: fc.constantFrom(...kinds),
	latitudeDeg: fc.integer({ min: 12, max: 58 }),
	day: fc.integer({ min: 0, max: 364 }),
	placeKind: fc.constantFrom('open' as const, 'cold-frame' as const, 'greenhouse' as const)
});
const NEAR_DAYS = 5;

describe('a place is its mirror on the other side of the equator, half a year apart', () => {
	it('in its nights, its season and its leaves', () => {
		fc.assert(
			fc.property(cases, ({ kind, latitudeDeg, day, placeKind }) => {
				const on = addDays('2025-01-01', day);
				const then = addDays(on, HALF_YEAR);
				const [north, south] = [at(latitudeDeg, placeKind), at(-latitudeDeg, placeKind)];
				const night = nightTemperature(north, on, values).coldC;
				expect(nightTemperature(south, then, values).coldC).toBeCloseTo(night, 0);
				const fits = [-NEAR_DAYS, 0, NEAR_DAYS].map((by) => seasonFit(kind, north, addDays(on, by), values));
				// Not at the edge of a window, where a day decides.
				if (new Set(fits).size === 1)
					expect(seasonFit(kind, south, then, values), `${kind.id} ${on}`).toBe(fits[1]);
				const leaves = [-NEAR_DAYS, 0, NEAR_DAYS].map((by) =>
					leafCalendar(kind, north, values)(addDays(on, by))
				);
				if (new Set(leaves).size === 1) expect(leafCalendar(kind, south, values)(then)).toBe(leaves[1]);
				const season = growingSeason(north, false, 2025, values);
				const other = growingSeason(south, false, 2025, values);
				expect(other === null).toBe(season === null);
			}),
			{ numRuns: 150 }
		);
	});
	it('in the aftercare that a work asks for', () => {
		const seen = new Set<string | undefined>();
		let met = 0;
		fc.assert(
			fc.property(cases, fc.boolean(), ({ kind, latitudeDeg, day, placeKind }, dryFirst) => {
				const workOn = addDays('2025-01-01', day);
				const asked = (latitude: number, on: string) =>
					proposeAftercare(
						// A tenth to a third of its living root goes, so that shelter and winter place are asked for.
						treeRecords({ kind, places: [at(latitude, placeKind)], plantings: [plantingOn(on)] }, [
							cut('r3', 0, on),
							cut('r4', 0, on)
						]),
						{
							workOn: on,
							crownSchool: 'keep-leaves',
							waterSchool: dryFirst ? 'dry-rest' : 'at-once'
						},
						values
					).map((task) => ({
						rule: task.source.split('@')[0],
						title: task.title,
						from: daysBetween(on, task.fromOn),
						to: daysBetween(on, task.toOn)
					}));
				// Not at the edge of a window or of a season, where a day decides what is asked, and when.
				const [before = [], north = [], after = []] = [-NEAR_DAYS, 0, NEAR_DAYS].map((by) =>
					asked(latitudeDeg, addDays(workOn, by))
				);
				const named = (tasks: typeof north) => tasks.map((task) => [task.rule, task.title]);
				const alike = [before, after].every(
					(other) =>
						JSON.stringify(named(other)) === JSON.stringify(named(north)) &&
						other.every(
							({ from, to }, i) =>
								Math.abs(from - (north[i]?.from ?? 0)) <= NEAR_DAYS &&
								Math.abs(to - (north[i]?.to ?? 0)) <= NEAR_DAYS
						)
				);
				if (!alike) return;
				met++;
				const south = asked(-latitudeDeg, addDays(workOn, HALF_YEAR));
				expect(named(south)).toEqual(named(north));
				for (const [i, task] of south.entries()) {
					seen.add(task.rule);
					expect(Math.abs(task.from - (north[i]?.from ?? 0)), task.rule).toBeLessThanOrEqual(8);
					expect(Math.abs(task.to - (north[i]?.to ?? 0)), task.rule).toBeLessThanOrEqual(8);
				}
			}),
			{ numRuns: 120 }
		);
		expect(met).toBeGreaterThan(60);
		expect([...seen]).toEqual(
			expect.arrayContaining(['shelter-on', 'shelter', 'cold', 'feeding', 'first-buds'])
		);
	});
});
