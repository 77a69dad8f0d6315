<script lang="ts">
	import type { WordForms } from '$core/paper/word/document';
	import { percentOf } from '$lib/ui/percent';

	/** The key of one form with what each question is worth and which it is in the bank, and a sheet to mark by. */
	let {
		title,
		form
	}: {
		title: string;
		form: WordForms['forms'][number];
	} = $props();

	const asked = $derived(form.questions.filter(({ number }) => number !== null));
	const outOf = $derived(asked.reduce((sum, { points }) => sum + (points ?? 0), 0));
</script>

<section>
	<h2>{title}, form {form.name}: the key</h2>
	<table class="table">
		<thead
			><tr
				><th class="number">No.</th><th>Key</th><th class="number">points</th><th class="number">weight</th><th
					>Question of the bank</th
				><th class="earned">earned</th></tr
			></thead
		>
		<tbody>
			{#each asked as question (question.id)}<tr
					><td class="number">{question.number}</td><td><b>{question.key}</b></td><td class="number"
						>{question.points}</td
					><td class="number">{percentOf(outOf ? (question.points ?? 0) / outOf : 0)}</td><td
						>{question.title} <span class="mute">#{question.id}</span></td
					><td class="earned"></td></tr
				>{/each}
		</tbody>
		<tfoot
			><tr
				><td></td><td>in all</td><td class="number"><b>{Math.round(outOf * 100) / 100}</b></td><td></td><td></td><td
					class="earned"
				></td></tr
			></tfoot
		>
	</table>
</section>

<style>
	section {
		max-width: 180mm;
		margin-bottom: 28px;
	}
	tr {
		break-inside: avoid;
	}
	.earned {
		width: 22mm;
		border-bottom: 1px solid var(--ink3);
	}
	@media print {
		section {
			break-after: page;
			max-width: none;
		}
		section:last-child {
			break-after: auto;
		}
	}
</style>
