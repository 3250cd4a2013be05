<!--
@component One rule, entered as its kind wants, made from the list of settings: what it is called, what it does, and
whether it was changed.
-->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { bandsAsText, readBands, type Band } from '$core/marking';
	import { readDecimal } from '$core/quantity';
	import { valueInWords, type Setting } from '$core/rules';
	import Choose from './Choose.svelte';

	type Props = {
		setting: Setting;
		value: unknown;
		/** What it would be if nobody had touched it; it is marked where it differs. */
		base?: unknown;
		networks?: { id: string; name: string }[];
		error?: string;
		disabled?: boolean;
		/** Tells what the setting does beneath it. */
		explain?: boolean;
		onchange: (value: unknown) => void;
	};
	let { setting, value, base, networks = [], error, disabled = false, explain = false, onchange }: Props = $props();

	const BANDS_EXAMPLE = '80 Merit: Well done.\n50 Pass';
	const id = $derived(`rule-${setting.path.replace('.', '-')}`);
	const kind = $derived(setting.kind);
	const isChanged = $derived(base !== undefined && JSON.stringify(base) !== JSON.stringify(value));
	const names = $derived(new Map(networks.map((one) => [one.id, one.name])));

	/** A bar that wraps can't be read as one; a list takes its place. */
	const fitsInARow = (options: { text: string }[]) =>
		options.length <= 3 && options.reduce((sum, option) => sum + option.text.length, 0) <= 44;
	const text = (event: Event) => (event.target as HTMLInputElement).value;
	/** What is no number is sent as it stands, to be refused at its field: it must not pass for "no limit". */
	const number = (typed: string) => {
		const read = readDecimal(typed);
		return read === undefined ? typed : read;
	};
	const list = (typed: string) => typed.split(/[\s,;]+/).filter(Boolean);
	function toggle(network: string) {
		const chosen = value as string[];
		onchange(chosen.includes(network) ? chosen.filter((one) => one !== network) : [...chosen, network]);
	}
</script>

<div data-rule={setting.path}>
	{#if kind.type === 'switch'}
		<Checkbox
			checked={Boolean(value)}
			{disabled}
			onchange={(event) => onchange((event.target as HTMLInputElement).checked)}
			class="text-[14px] font-semibold"
			>{setting.name}: <span class="ml-1 font-normal">{value ? kind.on : kind.off}</span></Checkbox
		>
	{:else if kind.type === 'networks'}
		<p class="text-ink-2 mb-1 text-[13px] font-semibold">{setting.name}</p>
		<div class="flex flex-wrap gap-2" role="group" aria-label={setting.name}>
			{#each networks as network (network.id)}
				<label
					class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet flex cursor-pointer items-center gap-2 rounded-lg border px-3 py-1.5 text-[14px]"
					><Checkbox
						checked={(value as string[]).includes(network.id)}
						{disabled}
						onchange={() => toggle(network.id)}
					/>{network.name}</label
				>
			{:else}<span class="text-ink-3 text-[14px]">No network is named yet.</span>{/each}
			{#each (value as string[]).filter((one) => !names.has(one)) as gone (gone)}
				<button
					type="button"
					class="bg-brick-ground text-brick rounded-lg px-3 py-1.5 text-[14px]"
					onclick={() => toggle(gone)}>a network that is gone ✕</button
				>
			{/each}
		</div>
	{:else}
		<label for={id} class="text-ink-2 mb-1 block text-[13px] font-semibold"
			>{setting.name}{kind.type === 'number' || kind.type === 'numbers' ? `, ${kind.unit}` : ''}</label
		>
		{#if kind.type === 'choice' && fitsInARow(kind.options)}
			<Choose
				name={id}
				label={setting.name}
				value={value as string}
				options={kind.options}
				{disabled}
				onchange={(chosen) => onchange(chosen)}
			/>
		{:else if kind.type === 'choice'}
			<Select
				{id}
				{disabled}
				value={value as string}
				items={kind.options.map((option) => ({ value: option.value, name: option.text }))}
				onchange={(event) => onchange(text(event))}
			/>
		{:else if kind.type === 'number'}
			<div class="w-28">
				<Input
					{id}
					{disabled}
					inputmode="numeric"
					value={(value as number | null) ?? ''}
					placeholder={kind.empty ?? ''}
					oninput={(event) => onchange(number(text(event)))}
				/>
			</div>
		{:else if kind.type === 'numbers'}
			<div class="w-36">
				<Input
					{id}
					{disabled}
					value={(value as number[]).join(', ')}
					placeholder="none"
					onchange={(event) => onchange(list(text(event)).map(number))}
				/>
			</div>
		{:else if kind.type === 'bands'}
			<Textarea
				{id}
				{disabled}
				rows={4}
				class="w-full font-mono text-[13.5px]"
				value={bandsAsText(value as (Band | string)[])}
				placeholder={BANDS_EXAMPLE}
				onchange={(event) => onchange(readBands(text(event)))}
			/>
		{:else if kind.type === 'sites'}
			<Input
				{id}
				{disabled}
				value={(value as string[]).join(' ')}
				placeholder="none"
				onchange={(event) => onchange(list(text(event)))}
			/>
		{:else}
			<div class="w-36">
				<Input
					{id}
					{disabled}
					class="font-mono"
					value={(value as string | null) ?? ''}
					placeholder={kind.type === 'word' ? 'none' : ''}
					oninput={(event) => onchange(kind.type === 'word' ? text(event) || null : text(event))}
				/>
			</div>
		{/if}
	{/if}
	{#if error}<p class="text-brick mt-1 text-[13px]" role="alert">{error}</p>{/if}
	{#if explain}<p class="text-ink-3 mt-1 text-[13px]">{setting.says}</p>{/if}
	{#if isChanged}<p class="text-plum mt-0.5 text-[12.5px] font-semibold">
			changed from {valueInWords(setting, base, names)}
		</p>{/if}
</div>
