<script lang="ts">
	import { useListCollection, Listbox, Popover } from '@skeletonlabs/skeleton-svelte';
	import { goto } from '$app/navigation';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';

	interface Course {
		id: number;
		name: string;
		code: string;
		intake: string;
	}
	/** The course that is open, and a list to find another by its name, code or intake; `addressOf` is where that leads. */
	let { course, courses, addressOf }: { course: Course; courses: Course[]; addressOf: (course: Course) => string } =
		$props();

	let open = $state(false);
	let words = $state('');
	const found = $derived(
		courses.filter(({ name, code, intake }) =>
			`${name} ${code} ${intake}`.toLowerCase().includes(words.trim().toLowerCase())
		)
	);
	const collection = $derived(
		useListCollection({
			items: found,
			itemToValue: ({ id }) => String(id),
			itemToString: ({ name, code }) => `${name} ${code}`
		})
	);
	function choose(value: string | undefined) {
		const chosen = courses.find(({ id }) => String(id) === value);
		if (!chosen) return;
		open = false;
		void goto(addressOf(chosen));
	}
	/** One that is left over needs no arrow key. */
	function enter(event: KeyboardEvent) {
		if (event.key === 'Enter' && found.length === 1) choose(String(found[0]!.id));
	}
	const atOnce = (node: HTMLElement) => node.focus();
</script>

<Popover
	{open}
	onOpenChange={(details) => {
		open = details.open;
		words = '';
	}}
	positioning={{ placement: 'bottom-start', offset: { mainAxis: 2, crossAxis: 0 } }}
>
	<Popover.Trigger class="course-button">
		<b class="heading cut">{course.name}</b>
		<span class="mute"
			>{[course.code, course.intake].filter(Boolean).join(' · ')}
			<ChevronDown size={12} aria-hidden="true" class="inline" /><span class="visually-hidden">choose a course</span
			></span
		>
	</Popover.Trigger>
	<Popover.Positioner class="over">
		<Popover.Content class="panel w-[360px]" aria-label="Courses">
			{#if open}
				<Listbox {collection} value={[String(course.id)]} onSelect={({ value }: { value: string }) => choose(value)}>
					<Listbox.Label class="visually-hidden">Courses</Listbox.Label>
					<Listbox.Input>
						{#snippet element(attributes)}<input
								{...attributes}
								class="input w-full"
								type="search"
								placeholder="find a course"
								aria-label="Find a course"
								bind:value={words}
								onkeydown={(event) => {
									enter(event);
									attributes.onkeydown?.(event as never);
								}}
								use:atOnce
							/>{/snippet}
					</Listbox.Input>
					<Listbox.Content class="choices">
						{#each found as item (item.id)}
							<Listbox.Item {item} class="choice-line"
								><b>{item.name}</b> <span class="mute">{item.code} · {item.intake}</span></Listbox.Item
							>
						{/each}
					</Listbox.Content>
					{#if !found.length}<p class="mute p-2">No course of yours is called so.</p>{/if}
				</Listbox>
				<a class="word mt-1 block p-2" href="/">All courses</a>
			{/if}
		</Popover.Content>
	</Popover.Positioner>
</Popover>

<style>
	:global(.course-button) {
		display: block;
		width: 100%;
		text-align: left;
		cursor: pointer;
	}
	:global(.course-button) .heading {
		display: block;
		font-size: 16px;
		line-height: 1.2;
	}
	:global(.course-button) .mute {
		font-size: 12.5px;
	}
</style>
