<!-- @component Beside the room while nobody is chosen: script, prints, whom to turn to, handing over. -->
<script lang="ts">
	import type { RoomHead } from '$core/room';
	import Act from '$ui/Act.svelte';
	import RoomScript from './RoomScript.svelte';

	type Props = {
		head: RoomHead;
		contacts: { name: string; role: string; email: string | null }[];
		/** Whom to turn to outside, by problem. */
		help: { problem: string; name: string; telephone: string; email: string; hours: string }[];
		onhandover: () => void;
	};
	let { head, contacts, help, onhandover }: Props = $props();

	const PAPERS = [
		['script', 'Script'],
		['register', 'Register'],
		['seating', 'Seating plan'],
		['slips', 'Slips'],
		['help', 'Help sheet']
	] as const;
</script>

<p class="text-ink-3 text-[14px]">Choose a seat to see one candidate: time, history, and what you can do.</p>
<h2 class="mt-5 text-[17px]">At hand</h2>
<div class="mt-1.5"><RoomScript sessionId={head.id} /></div>
<p class="mt-2.5 text-[14.5px]">
	To print:
	{#each PAPERS.filter(([what]) => what !== 'slips' || head.slips) as [what, name], i (what)}{i > 0 ? ', ' : ''}<a
			class="text-tide underline"
			href="/prepare/{head.id}/print/{what}"
			target="_blank">{name.toLowerCase()}</a
		>{/each}
</p>
{#if head.startWord || head.finishWord}
	<dl class="mt-4 grid grid-cols-[auto_1fr] gap-x-3 text-[14px]">
		{#if head.startWord}<dt class="text-ink-2">Start word</dt>
			<dd class="font-mono font-semibold">{head.startWord}</dd>{/if}
		{#if head.finishWord}<dt class="text-ink-2">Finish word</dt>
			<dd class="font-mono font-semibold">{head.finishWord}</dd>{/if}
	</dl>
{/if}
<h2 class="mt-5 text-[17px]">Who can help</h2>
{#if help.length > 0}
	<ul class="mt-1.5 space-y-1.5 text-[14.5px]" data-testid="help">
		{#each help as one (`${one.problem} ${one.name}`)}
			<li>
				<strong>{one.problem}</strong>: {one.name}{one.hours ? `, ${one.hours}` : ''}<br />
				<a class="text-tide font-mono underline" href="tel:{one.telephone.replace(/[^+\d]/g, '')}">{one.telephone}</a>
				{#if one.email}<a class="text-tide underline" href="mailto:{one.email}">{one.email}</a>{/if}
			</li>
		{/each}
	</ul>
{/if}
{#if contacts.length === 0}<p class="text-ink-3 text-[14px]">Nobody is named for this site yet.</p>{/if}
<ul class="mt-1.5 space-y-1.5 text-[14.5px]">
	{#each contacts as contact (`${contact.name} ${contact.role}`)}
		<li>
			{contact.name} <span class="text-ink-3">{contact.role}</span>
			{#if contact.email}<br /><a class="text-tide underline" href="mailto:{contact.email}">{contact.email}</a>{/if}
		</li>
	{/each}
</ul>
{#if head.endedAt === null}<div class="mt-5"><Act onclick={onhandover}>Hand this room over…</Act></div>{/if}
