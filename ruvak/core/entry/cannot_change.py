"""Why a line that changes something cannot."""


class CannotChange(Exception):
    """Carries a sentence that says why, and lines that could be meant."""

    def __init__(self, sentence: str, *suggestions: str) -> None:
        self.suggestions = suggestions
        super().__init__(sentence)
