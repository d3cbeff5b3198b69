<script lang="ts">
	import { differences, fieldName, fieldsEntered } from '$core/text/fields';
	import { atStart } from '$core/text/mid-sentence';
	import { fieldSaid } from './field-said';
	import { useFormat } from './format';

	/** What was entered beside what was kept meanwhile, field by field. */
	interface Props {
		/** Name and text of every field that was sent. */
		entered: readonly (readonly [string, string])[];
		/** What stands there by now. */
		stands: Readonly<Record<string, string>>;
	}
	let { entered, stands }: Props = $props();
	const format = useFormat();
	const fields = $derived(differences(fieldsEntered(entered), stands));
</script>

{#if fields.length > 0}
	<table class="mt-2 w-full text-left text-ink">
		<thead>
			<tr class="text-sm text-slate">
				<th scope="col" class="py-1 pr-3 font-normal">Field</th>
				<th scope="col" class="py-1 pr-3 font-normal">You entered</th>
				<th scope="col" class="py-1 font-normal">The yard has</th>
			</tr>
		</thead>
		<tbody>
			{#each fields as { field, here, there } (field)}
				<tr class="border-t align-top">
					<th scope="row" class="py-1 pr-3 font-normal">{atStart(fieldName(field))}</th>
					<td class="py-1 pr-3 font-semibold">{fieldSaid(format(), field, here)}</td>
					<td class="py-1">{fieldSaid(format(), field, there)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
{/if}
