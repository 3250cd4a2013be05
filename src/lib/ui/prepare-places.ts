/** The six tabs under Prepare; two of them hold several pages. */
export const PREPARE_TABS: {
	name: string;
	pages: [{ href: string; name: string }, ...{ href: string; name: string }[]];
}[] = [
	{ name: 'Sessions', pages: [{ href: '/prepare', name: 'Sessions' }] },
	{ name: 'People', pages: [{ href: '/prepare/people', name: 'People' }] },
	{ name: 'Rules', pages: [{ href: '/prepare/rules', name: 'Rule sheets' }] },
	{
		name: 'Places',
		pages: [
			{ href: '/prepare/rooms', name: 'Rooms' },
			{ href: '/prepare/networks', name: 'Networks' },
			{ href: '/prepare/clients', name: 'Sealed clients' },
			{ href: '/prepare/devices', name: 'Devices' },
			{ href: '/technical', name: 'Technical list' }
		]
	},
	{ name: 'Mail', pages: [{ href: '/prepare/mail', name: 'Mail' }] },
	{
		name: 'Administration',
		pages: [
			{ href: '/prepare/administration', name: 'Dates, sites and papers' },
			{ href: '/prepare/parts', name: 'Parts in order' },
			{ href: '/prepare/contacts', name: 'Contacts' },
			{ href: '/prepare/staff', name: 'Staff' }
		]
	}
];
/** Every page under Prepare by its own name, the first of all left out: it is Prepare itself. */
export const PREPARE_PAGES = PREPARE_TABS.flatMap(({ pages }) => pages).slice(1);
