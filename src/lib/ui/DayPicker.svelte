<script lang="ts">
	import { parseDate, type DateValue } from '@internationalized/date';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { Calendar, Popover } from 'bits-ui';

	/** A month to choose a day from, beside the field it belongs to. */
	interface Props {
		open: boolean;
		/** Chosen day, or empty. */
		value: string;
		today: string;
		locale: string;
		anchor: HTMLElement | null;
		min?: string | undefined;
		max?: string | undefined;
		onchosen: (on: string) => void;
	}
	let { open = $bindable(), value, today, locale, anchor, min, max, onchosen }: Props = $props();
	let month = $state<HTMLElement | null>(null);
	const day = (on: string | undefined): DateValue | undefined => (on ? parseDate(on) : undefined);
</script>

<Popover.Root bind:open>
	<Popover.Portal>
		<Popover.Content
			customAnchor={anchor}
			align="end"
			sideOffset={6}
			class="z-60 rounded-md border border-edge bg-leaf p-3 shadow-lg outline-none"
			bind:ref={month}
			onOpenAutoFocus={(event) => {
				event.preventDefault();
				month?.querySelector<HTMLElement>('[role=gridcell] [tabindex="0"]')?.focus();
			}}
			onCloseAutoFocus={(event) => {
				event.preventDefault();
				anchor?.focus();
			}}
		>
			<Calendar.Root
				type="single"
				value={day(value)}
				placeholder={day(value || today)}
				minValue={day(min)}
				maxValue={day(max)}
				{locale}
				fixedWeeks
				weekdayFormat="short"
				onValueChange={(chosen) => {
					if (!chosen) return;
					onchosen(chosen.toString());
					open = false;
				}}
			>
				{#snippet children({ months, weekdays })}
					<Calendar.Header class="mb-2 flex items-center justify-between">
						<Calendar.PrevButton
							class="grid size-11 place-items-center rounded-md hover:bg-duff"
							aria-label="Month before"><ChevronLeft size={18} aria-hidden="true" /></Calendar.PrevButton
						>
						<Calendar.Heading class="font-display font-semibold" />
						<Calendar.NextButton
							class="grid size-11 place-items-center rounded-md hover:bg-duff"
							aria-label="Month after"><ChevronRight size={18} aria-hidden="true" /></Calendar.NextButton
						>
					</Calendar.Header>
					{#each months as shown (shown.value.toString())}
						<Calendar.Grid class="border-collapse">
							<Calendar.GridHead>
								<Calendar.GridRow>
									{#each weekdays as name (name)}
										<Calendar.HeadCell class="w-11 pb-1 text-center text-xs font-normal text-slate"
											>{name}</Calendar.HeadCell
										>
									{/each}
								</Calendar.GridRow>
							</Calendar.GridHead>
							<Calendar.GridBody>
								{#each shown.weeks as week (week[0]?.toString())}
									<Calendar.GridRow>
										{#each week as date (date.toString())}
											<Calendar.Cell {date} month={shown.value} class="p-0 text-center">
												<Calendar.Day
													class={[
														'grid size-11 place-items-center rounded-md hover:bg-duff data-disabled:!text-edge data-outside-month:text-slate data-selected:bg-ink data-selected:font-semibold data-selected:text-paper data-unavailable:line-through',
														date.toString() === today && 'border-2 border-oxide'
													]}
												/>
											</Calendar.Cell>
										{/each}
									</Calendar.GridRow>
								{/each}
							</Calendar.GridBody>
						</Calendar.Grid>
					{/each}
				{/snippet}
			</Calendar.Root>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
