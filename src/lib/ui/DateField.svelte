<script lang="ts">
	import { DatePicker, parseDate } from '@skeletonlabs/skeleton-svelte';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { dayIn } from './days';

	/** A day, typed or taken from a calendar, with the time of day where that is asked for too. */
	let {
		label,
		value = $bindable(),
		change = (changed) => (value = changed),
		timed = false,
		time = '00:00',
		disabled = false
	}: {
		label: string;
		/** As 2027-03-02, or 2027-03-02T08:00 where it has a time; null for none. */
		value: string | null;
		change?: (value: string | null) => void;
		timed?: boolean;
		/** The time of day that a day begins with. */
		time?: string;
		disabled?: boolean;
	} = $props();

	let typed = $state<string | null>(null);
	const day = $derived(value?.slice(0, 10) ?? '');
	const clock = $derived(value?.slice(11, 16) ?? '');
	const wrong = $derived(typed !== null && typed.trim() !== '' && !dayIn(typed));
	const id = $props.id();

	const set = (to: string | null) => change(to === null ? null : timed ? `${to}T${clock === '' ? time : clock}` : to);
	/** Takes what was typed when the field is left; what is no day stays there and is said to be none. */
	function leave() {
		if (typed === null) return;
		const found = dayIn(typed);
		if (typed.trim() !== '' && !found) return;
		typed = null;
		if ((found ?? '') !== day) set(found);
	}
</script>

{#snippet head()}
	<DatePicker.ViewControl class="calendar-head">
		<DatePicker.PrevTrigger class="calendar-step"><ChevronLeft size={16} aria-hidden="true" /></DatePicker.PrevTrigger>
		<DatePicker.ViewTrigger class="calendar-title"><DatePicker.RangeText /></DatePicker.ViewTrigger>
		<DatePicker.NextTrigger class="calendar-step"><ChevronRight size={16} aria-hidden="true" /></DatePicker.NextTrigger>
	</DatePicker.ViewControl>
{/snippet}
{#snippet grid(lines: { label: string; value: number }[][])}
	<DatePicker.Table>
		<DatePicker.TableBody>
			{#each lines as line (line[0]!.value)}
				<DatePicker.TableRow>
					{#each line as cell (cell.value)}<DatePicker.TableCell value={cell.value}>
							<DatePicker.TableCellTrigger class="calendar-day">{cell.label}</DatePicker.TableCellTrigger>
						</DatePicker.TableCell>{/each}
				</DatePicker.TableRow>
			{/each}
		</DatePicker.TableBody>
	</DatePicker.Table>
{/snippet}

<div class="date" role="group" aria-label={label}>
	<DatePicker
		value={day ? [parseDate(day)] : []}
		onValueChange={(details) => {
			typed = null;
			const [chosen] = details.value;
			if ((chosen?.toString() ?? '') !== day) set(chosen?.toString() ?? null);
		}}
		locale="en-GB"
		startOfWeek={1}
		{disabled}
		positioning={{ placement: 'bottom-start' }}
	>
		<DatePicker.Control class="date-control">
			<input
				class="input date-day"
				placeholder="none"
				aria-label="{label}: the day"
				aria-invalid={wrong ? 'true' : undefined}
				aria-describedby={wrong ? `${id}-wrong` : undefined}
				{disabled}
				value={typed ?? day}
				oninput={(event) => (typed = event.currentTarget.value)}
				onchange={leave}
			/>
			<DatePicker.Trigger class="date-open" aria-label="{label}: choose the day"
				><CalendarDays size={15} aria-hidden="true" /></DatePicker.Trigger
			>
		</DatePicker.Control>
		<DatePicker.Positioner class="over">
			<DatePicker.Content class="panel calendar">
				<DatePicker.Context>
					{#snippet children(picker)}
						<DatePicker.View view="day">
							{@render head()}
							<DatePicker.Table>
								<DatePicker.TableHead>
									<DatePicker.TableRow>
										{#each picker().weekDays as weekDay (weekDay.long)}<DatePicker.TableHeader aria-label={weekDay.long}
												>{weekDay.short}</DatePicker.TableHeader
											>{/each}
									</DatePicker.TableRow>
								</DatePicker.TableHead>
								<DatePicker.TableBody>
									{#each picker().weeks as week (week[0]!.toString())}<DatePicker.TableRow>
											{#each week as shown (shown.toString())}<DatePicker.TableCell value={shown}>
													<DatePicker.TableCellTrigger class="calendar-day">{shown.day}</DatePicker.TableCellTrigger>
												</DatePicker.TableCell>{/each}
										</DatePicker.TableRow>{/each}
								</DatePicker.TableBody>
							</DatePicker.Table>
						</DatePicker.View>
						<DatePicker.View view="month">
							{@render head()}
							{@render grid(picker().getMonthsGrid({ columns: 4, format: 'short' }))}
						</DatePicker.View>
						<DatePicker.View view="year">
							{@render head()}
							{@render grid(picker().getYearsGrid({ columns: 4 }))}
						</DatePicker.View>
					{/snippet}
				</DatePicker.Context>
			</DatePicker.Content>
		</DatePicker.Positioner>
	</DatePicker>
	{#if timed}<input
			class="input date-time"
			type="time"
			aria-label="{label}: the time"
			disabled={disabled || !day}
			value={clock}
			onchange={(event) => day && event.currentTarget.value && change(`${day}T${event.currentTarget.value}`)}
		/>{/if}
	{#if wrong}<p class="broken" id="{id}-wrong" role="alert">
			“{typed}” is no day: write it as 2027-03-02 or 2.3.2027.
		</p>{/if}
</div>

<style>
	.date {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px;
	}
	.date :global(.date-control) {
		display: flex;
	}
	.date-day {
		width: 116px;
		border-start-end-radius: 0;
		border-end-end-radius: 0;
	}
	.date-time {
		width: 124px;
	}
	.date p {
		width: 100%;
		font-size: 12.5px;
	}
	[aria-invalid] {
		border-color: var(--madder);
	}
	.date :global(.date-open) {
		display: grid;
		place-items: center;
		width: 32px;
		border: 1px solid var(--line2);
		border-left: 0;
		border-radius: 0 6px 6px 0;
		cursor: pointer;
	}
	.date :global(.date-open:disabled) {
		cursor: default;
		opacity: 0.5;
	}
	.date :global(.calendar) {
		width: 264px;
		font-size: 13.5px;
	}
	.date :global(.calendar-head) {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 4px;
	}
	.date :global(.calendar-step),
	.date :global(.calendar-title) {
		display: grid;
		place-items: center;
		min-width: 28px;
		height: 28px;
		padding: 0 8px;
		border-radius: 5px;
		cursor: pointer;
	}
	.date :global(.calendar-title) {
		font-weight: 600;
	}
	.date :global(.calendar table) {
		width: 100%;
		table-layout: fixed;
		border-collapse: collapse;
	}
	.date :global(.calendar th) {
		padding: 2px 0;
		color: var(--ink2);
		font-weight: 400;
		text-align: center;
	}
	.date :global(.calendar td) {
		padding: 1px;
	}
	.date :global(.calendar-day) {
		display: grid;
		place-items: center;
		height: 28px;
		border-radius: 5px;
		cursor: pointer;
	}
	.date :global(.calendar-day[data-outside-range]) {
		color: var(--ink3);
	}
	.date :global(.calendar-day[data-today]) {
		box-shadow: inset 0 0 0 1px var(--line2);
	}
	.date :global(.calendar-day:hover),
	.date :global(.calendar-step:hover),
	.date :global(.calendar-title:hover),
	.date :global(.date-open:hover:enabled) {
		background: var(--woad-soft);
	}
	.date :global(.calendar-day[data-focus]) {
		outline: 2px solid var(--woad);
	}
	.date :global(.calendar-day[data-selected]) {
		background: var(--woad);
		color: var(--paper);
	}
</style>
