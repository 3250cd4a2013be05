<!-- @component All that was ever asked for somebody, and given to them: what was withdrawn stays to be read. -->
<script lang="ts">
	import { ASKED_AS, REQUEST_STATES, REQUEST_WHAT } from '$core/request';
	import { longDate } from '$core/time';
	import type { PastGrant } from '$lib/server/grants';
	import type { Request } from '$lib/server/requests';

	type Props = { requests: Request[]; given: PastGrant[]; zone: string; now: number };
	let { requests, given, zone, now }: Props = $props();
</script>

<section class="bg-sheet border-line rounded-2xl border p-5" data-testid="history">
	<h2 class="text-[18px]">Asked for</h2>
	<ul class="mt-2 text-[14.5px]">
		{#each requests as one (one.id)}
			<li class="border-line border-b py-1.5 last:border-b-0">
				{REQUEST_WHAT[one.what]}{one.session ? `, for ${one.session.name}` : ''}:
				<strong class={one.state === 'given' ? 'text-tide' : ''}>{REQUEST_STATES[one.state].toLowerCase()}</strong>
				<span class="text-ink-2 block text-[13px]"
					>{longDate(one.at, zone, now)}, {one.as === 'candidate' ? 'the candidate' : `${one.by}, ${ASKED_AS[one.as]}`}: {one.why}{one.note
						? ` · Told: ${one.note}`
						: ''}</span
				>
			</li>
		{:else}<li class="text-ink-2 py-1.5">Nothing was asked for.</li>{/each}
	</ul>
	<h2 class="mt-5 text-[18px]">Given, with what was withdrawn</h2>
	<ul class="mt-2 text-[14.5px]">
		{#each given as one (one.id)}
			<li class="border-line border-b py-1.5 last:border-b-0 {one.withdrawnAt === null ? '' : 'text-ink-3'}">
				<span class={one.withdrawnAt === null ? '' : 'line-through'}>{one.what}</span>, {one.scope}
				<span class="text-ink-2 block text-[13px]"
					>{longDate(one.at, zone, now)}, {one.by}: {one.reason}{one.withdrawnAt === null
						? ''
						: ` · withdrawn ${longDate(one.withdrawnAt, zone, now)}`}</span
				>
			</li>
		{:else}<li class="text-ink-2 py-1.5">Nothing was given.</li>{/each}
	</ul>
</section>
