<script lang="ts">
	import { Checkbox, Input } from 'flowbite-svelte';
	import { invalidateAll } from '$app/navigation';
	import { ROLE_NAMES, STAFF_ROLES, type HeldRole } from '$core/access';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	type Form = { id: string | null; name: string; signIn: string; email: string; password: string; roles: HeldRole[] };
	let form = $state<Form | null>(null);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
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
	async function save() {
		if (busy || !form) return;
		busy = true;
		const answer = await send('POST', '/prepare/staff', { ...form, password: form.password || null });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		told = `${form.name}: saved.${form.id === null ? '' : ' Whoever was signed in signs in again.'}`;
		form = null;
		await invalidateAll();
	}
</script>

<svelte:head><title>Staff · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Staff</h1>
		<a class="text-[14px] underline" href="/you">What may I do?</a>
		<Act
			tone="main"
			class="ml-auto"
			onclick={() => (form = { id: null, name: '', signIn: '', email: '', password: '', roles: [] })}>Add somebody</Act
		>
	</div>
	{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold">{told}</p>{/if}
	<ul class="bg-sheet border-line divide-line divide-y rounded-2xl border">
		{#each data.staff as one (one.id)}
			<li class="grid grid-cols-[220px_1fr_auto] items-center gap-4 px-4 py-2.5 max-sm:grid-cols-1">
				<span
					><strong>{one.name}</strong><span class="text-ink-2 block text-[13px]"
						>{one.signIn}{one.email ? ` · ${one.email}` : ''}</span
					></span
				>
				<span class="text-[14.5px]"
					>{one.roles.map((held) => `${ROLE_NAMES[held.role]}, ${siteName(held.siteId)}`).join(' · ') ||
						'no role'}</span
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
					label={form.id === null ? 'Password' : 'New password'}
					hint={form.id === null ? 'at least 12 letters' : 'empty: as it is'}
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
							<th class="py-1.5 pr-6 font-normal">{ROLE_NAMES[role]}</th>
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
				<Act onclick={() => ((form = null), (trouble = null))}>Leave it</Act>
			</div>
		</section>
	{/if}
</main>
