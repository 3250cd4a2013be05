import { json } from '@sveltejs/kit';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { orNotSavedYet, readCookie, readJson, refuse, writeCookie } from '$lib/server/http';
import { arrive } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Asked = z.object({
	note: z.string().max(2_000),
	commandId: z.string().min(8).max(64),
	deviceName: z.string().max(80)
});
const YEAR_S = 365 * 24 * 3_600;

export const POST: RequestHandler = async ({ request, locals, cookies, url }) => {
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const deviceId = readCookie(cookies, url, 'device') ?? nanoid();
	return orNotSavedYet(async () => {
		const answer = await arrive(locals.otium, { ...body.data, deviceId, address: locals.address });
		if (!answer.ok) return refuse(answer.refusal);
		const { token, expires, sittingId, epoch } = answer.device;
		writeCookie(cookies, url, 'device', deviceId, YEAR_S);
		writeCookie(cookies, url, 'sitting', token, Math.floor((expires - locals.otium.now()) / 1_000));
		return json({ sittingId, epoch });
	});
};
