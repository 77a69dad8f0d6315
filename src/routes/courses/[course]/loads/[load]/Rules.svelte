<script lang="ts">
	import NumberField from '$lib/ui/NumberField.svelte';
	import { parseRules, type Rules } from '$core/take-in/decision';
	import TagsField from '$lib/ui/TagsField.svelte';
	import type { Review } from './review.svelte';

	/** The rules by which a load is taken in, with those that were saved by name. */
	let {
		review,
		saved,
		courseId,
		close
	}: { review: Review; saved: { name: string; rules: Rules }[]; courseId: number; close: () => void } = $props();

	const against = [
		['same', 'the same as one'],
		['changed', 'a change of one'],
		['near', 'nearly the same as one']
	] as const;
	const matches = $derived(
		Object.fromEntries(
			against.map(([match]) => [match, review.summary.matches.find((other) => other.match === match)?.questions ?? 0])
		)
	);
	let name = $state('');
	let kept = $state('');
	let more = $state<{ name: string; rules: Rules }[]>([]);
	const all = $derived([...saved.filter((rule) => !more.some((other) => other.name === rule.name)), ...more]);

	async function save() {
		const rules = parseRules($state.snapshot(review.decision));
		if (await review.ask({ do: 'rules', name, rules })) {
			more = [...more.filter((rule) => rule.name !== name), { name, rules }];
			kept = `Kept as “${name}”.`;
		}
	}
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && close()} />
<section class="panel" aria-label="Rules">
	<div class="flex items-baseline gap-4">
		<h2>Rules for this load</h2>
		{#if all.length}<label
				>Saved rules <select
					class="select"
					onchange={(event) => {
						const rule = all.find((other) => other.name === event.currentTarget.value);
						if (rule) Object.assign(review.decision, structuredClone($state.snapshot(rule.rules)));
					}}
					><option value="">choose</option>{#each all as rule (rule.name)}<option value={rule.name}>{rule.name}</option
						>{/each}</select
				></label
			>{/if}
		<button type="button" class="btn btn-sm preset-outlined-brand ml-auto" onclick={close}>Close</button>
	</div>
	<div class="grid3">
		<fieldset>
			<legend>What is there already</legend>
			<label
				><span>Held against</span><select
					class="select"
					aria-label="What the questions are held against"
					bind:value={review.decision.against}
					><option value="course">all of the course</option><option value="bank">the bank they go to</option><option
						value="nothing">nothing: take all in</option
					></select
				></label
			>
			{#each against as [match, words] (match)}
				<label
					><span>{matches[match]} {words}</span>
					<select class="select" aria-label="Questions that are {words}" bind:value={review.decision[match]}>
						<option value="skip">skip</option><option value="beside">take in beside it</option><option value="replace"
							>put in its place, keep the old version</option
						>
					</select></label
				>
			{/each}
		</fieldset>
		<fieldset class="wide">
			<legend>Questions that are broken</legend>
			<label
				><span>The rule</span><select
					class="select"
					aria-label="Questions in error"
					bind:value={review.decision.errors}
				>
					<option value="aside">good ones in, rest set aside</option><option value="nothing"
						>nothing unless all are good</option
					><option value="each">decide on each</option>
				</select></label
			>
			<legend class="mt-3">Categories</legend>
			<label
				><span>They are</span><select class="select" aria-label="Categories" bind:value={review.decision.categories}
					><option value="keep">kept, or where you put them</option><option value="one">all in one</option></select
				></label
			>
			{#if review.decision.categories === 'one'}<label
					><span>Called</span><input
						class="input"
						aria-label="Name of the one category"
						placeholder="the bank itself"
						maxlength="255"
						bind:value={review.decision.oneCategory}
					/></label
				>{/if}
		</fieldset>
		<fieldset>
			<legend>In every question</legend>
			<label
				><span>Points</span><NumberField
					live
					width="100%"
					label="Points of every question"
					placeholder="as they are"
					bind:value={review.decision.points}
				/></label
			>
			<label
				><span>Option shuffle</span><select class="select" bind:value={review.decision.shuffle}
					><option value="keep">as it is</option><option value="on">on, except for pinned ones</option><option
						value="off">off</option
					></select
				></label
			>
			<label
				><span>Written by</span><select
					class="select"
					aria-label="Who wrote the questions"
					bind:value={review.decision.writtenBy}
					><option value="unsaid">people, or not said</option><option value="machine"
						>a language model: each key is to be verified</option
					></select
				></label
			>
			<div class="line">
				<span>Tags to add</span><TagsField
					label="Tags to add"
					hidesLabel
					tags={review.decision.tags}
					change={(tags) => (review.decision.tags = tags)}
					{courseId}
				/>
			</div>
			<label
				><span>Allowed credit, in percent</span><input
					class="input"
					placeholder="any"
					value={review.decision.creditSteps.join('; ')}
					onchange={(event) =>
						(review.decision.creditSteps = event.currentTarget.value
							.split(/[;\s]+/)
							.map((share) => Number(share.replace(',', '.').replace('%', '')))
							.filter(
								(share) => Number.isFinite(share) && share >= -100 && share <= 100 && event.currentTarget.value.trim()
							))}
				/></label
			>
			{#if review.decision.creditSteps.length}<label
					><span>Other credit</span><select class="select" bind:value={review.decision.creditOtherwise}
						><option value="keep">is kept</option><option value="nearest">goes to the nearest</option><option
							value="aside">is set aside</option
						></select
					></label
				>{/if}
		</fieldset>
	</div>
	<div class="mt-3 flex items-center gap-3">
		<label>Save these rules as <input class="input" maxlength="120" bind:value={name} placeholder="name" /></label
		><button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			disabled={!name.trim() || review.busy}
			onclick={save}>Save</button
		>
		<span class="mute" role="status">{kept}</span>
		<span class="mute ml-auto"
			>The course begins with these rules the next time, but for points, shuffle, tags and moved credit.</span
		>
	</div>
</section>

<style>
	.panel {
		position: fixed;
		inset: auto 0 54px;
		z-index: 5;
		padding: 16px 20px;
		max-height: calc(100vh - 160px);
		overflow: auto;
		background: var(--paper);
		border-top: 1.5px solid var(--line2);
	}
	.grid3 {
		display: grid;
		grid-template-columns: 1.2fr 1fr 1.2fr;
		gap: 28px;
		margin-top: 10px;
	}
	legend {
		font-weight: 600;
		padding-bottom: 4px;
	}
	fieldset label,
	.line {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
		align-items: center;
		gap: 10px;
		padding: 3px 0;
		border-top: 1px solid var(--line);
	}
	.wide label {
		grid-template-columns: 76px minmax(0, 1fr);
	}
	fieldset :is(.input, .select) {
		width: 100%;
	}
</style>
