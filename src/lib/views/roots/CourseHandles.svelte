<script lang="ts">
	import { arrowStep } from '$ui/arrow-step';
	import { courseLengthMm, planPoint, polarOf, type PlanPoint } from '$core/roots/map/geometry';
	import { nearestBark } from '$core/roots/map/outline';
	import type { CoursePoint } from '$core/roots/map/geometry';
	import type { RootMapInput, Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';
	import { onPage, type MapScale } from './draw-root';
	import type { RootsState } from './roots-state.svelte';

	/** Handles on the points of the chosen root: dragged, or moved by arrow keys; small ones between add a point. */
	interface Props {
		roots: RootsState;
		segment: Segment;
		map: RootMapInput;
		scale: MapScale;
		zoom: number;
		/** Where on the plan a pointer is. */
		planOf: (event: PointerEvent) => PlanPoint | null;
	}
	let { roots, segment, map, scale, zoom, planOf }: Props = $props();
	const format = useFormat();
	let index = $state(0);
	const draft = $derived(roots.draft);
	const course = $derived(draft?.id === segment.id ? draft.course : segment.course);
	const handles = $derived(course.map((point) => onPage(planPoint(point), scale)));
	const between = $derived(
		handles.slice(1).map((b, i) => {
			const a = handles[i] ?? b;
			return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
		})
	);

	/** A point of the course moved to a place in plan; where it leaves the trunk it stays on the bark. */
	function moved(from: readonly CoursePoint[], at: number, to: PlanPoint): CoursePoint[] {
		return from.map((point, i) => {
			if (i !== at) return point;
			const target = segment.parentId === null && at === 0 ? nearestBark(map, to) : to;
			const { azimuthDeg, radiusMm } = polarOf(target);
			// The turn nearest to where it was, so that a course round the trunk stays one piece.
			const turn = ((((azimuthDeg - point.azimuthDeg) % 360) + 540) % 360) - 180;
			const near = point.azimuthDeg + turn;
			return {
				...point,
				azimuthDeg: near > 720 ? near - 360 : near < -360 ? near + 360 : near,
				radiusMm: Math.min(20_000, radiusMm)
			};
		});
	}
	function grab(event: PointerEvent & { currentTarget: Element }, at: number, insert = false): void {
		event.currentTarget.setPointerCapture(event.pointerId);
		event.preventDefault();
		const [a, b] = [segment.course[at], segment.course[at + 1]];
		index = insert ? at + 1 : at;
		roots.draft = {
			id: segment.id,
			course:
				insert && a && b
					? [
							...segment.course.slice(0, at + 1),
							{
								azimuthDeg: (a.azimuthDeg + b.azimuthDeg) / 2,
								radiusMm: (a.radiusMm + b.radiusMm) / 2,
								depthMm: (a.depthMm + b.depthMm) / 2
							},
							...segment.course.slice(at + 1)
						]
					: segment.course
		};
	}
	function follow(event: PointerEvent): void {
		const to = draft && planOf(event);
		if (draft && to) roots.draft = { ...draft, course: moved(draft.course, index, to) };
	}
	function letGo(): void {
		if (
			draft &&
			draft.course.length <= 60 &&
			draft.course !== segment.course &&
			courseLengthMm(draft.course) >= 1
		)
			roots.change(segment.id, { course: draft.course });
		roots.draft = null;
	}
	/** Arrow keys move a point over the page; Delete takes it out. */
	function nudge(event: KeyboardEvent, at: number): void {
		const step = arrowStep(event.key);
		const point = segment.course[at];
		if (!point) return;
		if (step) {
			const by = (event.shiftKey ? 20 : 5) * scale.sign;
			const from = planPoint(point);
			const to = { x: from.x + step[0] * by, y: from.y + step[1] * by };
			roots.change(segment.id, { course: moved(segment.course, at, to) });
		} else if (event.key === 'Delete' && at > 0 && segment.course.length > 2)
			roots.change(segment.id, { course: segment.course.filter((_, i) => i !== at) });
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<g data-handles data-drag>
	{#each between as point, at (at)}
		<circle
			cx={point.x}
			cy={point.y}
			r={5 / zoom}
			class="cursor-copy touch-none fill-paper stroke-rain"
			stroke-width={1.5 / zoom}
			stroke-dasharray="{2.5 / zoom} {2 / zoom}"
			role="presentation"
			onpointerdown={(event) => grab(event, at, true)}
			onpointermove={follow}
			onpointerup={letGo}
			onpointercancel={() => (roots.draft = null)}
		/>
	{/each}
	{#each handles as point, at (at)}
		<circle
			cx={point.x}
			cy={point.y}
			r={8 / zoom}
			class="cursor-grab touch-none fill-rain stroke-paper"
			stroke-width={2 / zoom}
			role="button"
			tabindex="0"
			aria-label="Point {at + 1} of {handles.length} of the root at {format().clock(
				roots.clock(segment)
			)}: arrow keys move it"
			onpointerdown={(event) => grab(event, at)}
			onpointermove={follow}
			onpointerup={letGo}
			onpointercancel={() => (roots.draft = null)}
			onkeydown={(event) => nudge(event, at)}
		/>
	{/each}
</g>
