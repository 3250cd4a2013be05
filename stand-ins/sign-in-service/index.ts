import { createServer, type Server } from 'node:http';
import Provider from 'oidc-provider';

export const CLIENT = { id: 'otium', secret: 'a secret between the two' };
/** Somebody whom the service knows; they sign in there by their name alone. */
export type Account = { name: string; email: string; verified?: boolean; groups?: string[]; amr?: string[] };

/**
 * A small stand-in for the sign-in service of a house (OpenID Connect): it asks for a name and believes it.
 * @param accounts by the name that they type there
 * @param back where it sends people back to
 */
export async function startSignInService(
	port: number,
	accounts: Record<string, Account>,
	back: string
): Promise<{ issuer: string; close: () => Promise<void> }> {
	const issuer = `http://localhost:${port}`;
	const provider = new Provider(issuer, {
		clients: [{ client_id: CLIENT.id, client_secret: CLIENT.secret, redirect_uris: [back] }],
		pkce: { required: () => true },
		conformIdTokenClaims: false,
		claims: {
			openid: ['sub', 'amr'],
			email: ['email', 'email_verified'],
			profile: ['name', 'preferred_username', 'groups']
		},
		cookies: { keys: ['stand-in'] },
		interactions: { url: (_, interaction) => `/who/${interaction.uid}` },
		features: { devInteractions: { enabled: false } },
		findAccount: (_, id) => {
			const { name, email, verified = true, groups = [] } = accounts[id] ?? { name: id, email: '' };
			const claims = { sub: id, name, preferred_username: id, email, email_verified: verified, groups };
			return { accountId: id, claims: async () => claims };
		}
	});
	const answer = provider.callback();
	const server: Server = createServer((request, response) => {
		const path = new URL(request.url!, issuer).pathname;
		if (!path.startsWith('/who/')) return void answer(request, response);
		void (async () => {
			const { uid, prompt, params, session } = await provider.interactionDetails(request, response);
			if (request.method === 'GET' && prompt.name === 'login') {
				response.setHeader('content-type', 'text/html');
				response.end(
					`<title>Sign-in service</title><form method="post" action="/who/${uid}"><label>Who are you? <input name="who"></label><button>Sign in</button></form>`
				);
				return;
			}
			if (prompt.name === 'login') {
				let body = '';
				for await (const chunk of request) body += String(chunk);
				const who = new URLSearchParams(body).get('who') ?? '';
				const login = { accountId: who, amr: accounts[who]?.amr ?? ['pwd'] };
				await provider.interactionFinished(request, response, { login }, { mergeWithLastSubmission: false });
				return;
			}
			const grant = new provider.Grant({ accountId: session!.accountId, clientId: params.client_id as string });
			grant.addOIDCScope('openid profile email');
			const consent = { grantId: await grant.save() };
			await provider.interactionFinished(request, response, { consent }, { mergeWithLastSubmission: true });
		})().catch((error: Error) => {
			response.statusCode = 500;
			response.end(error.message);
		});
	});
	await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
	return {
		issuer,
		close: () =>
			new Promise((resolve) => {
				server.closeAllConnections();
				server.close(() => resolve());
			})
	};
}
