/** The one way to the server: typed by the OpenAPI document, token attached, errors turned into Trouble. */
import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** What a problem of the page's own has no more of. */
export const NOTHING_MORE = { faults: [], meetings: [], current_version: null, request_id: null };

/** What stands for an answer that never came. */
export const OFFLINE: Schemas['Problem'] = {
	code: 'offline',
	message: 'No answer from the server. What was saved is safe; this page tries again when you do.',
	...NOTHING_MORE
};

/** A refusal by the server, or no answer at all (status 0). */
export class Trouble extends Error {
	constructor(
		readonly status: number,
		readonly problem: Schemas['Problem']
	) {
		super(problem.message);
	}
}

/** To be called once: waits for work that the server does in its queue, by the address where it tells how far it is.
 * Throws Trouble when that is cancelled. */
export const onLongWork = (wait: (monitor: string, signal: AbortSignal) => Promise<void>): void => {
	waitForWork = wait;
};
let waitForWork = (monitor: string, signal: AbortSignal): Promise<void> => {
	void signal;
	return Promise.reject(new Error(`Nobody waits for long work: ${monitor}`));
};
const ACCEPTED = 202;

/** How long a question may stay without an answer: on a stage's network a request can hang for minutes, and whoever
 * waits for it could neither say so nor ask again. */
const SHORT_MS = 10_000;
/** The same where the server may have to compute first, or much is sent. */
const LONG_MS = 300_000;

/** For what the server answers at once. */
export const short = (): { signal: AbortSignal } => ({ signal: AbortSignal.timeout(SHORT_MS) });

/** For what is sent and may be large. */
export const long = (): { signal: AbortSignal } => ({ signal: AbortSignal.timeout(LONG_MS) });

/** Each question of its own: waiting for work in the queue has no limit. */
const limited = (request: Request): RequestInit =>
	request.method === 'GET' ? { signal: AbortSignal.any([request.signal, long().signal]) } : {};

/** Sends a request; where the answer takes long, waits for the work and asks again. */
async function send(request: Request): Promise<Response> {
	for (;;) {
		const response = await fetch(request.clone(), limited(request));
		if (response.status !== ACCEPTED) return response;
		await waitForWork(response.headers.get('Location') ?? '', request.signal);
	}
}

/** Whether somebody ended the work that was waited for. */
export const wasCancelled = (reason: unknown): boolean =>
	reason instanceof Trouble && reason.problem.code === 'cancelled';

export const client = createClient<paths>({ baseUrl: '', fetch: send });

let token: Promise<string> | null = null;

const withToken: Middleware = {
	async onRequest({ request }) {
		if (request.method !== 'GET') {
			request.headers.set('X-CSRF-Token', await csrfToken());
		}
		return request;
	}
};
client.use(withToken);

function csrfToken(): Promise<string> {
	token ??= answer(client.GET('/api/session', short())).then((session) => session.csrf_token);
	// A failed attempt must not be remembered, or no later change could ever succeed.
	token.catch(() => (token = null));
	return token;
}

let signedOut = (): void => undefined;

/** To be called once: what happens when the server says that nobody is signed in here any longer. */
export const onSignedOut = (then: () => void): void => {
	signedOut = then;
};

/** After signing in or out the browser has another token. */
export const forgetToken = (): void => {
	token = null;
};

interface Answer<Data> {
	data?: Data;
	error?: unknown;
	response: Response;
}

/** The body of a successful answer; throws Trouble otherwise. */
export async function answer<Data>(promise: Promise<Answer<Data>>): Promise<Data> {
	let got: Answer<Data>;
	try {
		got = await promise;
	} catch (reason) {
		if (reason instanceof Trouble) throw reason;
		throw new Trouble(0, OFFLINE);
	}
	if (got.response.ok) return got.data as Data;
	const problem = problemOf(got.error);
	if (problem.code === 'csrf') token = null;
	if (problem.code === 'signed_out') signedOut();
	throw new Trouble(got.response.status, problem);
}

function problemOf(body: unknown): Schemas['Problem'] {
	if (typeof body === 'object' && body !== null && 'message' in body) return body as Schemas['Problem'];
	return {
		code: 'unreadable',
		message: 'The server answered something this page cannot read.',
		...NOTHING_MORE
	};
}
