<!-- @component A labelled field with its refusal beneath it, which whoever hears the field hears as well. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	type Props = { id: string; label: string; error?: string; hint?: string; children: Snippet; class?: string };
	let { id, label, error, hint, children, class: extra = '' }: Props = $props();

	const beneath = $derived(error || hint ? `${id}-told` : null);
	/** The field is a component of its own: it is found by its id. */
	function tie() {
		const field = document.getElementById(id);
		if (!field) return;
		if (error) field.setAttribute('aria-invalid', 'true');
		else field.removeAttribute('aria-invalid');
		if (beneath) field.setAttribute('aria-describedby', beneath);
		else if (field.getAttribute('aria-describedby') === `${id}-told`) field.removeAttribute('aria-describedby');
	}
</script>

<div class={extra} {@attach tie}>
	<label for={id} class="text-ink-2 mb-1 block text-[13px] font-semibold">{label}</label>
	{@render children()}
	{#if error}
		<p id="{id}-told" class="text-brick mt-1 text-[13px]" role="alert">{error}</p>
	{:else if hint}
		<p id="{id}-told" class="text-ink-3 mt-1 text-[13px]">{hint}</p>
	{/if}
</div>
