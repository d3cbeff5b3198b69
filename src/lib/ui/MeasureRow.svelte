<script lang="ts" generics="T extends object">
	import type { StoredUnit } from '$core/text/format';
	import MeasureField from './MeasureField.svelte';
	import type { Refused } from './field';

	/** Measures of one thing, side by side: each field writes straight into what it measures. */
	type Measured = { [K in keyof T]: T[K] extends number | null ? K : never }[keyof T] & string;
	interface Measure {
		key: Measured;
		label: string;
		unit: StoredUnit | '';
		hint?: string;
		/** What an empty field means: not known yet (null), a number, or what stood before. */
		empty?: number | null | 'as-before';
		/** May stay unknown, and is marked so. */
		optional?: boolean;
		/** Counted, not measured. */
		whole?: boolean;
	}
	interface Props {
		of: T;
		/** Before the key in the name of each field, `route.` in `route.carryM`. */
		prefix: string;
		measures: Measure[];
		refused?: Refused | null;
	}
	let { of = $bindable(), prefix, measures, refused }: Props = $props();

	function set({ key, empty = null, whole = false }: Measure, value: number | null): void {
		const stands = value === null ? empty : whole ? Math.round(value) : value;
		if (stands === 'as-before') return;
		of[key] = stands as T[Measured];
	}
</script>

{#each measures as measure (measure.key)}
	<MeasureField
		name="{prefix}{measure.key}"
		label={measure.label}
		unit={measure.unit}
		hint={measure.hint}
		optional={measure.optional}
		value={of[measure.key] as number | null}
		oninput={(value) => set(measure, value)}
		{refused}
	/>
{/each}
