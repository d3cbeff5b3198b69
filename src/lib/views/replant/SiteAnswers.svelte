<script lang="ts">
	import type { SiteAnswer } from '$core/replant/ground/site-check';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import Check from '@lucide/svelte/icons/check';
	import CircleHelp from '@lucide/svelte/icons/circle-help';
	import OctagonX from '@lucide/svelte/icons/octagon-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';

	/** A place against the limits of the kind: what stops, what warns, what nobody looked at. */
	interface Props {
		answers: readonly Pick<SiteAnswer, 'answer' | 'because'>[];
		label?: string;
	}
	let { answers, label = 'The place against its limits' }: Props = $props();
	const format = useFormat();
	const faces = {
		stop: { icon: OctagonX, tone: 'text-oxide', word: 'Stop' },
		warn: { icon: TriangleAlert, tone: 'text-ochre', word: 'Care' },
		unknown: { icon: CircleHelp, tone: 'text-slate', word: 'Not known' },
		ok: { icon: Check, tone: 'text-lichen', word: 'Good' }
	};
	const order = ['stop', 'warn', 'unknown', 'ok'];
	const sorted = $derived([...answers].sort((a, b) => order.indexOf(a.answer) - order.indexOf(b.answer)));
</script>

<ul class="divide-y border-y text-sm" aria-label={label}>
	{#each sorted as { answer, because } (because)}
		{@const face = faces[answer]}
		{@const Icon = face.icon}
		<li class="flex items-start gap-2 py-1.5">
			<Icon size={17} class={['mt-0.5 shrink-0', face.tone]} aria-hidden="true" />
			<span><strong class={face.tone}>{face.word}.</strong> <Terms text={format().inWords(because)} /></span>
		</li>
	{/each}
</ul>
