<!-- @component Everything that makes a session, and the sentence that tells it back. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { onDestroy, untrack, type Snippet } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { SetUpStep } from '$core/setting-up';
	import { timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import FurtherRules from './FurtherRules.svelte';
	import ItReads from './ItReads.svelte';
	import Part from './Part.svelte';
	import Parts from './Parts.svelte';
	import { SessionSetup, type Given } from './setup.svelte';
	import What from './What.svelte';
	import When from './When.svelte';
	import Where from './Where.svelte';
	import Who from './Who.svelte';

	type Props = Given & {
		title: string;
		others: { id: string; name: string; opens: number; zone: string }[];
		/** The session that this one is made from, with what came along. */
		copied?: { name: string; came: string[]; stayed: string[] } | null;
		/** What has to be there first, in its order. */
		missing?: SetUpStep[];
		/** Further acts on the session, beside its title. */
		children?: Snippet;
	};
	let { title, others, copied = null, missing = [], children, ...given }: Props = $props();
	const clock = getClock();

	const setup = new SessionSetup(untrack(() => given));
	const { keeper, choices, edit, locked } = setup;
	$effect(() => setup.ask());
	$effect(() => keeper.start());
	onDestroy(() => setup.leave());

	const typed = (event: Event) => (event.target as HTMLInputElement).value;

	/** What stands beside the day and the room; every other rule is folded by its subject. */
	const PLACED = new Set([
		'timing.limitMinutes',
		'timing.doorOpensMinutes',
		'timing.lastEntryMinutes',
		'admission',
		'door.networks'
	]);
</script>

<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-7 py-5">
		<div class="mb-1 flex flex-wrap items-center gap-3">
			<h1 class="text-[28px]">{title}</h1>
			{#if !edit && !locked}
				<span
					class="rounded-full px-3 py-1 text-[13px] font-semibold {keeper.isUnkept && !keeper.isKeeping
						? 'bg-ochre-ground text-ochre'
						: 'bg-mist text-tide'}"
					role="status"
					data-testid="kept"
					>{setup.kept === null
						? 'saved as you go'
						: keeper.isUnkept
							? 'keeping…'
							: `Saved ${timeAndDate(setup.kept.savedAt, page.data.site.zone, clock.now)}`}</span
				>
			{/if}
			{#if children}<div class="ml-auto">{@render children()}</div>{/if}
			{#if !edit && others.length > 0}
				<div class="ml-auto w-64">
					<Select
						aria-label="Start from another session"
						placeholder="Start from another session…"
						value=""
						items={others.map((one) => ({ value: one.id, name: one.name }))}
						onchange={(event) => void goto(`/prepare/new?from=${typed(event)}`, { invalidateAll: true })}
					/>
				</div>
			{/if}
		</div>
		{#if copied}
			<div class="bg-mist mt-3 mb-3 rounded-xl px-4 py-3 text-[14.5px]" data-testid="copied">
				<p><strong>From “{copied.name}” came along:</strong> {copied.came.join('; ')}.</p>
				<p class="text-ink-2 mt-1"><strong>Not taken:</strong> {copied.stayed.join('; ')}.</p>
			</div>
		{/if}
		{#if missing.length > 0 || choices.papers.length === 0 || choices.rooms.length === 0}
			<div class="bg-ochre-ground mb-3 rounded-lg px-4 py-3" data-testid="missing">
				<p class="text-ochre font-semibold">Something comes first:</p>
				<ul class="mt-1.5 space-y-1.5">
					{#each missing as step (step.key)}<li class="flex items-center gap-3">
							<span><strong>{step.name}.</strong> {step.why}</span><Act size="xs" href={step.href}>{step.act}</Act>
						</li>{:else}<li>
							{choices.rooms.length === 0
								? 'No room at a site that you coordinate.'
								: 'No paper is offered at a site that you coordinate: whoever coordinates all sites offers them under Administration.'}
						</li>{/each}
				</ul>
				<p class="text-ink-2 mt-1.5 text-[14px]">What you have typed here is kept as a draft.</p>
			</div>
		{/if}
		{#if locked}<p class="bg-ochre-ground text-ochre mb-3 rounded-lg px-3 py-2">{locked}</p>{/if}
		<fieldset disabled={locked !== null} class="divide-line divide-y">
			<What {setup} />
			<Who {setup} />
			<When {setup} />
			<Where {setup} />
			{#if setup.input.parts}
				<Part name="Sessions">
					<Parts
						parts={setup.input.parts}
						rooms={choices.rooms}
						proctors={choices.proctors}
						told={setup.plans}
						errors={setup.errors}
						onchange={(parts) => setup.set({ parts })}
					/>
				</Part>
			{/if}
			<Part name="Name">
				<div class="max-w-lg">
					<Field id="name" label="Name" error={setup.errorOf('name')} hint="proposed from paper, group and time"
						><Input
							id="name"
							placeholder={setup.plans[0]?.name ?? ''}
							value={setup.input.name}
							oninput={(event) => setup.set({ name: typed(event) })}
						/></Field
					>
				</div>
			</Part>
			<FurtherRules {setup} shown={PLACED} />
		</fieldset>
	</main>

	<ItReads {setup} />
</div>
