<!--
@component A question before an act on several people, or one that can't be undone: it names whom it touches and what
becomes of their work.
-->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import type { Snippet } from 'svelte';
	import Act from './Act.svelte';

	type Props = {
		open: boolean;
		title: string;
		/** The verb on the button that does it. */
		verb: string;
		tone?: 'main' | 'danger' | 'grant';
		busy?: boolean;
		disabled?: boolean;
		error?: string | null;
		onconfirm: () => void;
		children: Snippet;
	};
	let {
		open = $bindable(),
		title,
		verb,
		tone = 'main',
		busy = false,
		disabled = false,
		error = null,
		onconfirm,
		children
	}: Props = $props();

	/**
	 * Enter leads to the act where it can be undone, else to Cancel; a field in the dialog comes first. The dialog opens with
	 * its own idea of where to begin, and is told ours after that.
	 */
	function begin(body: HTMLElement) {
		if (body.querySelector('input:not([type=checkbox]), textarea, select')) return;
		const timer = setTimeout(() =>
			body
				.closest('dialog')
				?.querySelector<HTMLElement>(`[data-testid="${tone === 'danger' ? 'cancel' : 'confirm'}"]`)
				?.focus()
		);
		return () => clearTimeout(timer);
	}
</script>

<Modal aria-label={title} bind:open {title} size="sm" class="bg-sheet" outsideclose={!busy}>
	<div class="text-ink text-[15px]" {@attach begin}>{@render children()}</div>
	{#if error}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{error}</p>{/if}
	{#snippet footer()}
		<Act onclick={() => (open = false)} disabled={busy} testid="cancel">Cancel</Act>
		<Act {tone} onclick={onconfirm} {busy} {disabled} testid="confirm">{verb}</Act>
	{/snippet}
</Modal>
