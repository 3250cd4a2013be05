/** Who may use a question of the bank besides its owner. */
export const AUDIENCES = ['me', 'named', 'site', 'all'] as const;
export type Audience = (typeof AUDIENCES)[number];

export const AUDIENCE_NAMES: Record<Audience, string> = {
	me: 'Only me',
	named: 'Named people',
	site: 'Authors of the site',
	all: 'Authors of all sites'
};

/** What decides who sees a question: whose it is, and for whom. `siteId` null: of all sites. */
export type Ownership = { owner: string | null; siteId: string | null; audience: Audience; named: string[] };

/** Who asks: their id, and the sites at which they write; null: at all. */
export type Writer = { id: string; sites: string[] | null };

/** Whether somebody sees a question with its key. Named people may write for another site. */
export function mayUse({ owner, siteId, audience, named }: Ownership, writer: Writer): boolean {
	if (owner === writer.id) return true;
	switch (audience) {
		case 'me':
			return false;
		case 'named':
			return named.includes(writer.id);
		case 'site':
			return writesAt(siteId, writer);
		case 'all':
			return true;
	}
}

/** Whether somebody may change it: it is theirs, or their site's. */
export function mayChange(ownership: Ownership, writer: Writer): boolean {
	return mayUse(ownership, writer) && (ownership.owner === writer.id || writesAt(ownership.siteId, writer));
}

/** Whether somebody writes what belongs to that site; null: to all. */
export function writesAt(siteId: string | null, { sites }: Writer): boolean {
	return sites === null || (siteId !== null && sites.includes(siteId));
}
