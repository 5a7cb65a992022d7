/** Booth or Daylight; remembered, and set before the first paint by public/theme.js. */
export type Theme = 'booth' | 'daylight';

class ThemeState {
	current = $state<Theme>(document.documentElement.dataset['theme'] === 'daylight' ? 'daylight' : 'booth');

	toggle(): void {
		this.current = this.current === 'booth' ? 'daylight' : 'booth';
		document.documentElement.dataset['theme'] = this.current;
		document.documentElement.classList.toggle('dark', this.current === 'booth');
		try {
			localStorage.setItem('ruvak-theme', this.current);
		} catch {
			// Private windows refuse storage; the choice then lasts for this visit.
		}
	}
}

export const theme = new ThemeState();
