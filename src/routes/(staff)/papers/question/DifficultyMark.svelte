<!-- @component How hard a question is, as a word on its own ground. -->
<script lang="ts">
	import type { Difficulty } from '$core/paper';

	let { difficulty }: { difficulty: Difficulty } = $props();
	const LOOKS = {
		easy: 'bg-mist text-tide',
		medium: 'bg-ochre-ground text-ochre',
		hard: 'bg-brick-ground text-brick'
	};
</script>

<span class="rounded-full px-2.5 py-0.5 text-[13px] font-semibold {LOOKS[difficulty]}">{difficulty}</span>
