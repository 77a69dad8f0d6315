<script lang="ts">
	/** Ways to keep a receipt: on paper and as files; and the way back to all loads. */
	let { receipt, loads }: { receipt: string; loads: string } = $props();
</script>

<button type="button" class="word text-[13px]" onclick={() => print()}>Print</button>
<a class="word text-[13px]" href="{receipt}/file?as=csv" download>CSV</a>
<a class="word text-[13px]" href="{receipt}/file?as=html" download>HTML</a>
<a class="word text-[13px]" href={loads}>all loads</a>
