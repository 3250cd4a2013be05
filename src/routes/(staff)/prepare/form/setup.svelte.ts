import { goto, replaceState } from '$app/navigation';
import { differingRules, rulesFor, SETTINGS, valueAt, withValue } from '$core/rules';
import { applyFix, DEFAULT_RULES, type Finding, type Fix, type SentencePart } from '$core/session';
import { fieldDate } from '$core/time';
import type { ToldSubject } from '$core/told';
import { Keeper, type Outcome } from '$ui/keeper.svelte';
import type { Problem } from '$core/problem';
import { inWords, send } from '$ui/post';
import type { PageData } from '../new/$types';

export type Input = PageData['input'];
export type Choices = PageData['choices'];
/** What the server says of one session as it would be. */
export type Told = {
	sentence: SentencePart[];
	rulesInShort: string;
	findings: Finding[];
	name: string;
	protection: string;
	told: ToldSubject[];
	/** What the paper’s questions take by common practice, and how many there are. */
	suggestedMinutes: number;
	questions: number;
	candidates: number;
	seats: number;
};
export type Given = {
	choices: Choices;
	initial: Input;
	edit: { id: string; revision: number } | null;
	draft: PageData['draft'];
	/** Why nothing can be changed any more. */
	locked: string | null;
};

/** Checked when it has rested for so long, ms. */
const RESTS = 200;
const KEPT_AFTER = 500;

/** A session while it is being set up: what is entered, what the server makes of it, and where it is kept meanwhile. */
export class SessionSetup {
	readonly choices: Choices;
	readonly edit: Given['edit'];
	readonly locked: string | null;
	readonly keeper = new Keeper((leaving) => this.#keep(leaving), KEPT_AFTER);

	input = $state.raw<Input>(null!);
	plans = $state.raw<Told[]>([]);
	/** The name of the one that this session would belong to. */
	administration = $state<string | null>(null);
	errors = $state.raw<Record<string, string>>({});
	trouble = $state<string | null>(null);
	busy = $state(false);
	/** What was there before a change that was made for somebody. */
	before = $state.raw<Input | null>(null);
	added = $state.raw<NonNullable<PageData['draft']>['added']>([]);
	/** Left out by hand here; a draft keeps only who, and their names come with it. */
	leftOut = $state.raw<NonNullable<PageData['draft']>['added']>([]);
	kept = $state.raw<{ id: string; revision: number; savedAt: number } | null>(null);

	room = $derived.by(() => this.choices.rooms.find((one) => one.id === this.input.roomId));
	sheet = $derived.by(() => this.choices.sheets.find((one) => one.id === this.input.ruleSheetId));
	base = $derived(this.sheet?.rules ?? DEFAULT_RULES);
	changed = $derived(differingRules(this.base, this.input.rules));
	networks = $derived.by(() => {
		const { networks } = this.choices;
		return this.room ? networks.filter((one) => one.siteId === this.room!.siteId) : networks;
	});
	/** The administration that it will belong to; undefined: its day is not known yet. */
	#administrationId = $derived.by(
		() =>
			this.input.administrationId ?? this.choices.administrations.find(({ name }) => name === this.administration)?.id
	);
	papers = $derived.by(() => {
		const isOffered = ({
			administrationId,
			siteId,
			groupId
		}: (typeof this.choices.papers)[number]['allowed'][number]) =>
			(this.#administrationId === undefined || administrationId === this.#administrationId) &&
			(groupId === null
				? siteId === null || this.room === undefined || siteId === this.room.siteId
				: this.room === undefined || this.input.groupIds.includes(groupId));
		return this.choices.papers.filter(
			(paper) => paper.id === this.input.paperId || (!paper.isWithdrawn && paper.allowed.some(isOffered))
		);
	});
	findings = $derived(
		this.plans.flatMap((told, i) =>
			told.findings.map((finding) => ({
				...finding,
				part: this.input.parts?.[i]?.label,
				key: `${i}${finding.code}${finding.message}`
			}))
		)
	);
	isBlocked = $derived(this.plans.length === 0 || this.findings.some((finding) => finding.level === 'block'));
	/** What has not been chosen yet is not wrong: it is said beneath the sentence, not in red. */
	toChoose = $derived(
		[
			!this.input.paperId && 'a paper',
			this.input.groupIds.length === 0 && 'a group',
			!this.input.roomId && 'a room'
		].filter((one) => one !== false)
	);

	#asked = 0;
	// A draft that is kept after its page was left must not write into the address of another page.
	#isHere = true;

	constructor({ choices, initial, edit, draft, locked }: Given) {
		this.choices = choices;
		this.edit = edit;
		this.locked = locked;
		this.input = initial;
		this.kept = draft;
		const named = draft?.added ?? [];
		this.added = named.filter((one) => initial.alsoIds.includes(one.id));
		this.leftOut = named.filter((one) => initial.withoutIds?.includes(one.id));
	}

	leave() {
		this.#isHere = false;
	}

	set(change: Partial<Input>) {
		this.input = { ...this.input, ...change };
		this.#keepSoon();
	}
	valueOf(path: string): unknown {
		return valueAt(this.input.rules, path);
	}
	setRule(path: string, value: unknown) {
		this.set({ rules: withValue(this.input.rules, path, value) });
	}
	/** What differs from the rule sheet in one of its sections. */
	changedIn(paths: Set<string>) {
		return this.changed.filter(({ setting }) => paths.has(setting.path));
	}
	errorOf(field: string): string | undefined {
		return this.toChoose.length > 0 && ['paperId', 'groupIds', 'roomId'].includes(field)
			? undefined
			: this.errors[field];
	}

	/** Asks what the session would be, a moment after the input rests. @returns what stops the asking */
	ask(): () => void {
		const input = this.input;
		const mine = ++this.#asked;
		const timer = setTimeout(async () => {
			const answer = await send<{ errors: Record<string, string>; plans?: Told[]; administration?: string }>(
				'POST',
				'/prepare/plan',
				{ input, editing: this.edit?.id ?? null }
			);
			if (mine !== this.#asked) return;
			if (!answer.ok) {
				this.trouble = inWords(answer.problem);
				return;
			}
			this.errors = answer.data.errors;
			this.plans = answer.data.plans ?? [];
			this.administration = answer.data.administration ?? this.administration;
			this.trouble = null;
		}, RESTS);
		return () => clearTimeout(timer);
	}

	mend(fix: Fix) {
		this.before = this.input;
		this.input = applyFix(this.input, fix);
		this.#keepSoon();
	}
	undo() {
		if (this.before) this.set(this.before);
		this.before = null;
	}
	takeSheet(id: string) {
		const next = this.choices.sheets.find((one) => one.id === id);
		if (!next) return this.set({ ruleSheetId: null });
		this.before = this.input;
		this.set({ ruleSheetId: id, rules: rulesFor(this.input.rules, next.rules) });
	}
	oneForEachGroup() {
		const { groupIds, roomId, time, until, proctorIds } = this.input;
		this.set({
			parts: groupIds.map((id, i) => ({
				label: this.choices.groups.find((group) => group.id === id)?.name ?? '',
				groupIds: [id],
				only: null,
				roomId,
				time,
				until,
				proctorIds: i === 0 ? proctorIds : []
			}))
		});
	}

	/** A made-up person of the room's site is added, with whom staff try it. */
	async addTrial() {
		const answer = await send<{ id: string; name: string; number: string }>('POST', '/prepare/people', {
			act: 'trial',
			siteId: this.room!.siteId
		});
		this.trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		this.added = [...this.added, answer.data];
		this.set({ alsoIds: [...this.input.alsoIds, answer.data.id] });
	}

	/** Splits into groups of so many people that start one after the other. */
	async stagger(people: number, every: number) {
		this.busy = true;
		const answer = await send<{ parts: Input['parts'] }>('POST', '/prepare/plan', {
			input: this.input,
			editing: this.edit?.id ?? null,
			stagger: { people, every }
		});
		this.busy = false;
		this.trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		if (answer.data.parts === null) this.trouble = 'One group takes everybody: choose a smaller one.';
		else this.set({ parts: answer.data.parts });
	}

	async save() {
		if (this.busy) return;
		this.busy = true;
		this.trouble = null;
		this.keeper.drop();
		const answer = await send<{ ids: string[] }>('POST', '/prepare/save', {
			input: this.input,
			edit: this.edit,
			draftId: this.kept?.id ?? null
		});
		if (!answer.ok) {
			this.busy = false;
			this.errors = (answer.problem as Problem & { errors?: Record<string, string> }).errors ?? {};
			this.trouble = inWords(answer.problem);
			this.#keepSoon();
			return;
		}
		await goto(`/prepare?planned=${answer.data.ids.length}`);
	}

	// Every field is kept as it is entered: a closed tab, a lost line or another machine costs nothing.
	#keepSoon() {
		if (!this.edit && !this.locked) this.keeper.touched();
	}
	/** Nothing has been chosen yet, so that there is nothing to keep. */
	get #isEmpty() {
		const { paperId, groupIds, alsoIds, roomId, name } = this.input;
		return !paperId && groupIds.length === 0 && alsoIds.length === 0 && !roomId && name.trim() === '';
	}
	/** What a draft is called before it can be named like a session. */
	get #knownSoFar(): string {
		const { name, paperId, groupIds, roomId, date } = this.input;
		const { papers, groups, rooms } = this.choices;
		const known = [
			name.trim() || papers.find(({ id }) => id === paperId)?.title,
			...groups.filter(({ id }) => groupIds.includes(id)).map((group) => group.name),
			rooms.find(({ id }) => id === roomId)?.name,
			date && fieldDate(date)
		];
		return known.filter(Boolean).join(' · ');
	}
	async #keep(leaving: boolean): Promise<Outcome> {
		const { kept, input, added, leftOut } = this;
		if (this.#isEmpty && !kept) return 'kept';
		const title = this.plans[0]?.name ?? this.#knownSoFar;
		const answer = await send<{ id: string; revision: number; savedAt: number }>(
			'POST',
			'/prepare/draft',
			{ id: kept?.id ?? null, revision: kept?.revision ?? 0, title, input, added: [...added, ...leftOut] },
			{ leaving }
		);
		if (answer.ok) {
			if (!kept && this.#isHere) replaceState(`/prepare/new?draft=${answer.data.id}`, {});
			this.kept = answer.data;
			return 'kept';
		}
		if (answer.status !== 409) return 'line_down';
		this.trouble = inWords(answer.problem);
		return 'refused';
	}
}

export const settingAt = (path: string) => SETTINGS.find((setting) => setting.path === path)!;
export const toggled = (list: string[], id: string) =>
	list.includes(id) ? list.filter((one) => one !== id) : [...list, id];
