"""The ledger of what is cited from memory: each formula, table and default whose source nobody had at hand, and who reads it."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from omnifer.core.model import practice

MARK = "from memory"
ROOT = Path(__file__).parents[1]
HEAD = """# What is cited from memory

Written by `bin/documents` from the sources: formulas, tables and defaults whose figures were set down without the document.
Each is checked in `tests/references` by another library or a worked value where one could be had. Whoever has the document: look
it up, correct the figure, and take the words "from memory" away; the list then shrinks by itself.

| where | what | said there | read by |
|---|---|---|---|
"""


def ledger() -> str:
    """The ledger as Markdown."""
    sources = {path: path.read_text() for path in sorted((ROOT / "omnifer").rglob("*.py")) if path.name != "from_memory.py"}
    rows = [row for path, text in sources.items() for row in _of_module(path, text, sources)]
    rows += [_row("omnifer/core/model/practice.py", f"`{name}`", told["source"], _readers(name, sources))
             for name, (_, told) in practice.fields().items() if MARK in told["source"]]  # fmt: skip
    return HEAD + "\n".join(rows) + "\n"


def _of_module(path: Path, text: str, sources: dict[Path, str]) -> Iterator[str]:
    where = str(path.relative_to(ROOT))
    body = ast.parse(text).body
    for before, node in zip([None, *body[:-1]], body, strict=True):
        if isinstance(node, ast.FunctionDef):
            names, told = [node.name], ast.get_docstring(node) or ""
        elif (
            isinstance(before, ast.Assign | ast.AnnAssign) and isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)
        ):
            names, told = _names(before), str(node.value.value)
        else:
            continue
        if MARK in told:
            readers = sorted({reader for name in names for reader in _readers(name, sources, path)})
            yield _row(where, ", ".join(f"`{name}`" for name in names), _said(told), readers)


def _names(node: ast.Assign | ast.AnnAssign) -> list[str]:
    targets = node.targets if isinstance(node, ast.Assign) else [node.target]
    return [name.id for target in targets for name in ast.walk(target) if isinstance(name, ast.Name)]


def _said(text: str) -> str:
    """The sentence in which it is said."""
    flat = " ".join(text.split())
    at = flat.index(MARK)
    begins = max(flat.rfind(mark, 0, at) for mark in ("References ---------- ", ". ", "; ")) + 1
    return flat[begins : at + len(MARK)].strip(" .;-")[:140]


def _readers(name: str, sources: dict[Path, str], own: Path | None = None) -> list[str]:
    """Modules that name it."""
    word = re.compile(rf"\b{re.escape(name)}\b")
    return sorted(path.stem for path, text in sources.items() if path != own and path.name != "practice.py" and word.search(text))


def _row(where: str, what: str, said: str, readers: list[str]) -> str:
    cells = where, what, said.replace("|", "\\|"), ", ".join(readers[:6]) or "its own module"
    return f"| {' | '.join(cells)} |"
