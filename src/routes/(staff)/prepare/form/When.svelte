<!-- @component When it opens and closes, and the times that follow from it. -->
<script lang="ts">
	import { timesThatFollow } from '$core/session';
	import { zoneName } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import DateField from '$ui/DateField.svelte';
	import Field from '$ui/Field.svelte';
	import TimeField from '$ui/TimeField.svelte';
	import Part from './Part.svelte';
	import Rule from './Rule.svelte';
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();

	const clock = getClock();
	const follows = $derived.by(() => {
		if (setup.plans.length === 0 || !setup.room || !setup.input.time) return [];
		const { door, lastEntry, lastFullStart } = timesThatFollow(setup.input);
		return [
			`Door ${door}`,
			lastEntry && `last entry ${lastEntry}`,
			lastFullStart && `last full start ${lastFullStart}`,
			'the code expires at midnight'
		].filter(Boolean);
	});
</script>

<Part name="When">
	<div>
		<div class="flex flex-wrap items-start gap-3">
			<Field id="date" label="Date" error={setup.errorOf('date')}
				><DateField id="date" value={setup.input.date} onchange={(date) => setup.set({ date })} /></Field
			>
			<Field id="time" label="Opens" error={setup.errorOf('time')}
				><TimeField id="time" value={setup.input.time} onchange={(time) => setup.set({ time })} /></Field
			>
			<Rule {setup} path="timing.limitMinutes" />
			<Field id="until" label="Closes" error={setup.errorOf('until')}
				><TimeField
					id="until"
					value={setup.input.until ?? ''}
					onchange={(until) => setup.set({ until: until || null })}
				/></Field
			>
			<Rule {setup} path="timing.doorOpensMinutes" />
			<Rule {setup} path="timing.lastEntryMinutes" />
		</div>
		<p class="text-ink-3 mt-1.5 text-[13px]">
			{follows.join(' · ')}{setup.room ? ` · ${zoneName(clock.now, setup.room.zone)}, as at ${setup.room.site}` : ''}
		</p>
	</div>
</Part>
