// Sets the theme before the first paint. A file of its own, because the content policy allows no inline script.
(function () {
	var theme = 'booth';
	try {
		if (localStorage.getItem('ruvak-theme') === 'daylight') theme = 'daylight';
	} catch {
		// Storage can be switched off; then every visit starts in Booth.
	}
	document.documentElement.dataset.theme = theme;
	document.documentElement.classList.toggle('dark', theme === 'booth');
})();
