import {
	browserSupportsWebAuthn,
	startAuthentication,
	startRegistration,
	type PublicKeyCredentialCreationOptionsJSON,
	type PublicKeyCredentialRequestOptionsJSON
} from '@simplewebauthn/browser';
import { inWords, send, type Answer } from './post';

/** Whether this browser can use passkeys here: it can over HTTPS and on localhost, and not at a bare number. */
export function hasPasskeys(): boolean {
	return isSecureContext && browserSupportsWebAuthn() && !/^[\d.]+$|:/.test(location.hostname);
}

export type Used = { ok: true; next: string } | { ok: false; message: string };

/** Shows a passkey to the server. @param path which asks for it and looks at it */
export async function usePasskey(path: string, to: string): Promise<Used> {
	const asked = await send<{ id: string; options: PublicKeyCredentialRequestOptionsJSON }>('POST', path, {
		act: 'ask'
	});
	if (!asked.ok) return { ok: false, message: inWords(asked.problem) };
	try {
		const response = await startAuthentication({ optionsJSON: asked.data.options });
		const answer = await send<{ next: string }>('POST', path, { act: 'use', id: asked.data.id, response, to });
		return answer.ok ? { ok: true, next: answer.data.next } : { ok: false, message: inWords(answer.problem) };
	} catch {
		return { ok: false, message: 'No passkey was used. Try again, or sign in another way.' };
	}
}

/** Makes a passkey for whoever is signed in. null: the person, or the browser, would not. */
export async function makePasskey(path: string, name: string): Promise<Answer<unknown> | null> {
	const asked = await send<{ id: string; options: PublicKeyCredentialCreationOptionsJSON }>('POST', path, {
		act: 'ask_passkey'
	});
	if (!asked.ok) return asked;
	try {
		const response = await startRegistration({ optionsJSON: asked.data.options });
		return await send('POST', path, { act: 'take_passkey', id: asked.data.id, response, name });
	} catch {
		return null;
	}
}
