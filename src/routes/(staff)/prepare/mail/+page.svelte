<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { someNames } from '$core/names';
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { MAIL_WORDS } from '$core/mail';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	let subject = $state(untrack(() => data.template.subject));
	let body = $state(untrack(() => data.template.body));
	let shownKind = untrack(() => data.kind);
	$effect(() => {
		if (data.kind === shownKind) return;
		shownKind = data.kind;
		subject = data.template.subject;
		body = data.template.body;
	});
	let at = $state(0);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let asks = $state(false);
	const isChanged = $derived(subject !== data.template.subject || body !== data.template.body);
	const letter = $derived(data.letters[Math.min(at, data.letters.length - 1)]);
	const without = $derived(data.letters.filter((one) => one.address === null));
	const changed = $derived(data.letters.filter((one) => one.address !== null && one.changes.length > 0));
	const toSend = $derived(
		data.letters.filter((one) => one.address !== null && (one.state !== 'sent' || one.changes.length > 0))
	);
	const sent = $derived(data.letters.filter((one) => one.state === 'sent'));
	const go = (session: string, kind: string) =>
		goto(`/prepare/mail?session=${session}&to=${kind}`, { keepFocus: true });

	async function post(asked: Record<string, unknown>, done: (answer: { posted?: number }) => string) {
		if (busy) return;
		busy = true;
		trouble = told = null;
		const answer = await send<{ posted?: number }>('POST', '/prepare/mail', asked);
		busy = false;
		if (!answer.ok) {
			trouble = inWords(answer.problem);
			return;
		}
		told = done(answer.data);
		asks = false;
		await invalidateAll();
		// What waits goes within a second or two.
		setTimeout(() => void invalidateAll(), 2_500);
	}
	const sendTo = (addresses: string[] | null) =>
		post(
			{ act: 'send', session: data.session!.id, kind: data.kind, addresses },
			({ posted }) => `${posted} queued for sending.`
		);
	const TONES = { sent: 'text-tide', waiting: 'text-ochre', failed: 'text-brick' };
</script>

<svelte:head><title>Mail · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Mail</h1>
		<div class="w-96">
			<Select
				aria-label="Session"
				value={data.session?.id ?? ''}
				placeholder="Choose a session to write to"
				items={data.sessions.map((session) => ({ value: session.id, name: session.name }))}
				onchange={(event) => void go((event.target as HTMLSelectElement).value, data.kind)}
			/>
		</div>
		{#if data.session}
			<Choose
				name="to"
				label="To whom"
				value={data.kind}
				options={[
					{ value: 'candidate', text: 'to the candidates' },
					{ value: 'proctor', text: `to the ${data.session.proctors === 1 ? 'proctor' : 'proctors'}` }
				]}
				onchange={(kind) => void go(data.session!.id, kind)}
			/>
		{/if}
	</div>
	<p class="text-ink-3 mb-4 text-[14px]">
		{data.leaves
			? 'Mail is sent by the server that the house has named.'
			: 'No mail server is named, so nothing leaves this machine: every mail ends in the outbox below.'}
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold">{told}</p>{/if}
	{#if data.session}
		<div class="grid grid-cols-2 gap-5 max-lg:grid-cols-1">
			<section class="bg-sheet border-line rounded-2xl border p-5">
				<h2 class="text-[18px]">Text</h2>
				<label for="subject" class="text-ink-2 mt-3 mb-1 block text-[13px] font-semibold">Subject</label>
				<Input id="subject" bind:value={subject} readonly={!data.mayChangeWords} />
				<label for="body" class="text-ink-2 mt-3 mb-1 block text-[13px] font-semibold">Mail</label>
				<Textarea id="body" rows={12} class="w-full" bind:value={body} readonly={!data.mayChangeWords} />
				<p class="text-ink-3 mt-1 text-[13px]">
					{#each Object.entries(MAIL_WORDS) as [word, says] (word)}<span
							title={says}
							class="mr-1.5 inline-block font-mono">&#123;{word}&#125;</span
						>{/each}
				</p>
				{#if data.mayChangeWords}
					<div class="mt-3 flex gap-2">
						<Act
							tone="main"
							disabled={!isChanged}
							{busy}
							onclick={() =>
								post(
									{ act: 'template', kind: data.kind, subject, body },
									() => 'Saved: from now on every mail says this.'
								)}>Save the text</Act
						>
						<Act
							onclick={async () => {
								await post({ act: 'reset', kind: data.kind }, () => 'Original text with Otium.');
								subject = data.template.subject;
								body = data.template.body;
							}}>Original text</Act
						>
					</div>
				{:else}
					<p class="text-ink-3 mt-3 text-[13.5px]">
						Every site uses this text. Only coordinators of all sites can change it.
					</p>
				{/if}
			</section>
			<section class="bg-sheet border-line rounded-2xl border p-5">
				<div class="flex items-center gap-2">
					<h2 class="text-[18px]">Preview</h2>
					{#if data.letters.length > 1}
						<span class="text-ink-2 ml-auto text-[14px]">{at + 1} of {data.letters.length}</span>
						<Act size="xs" disabled={at === 0} onclick={() => (at -= 1)}>Earlier</Act>
						<Act size="xs" disabled={at >= data.letters.length - 1} onclick={() => (at += 1)}>Later</Act>
					{/if}
				</div>
				{#if letter}
					<p class="mt-2 text-[14px]">
						To <strong>{letter.to}</strong>
						{letter.address ?? ''}
						{#if letter.address === null}<span class="text-brick font-semibold">has no e-mail address</span>{/if}
						{#if letter.state === 'sent'}<span class="text-tide">· {data.leaves ? 'sent' : 'written'} already</span
							>{/if}
					</p>
					<p class="border-line mt-2 border-b pb-2 font-semibold">{letter.mail.subject}</p>
					<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, so the keyboard must reach it) -->
					<div
						class="mt-2 max-h-72 overflow-auto text-[14.5px] whitespace-pre-wrap"
						role="region"
						aria-label="The text of the mail"
						tabindex="0"
					>
						{letter.mail.body}
					</div>
				{:else}<p class="text-ink-2 mt-2">
						{data.kind === 'proctor' ? 'No proctor is named yet.' : 'Nobody is expected.'}
					</p>{/if}
				{#if isChanged}<p class="text-ochre mt-2 text-[13px]">
						The text is not saved yet; this shows the saved one.
					</p>{/if}
				<div class="mt-4 flex flex-wrap items-center gap-2">
					<Act tone="main" disabled={toSend.length === 0 || isChanged} onclick={() => (asks = true)} testid="send-mail"
						>{toSend.length === 0
							? 'All sent'
							: changed.length === toSend.length
								? `Send the change to ${toSend.length}…`
								: `Send to ${toSend.length}…`}</Act
					>
					{#if letter?.address && letter.state !== null}<Act size="xs" {busy} onclick={() => sendTo([letter.address!])}
							>Send this one again</Act
						>{/if}
					<span class="text-ink-3 text-[13px]"
						>{sent.length} sent{without.length > 0 ? ` · ${without.length} without an address` : ''}</span
					>
				</div>
				{#if changed.length > 0}
					{@const [{ what, was }] = changed[0].changes}
					<p class="text-ochre mt-1 text-[14px] font-semibold" data-testid="mail-changed">
						Changed since: {changed.length}
						{changed.length === 1 ? 'person was' : 'people were'} told {what}: {was}. The mail begins with what is new,
						and its calendar entry replaces the earlier one.
					</p>
				{/if}
				{#if without.length > 0}<p class="text-ochre mt-1 text-[13px]">
						Without an address: {someNames(
							without.map((one) => one.to),
							5
						)}. Add it under People.
					</p>{/if}
			</section>
		</div>
	{/if}
	<section class="mt-6">
		<div class="flex flex-wrap items-center gap-3">
			<h2 class="text-[19px]">Outbox{data.session ? ` of ${data.session.name}` : ''}</h2>
			<form class="ml-auto flex gap-2" role="search">
				{#if data.session}<input type="hidden" name="session" value={data.session.id} />{/if}
				<div class="w-60">
					<Input
						size="sm"
						name="text"
						value={data.text}
						placeholder="Name, address or subject"
						aria-label="Search the outbox"
					/>
				</div>
				<Act size="xs" type="submit">Search</Act>
			</form>
		</div>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border" data-testid="outbox">
			{#each data.outbox as mail (mail.id)}
				<li
					class="border-line grid grid-cols-[90px_220px_1fr_auto] gap-3 border-b px-4 py-2 text-[14.5px] last:border-b-0"
				>
					<span class="font-semibold {TONES[mail.state]}"
						>{mail.state === 'sent' && !data.leaves ? 'written' : mail.state}</span
					>
					<span class="truncate">{mail.name}</span>
					<span class="min-w-0 truncate"
						><a class="underline" href="/prepare/mail/{mail.id}">{mail.subject}</a>{#if mail.trouble}<span
								class="text-brick ml-2 text-[13px]">{mail.trouble}</span
							>{/if}</span
					>
					<span class="text-ink-2"
						>{longDate(mail.at, data.site.zone, clock.now)} {clockTime(mail.at, data.site.zone)}</span
					>
				</li>
			{:else}<li class="text-ink-2 p-6 text-center">
					{data.text ? `Nothing matches “${data.text}”.` : 'Nothing has been sent.'}
				</li>{/each}
		</ul>
	</section>
</main>
{#if data.session}
	<Ask
		bind:open={asks}
		title="Send {toSend.length} mails?"
		verb="Send them"
		{busy}
		error={trouble}
		onconfirm={() => sendTo(null)}
	>
		<p>
			To {someNames(
				toSend.map((one) => one.to),
				4
			)}, about {data.session.name}, with a calendar file.{sent.length > 0
				? ` ${sent.length} have theirs already and get none.`
				: ''}
		</p>
	</Ask>
{/if}
