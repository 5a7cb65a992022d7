/** Scrolls the check to its head where the card on screen begins above what is seen: nobody answers a run unnamed. */
export function showHead(): void {
	const card = document.querySelector('.check article.card');
	if (card && card.getBoundingClientRect().top < 0)
		document.querySelector('.check')?.scrollIntoView({ block: 'start' });
}
