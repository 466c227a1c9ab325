"""Writes the documents that are generated: OpenAPI and the bundle's JSON Schema. `--check` only compares."""

import json
import sys
from pathlib import Path

from omnifer.api.app import create_app
from omnifer.api.openapi import document
from omnifer.formats.bundle import bundle_schema

DOCS = Path(__file__).parents[1] / "docs"


def main(check: bool) -> int:
    """Write or compare; returns 1 where a document is out of date."""
    texts = {"openapi.json": document(create_app(None)), "bundle.schema.json": bundle_schema()}
    stale = 0
    for name, content in texts.items():
        path, text = DOCS / name, json.dumps(content, indent=1, sort_keys=True) + "\n"
        if check and (not path.exists() or path.read_text() != text):
            print(f"docs/{name} is out of date: run bin/documents", file=sys.stderr)
            stale = 1
        elif not check:
            path.write_text(text)
    return stale


if __name__ == "__main__":
    sys.exit(main(check="--check" in sys.argv))
