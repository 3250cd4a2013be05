<!-- @component When it opens and closes, and the times that follow from it. -->
<script lang="ts">
	import { timesThatFollow } from '$core/session';
	import { zoneName } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import WindowFields from '$ui/WindowFields.svelte';
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
			setup.input.untilDate ? 'a new code each day at midnight' : 'the code expires at midnight'
		].filter(Boolean);
	});
	const window = {
		get date() {
			return setup.input.date;
		},
		set date(date) {
			setup.set({ date });
		},
		get opens() {
			return setup.input.time;
		},
		set opens(time) {
			setup.set({ time });
		},
		get closes() {
			return setup.input.until ?? '';
		},
		set closes(until) {
			setup.set({ until: until || null });
		},
		get lastDate() {
			return setup.input.untilDate ?? null;
		},
		set lastDate(untilDate) {
			setup.set({ untilDate });
		}
	};
</script>

<Part name="When">
	<div>
		<div class="flex flex-wrap items-start gap-3">
			<WindowFields
				inline
				names={{ opens: 'time', closes: 'until', lastDate: 'until-date' }}
				bind:date={window.date}
				bind:opens={window.opens}
				bind:closes={window.closes}
				bind:lastDate={window.lastDate}
				errors={{
					date: setup.errorOf('date'),
					opens: setup.errorOf('time'),
					closes: setup.errorOf('until') ?? setup.errorOf('untilDate')
				}}
			/>
			<Rule {setup} path="timing.limitMinutes" />
			<Rule {setup} path="timing.doorOpensMinutes" />
			<Rule {setup} path="timing.lastEntryMinutes" />
		</div>
		<p class="text-ink-3 mt-1.5 text-[13px]">
			{follows.join(' · ')}{setup.room ? ` · ${zoneName(clock.now, setup.room.zone)}, as at ${setup.room.site}` : ''}
		</p>
	</div>
</Part>
