"""Input that cannot be taken, in words: what, where, and what to do."""


class InputProblem(Exception):
    """Bad input. `where` names a line, row or field; `mend` says what to do."""

    def __init__(self, what: str, where: str = "", mend: str = "") -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.mend = mend

    def __str__(self) -> str:
        where = f" ({self.where})" if self.where else ""
        mend = f" {self.mend}" if self.mend else ""
        return f"{self.what}{where}.{mend}"
