import { calendarDate, id } from '$core/vocabulary/fields';
import { measurementInput } from '$core/examine/measuring/measurement';
import { moistureData } from '$core/examine/measuring/moisture';
import { schoolsInput, taskInput } from '$core/vocabulary/task';
import { lastRootWork } from '$core/tree/losses';
import { addDays } from '$core/maths/calendar';
import { daysAhead, dryDown } from '$core/replant/pots/dry-down';
import { leavesBorne } from '$core/tree/tree-demand';
import { tooHeavyToWeigh } from '$core/tree/weights';
import { today } from '$lib/server/clock';
import { placeSeries } from '$lib/server/weather';
import { releaseFacts } from '$core/tree/gate';
import { functionLowOf } from '$core/tree/water-state';
import { crownSchools, waterSchools } from '$core/vocabulary/words';
import { formVersion, readForm, correctsIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { recordMeasurement } from '$lib/server/examine';
import { closeTaskFromForm } from '$lib/server/edge/task-form';
import { readValues } from '$lib/server/settings';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { referenceShootMm } from '$lib/server/trees';
import { wateringForm } from '$lib/server/edge/watering-form';
import { lessWaterOfMate, recordWatering, removeWatering, waterOf } from '$lib/server/water';
import { addTask, aftercareFrom, aftercareToMake, makeAftercare, waterSchoolOf } from '$lib/server/aftercare';
import type { Actions, PageServerLoad } from './$types';

/** The feel of the mix as the water section sends it. */
const feltForm = moistureData.safeExtend({ measuredOn: calendarDate() });

/** What a page tells of work that may be planned. */
const offered = ({ toMake, over }: ReturnType<typeof aftercareToMake>) => ({
	toMake: toMake.map(({ title, reason, mark, fromOn, toOn }) => ({ title, reason, mark, fromOn, toOn })),
	over: over.map(({ title, fromOn, toOn }) => ({ title, fromOn, toOn }))
});

export const load: PageServerLoad = async ({ parent }) => {
	const { records, overrides } = await parent();
	const values = valuesInForce(overrides);
	const on = today();
	const lastWork = lastRootWork(records, values);
	const lastPlantedOn = records.plantings.at(-1)?.plantedOn ?? null;
	const counted = aftercareFrom(records, values);
	const proposals = Object.fromEntries(
		crownSchools.flatMap((crownSchool) =>
			waterSchools.map((waterSchool) => [
				`${crownSchool} ${waterSchool}`,
				offered(aftercareToMake(records, { workOn: counted, crownSchool, waterSchool }, on, values))
			])
		)
	);
	const { db } = await getStore();
	const water = await waterOf(db, records.tree.id, values);
	const place = records.places.find((one) => one.id === records.tree.placeId);
	const near = place
		? ((await placeSeries(db, on, addDays(on, 21), values)).get(place.id)?.series ?? [])
		: [];
	return {
		lastWork,
		lastPlantedOn,
		workOn: counted,
		proposals,
		usualSchool: waterSchoolOf(records, on, values),
		water,
		tooHeavy: tooHeavyToWeigh(records, on, values),
		mateLess: await lessWaterOfMate(db, records, on, values),
		dryDownDays:
			water.pot && place
				? dryDown(
						water.pot.stores,
						daysAhead(
							place,
							near.filter((day) => day.how === ''),
							on,
							leavesBorne(records, place, values),
							values
						),
						records.kind.wetnessTrigger,
						water.pot.course.at(-1)?.phi ?? 1,
						values
					)
				: null,
		facts: releaseFacts(
			records,
			functionLowOf((water.pot ?? water.ground)?.course ?? []),
			await referenceShootMm(db, records),
			values
		)
	};
};

export const actions: Actions = {
	felt: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { measuredOn, ...data } = readForm(feltForm, form);
			const { entryId } = await recordMeasurement(
				await getStore(),
				params.id,
				check(measurementInput, { measuredOn, raw: { tool: 'moisture', ...data } })
			);
			return { told: 'Kept; its water is corrected by it.', entryId };
		});
	},
	water: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { watering } = wateringForm(form);
			const corrects = correctsIn(form);
			const { entryIds: entryId } = await recordWatering(await getStore(), params.id, watering, corrects);
			return { told: corrects ? 'Changed.' : 'Kept.', entryId };
		});
	},
	unwater: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Taken out.',
			entryId: await removeWatering(
				await getStore(),
				params.id,
				check(id(), form.get('wateringId')),
				formVersion(form)
			)
		}));
	},
	make: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const entryId = await makeAftercare(
				store,
				params.id,
				readForm(schoolsInput, form),
				await readValues(store.db)
			);
			return { told: 'The aftercare is planned.', entryId };
		});
	},
	add: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Added.',
			entryId: await addTask(await getStore(), params.id, readForm(taskInput, form))
		}));
	},
	close: async ({ request }) => {
		const form = await request.formData();
		return acting(form, () => closeTaskFromForm(form));
	}
};
