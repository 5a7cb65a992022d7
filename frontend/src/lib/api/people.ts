/** Who is here, people, sign-ins and links: each query's key and fetch, side by side. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';

export const sessionQuery = () =>
	queryOptions({ queryKey: ['session'], queryFn: () => answer(client.GET('/api/session')) });

export const signIn = (body: Schemas['SignInBody']) => answer(client.POST('/api/sign-in', { body }));

/** By picking a name at a trusted computer. */
export const pickName = (person_id: string) =>
	answer(client.POST('/api/sign-in/here', { body: { person_id } }));

export const signOut = () => answer(client.POST('/api/sign-out'));

export const openLink = (token: string) => answer(client.POST('/api/links/open', { body: { token } }));

export const choosePassphrase = (token: string, passphrase: string) =>
	answer(client.POST('/api/links/passphrase', { body: { token, passphrase } }));

export const rename = (name: string) => answer(client.PUT('/api/me/name', { body: { name } }));

export const changePassphrase = (body: Schemas['NewPassphraseBody']) =>
	answer(client.PUT('/api/me/passphrase', { body }));

export const offerCodes = () => answer(client.GET('/api/me/one-time-codes'));

export const useCodes = (body: Schemas['UseCodesBody']) =>
	answer(client.PUT('/api/me/one-time-codes', { body }));

export const stopCodes = (present: string) =>
	answer(client.POST('/api/me/one-time-codes/stop', { body: { present } }));

export const signInsQuery = () =>
	queryOptions({ queryKey: ['sign-ins'], queryFn: () => answer(client.GET('/api/me/sign-ins')) });

export const endSignIn = (sign_in_id: string) =>
	answer(client.DELETE('/api/me/sign-ins/{sign_in_id}', { params: { path: { sign_in_id } } }));

export const peopleQuery = () =>
	queryOptions({ queryKey: ['people'], queryFn: () => answer(client.GET('/api/people')) });

export const addPerson = (body: Schemas['NewPersonBody']) => answer(client.POST('/api/people', { body }));

const person = (person_id: string) => ({ params: { path: { person_id } } });

export const changePerson = (id: string, body: Schemas['ChangedPersonBody']) =>
	answer(client.PUT('/api/people/{person_id}', { ...person(id), body }));

export const removePerson = (id: string) => answer(client.DELETE('/api/people/{person_id}', person(id)));

/** A link by which somebody who has forgotten their passphrase chooses a new one. */
export const renewPassphrase = (id: string) =>
	answer(client.POST('/api/people/{person_id}/passphrase-link', person(id)));

export const computersQuery = () =>
	queryOptions({ queryKey: ['computers'], queryFn: () => answer(client.GET('/api/computers')) });

export const trustComputer = (name: string) => answer(client.POST('/api/computers', { body: { name } }));

export const stopTrusting = (computer_id: string) =>
	answer(client.DELETE('/api/computers/{computer_id}', { params: { path: { computer_id } } }));

export const linksQuery = (rig_id: string) =>
	queryOptions({
		queryKey: ['links', rig_id],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/links', { params: { path: { rig_id } } }))
	});

export const makeLink = (rig_id: string, body: Schemas['NewLinkBody']) =>
	answer(client.POST('/api/rigs/{rig_id}/links', { params: { path: { rig_id } }, body }));

export const revokeLink = (rig_id: string, link_id: string) =>
	answer(client.DELETE('/api/rigs/{rig_id}/links/{link_id}', { params: { path: { rig_id, link_id } } }));
