<script lang="ts">
	import { letterAt } from '$core/paper/letters';
	import type { PaperBlock } from '$core/paper';
	import type { Attachment } from '$core/model/question';
	import Frame from '$lib/ui/kinds/show/Frame.svelte';
	import { rich } from '$lib/ui/rich';

	/** What stands under the stem of a question on paper: options, lines to write on, pairs, pictures. */
	let {
		blocks,
		attachments,
		courseId
	}: { blocks: readonly PaperBlock[]; attachments: readonly Attachment[]; courseId: number } = $props();

	function addressOf(name: string): string | null {
		const file = attachments.find((other) => other.name === name);
		return file?.hash ? `/courses/${courseId}/files/${file.hash}?as=${encodeURIComponent(file.mediaType)}` : null;
	}
</script>

{#snippet html(markup: string)}
	<!-- cleaned by core/markup before it was stored, and there is a content security policy besides -->
	<!-- eslint-disable-next-line svelte/no-at-html-tags -->
	<span class="rich">{@html rich(markup, attachments, courseId)}</span>
{/snippet}
{#each blocks as block, at (at)}
	{#if block.sort === 'options'}<ul>
			{#each block.options as option, place (place)}<li>
					<span class="box" class:square={block.several}></span><b>{letterAt(place)}</b>
					{@render html(option)}
				</li>{/each}
		</ul>
	{:else if block.sort === 'lines'}<div class="lines">
			{#each { length: block.count } as _, line (line)}<div class="line" class:first={line === 0 && block.before}>
					{line === 0 ? block.before : ''}<span></span>{line === block.count - 1 ? block.after : ''}
				</div>{/each}
		</div>
	{:else if block.sort === 'pairs'}<div class="pairs">
			<ol>
				{#each block.left as left, place (place)}<li>
						<b>{place + 1}</b>
						{@render html(left)} <span class="gap"></span>
					</li>{/each}
			</ol>
			<ol>
				{#each block.right as right, place (place)}<li><b>{letterAt(place)}</b> {@render html(right)}</li>{/each}
			</ol>
		</div>
	{:else if block.sort === 'order'}<ul>
			{#each block.items as item, place (place)}<li><b>{letterAt(place)}</b> {@render html(item)}</li>{/each}
		</ul>
		<p class="order">
			In order: {#each block.items as _, place (place)}<span class="gap"></span>{/each}
		</p>
	{:else if block.sort === 'picture'}<Frame
			picture={block.picture}
			address={addressOf(block.picture.name)}
			places={block.places}
			right={() => false}
		/>
	{:else if block.sort === 'words'}<p class="words">
			{block.title}: {#each block.words as word, place (place)}<span class="word-of"
					><b>{letterAt(place)}</b> {@render html(word)}</span
				>{/each}
		</p>
	{:else}<p>{block.text}</p>{/if}
{/each}

<style>
	ul,
	ol {
		margin: 6px 0;
	}
	li {
		display: flex;
		gap: 8px;
		align-items: baseline;
		padding: 2px 0;
	}
	.box {
		flex: 0 0 12px;
		height: 12px;
		border: 1.2px solid currentColor;
		border-radius: 50%;
		transform: translateY(1px);
	}
	.square {
		border-radius: 1px;
	}
	.line {
		display: flex;
		gap: 8px;
		align-items: flex-end;
		height: 9mm;
	}
	.line span {
		flex: 1;
		border-bottom: 1px solid var(--ink3);
	}
	.pairs {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 24px;
	}
	.gap {
		display: inline-block;
		flex: 0 0 26px;
		width: 26px;
		margin: 0 4px;
		border-bottom: 1px solid currentColor;
	}
	.pairs .gap {
		margin-left: auto;
	}
	.word-of {
		display: inline-flex;
		gap: 5px;
		margin-right: 16px;
	}
	p {
		margin: 6px 0;
		white-space: pre-wrap;
	}
</style>
