<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { isStructural } from '$core/roots/map/shares';
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import type { Place } from '$core/vocabulary/place';
	import { addDays } from '$core/maths/calendar';
	import { contextFor } from '$core/tree/carried';
	import { redFlags } from '$core/examine/diagnosis/red-flags';
	import { openFlags, referralResults } from '$core/aftercare/tasks/flags';
	import { structuralRootZoneRadiusM } from '$core/roots/plan/zones';
	import type { Standing } from '$core/tree/standing';
	import { recoveryForecast } from '$core/recovery/forecast';
	import { putOff, sideName } from '$core/aftercare/book/book';
	import { ownersRoots } from '$core/roots/plan/consent';
	import { carryOver } from '$core/roots/plan/done';
	import { startAzimuth, type Segment } from '$core/roots/map/root-map';
	import { mayFall, ownersLetter } from '$core/recovery/owner-letter';
	import { planStanding } from '$core/roots/plan/plan-standing';
	import type { Values } from '$core/values/values';
	import { useFormat } from '$ui/format';
	import type { RecoveryOf } from '$core/tree/recovery-of';

	/** A letter to the owner of a tree in the ground, for print. */
	interface Props {
		records: TreeRecords;
		place: Place;
		stands: Standing;
		of: RecoveryOf;
		values: Values;
		today: string;
	}
	let { records, stands, place, of, values, today }: Props = $props();
	const format = useFormat();
	const { tree, kind } = $derived(records);
	const rootOf = (id: string) => records.rootMap?.segments.find((segment) => segment.id === id);
	const rootWords = (segment: Segment): string =>
		`towards ${sideName(startAzimuth(segment), true)}, ${format().measure(segment.diameterStartMm, 'mm')} thick`;
	const letter = $derived.by(() => {
		const { rootMap, plan } = records;
		// Of a look that was kept before such things were put on the list.
		const look = records.examinations.at(-1);
		const raised = records.tasks.some((task) => task.source === `referral@${look?.id ?? ''}`);
		const open = openFlags(records.tasks);
		const flags =
			look && !raised && open.length === 0
				? redFlags(
						tree,
						kind,
						place,
						look,
						contextFor(records, look.examinedOn, look.events, look.id, values).context,
						values
					).map((one) => ({
						...one,
						byOn: addDays(look.examinedOn, one.inDays)
					}))
				: open;
		const done = plan && { ...plan, cuts: plan.cuts.filter((cut) => cut.state === 'done') };
		const windows =
			rootMap && done
				? planStanding({ tree, kind }, place, rootMap, done, values).ledger.windows.flatMap(
						({ azimuthDeg, left }) => (left === null ? [] : [{ middleDeg: azimuthDeg, share: left }])
					)
				: [];
		const structural = new Set(rootMap?.segments.filter(isStructural).map((root) => root.id));
		const forecast = recoveryForecast(of.case, values, { bands: false });
		return ownersLetter({
			treeName: tree.name,
			kindName: kind.commonName,
			place: place.name,
			today,
			trunkDiameterMm: tree.trunkDiameterMm,
			heightM: tree.heightM,
			windows,
			wanted: values['anchorage.wantedShare'],
			assumed: rootMap?.segments.some((root) => root.seenToMm !== null) ?? false,
			structuralCuts: (done?.cuts ?? []).filter((cut) => structural.has(cut.segmentId)).length,
			cuts: (done?.cuts ?? []).flatMap((cut) => {
				const segment = rootOf(cut.segmentId);
				return segment
					? [
							{
								on: format().date(cut.doneOn ?? today),
								root: rootWords(segment),
								why: [cut.reason, cut.because].filter(Boolean).join('; ')
							}
						]
					: [];
			}),
			asked:
				rootMap && plan
					? ownersRoots(
							rootMap,
							plan,
							{ permission: stands.permission.value ?? tree.permission },
							values
						).map(({ segment, cut, consent }) => ({
							root: rootWords(segment),
							why: cut?.reason ?? '',
							answer: consent?.answer ?? null,
							on: consent ? format().date(consent.on) : null,
							how: consent?.how ?? ''
						}))
					: [],
			carried: [
				...(rootMap && plan ? carryOver(rootMap, plan, null) : []).flatMap(
					({ segmentId, why, first, fromOn }) => {
						const segment = rootOf(segmentId);
						return segment
							? [
									{
										what: `The root ${rootWords(segment)}`,
										why,
										first,
										fromOn: fromOn && format().date(fromOn)
									}
								]
							: [];
					}
				),
				...putOff(records.book, today).map(({ what, first, fromOn }) => ({
					what: atStart(what),
					why: '',
					first,
					fromOn: fromOn && format().date(fromOn)
				}))
			],
			structuralRot:
				rootMap?.segments.some((root) => structural.has(root.id) && root.condition === 'dead') ?? false,
			firmness: stands.firmness.value,
			firmnessOn: stands.firmness.on ? format().date(stands.firmness.on) : null,
			referrals: flags.map(({ title, reason, byOn }) => `${title}, by ${format().date(byOn)}. ${reason}`),
			results: referralResults(records.tasks).map((one) => ({ ...one, on: format().date(one.on) })),
			probability: forecast.known && forecast.lastSeenOn !== null ? forecast.now : null,
			probabilityLow: forecast.low,
			probabilityHigh: forecast.high,
			vigour: tree.vigour,
			mayFall: mayFall(tree, values),
			structuralZoneM: structuralRootZoneRadiusM(tree.trunkDiameterMm / 1000, values),
			next: records.tasks
				.filter((task) => task.state === 'open')
				.sort((a, b) => a.fromOn.localeCompare(b.fromOn))
				.slice(0, 4)
				.map((task) => ({ on: format().date(task.fromOn), what: task.title }))
		});
	});
</script>

<div class="page py-5">
	<div class="no-print mb-4 flex flex-wrap items-end justify-between gap-3">
		<a class="chalk" href={resolve('/trees/[id]/recovery', { id: tree.id })}>Back to Recovery</a>
		<SheetActions title="{tree.tag} letter" print="Print the letter" />
	</div>
	<article
		data-sheet
		class="sheet mx-auto max-w-[46rem] border bg-leaf p-4 sm:p-10"
		aria-label="Letter to the owner"
	>
		<p class="text-sm">{format().date(today)}</p>
		<h2 class="mt-4 text-2xl">{tree.name}</h2>
		<p>{kind.commonName}, {place.name}</p>
		{#each letter.sections as section (section.title)}
			<h3 class="mt-5 text-lg">{section.title}</h3>
			{#each section.paragraphs as paragraph, i (i)}
				<p class={['mt-1.5', section === letter.sections[0] && i === 0 && 'text-lg font-semibold']}>
					{format().inWords(paragraph)}
				</p>
			{/each}
		{/each}
		<p class="mt-8 text-sm text-slate">
			This letter says what was seen and measured up to its date. It is no certificate of stability and does
			not replace the judgement of a qualified arborist on the spot.
		</p>
		<p class="mt-10 border-t pt-1 text-sm">Name, date, signature</p>
	</article>
</div>
