<!--
@component A text being written, with what makes words look otherwise, lists and tables. It is kept as plain text; formulas
are typed in TeX between dollar signs and shown below as they will be.
-->
<script lang="ts">
	import { Editor, Extension } from '@tiptap/core';
	import Subscript from '@tiptap/extension-subscript';
	import Superscript from '@tiptap/extension-superscript';
	import { TableKit } from '@tiptap/extension-table';
	import StarterKit from '@tiptap/starter-kit';
	import { onMount, untrack } from 'svelte';
	import { blocksOf } from '$core/paper';
	import Blocks from '../../../sit/question/Blocks.svelte';
	import { fromDocument, toDocument } from './stem-document';

	type Props = {
		id: string;
		label: string;
		hint: string;
		value: string;
		onchange: (value: string) => void;
		/** Enter was pressed in a line; true: it has gone on elsewhere. */
		onenter?: () => boolean;
		isFocused?: boolean;
		class?: string;
	};
	let { id, label, hint, value, onchange, onenter, isFocused = false, class: extra = '' }: Props = $props();

	let place = $state<HTMLElement | null>(null);
	let editor = $state.raw<Editor | null>(null);
	/** Counts what the editor has done, so that buttons show how the words look where one writes. */
	let turn = $state(0);
	let written = untrack(() => value);
	const MOST = 20_000;
	/** Keys come faster than the rest of the page should follow: it is told when they rest for a moment. */
	const REST_MS = 120;
	let resting: ReturnType<typeof setTimeout> | undefined;
	/** Tells what is written, if that waits to be told. */
	export function leave() {
		if (resting === undefined) return;
		clearTimeout(resting);
		resting = undefined;
		written = fromDocument(editor!.getJSON());
		onchange(written);
	}

	onMount(() => {
		const keys = Extension.create({
			name: 'keys',
			priority: 1_000,
			addKeyboardShortcuts: () => ({
				Enter: ({ editor }) => !editor.isActive('listItem') && !editor.isActive('table') && (onenter?.() ?? false),
				'Shift-Enter': ({ editor }) => editor.commands.splitBlock()
			})
		});
		const made = new Editor({
			element: place,
			// Style elements are forbidden here; what the editor needs of them is below.
			injectCSS: false,
			content: toDocument(value),
			extensions: [
				StarterKit.configure({
					heading: false,
					blockquote: false,
					codeBlock: false,
					horizontalRule: false,
					strike: false,
					link: false,
					underline: false,
					hardBreak: false,
					trailingNode: false
				}),
				Subscript,
				Superscript,
				TableKit.configure({ table: { resizable: false } }),
				keys
			],
			editorProps: {
				attributes: {
					id,
					role: 'textbox',
					'aria-multiline': 'true',
					'aria-labelledby': `${id}-label`,
					'aria-describedby': `${id}-hint`,
					class: `stem min-h-16 px-3 py-2.5 font-serif text-[17px] outline-none ${extra}`
				}
			},
			// An editor that is taken off the page loses the focus in the middle of that: what shows it changes a moment later.
			onTransaction: () => queueMicrotask(() => turn++),
			onUpdate: () => {
				clearTimeout(resting);
				resting = setTimeout(leave, REST_MS);
			}
		});
		editor = made;
		// At once: what is typed next belongs here.
		if (isFocused) {
			made.commands.setTextSelection(made.state.doc.content.size);
			made.view.focus();
		}
		return () => {
			clearTimeout(resting);
			made.destroy();
		};
	});
	// What came from elsewhere, as by undo.
	$effect(() => {
		const now = value;
		untrack(() => {
			// What was just typed is told first; who else has written is asked about then.
			if (now === written || resting !== undefined || !editor) return;
			written = now;
			editor.commands.setContent(toDocument(now), { emitUpdate: false });
		});
	});

	type Tool = { name: string; sign: string; key?: string; active?: string; act: (editor: Editor) => void };
	const TOOLS: Tool[] = [
		{ name: 'Bold', sign: 'B', key: 'Ctrl B', active: 'bold', act: (e) => e.chain().focus().toggleBold().run() },
		{ name: 'Italic', sign: 'I', key: 'Ctrl I', active: 'italic', act: (e) => e.chain().focus().toggleItalic().run() },
		{
			name: 'Below',
			sign: 'x₂',
			key: 'Ctrl ,',
			active: 'subscript',
			act: (e) => e.chain().focus().toggleSubscript().run()
		},
		{
			name: 'Above',
			sign: 'x²',
			key: 'Ctrl .',
			active: 'superscript',
			act: (e) => e.chain().focus().toggleSuperscript().run()
		},
		{ name: 'List', sign: '•–', active: 'bulletList', act: (e) => e.chain().focus().toggleBulletList().run() },
		{
			name: 'Numbered list',
			sign: '1.',
			active: 'orderedList',
			act: (e) => e.chain().focus().toggleOrderedList().run()
		},
		{
			name: 'Table',
			sign: 'Table',
			active: 'table',
			act: (e) =>
				e.isActive('table')
					? e.chain().focus().deleteTable().run()
					: e.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()
		}
	];
	const IN_TABLE: Tool[] = [
		{ name: 'Row below', sign: '+ row', act: (e) => e.chain().focus().addRowAfter().run() },
		{ name: 'Column to the right', sign: '+ column', act: (e) => e.chain().focus().addColumnAfter().run() },
		{ name: 'Remove this row', sign: '− row', act: (e) => e.chain().focus().deleteRow().run() },
		{ name: 'Remove this column', sign: '− column', act: (e) => e.chain().focus().deleteColumn().run() }
	];
	const isActive = (name: string | undefined) => turn >= 0 && name !== undefined && (editor?.isActive(name) ?? false);
	const shownTools = $derived(isActive('table') ? [...TOOLS, ...IN_TABLE] : TOOLS);
</script>

<div>
	<div class="mb-1 flex flex-wrap items-center gap-1">
		<span id="{id}-label" class="text-ink-2 mr-auto text-[13px] font-semibold">{label}</span>
		<div role="toolbar" aria-label="How words look" class="flex flex-wrap gap-1">
			{#each shownTools as { name, sign, key, active, act } (name)}
				<button
					type="button"
					class="min-w-7 rounded-md border px-1.5 py-0.5 text-[13px] font-semibold {isActive(active)
						? 'bg-mist border-tide'
						: 'border-line hover:bg-paper'}"
					title={key ? `${name} (${key})` : name}
					aria-pressed={active ? isActive(active) : undefined}
					onmousedown={(event) => event.preventDefault()}
					onclick={() => editor && act(editor)}
					><span aria-hidden="true">{sign}</span><span class="sr-only">{name}</span></button
				>
			{/each}
		</div>
	</div>
	<div bind:this={place} class="border-line-strong focus-within:border-tide bg-paper rounded-lg border"></div>
	<p id="{id}-hint" class="text-ink-2 mt-1 text-[13px]">{hint}</p>
	{#if value.length > MOST}<p class="text-brick text-[14px]" role="alert">
			This text has {value.length.toLocaleString('en')} signs; {MOST.toLocaleString('en')} is the most. What is over is not
			kept.
		</p>{/if}
	{#if value.includes('$')}
		<div class="bg-mist mt-1 rounded-lg px-3 py-2 font-serif text-[17px]" data-testid="as-shown">
			<span class="text-ink-2 block font-sans text-[13px]">As it will be shown</span>
			<Blocks blocks={blocksOf(value)} />
		</div>
	{/if}
</div>

<style>
	/* What the editor would put into a style element of its own. */
	div :global(.stem) {
		position: relative;
		word-wrap: break-word;
		white-space: break-spaces;
		font-variant-ligatures: none;
	}
	div :global(.stem ul) {
		list-style: disc;
		padding-left: 1.6em;
	}
	div :global(.stem ol) {
		list-style: decimal;
		padding-left: 1.6em;
	}
	div :global(.stem table) {
		border-collapse: collapse;
		margin: 0.4em 0;
	}
	div :global(.stem th),
	div :global(.stem td) {
		border: 1px solid var(--color-line-strong);
		padding: 0.2em 0.6em;
		min-width: 4em;
		text-align: left;
	}
	div :global(.stem code) {
		font-family: var(--font-mono);
		font-size: 0.9em;
	}
</style>
