/** A person while their form is filled in; empty is none. */
export type PersonForm = {
	number: string;
	given: string;
	family: string;
	email: string;
	birth: string;
	language: string;
	grade: string;
	userName: string;
	elsewhere: boolean;
	groupIds: string[];
	left: boolean;
};

export const NOBODY: PersonForm = {
	number: '',
	given: '',
	family: '',
	email: '',
	birth: '',
	language: '',
	grade: '',
	userName: '',
	elsewhere: false,
	groupIds: [],
	left: false
};
