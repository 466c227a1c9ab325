"""No name of a maker stands for a kind of thing: trade marks are held out of every table and sentence of the product."""

import hashlib
import re
from pathlib import Path

HERE = Path(__file__).parents[2]
MARKS = {
    "048b41bf9c3f",
    "099fd96bbe2b",
    "13ec1304cd06",
    "1d52fc722532",
    "23b2a54839ee",
    "27a0f645e204",
    "27b91562ff41",
    "302949d0b84a",
    "338a518dce13",
    "366bad4ba304",
    "3f488ffe5bd4",
    "430978327635",
    "50ff4435fa01",
    "5693100195df",
    "608821bcab3c",
    "75f68f9807ae",
    "7668e8e20722",
    "77205180f0e8",
    "7cae14b0c0f1",
    "84c8e5ed6290",
    "9f6f4d9ade14",
    "ac3e8ff2b7a8",
    "bba94227a1e6",
    "bd582ae43269",
    "c1622564bd30",
    "c25825a1239e",
    "c5b49d391ac1",
    "c90051e7b471",
    "cdcbd6c4e055",
    "fd5db82ce994",
}
"""Of each mark the beginning of the hash of its small letters: a test that holds names out names none."""


def test_no_trade_mark_is_a_word_of_ours():
    files = [
        p for folder in ("omnifer", "web/src") for p in (HERE / folder).rglob("*") if p.suffix in (".py", ".csv", ".ts", ".tsx")
    ]
    assert len(files) > 200
    found = {
        f"{file.name}: {word}"
        for file in files
        for word in set(re.findall(r"[a-z][a-z-]{2,}", file.read_text().lower()))
        if hashlib.sha256(word.encode()).hexdigest()[:12] in MARKS
    }
    assert found == set()
