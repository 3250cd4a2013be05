<!-- @component A question in other languages: what it says in the paper's own stands beside it, line by line. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { plainText, type Question, type Wording } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';

	type Props = {
		question: Question;
		/** Languages of the paper's other questions: offered by a press. */
		languages: string[];
		onchange: (inOther: Record<string, Wording> | undefined) => void;
	};
	let { question, languages, onchange }: Props = $props();

	let asked = $state('');
	const others = $derived(question.inOther ?? {});
	const tags = $derived(Object.keys(others));
	/** What is said beside the stem; a number or a sign needs no other words. */
	const texts = $derived(
		[
			...('choices' in question ? question.choices : []),
			...(question.kind === 'matching' ? [...question.items, ...question.matches] : [])
		].filter(({ text }) => /\p{L}/u.test(text))
	);
	const names = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' });
	const nameOf = (tag: string) => {
		try {
			return names.of(tag) ?? tag;
		} catch {
			return tag;
		}
	};
	const missing = (wording: Wording) =>
		Number(!wording.stem.trim()) + texts.filter(({ id }) => !wording.texts?.[id]?.trim()).length;
	const isTag = (tag: string) => /^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(tag);
	const offered = $derived(languages.filter((tag) => !tags.includes(tag)));

	function add(tag: string) {
		if (!isTag(tag) || tags.includes(tag)) return;
		onchange({ ...others, [tag]: { stem: '' } });
		asked = '';
	}
	const change = (tag: string, wording: Wording) => onchange({ ...others, [tag]: wording });
	function remove(tag: string) {
		const { [tag]: _, ...rest } = others;
		onchange(Object.keys(rest).length > 0 ? rest : undefined);
	}
</script>

<details class="text-[14px]">
	<summary class="text-ink-2 font-semibold" data-testid="languages"
		>Other languages{tags.length > 0
			? `: ${tags.map((tag) => `${nameOf(tag)}${missing(others[tag]) > 0 ? `, ${missing(others[tag])} missing` : ''}`).join('; ')}`
			: ''}</summary
	>
	<div class="mt-2 space-y-4">
		{#each tags as tag (tag)}
			{@const wording = others[tag]}
			<div class="border-line rounded-lg border p-3" data-testid="language-{tag}">
				<div class="mb-2 flex items-center gap-2">
					<strong>{nameOf(tag)}</strong>
					<Act size="xs" class="ml-auto" onclick={() => remove(tag)}>Remove {nameOf(tag)}</Act>
				</div>
				<div class="grid grid-cols-2 gap-x-3 gap-y-2">
					<p class="font-serif text-[15px] whitespace-pre-line">{plainText(question.stem)}</p>
					<div>
						<label class="sr-only" for="stem-{tag}">Question in {nameOf(tag)}</label>
						<Textarea
							id="stem-{tag}"
							rows={2}
							lang={tag}
							class="w-full font-serif text-[15px]"
							maxlength={20_000}
							bind:value={() => wording.stem, (stem: string) => change(tag, { ...wording, stem })}
						/>
					</div>
					{#each texts as { id, text } (id)}
						<p class="self-center">{plainText(text)}</p>
						<div>
							<label class="sr-only" for="text-{tag}-{id}">{plainText(text)} in {nameOf(tag)}</label>
							<Input
								id="text-{tag}-{id}"
								lang={tag}
								maxlength={2000}
								bind:value={
									() => wording.texts?.[id] ?? '',
									(said: string) => change(tag, { ...wording, texts: { ...wording.texts, [id]: said } })
								}
							/>
						</div>
					{/each}
				</div>
			</div>
		{/each}
		<div class="flex flex-wrap items-end gap-2">
			{#each offered as tag (tag)}<Act size="xs" onclick={() => add(tag)}>Add {nameOf(tag)}</Act>{/each}
			<Field id="language-tag" label="Another language, as pt or cy" class="w-44">
				<Input id="language-tag" bind:value={asked} maxlength={35} autocomplete="off" />
			</Field>
			<Act size="xs" disabled={!isTag(asked.trim())} onclick={() => add(asked.trim())} testid="add-language">Add</Act>
		</div>
	</div>
</details>
