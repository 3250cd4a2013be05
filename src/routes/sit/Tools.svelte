<!-- @component What lies beside the paper: calculator, formulas, notes, looks, languages, the raised hand. -->
<script lang="ts">
	import { minutesInWords } from '$core/time';
	import { siteAddress } from '$core/lockdown';
	import { languageName } from '$core/session';
	import { NOTES, type Allowed } from '$core/paper';
	import type { SittingPicture } from '$core/room';
	import type { Display } from '$player/display.svelte';
	import type { Paper } from '$player/paper.svelte';
	import type { SpokenPart } from '$player/read-aloud.svelte';
	import type { Watch } from '$player/watch.svelte';
	import { ask } from '$player/ask';
	import Press from './Press.svelte';
	import Text from './question/Text.svelte';
	import Looks from './tools/Looks.svelte';
	import MaterialShown from './tools/MaterialShown.svelte';

	type Props = {
		paper: Paper;
		picture: SittingPicture;
		display: Display;
		watch: Watch | null;
		language: string | null;
		/** The calculator beside the questions that are seen. */
		calculator: Allowed;
		/** What is read aloud. */
		spoken: () => SpokenPart[];
		/** What is on the page, by a name. */
		view: string;
		onchanged: () => void;
		/** Something lies open beside the paper, which makes room for it. */
		isOpen: boolean | 'wide';
	};
	let {
		paper,
		picture,
		display,
		watch,
		calculator,
		language = $bindable(),
		spoken,
		view,
		onchanged,
		isOpen = $bindable()
	}: Props = $props();

	type Panel = 'calculator' | 'formulas' | 'material' | 'notes' | 'looks' | 'hand' | 'sites';
	let open = $state<Panel | null>(null);
	$effect(() => {
		isOpen = open === 'material' ? 'wide' : open !== null;
	});
	let words = $state('');
	let problem = $state<string | null>(null);
	const tools = $derived(picture.session.tools);
	const languages = $derived(paper.otherLanguages);
	const sites = $derived(picture.session.watch?.sites ?? []);
	const panels = $derived(
		[
			calculator !== 'none' && { key: 'calculator' as const, name: 'Calculator' },
			paper.formulaSheet.length > 0 && { key: 'formulas' as const, name: 'Formulas' },
			paper.material.length > 0 && { key: 'material' as const, name: 'Material' },
			tools.notes && { key: 'notes' as const, name: 'Notes' },
			sites.length > 0 && { key: 'sites' as const, name: 'Sites' },
			{ key: 'looks' as const, name: 'Display' }
		].filter((panel) => panel !== false)
	);
	const title = $derived(open === 'hand' ? 'Ask your proctor' : panels.find((panel) => panel.key === open)?.name);

	let asksBreak = $state(false);
	async function takeBreak() {
		if (!asksBreak) {
			asksBreak = true;
			setTimeout(() => (asksBreak = false), 6_000);
			return;
		}
		asksBreak = false;
		await paper.settle();
		await ask('POST', '/sit/api/break', { on: true });
		onchanged();
	}

	async function hand(up: boolean) {
		problem = null;
		const answer = await ask('POST', '/sit/api/hand', { up, text: words });
		if (!answer.ok) problem = 'That could not be sent just now. Raise your hand in the room as well.';
		else {
			open = null;
			words = '';
			onchanged();
		}
	}
	const button =
		'hover:bg-mist aria-pressed:bg-mist aria-pressed:text-tide rounded-lg px-3 py-1.5 text-[15px] font-semibold';
</script>

<div
	class="bg-paper border-line flex flex-wrap items-center gap-1 border-b px-5 py-1 whitespace-nowrap max-sm:flex-nowrap max-sm:overflow-x-auto max-sm:px-1 max-sm:py-0"
	role="toolbar"
	aria-label="Beside the paper"
>
	{#each panels as panel (panel.key)}
		<button
			type="button"
			class={button}
			aria-pressed={open === panel.key}
			onclick={() => (open = open === panel.key ? null : panel.key)}>{panel.name}</button
		>
	{/each}
	{#if tools.readAloud}{#await import('./ReadAloud.svelte') then { default: ReadAloud }}<ReadAloud
				{spoken}
				{view}
				language={language ?? paper.language}
				{button}
			/>{/await}{/if}
	{#each languages as each (each)}
		<button
			type="button"
			class={button}
			aria-pressed={language === each}
			onclick={() => (language = language === each ? null : each)}>In {languageName(each)}</button
		>
	{/each}
	{#if picture.breaks && picture.breaks.left > 0}
		<button type="button" class={button} onclick={takeBreak} data-testid="break"
			>{asksBreak
				? `Really? ${minutesInWords(picture.breaks.minutes)}, ${picture.breaks.stopsClock ? 'with the clock stopped' : 'and the clock runs on'}`
				: `Take a break (${picture.breaks.left} left)`}</button
		>
	{/if}
	<button
		type="button"
		class="{button} ml-auto max-sm:order-first max-sm:ml-0 {picture.hand ? 'bg-ochre-ground text-ochre' : ''}"
		aria-pressed={open === 'hand'}
		onclick={() => (picture.hand ? void hand(false) : (open = open === 'hand' ? null : 'hand'))}
		data-testid="hand">{picture.hand ? 'Your hand is up: take it down' : 'Raise a hand'}</button
	>
</div>

{#if open}
	<section
		class="bg-sheet border-line-strong fixed top-28 right-5 z-30 overflow-auto rounded-2xl border p-4 shadow-lg max-sm:inset-x-3 max-sm:w-auto {open ===
		'material'
			? 'max-h-[calc(100vh-13rem)] w-[min(50rem,48vw)]'
			: 'max-h-[70vh] w-80'}"
		aria-label={title}
		data-beside
		data-testid="panel"
	>
		<div class="mb-3 flex items-center">
			<h2 class="text-[18px]">{title}</h2>
			<button
				type="button"
				class="text-ink-2 ml-auto px-2 text-[20px]"
				aria-label="Close {title}"
				onclick={() => (open = null)}>×</button
			>
		</div>
		{#if open === 'calculator' && calculator !== 'none'}
			{#await import('./tools/Calculator.svelte')}<p class="text-ink-2">
					One moment…
				</p>{:then { default: Calculator }}<Calculator kind={calculator} />{:catch}<p>
					The calculator could not be loaded. Close this and open it again when the connection is back.
				</p>{/await}
		{:else if open === 'formulas'}
			<ul class="space-y-3 text-[16px]">
				{#each paper.formulaSheet as line (line)}<li><Text text={line} /></li>{/each}
			</ul>
		{:else if open === 'material'}
			<MaterialShown material={paper.material} media={paper.media} />
		{:else if open === 'notes'}
			<label>
				<span class="text-ink-2 mb-1.5 block text-[14px]"
					>Only you see these. They are kept with your paper and are not marked.</span
				>
				<textarea
					class="bg-paper border-line-strong text-ink w-full rounded-xl border px-3 py-2 text-[16px]"
					rows="9"
					maxlength="20000"
					value={String(paper.of(NOTES).value ?? '')}
					oninput={(event) => paper.change(NOTES, { value: event.currentTarget.value || null }, true)}
					data-testid="notes"></textarea>
			</label>
		{:else if open === 'sites'}
			<p class="text-ink-2 mb-2 text-[14px]">These open in a tab of their own. Come back to this one afterwards.</p>
			<ul class="space-y-1.5">
				{#each sites as site (site)}
					<li>
						<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- an address outside -->
						<a
							class="text-tide underline"
							href={siteAddress(site)}
							target="_blank"
							rel="noreferrer noopener"
							onclick={() => watch?.siteOpened()}>{site}</a
						>
					</li>
				{/each}
			</ul>
		{:else if open === 'looks'}
			<Looks {display} />
		{:else if open === 'hand'}
			<form
				class="space-y-3"
				onsubmit={(event) => {
					event.preventDefault();
					void hand(true);
				}}
			>
				<label class="block">
					<span class="text-ink-2 mb-1 block text-[14px]">What is it about? You may leave this empty.</span>
					<input
						bind:value={words}
						maxlength="300"
						class="bg-paper border-line-strong text-ink w-full rounded-xl border px-3 py-2 text-[16px]"
						autocomplete="off"
					/>
				</label>
				{#if problem}<p class="text-ochre text-[15px]" role="alert">{problem}</p>{/if}
				<Press main type="submit" testid="raise">Raise a hand</Press>
			</form>
		{/if}
	</section>
{/if}
