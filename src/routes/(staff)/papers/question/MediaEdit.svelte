<!-- @component Pictures, sound and film of a question: chosen, dropped or pasted; each with words for whoever can't see or hear it. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { shows, type Medium } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import NumberEntry from './NumberEntry.svelte';

	type Props = { media: Medium[]; onchange: (media: Medium[]) => void };
	let { media, onchange }: Props = $props();

	const id = $props.id();
	let sending = $state(0);
	let trouble = $state<string | null>(null);
	let isOver = $state(false);
	let input = $state<HTMLInputElement | null>(null);

	async function add(files: Iterable<File>) {
		trouble = null;
		for (const file of files) {
			sending++;
			const answer = await send<Medium>('POST', '/papers/media', file);
			sending--;
			if (answer.ok) onchange([...media, answer.data]);
			else trouble = `${file.name}: ${inWords(answer.problem)}`;
		}
	}
	function onpaste(event: ClipboardEvent) {
		const files = [...(event.clipboardData?.files ?? [])];
		if (files.length === 0) return;
		event.preventDefault();
		void add(files);
	}
	const change = (place: number, to: Partial<Medium>) => onchange(media.with(place, { ...media[place], ...to }));
</script>

<div
	class="space-y-2 rounded-lg text-[14px] {isOver ? 'bg-mist outline-tide outline-2 outline-dashed' : ''}"
	role="group"
	aria-label="Pictures, sound and film"
	{onpaste}
	ondragover={(event) => (event.preventDefault(), (isOver = true))}
	ondragleave={() => (isOver = false)}
	ondrop={(event) => {
		event.preventDefault();
		isOver = false;
		void add(event.dataTransfer?.files ?? []);
	}}
	data-testid="media-edit"
>
	{#each media as medium, place (`${medium.file} ${place}`)}
		<div class="border-line flex flex-wrap items-start gap-3 rounded-lg border p-2">
			{#if shows(medium) === 'picture'}<img
					src="/papers/media/{medium.file}"
					alt={medium.alt || 'Nothing is said of it yet'}
					class="h-20 w-auto rounded"
				/>
			{:else if shows(medium) === 'sound'}<audio src="/papers/media/{medium.file}" controls class="h-10 w-56"></audio>
			{:else}<!-- svelte-ignore a11y_media_has_caption --><video
					src="/papers/media/{medium.file}"
					controls
					class="h-28 w-auto rounded"
				></video>{/if}
			<Field
				id="{id}-alt-{place}"
				label={shows(medium) === 'picture'
					? 'What it shows, for people who can’t see it'
					: 'What is heard, in words that candidates can open'}
				class="min-w-56 flex-1"
			>
				<Input
					id="{id}-alt-{place}"
					maxlength={2000}
					bind:value={() => medium.alt, (alt: string) => change(place, { alt })}
				/>
			</Field>
			{#if shows(medium) !== 'picture'}<NumberEntry
					id="{id}-plays-{place}"
					label="Plays, empty: any"
					class="w-36"
					value={medium.plays ?? null}
					onchange={(plays) => plays >= 1 && plays <= 99 && change(place, { plays: Math.round(plays) })}
					onempty={() => change(place, { plays: undefined })}
				/>{/if}
			<Act size="xs" class="mt-6" onclick={() => onchange(media.toSpliced(place, 1))} title="Remove the {shows(medium)}"
				>Remove</Act
			>
		</div>
	{/each}
	<div class="flex flex-wrap items-center gap-2">
		<Act size="xs" onclick={() => input?.click()} testid="add-media">Add a picture, sound or film…</Act>
		<span class="text-ink-3" role="status"
			>{sending > 0 ? 'Sending…' : media.length === 0 ? 'or drop it here' : ''}</span
		>
		<input
			bind:this={input}
			type="file"
			class="hidden"
			multiple
			accept="image/png,image/jpeg,image/webp,image/svg+xml,audio/mpeg,audio/ogg,video/mp4,video/webm"
			onchange={(event) => {
				const files = [...(event.currentTarget.files ?? [])];
				event.currentTarget.value = '';
				void add(files);
			}}
		/>
	</div>
	{#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
</div>
