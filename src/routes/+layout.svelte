<script lang="ts">
	import { onMount } from 'svelte';
	import '../app.css';
	let { children } = $props();
	// what the server sent is seen at once, and answers from now on
	onMount(() => (document.documentElement.dataset.alive = ''));
</script>

{@render children()}
