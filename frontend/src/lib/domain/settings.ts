/** A gear's setting, or its part's default: the same rule as the core's setting_of. */
import type { Schemas } from '../api/client';

type Setting = Schemas['Part']['settings'][number];

export function valueOf(gear: Schemas['Gear'], setting: Setting): string | number | boolean {
	const own = gear.settings?.[setting.id];
	if (own !== undefined) return own;
	return setting.type === 'level' ? setting.default_db : (setting.default ?? false);
}
