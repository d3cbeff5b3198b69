import { newShootsOn } from '$core/climate/cold-limit';
import { addDays } from '$core/maths/calendar';
import { workStops } from '$core/aftercare/weather/work-stop';
import { placeSeries } from '$lib/server/weather';
import { openFlags } from '$core/aftercare/tasks/flags';
import { releaseFacts } from '$core/tree/gate';
import { standingSentence } from '$core/tree/line-of-care';
import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { valuesInForce } from '$core/values/values';
import { readOverrides } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { loadRecords } from '$lib/server/records/tree-records';
import { headOf } from '$lib/server/tree-head';
import { kindBefore, referenceShootMm } from '$lib/server/trees';
import type { LayoutServerLoad } from './$types';

/** Read anew on every change of page, so that each stage sees what was kept on another, by whatever way one comes back. */
export const load: LayoutServerLoad = ({ params, url }) =>
	loading(async () => {
		void url.pathname;
		const { db } = await getStore();
		const [records, overrides] = await Promise.all([loadRecords(db, params.id), readOverrides(db)]);
		const values = valuesInForce(overrides);
		const { tree, kind, places } = records;
		const place = places.find((candidate) => candidate.id === tree.placeId);
		const ahead = place
			? (await placeSeries(db, today(), addDays(today(), 9), values)).get(place.id)?.series
			: undefined;
		const { urgent, check, waits, stands, care } = headOf(records, today(), values);
		return {
			stands,
			urgent,
			flags: tree.state === 'in-care' ? openFlags(records.tasks) : [],
			workStops: workStops(
				tree,
				kind,
				place ? newShootsOn(stands.buds, { kind, place }, today(), values) : 'none',
				ahead ?? [],
				values
			),
			records,
			overrides,
			kind,
			place: place ?? null,
			kindBefore: tree.state === 'in-care' ? await kindBefore(db, tree) : null,
			care,
			standing: standingSentence(
				records,
				today(),
				{
					facts: releaseFacts(records, [], await referenceShootMm(db, records), values),
					urgent,
					check,
					waits,
					standing: stands
				},
				values
			),
			empty: [
				...(records.examinations.length === 0 ? ['examine'] : []),
				...(records.rootMap ? [] : ['roots']),
				...([records.plantings, records.lifts, records.groundPlans].every((list) => list.length === 0)
					? ['replant']
					: []),
				...(records.tasks.length === 0 ? ['aftercare'] : []),
				...(records.observations.length === 0 ? ['recovery'] : [])
			]
		};
	});
