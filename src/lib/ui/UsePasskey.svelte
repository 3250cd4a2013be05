<!-- @component A press that shows by a passkey who is there. -->
<script lang="ts">
	import Act from './Act.svelte';
	import { usePasskey } from './passkey';

	type Props = {
		path: string;
		/** Where to go on to, for a path that leads there. */
		to?: string;
		main?: boolean;
		onused: (next: string) => void;
		ontrouble: (message: string) => void;
	};
	let { path, to = '', main = false, onused, ontrouble }: Props = $props();
	let busy = $state(false);

	async function press() {
		busy = true;
		const result = await usePasskey(path, to);
		busy = false;
		if (result.ok) onused(result.next);
		else ontrouble(result.message);
	}
</script>

<Act tone={main ? 'main' : 'quiet'} onclick={press} {busy} class="w-full" testid="passkey">Use a passkey</Act>
