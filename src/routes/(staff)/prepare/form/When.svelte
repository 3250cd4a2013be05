<!-- @component When it opens and closes, and the times that follow from it. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Input from 'flowbite-svelte/Input.svelte';
	import { minutesBetween, minutesFrom, timesThatFollow } from '$core/session';
	import { clockLength, minutesAndGrace, minutesForAll, shownTime, withWholeLimit, zoneName } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import TimeField from '$ui/TimeField.svelte';
	import WindowFields from '$ui/WindowFields.svelte';
	import Part from './Part.svelte';
	import Rule from './Rule.svelte';
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();

	const clock = getClock();
	const follows = $derived.by(() => {
		if (setup.plans.length === 0 || !setup.room || !setup.input.time) return [];
		const { door, lastEntry, lastFullStart } = timesThatFollow({
			...setup.input,
			rules: withWholeLimit(setup.input.rules, setup.plans[0].questions)
		});
		return [
			`Door ${door}`,
			lastEntry && `last entry ${lastEntry}`,
			lastFullStart && `last full start ${lastFullStart}`,
			setup.input.untilDate ? 'a new code each day at midnight' : 'the code expires at midnight'
		].filter(Boolean);
	});
	const limit = $derived(setup.input.rules.timing.limitMinutes);
	const each = $derived(setup.input.rules.timing.questionSeconds);
	const suggested = $derived(setup.plans[0]?.suggestedMinutes ?? null);
	/** What the questions take, and what the limit leaves for each of them. */
	const lengthInWords = $derived.by(() => {
		const questions = setup.plans[0]?.questions ?? 0;
		if (suggested === null || questions === 0) return null;
		const usual = `About ${suggested} min are usual for its ${counted(questions, 'question')}`;
		if (each !== null) return `${usual}; ${each} s for each, ${minutesForAll(each, questions)} min in all.`;
		if (limit === null) return `${usual}.`;
		const { graceMinutes } = setup.input.rules.timing;
		return `${usual}; ${minutesAndGrace(limit, graceMinutes)}, ${clockLength((limit * 60_000) / questions)} a question.`;
	});
	let classStart = $state('');
	let settle = $state('5');
	const proposed = $derived(classStart && /^\d{1,2}$/.test(settle) ? minutesFrom(classStart, Number(settle)) : null);
	/** The window keeps its length. */
	function openAt(time: string) {
		const { time: before, until, untilDate } = setup.input;
		const by = before ? minutesBetween(before, time) : 0;
		setup.set({ time, until: until && untilDate === null ? minutesFrom(until, by) : until });
	}
</script>

<Part name="When">
	<div>
		<div class="flex flex-wrap items-start gap-3">
			<WindowFields
				inline
				names={{ opens: 'time', closes: 'until', lastDate: 'until-date' }}
				bind:date={() => setup.input.date, (date) => setup.set({ date })}
				bind:opens={() => setup.input.time, (time) => setup.set({ time })}
				bind:closes={() => setup.input.until ?? '', (until) => setup.set({ until: until || null })}
				bind:lastDate={() => setup.input.untilDate ?? null, (untilDate) => setup.set({ untilDate })}
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
		<!-- The text comes a moment later. Its place is kept so that the fields below do not move. -->
		<p class="text-ink-2 mt-1.5 min-h-[1.5em] text-[14px]">
			{#if lengthInWords}<span data-testid="length"
					>{lengthInWords}
					{#if suggested !== limit && each === null}<button
							type="button"
							class="text-tide underline"
							onclick={() => setup.setRule('timing.limitMinutes', suggested)}>take {suggested} min</button
						>{/if}</span
				>{/if}
		</p>
		<details class="mt-1 text-[14px]">
			<summary class="text-tide cursor-pointer">It begins with a class</summary>
			<div class="mt-2 flex flex-wrap items-end gap-3">
				<Field id="class-start" label="The class begins"
					><TimeField id="class-start" size="sm" bind:value={classStart} /></Field
				>
				<Field id="settle" label="To settle, min"
					><Input id="settle" size="sm" inputmode="numeric" class="w-20" bind:value={settle} /></Field
				>
				{#if proposed}<Act testid="take-settled" onclick={() => openAt(proposed)}>Open at {shownTime(proposed)}</Act
					>{/if}
				<span class="text-ink-3 pb-2">Signing in then costs no working time.</span>
			</div>
		</details>
		<p class="text-ink-3 mt-1.5 text-[13px]">
			{follows.join(' · ')}{setup.room ? ` · ${zoneName(clock.now, setup.room.zone)}, as at ${setup.room.site}` : ''}
		</p>
	</div>
</Part>
