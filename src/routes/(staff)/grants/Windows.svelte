<!-- @component The windows that would fit somebody, nearest first; or that there is none. -->
<script lang="ts">
	import type { Foreseen, Proposal } from '$core/grants';
	import { minutesInWords, clockTime, localDate, localTime, timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import type { Entered } from './what';
	import { zoneBeside } from '$ui/zone-beside';

	type Props = {
		look: NonNullable<Foreseen['look']>;
		entered: Entered;
		/** Their time does not fit as it is. */
		isShort: boolean;
		onchoose(one: Proposal): void;
	};
	let { look, entered, isShort, onchoose }: Props = $props();
	const clock = getClock();

	const isEntered = (one: Proposal) =>
		entered.kind === 'own_window' &&
		entered.date === localDate(one.opens, look.zone) &&
		entered.opens === localTime(one.opens, look.zone) &&
		entered.closes === localTime(one.closes, look.zone) &&
		entered.roomId === one.room.id;
	const awayInWords = ({ away }: Proposal) => {
		const minutes = Math.abs(Math.round(away / 60_000));
		if (minutes === 0) return 'same time';
		const days = minutes / 1_440;
		const hours = Math.floor(minutes / 60);
		const rest = minutes % 60 === 0 ? '' : ` ${minutes % 60} min`;
		const length = days >= 1 ? `${Math.round(days)} d` : hours === 0 ? `${minutes} min` : `${hours} h${rest}`;
		return `${length} ${away < 0 ? 'earlier' : 'later'}`;
	};
</script>

{#if look.proposals.length > 0 && (entered.kind === 'own_window' || isShort)}
	<fieldset>
		<legend class="mb-1 font-serif text-[16px] font-semibold">Windows that fit, nearest first</legend>
		<ul class="space-y-1.5" data-testid="proposals">
			{#each look.proposals as one (one.opens)}
				<li>
					<button
						type="button"
						aria-pressed={isEntered(one)}
						class="w-full rounded-xl border px-3 py-2 text-left {isEntered(one)
							? 'border-plum bg-plum-ground'
							: 'border-line hover:border-plum'}"
						onclick={() => onchoose(one)}
						><span class="flex gap-2"
							><strong class="flex-1"
								>{timeAndDate(one.opens, look.zone, look.base.opens)} to {clockTime(one.closes, look.zone)}{zoneBeside(
									one.closes,
									look.zone
								)}</strong
							><span class="text-ink-2 text-[13.5px]">{awayInWords(one)}</span></span
						><span class="text-ink-2 block text-[13.5px]"
							>{one.room.name}{one.proctor ? `, with ${one.proctor.name}` : ', supervised then'} · {one.taken} of {one.seats}
							seats taken</span
						></button
					>
				</li>
			{/each}
		</ul>
	</fieldset>
{:else if look.proposals.length === 0 && isShort && look.minutes !== null}
	<p class="bg-ochre-ground text-ochre rounded-lg px-3 py-2 text-[14px]">
		No window of {minutesInWords(look.minutes)} is left {look.base.opens < clock.now
			? 'in the next days'
			: 'on that day'}: rooms, proctors or commitments stand in the way. Give a window on another day by hand.
	</p>
{/if}
