<!-- @component What lies beside a paper: tables, charts and texts, as PDF or pictures. Their pages are kept as pictures. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { MOST_DOCUMENTS, MOST_PAGES, type Material, type Medium } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';

	type Props = { material: Material[]; onchange: (material: Material[] | undefined) => void };
	let { material, onchange }: Props = $props();

	let input = $state<HTMLInputElement | null>(null);
	let doing = $state<string | null>(null);
	let trouble = $state<string | null>(null);
	const put = (list: Material[]) => onchange(list.length > 0 ? list : undefined);

	async function keep(picture: Blob, alt: string): Promise<Medium> {
		const answer = await send<Medium>('POST', '/papers/media', picture);
		if (!answer.ok) throw new Error(inWords(answer.problem));
		return { ...answer.data, alt };
	}
	/** One document, page by page. */
	async function pagesOf(file: File): Promise<Medium[]> {
		if (!/\.pdf$/i.test(file.name) && file.type !== 'application/pdf') return [await keep(file, '')];
		const { pdfPages } = await import('./pdf-pages');
		const pages: Medium[] = [];
		for await (const { picture, words, of } of pdfPages(file, MOST_PAGES)) {
			doing = `${file.name}: page ${pages.length + 1} of ${of}…`;
			pages.push(await keep(picture, words));
		}
		return pages;
	}
	async function add(files: Iterable<File>) {
		if (doing) return;
		trouble = null;
		for (const file of files) {
			if (material.length >= MOST_DOCUMENTS) {
				trouble = `At most ${MOST_DOCUMENTS} documents lie beside a paper. Put some of them into one.`;
				break;
			}
			doing = `${file.name}…`;
			try {
				const pages = await pagesOf(file);
				const name = file.name.replace(/\.\w+$/, '').slice(0, 120) || 'Material';
				put([...material, { name, pages }]);
			} catch (error) {
				trouble = `${file.name} was not added. ${error instanceof Error ? error.message : ''} A PDF without a password, PNG, JPEG, WebP or SVG works.`;
			}
		}
		doing = null;
	}
</script>

<div
	class="border-line space-y-2 rounded-xl border p-3 text-[14px]"
	role="group"
	aria-label="Material"
	data-testid="material"
>
	<p>Material: tables, charts or texts that candidates may open beside every question</p>
	{#each material as one, i (i)}
		<div class="flex items-center gap-2">
			<img src="/papers/media/{one.pages[0].file}" alt="" class="border-line h-14 w-auto rounded border" />
			<Input
				size="sm"
				class="flex-1"
				maxlength={120}
				aria-label="Name of document {i + 1}"
				value={one.name}
				onchange={(event) => {
					const name = (event.target as HTMLInputElement).value.trim();
					if (name) put(material.with(i, { ...one, name }));
				}}
			/>
			<span class="text-ink-2 whitespace-nowrap">{one.pages.length === 1 ? '1 page' : `${one.pages.length} pages`}</span
			>
			<Act size="xs" onclick={() => put(material.toSpliced(i, 1))} title="Remove {one.name}">Remove</Act>
		</div>
	{/each}
	<div class="flex items-center gap-2">
		<Act size="xs" busy={doing !== null} onclick={() => input?.click()} testid="add-material"
			>Add a PDF or a picture…</Act
		>
		<span class="text-ink-2" role="status">{doing ?? ''}</span>
		<input
			bind:this={input}
			type="file"
			class="hidden"
			multiple
			accept="application/pdf,image/png,image/jpeg,image/webp,image/svg+xml"
			onchange={(event) => {
				const files = [...(event.currentTarget.files ?? [])];
				event.currentTarget.value = '';
				void add(files);
			}}
		/>
	</div>
	{#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
</div>
