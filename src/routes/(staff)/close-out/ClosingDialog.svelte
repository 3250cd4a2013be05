<!-- @component What closing makes final, read before it is done; or rehearsed, when nothing changes. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords } from '$ui/post';
	import type { PageData } from './$types';

	type Closing = NonNullable<PageData['closing']>;
	type Props = {
		open: boolean;
		standing: Closing['standing'];
		closing: Closing;
		isRehearsal: boolean;
		busy: boolean;
		error: string | null;
		/** Whose signature for a site holds. */
		signedBy(siteId: string): string | undefined;
		/** With the name as it was typed. */
		onclose(typed: string): void;
	};
	let { open = $bindable(), standing, closing, isRehearsal, busy, error, signedBy, onclose }: Props = $props();

	let typed = $state('');
	let hasRead = $state(false);
	const isReady = $derived(closing.objection === null);
	$effect(() => {
		if (open) [typed, hasRead] = ['', false];
	});
</script>

<Ask
	bind:open
	title={isRehearsal ? 'What closing would do' : `Close ${standing.administration.name}`}
	verb={isRehearsal ? 'Done' : 'Close it for good'}
	tone={isRehearsal ? 'main' : 'danger'}
	{busy}
	disabled={!isRehearsal && (!hasRead || typed.trim() !== standing.administration.name)}
	{error}
	onconfirm={() => (isRehearsal ? (open = false) : onclose(typed))}
>
	<ul class="list-disc space-y-1 pl-5" data-testid="becomes-final">
		<li><strong>{counted(standing.results, 'result')}</strong> become final, as they are marked now.</li>
		{#each standing.sites as site (site.id)}
			<li>
				{site.name}: {signedBy(site.id) ? `signed by ${signedBy(site.id)}` : 'not signed yet'}.
			</li>
		{/each}
		<li>
			{standing.ledger.columns.absent.length} absent, {standing.ledger.columns.set_aside.length} set aside,
			{standing.ledger.columns.carried_over.length} carried over: they get no result here.
		</li>
		<li>Nothing can be answered, granted, corrected, reopened or planned in it any more.</li>
		<li>Results that are not released can still be released. What is found later becomes an addendum by two people.</li>
		{#each standing.alsoCloses as words (words)}<li>{words}</li>{/each}
		<li>Its people, rooms and papers stay as they are, and other administrations are not touched.</li>
	</ul>
	{#if isRehearsal}
		<p class="mt-3 {isReady ? 'text-tide' : 'text-ochre'} font-semibold" data-testid="rehearsal">
			{closing.objection ? inWords({ code: '', ...closing.objection }) : 'It could be closed now.'}
		</p>
		<p class="text-ink-2 mt-1 text-[14px]">This is a rehearsal: nothing has changed.</p>
	{:else}
		{#if closing.needsSecond}<p class="text-ochre mt-3">
				You supervised some of these sessions, so another person has to close as well.
			</p>{/if}
		<Checkbox class="mt-3" bind:checked={hasRead}>I have read what becomes final.</Checkbox>
		<Field id="typed" label="Type its name: {standing.administration.name}" class="mt-3">
			<Input id="typed" bind:value={typed} autocomplete="off" />
		</Field>
	{/if}
</Ask>
