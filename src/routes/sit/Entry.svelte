<!--
@component A large field for one line that a candidate types. Bound, not only listened to: what is typed on a slow device
before the page is alive is taken over, not wiped out.
-->
<script lang="ts">
	type Props = {
		label: string;
		value: string;
		name?: string;
		most?: number;
		placeholder?: string;
		/** Signs to be told apart one by one, as in numbers and words given out. */
		mono?: boolean;
		optional?: boolean;
	};
	let { label, value = $bindable(), name, most, placeholder, mono = false, optional = false }: Props = $props();
</script>

<label class="block">
	<span class="mb-1 block text-[16px] font-semibold">{label}</span>
	<input
		bind:value
		{name}
		{placeholder}
		required={!optional}
		maxlength={most}
		autocomplete="off"
		autocorrect="off"
		autocapitalize={mono ? 'characters' : 'words'}
		spellcheck="false"
		class="bg-sheet border-line-strong w-full rounded-xl border px-4 py-3 text-[20px] {mono ? 'font-mono' : ''}"
	/>
</label>
