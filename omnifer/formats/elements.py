"""XML as a stream of small elements: no document types, no entities, bounded in bytes, elements and depth."""

from collections.abc import Callable
from xml.parsers import expat

from omnifer.formats.found import MOST_ATTRIBUTES, MOST_DEPTH, PIECE_BYTES, Tell, bounded, nobody
from omnifer.formats.problem import InputProblem

MOST_ELEMENTS = 15_000_000
"""Of a file; a recorded point has up to a dozen."""
Starts, Ends = Callable[[list[str]], None], Callable[[list[str], str], None]
AGAIN = "Export it again from your planner or device."


def stream(
    content: bytes, ends: Callable[[list[str], str], None], starts: Callable[[list[str]], None], tell: Tell = nobody
) -> None:
    """Call `starts` with the path of local names of each element that begins, and `ends` with path and text of each that ends.

    The text is that since the last tag: whole for elements without children, which is all that is read of these files.
    Raises InputProblem with what is wrong, where and what to do.
    """
    bounded(content)
    parser, path, text, count = expat.ParserCreate(), list[str](), list[str](), [0]
    parser.buffer_text = True

    def refuse(*_: object) -> None:
        what = "The file declares a document type, which a track never needs and which can hide entities"
        raise InputProblem(what, f"line {parser.CurrentLineNumber}", AGAIN)

    def start(tag: str, attributes: dict[str, str]) -> None:
        count[0] += 1
        path.append(tag.rpartition(":")[2])
        if len(path) > MOST_DEPTH or len(attributes) > MOST_ATTRIBUTES or count[0] > MOST_ELEMENTS:
            raise InputProblem("The file is nested too deep or has too many elements", f"line {parser.CurrentLineNumber}", AGAIN)
        text.clear()
        starts(path)

    def end(_: str) -> None:
        ends(path, "".join(text).strip())
        path.pop()
        text.clear()

    parser.StartElementHandler, parser.EndElementHandler = start, end
    parser.CharacterDataHandler, parser.StartDoctypeDeclHandler = text.append, refuse
    try:
        for begin in range(0, len(content), PIECE_BYTES):
            tell(begin / len(content))
            parser.Parse(content[begin : begin + PIECE_BYTES], False)
        parser.Parse(b"", True)
    except expat.ExpatError as error:
        what = f"The file breaks off or is damaged: {expat.errors.messages[error.code]}"
        raise InputProblem(what, f"line {error.lineno}", "Copy or export it again; nothing was taken.") from None
    except (LookupError, UnicodeError, ValueError) as error:
        if isinstance(error, InputProblem):
            raise
        raise InputProblem(
            "The file is written in an encoding that cannot be read", "line 1", "Export it again, in UTF-8."
        ) from None
