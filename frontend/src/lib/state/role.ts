/** Which part somebody has in the line check, kept for this device. */
import { ROLES, type Role } from '../domain/working';

const KEPT = 'ruvak-role';

export function keptRole(): Role {
	try {
		const kept = localStorage.getItem(KEPT);
		return ROLES.find(({ id }) => id === kept)?.id ?? 'alone';
	} catch {
		return 'alone';
	}
}

export function keepRole(role: Role): void {
	try {
		localStorage.setItem(KEPT, role);
	} catch {
		// It lasts as long as the page.
	}
}
