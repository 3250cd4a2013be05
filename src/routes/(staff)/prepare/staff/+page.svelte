<script lang="ts">
	import { counted } from '$core/names';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { invalidateAll } from '$app/navigation';
	import { untrack } from 'svelte';
	import { IDLE_MINUTES, ROLE_NAMES, ROLE_WORDS, STAFF_ROLES, type HeldRole } from '$core/access';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import Links from './Links.svelte';
	import StaffList from './StaffList.svelte';

	let { data } = $props();
	type Form = { id: string | null; name: string; signIn: string; email: string; password: string; roles: HeldRole[] };
	let form = $state<Form | null>(null);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let isListed = $state(false);
	const places = $derived([
		...(data.mySites === null ? [{ id: null as string | null, name: 'all sites' }] : []),
		...data.sites
			.filter((site) => data.mySites === null || data.mySites.includes(site.id))
			.map((site) => ({ id: site.id as string | null, name: site.name }))
	]);
	const siteName = (id: string | null) =>
		id === null ? 'all sites' : (data.sites.find((site) => site.id === id)?.name ?? '');
	const has = (role: string, siteId: string | null) =>
		form!.roles.some((held) => held.role === role && held.siteId === siteId);
	function toggle(role: HeldRole['role'], siteId: string | null) {
		form!.roles = has(role, siteId)
			? form!.roles.filter((held) => held.role !== role || held.siteId !== siteId)
			: [...form!.roles, { role, siteId }];
	}
	let idleMinutes = $state(untrack(() => data.signIn.idleMinutes));
	let secondStepFor = $state(untrack(() => [...data.signIn.secondStepFor]));
	/** Links that somebody has to hand over, since no mail leaves or there is no address. They are shown once. */
	let links = $state.raw<{ name: string; signIn: string; link: string }[]>([]);
	async function help(what: Record<string, unknown>, done: string, whose?: { name: string; signIn: string }) {
		busy = true;
		const answer = await send<{ link?: string | null }>('POST', '/prepare/staff/access', what);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		const { link } = answer.data;
		links = link && whose ? [{ ...whose, link }] : [];
		told = link ? null : done;
		form = null;
		await invalidateAll();
	}
	const lackSecondStep = $derived(
		data.staff.filter((one) => !one.hasSecondStep && one.roles.some((held) => secondStepFor.includes(held.role)))
	);
	async function save() {
		if (busy || !form) return;
		busy = true;
		const answer = await send<{ isInvited: boolean; link: string | null }>('POST', '/prepare/staff', {
			...form,
			password: form.password || null
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		const { isInvited, link } = answer.data;
		told = `${form.name}: saved.${isInvited ? ` A link to choose a password is on its way to ${form.email}.` : link ? '' : form.id === null ? ' They choose their own password when they first sign in.' : ' They have to sign in again.'}`;
		links = link ? [{ name: form.name, signIn: form.signIn, link }] : [];
		form = null;
		await invalidateAll();
	}
</script>

<svelte:head><title>Staff · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Staff</h1>
		<a class="text-[14px] underline" href="/you">What may I do?</a>
		<Act class="ml-auto" onclick={() => ((isListed = true), (form = null), (told = null))} testid="paste-staff"
			>Paste a list</Act
		>
		<Act tone="main" onclick={() => (form = { id: null, name: '', signIn: '', email: '', password: '', roles: [] })}
			>Add somebody</Act
		>
	</div>
	{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold">{told}</p>{/if}
	{#if links.length > 0}<Links {links} />{/if}
	{#if isListed}<StaffList
			staff={data.staff}
			{places}
			leaves={data.mailLeaves}
			ondone={(made) => {
				isListed = false;
				links = made.flatMap(({ name, signIn, link }) => (link ? [{ name, signIn, link }] : []));
				told = `${counted(made.length, 'account')} made.${links.length < made.length ? ' Links to choose a password are on their way.' : ''}`;
				void invalidateAll();
			}}
			onclose={() => (isListed = false)}
		/>{/if}
	<ul class="bg-sheet border-line divide-line divide-y rounded-2xl border">
		{#each data.staff as one (one.id)}
			<li class="grid grid-cols-[220px_1fr_auto] items-center gap-4 px-4 py-2.5 max-sm:grid-cols-1">
				<span
					><strong>{one.name}</strong><span class="text-ink-2 block text-[13px]"
						>{one.signIn}{one.email ? ` · ${one.email}` : ''}{one.hasSecondStep ? ' · two steps' : ''}</span
					></span
				>
				<span class="text-[14.5px]"
					>{one.roles.map((held) => `${ROLE_NAMES[held.role]}, ${siteName(held.siteId)}`).join(' · ') || 'no role'}
					{#if one.shares.length > 0}<span class="text-ink-2 block text-[13px]"
							>Shares an e-mail address or a browser with {one.shares.join(', ')}</span
						>{/if}</span
				>
				<Act size="xs" onclick={() => (form = { ...one, email: one.email ?? '', password: '', roles: [...one.roles] })}
					>Change</Act
				>
			</li>
		{/each}
	</ul>
	{#if form}
		<section class="bg-sheet border-line mt-5 rounded-2xl border p-5" data-testid="staff-form">
			<h2 class="text-[18px]">{form.id === null ? 'Somebody new' : form.name}</h2>
			<div class="mt-3 grid grid-cols-4 gap-3 max-md:grid-cols-2">
				<Field id="staff-name" label="Name"><Input id="staff-name" bind:value={form.name} /></Field>
				<Field id="staff-signin" label="Signs in as"><Input id="staff-signin" bind:value={form.signIn} /></Field>
				<Field id="staff-email" label="E-mail"><Input id="staff-email" bind:value={form.email} /></Field>
				<Field
					id="staff-password"
					label={form.id === null ? 'First password' : 'New password'}
					hint={form.id === null
						? data.mailLeaves
							? 'empty: a link goes to their e-mail, or is shown here to be handed over'
							: 'empty: a link is shown here, to be handed over'
						: 'empty: as it is; they choose their own at the next sign-in'}
					><Input id="staff-password" type="password" autocomplete="new-password" bind:value={form.password} /></Field
				>
			</div>
			<table class="mt-4 text-left text-[14.5px]">
				<thead
					><tr
						><th class="py-1 pr-6 font-semibold">Role</th>{#each places as place (place.id)}<th
								class="px-3 py-1 font-semibold">{place.name}</th
							>{/each}</tr
					></thead
				>
				<tbody>
					{#each STAFF_ROLES as role (role)}
						<tr class="border-line border-t">
							<th class="max-w-md py-1.5 pr-6 font-normal"
								>{ROLE_NAMES[role]}<span class="text-ink-3 block text-[13px]">{ROLE_WORDS[role]}</span></th
							>
							{#each places as place (place.id)}
								<td class="px-3"
									><Checkbox
										aria-label="{ROLE_NAMES[role]}, {place.name}"
										checked={has(role, place.id)}
										onchange={() => toggle(role, place.id)}
									/></td
								>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
			<div class="mt-4 flex gap-2">
				<Act tone="main" onclick={save} {busy} testid="save-staff">Save</Act>
				<Act onclick={() => ((form = null), (trouble = null))}>Cancel</Act>
				{#if form.id !== null && form.id !== data.me}
					{@const { id, name, email } = form}
					<Act
						class="ml-auto"
						{busy}
						onclick={() =>
							help({ act: 'link', id }, `${name}: a link to choose a password is on its way to ${email}.`, {
								name,
								signIn: form!.signIn
							})}>{data.mailLeaves && email ? 'Mail a link for a new password' : 'Show a link for a new password'}</Act
					>
					{#if data.staff.find((one) => one.id === id)?.hasSecondStep}<Act
							{busy}
							onclick={() =>
								help(
									{ act: 'take_second_step', id },
									`${name}: the second step is taken away. They are signed out, and set up a new one.`
								)}>Remove their second step</Act
						>{/if}
				{/if}
			</div>
		</section>
	{/if}
	{#if data.mySites === null}
		<section
			class="bg-sheet border-line mt-5 rounded-2xl border p-5"
			aria-label="Signing in"
			data-testid="sign-in-rules"
		>
			<h2 class="text-[18px]">Signing in</h2>
			<div class="mt-3 grid gap-5 md:grid-cols-[1fr_220px]">
				<fieldset>
					<legend class="text-ink-2 mb-1.5 text-[13px] font-semibold">A second step is needed for</legend>
					<div class="flex flex-wrap gap-x-5 gap-y-2">
						{#each STAFF_ROLES as role (role)}
							<Checkbox
								checked={secondStepFor.includes(role)}
								onchange={() =>
									(secondStepFor = secondStepFor.includes(role)
										? secondStepFor.filter((one) => one !== role)
										: [...secondStepFor, role])}>{ROLE_NAMES[role]}</Checkbox
							>
						{/each}
					</div>
					<p class="text-ink-2 mt-2 text-[14px]">
						A passkey, or codes from an app, beside the password.
						{#if lackSecondStep.length > 0}{lackSecondStep.length === 1
								? `${lackSecondStep[0].name} has none yet, and sets one up`
								: `${counted(lackSecondStep.length, 'person', 'people')} have none yet, and set one up`} at the next sign-in.{/if}
					</p>
				</fieldset>
				<Field id="idle" label="Signed out after" hint="minutes without activity; an open live room counts as activity">
					<Input id="idle" type="number" min={IDLE_MINUTES.least} max={IDLE_MINUTES.most} bind:value={idleMinutes} />
				</Field>
			</div>
			{#if trouble && !form}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">
					{trouble}
				</p>{/if}
			<div class="mt-4">
				<Act
					tone="main"
					{busy}
					testid="save-sign-in"
					onclick={() =>
						help({ act: 'rules', secondStepFor, idleMinutes: Number(idleMinutes) }, 'How staff sign in: saved.')}
					>Save</Act
				>
			</div>
		</section>
	{/if}
</main>
