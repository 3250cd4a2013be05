<!-- @component Colleagues from a pasted list: what was read of each line, and what all of them may do. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { untrack } from 'svelte';
	import { ROLE_NAMES, ROLE_WORDS, STAFF_ROLES, type StaffRole } from '$core/access';
	import { counted } from '$core/names';
	import { readStaffLines } from '$core/setting-up';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	type Made = { name: string; signIn: string; link: string | null; fault: string | null };
	type Props = {
		staff: { signIn: string; email: string | null }[];
		places: { id: string | null; name: string }[];
		/** Whether mail leaves this house. */
		leaves: boolean;
		ondone: (made: Made[]) => void;
		onclose: () => void;
	};
	let { staff, places, leaves, ondone, onclose }: Props = $props();

	const EXAMPLE = 'Rhys Dunmore <dunmore@saltmarsh.example>\nInes Holt; holt@saltmarsh.example';
	let text = $state('');
	let roles = $state<StaffRole[]>([]);
	/** A site where there is one: nobody is given more than that by not looking. */
	let at = $state(untrack(() => places.find(({ id }) => id !== null)?.id ?? 'all'));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	/** Lines that the server refused, with why. */
	let refused = $state.raw<Made[]>([]);
	const lines = $derived(
		readStaffLines(text, { signIns: staff.map((one) => one.signIn), emails: staff.flatMap((one) => one.email ?? []) })
	);
	const good = $derived(lines.filter(({ fault }) => fault === null));
	const faulty = $derived(lines.length - good.length);

	async function invite() {
		if (busy) return;
		busy = true;
		const answer = await send<{ invited: Made[] }>('PUT', '/prepare/staff', {
			people: good.map(({ name, email, signIn }) => ({ name, email: email ?? '', signIn })),
			roles: roles.map((role) => ({ role, siteId: at === 'all' ? null : at }))
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		refused = answer.data.invited.filter(({ fault }) => fault !== null);
		if (refused.length === 0) ondone(answer.data.invited);
		else trouble = refused.map(({ name, fault }) => `${name}: ${fault}`).join(' ');
	}
</script>

<section class="bg-sheet border-line mb-4 rounded-2xl border p-5" data-testid="staff-list">
	<h2 class="text-[18px]">Colleagues from a list</h2>
	<div class="mt-3 grid gap-5 md:grid-cols-2">
		<Field id="staff-lines" label="One a line: name and e-mail, as your address book has them">
			<Textarea id="staff-lines" rows={8} class="w-full" bind:value={text} placeholder={EXAMPLE} />
		</Field>
		<div aria-live="polite">
			<p class="text-ink-2 mb-1 text-[13px] font-semibold">
				{lines.length === 0 ? 'What is read is shown here' : counted(good.length, 'account')}{faulty > 0
					? `, ${counted(faulty, 'line')} to put right`
					: ''}
			</p>
			<ul class="max-h-60 overflow-auto text-[14.5px]">
				{#each lines as one (one.line)}
					<li class="border-line border-b py-1">
						{#if one.fault}<span class="text-brick font-semibold">Line {one.line}: {one.fault}</span>{:else}
							<strong>{one.name}</strong> signs in as <span class="font-mono">{one.signIn}</span>
							<span class="text-ink-2">{one.email ?? 'no e-mail: a link is handed over'}</span>{/if}
					</li>
				{/each}
			</ul>
		</div>
	</div>
	<fieldset class="mt-4">
		<legend class="text-ink-2 text-[13px] font-semibold">All of them may</legend>
		<div class="mt-1 grid gap-2 md:grid-cols-2">
			{#each STAFF_ROLES as role (role)}
				<Checkbox
					checked={roles.includes(role)}
					onchange={() => (roles = roles.includes(role) ? roles.filter((one) => one !== role) : [...roles, role])}
					><span><strong>{ROLE_NAMES[role]}</strong>: {ROLE_WORDS[role]}</span></Checkbox
				>
			{/each}
		</div>
	</fieldset>
	{#if places.length > 1}
		<label class="mt-3 flex items-center gap-2 text-[14.5px]"
			>At
			<select class="bg-sheet border-line-strong rounded-lg border py-1 pr-8 pl-2" bind:value={at}>
				{#each places as place (place.id)}<option value={place.id ?? 'all'}>{place.name}</option>{/each}
			</select></label
		>
	{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	<div class="mt-4 flex items-center gap-3">
		<Act tone="main" onclick={invite} {busy} disabled={good.length === 0 || roles.length === 0} testid="invite"
			>{leaves ? 'Invite' : 'Make'} {counted(good.length, 'account')}</Act
		>
		<Act onclick={onclose}>Cancel</Act>
		<span class="text-ink-2 text-[14px]"
			>{good.length > 0 && roles.length === 0
				? 'Choose what they may do.'
				: leaves
					? 'Each is sent a link to choose a password.'
					: 'No mail server is set up: a link for each is shown here, to print or copy.'}</span
		>
	</div>
</section>
