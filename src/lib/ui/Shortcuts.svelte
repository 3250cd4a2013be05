<!--
@component The keys of a view: the only place that hears a key which nothing has the focus for. What a key means where is
told by `shortcutOf`.
-->
<script lang="ts">
	import { shortcutOf } from '$core/shortcuts';
	import { singleKeys } from './shortcuts.svelte';

	type Props = {
		/** By key, small letters; what it does when it is asked for, with what had the focus. */
		keys?: Record<string, (target: Element) => void>;
		/** Together with Alt or Ctrl, `Alt+ArrowUp`, `Ctrl+z`: wherever the focus is but in a field or a dialog. */
		combined?: Record<string, (target: Element) => void>;
		/** Those with Ctrl or Alt act from within fields as well. */
		fromFields?: boolean;
	};
	let { keys = {}, combined = {}, fromFields = false }: Props = $props();

	function onkeydown(event: KeyboardEvent) {
		const target = event.target instanceof Element ? event.target : document.body;
		const isCombined = event.ctrlKey || event.metaKey || event.altKey;
		const { key, repeat: isRepeat, isComposing } = event;
		const run = isCombined ? combinedOf(event, target) : keyOf();
		function keyOf() {
			const asked = shortcutOf({ key, isCombined, isRepeat, isComposing }, singleKeys.around(target));
			return asked !== null && Object.hasOwn(keys, asked) ? keys[asked] : undefined;
		}
		if (!run) return;
		event.preventDefault();
		run(target);
	}
	function combinedOf(event: KeyboardEvent, target: Element) {
		const name = [event.ctrlKey && 'Ctrl', event.metaKey && 'Meta', event.altKey && 'Alt']
			.filter(Boolean)
			.concat(event.key.length === 1 ? event.key.toLowerCase() : event.key)
			.join('+');
		const { focus, isCovered } = singleKeys.around(target);
		return (focus === 'field' && !fromFields) || isCovered || !Object.hasOwn(combined, name)
			? undefined
			: combined[name];
	}
</script>

<!-- eslint-disable-next-line no-restricted-syntax -- the one listener -->
<svelte:window {onkeydown} />
