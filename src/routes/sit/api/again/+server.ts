import { json } from '@sveltejs/kit';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { allowDevice, orNotSavedYet, readCookie, readJson, refuse, writeCookie } from '$lib/server/http';
import { signInDevice } from '$lib/server/identity';
import { sitAgain } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({ commandId: z.string().min(8).max(64), deviceName: z.string().max(80) });

/** Whoever has handed in sits the paper once more, where the rules give another attempt. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request, cookies, url } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const deviceId = readCookie(cookies, url, 'device') ?? nanoid();
	return orNotSavedYet(async () => {
		const next = await sitAgain(otium, device.sittingId, { ...body.data, deviceId });
		if (!next.ok) return refuse(next.refusal);
		const { token, expires, sittingId, epoch } = await signInDevice(otium, next.sittingId);
		writeCookie(cookies, url, 'sitting', token, Math.floor((expires - otium.now()) / 1_000));
		return json({ sittingId, epoch });
	});
};
