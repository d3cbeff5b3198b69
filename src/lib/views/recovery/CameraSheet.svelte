<script lang="ts">
	import { resolve } from '$app/paths';
	import type { Picture } from '$core/take-in/picture';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';

	/** The camera with the last picture of the view laid over it, so that the next is taken from the same spot. */
	interface Props {
		open: boolean;
		last: Picture | null;
		view: string;
		/** Takes the picture over. */
		ontake: (file: File) => void;
	}
	let { open = $bindable(), last, view, ontake }: Props = $props();
	let video = $state<HTMLVideoElement>();
	let strength = $state(45);
	let problem = $state('');

	$effect(() => {
		if (!open || !video) return;
		const element = video;
		let stream: MediaStream | null = null;
		let left = false;
		problem = '';
		if (!('mediaDevices' in navigator)) {
			problem = 'This browser gives no camera here. Choose a file instead.';
			return;
		}
		navigator.mediaDevices
			.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1920 } }, audio: false })
			.then((given) => {
				if (left) return given.getTracks().forEach((track) => track.stop());
				stream = given;
				element.srcObject = given;
				return element.play();
			})
			.catch(() => {
				problem = 'The camera is not given. Allow it in the browser, or choose a file instead.';
			});
		return () => {
			left = true;
			stream?.getTracks().forEach((track) => track.stop());
		};
	});

	function take(): void {
		if (!video || video.videoWidth === 0) return;
		const canvas = document.createElement('canvas');
		canvas.width = video.videoWidth;
		canvas.height = video.videoHeight;
		canvas.getContext('2d')?.drawImage(video, 0, 0);
		canvas.toBlob(
			(blob) => {
				if (!blob) return;
				ontake(new File([blob], 'camera.jpg', { type: 'image/jpeg' }));
				open = false;
			},
			'image/jpeg',
			0.92
		);
	}
</script>

<Sheet bind:open title="Take it from the same spot: {view}">
	<div class="flex flex-col gap-3">
		{#if problem}<p class="font-semibold text-ochre" role="alert">{problem}</p>{/if}
		<div class="relative overflow-hidden rounded-sm bg-bark">
			<video bind:this={video} class="block w-full" playsinline muted></video>
			{#if last}
				<img
					src={resolve('/pictures/[file]', { file: `${last.hash}.jpg` })}
					alt="This view as it was last"
					class="absolute inset-0 size-full object-cover"
					style="opacity: {strength / 100}"
				/>
			{/if}
		</div>
		{#if last}
			<label class="flex items-center gap-3 text-sm"
				>Last picture <input
					type="range"
					min="0"
					max="90"
					bind:value={strength}
					class="h-8 flex-1 accent-lichen"
				/></label
			>
		{/if}
		<Button tone="solid" size="large" onclick={take} disabled={problem !== ''}>Take it</Button>
	</div>
</Sheet>
