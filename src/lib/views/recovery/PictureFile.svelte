<script lang="ts">
	/** A picture from the phone's camera or a file; HEIC of a telephone becomes JPEG where the browser can read it. */
	interface Props {
		today: string;
		/** The day that a HEIC file says it was taken on. */
		ontaken?: (day: string) => void;
	}
	let { today, ontaken }: Props = $props();
	let input = $state<HTMLInputElement>();
	let chosen = $state('');
	/** The lens that a HEIC file says, mm on 35 mm film: what it is turned into does not say it. */
	let focal35Mm = $state<number | null>(null);

	/** Where it cannot be read, the answer says what to do. */
	async function readable(): Promise<void> {
		chosen = '';
		focal35Mm = null;
		const file = input?.files?.[0];
		if (!file || !/hei[cf]/i.test(`${file.type} ${file.name}`)) return;
		chosen = 'reading HEIC …';
		try {
			const { jpegOf } = await import('./heic');
			const { jpeg, takenOn: day, focal35Mm: lens } = await jpegOf(file);
			took(jpeg);
			focal35Mm = lens;
			chosen = `${file.name}, turned into JPEG here`;
			if (day && day <= today) ontaken?.(day);
		} catch {
			chosen = '';
		}
	}
	/** Puts what a camera took where a chosen file would be. */
	export function took(file: File): void {
		if (!input) return;
		const list = new DataTransfer();
		list.items.add(file);
		input.files = list.files;
		focal35Mm = null;
		chosen = 'taken with the camera';
	}
	/** Says nothing of a file any more. */
	export function forget(): void {
		chosen = '';
	}
</script>

<label class="flex flex-col gap-1">
	<span class="text-sm font-semibold">File</span>
	<input
		bind:this={input}
		class="input"
		type="file"
		name="file"
		accept="image/jpeg,image/png,image/webp,image/heic"
		capture="environment"
		onchange={() => void readable()}
	/>
	{#if focal35Mm !== null}<input type="hidden" name="focal35Mm" value={focal35Mm} />{/if}
	{#if chosen}<span class="text-sm text-lichen">{chosen}</span>{/if}
</label>
