<script lang="ts">
	import FileDown from '@lucide/svelte/icons/file-down';
	import Printer from '@lucide/svelte/icons/printer';
	import Button from './Button.svelte';
	import { download } from './picture';

	/** What can be done with the sheet of a page: printed, or saved as PDF. */
	interface Props {
		/** What it is a sheet of; names the file. */
		title: string;
		/** “Print the report” */
		print: string;
	}
	let { title, print }: Props = $props();
	let busy = $state(false);
	let wrong = $state('');
	async function save(): Promise<void> {
		const sheet = document.querySelector<HTMLElement>('[data-sheet]');
		if (!sheet) return;
		busy = true;
		wrong = '';
		try {
			const { sheetPdf } = await import('./sheet-pdf');
			download(`${title.replace(/[^\p{L}\p{N}]+/gu, '-')}.pdf`, await sheetPdf(sheet, title));
		} catch (cause) {
			console.error(cause);
			wrong = 'The PDF could not be made here. Print the page and save it as PDF instead.';
		} finally {
			busy = false;
		}
	}
</script>

<div class="no-print flex flex-wrap items-center gap-2">
	{#if wrong}<p class="text-sm font-semibold text-oxide" role="alert">{wrong}</p>{/if}
	<Button onclick={() => void save()} disabled={busy}
		><FileDown size={18} /> {busy ? 'Setting it …' : 'Save as PDF'}</Button
	>
	<Button tone="solid" onclick={() => window.print()}><Printer size={18} /> {print}</Button>
</div>
