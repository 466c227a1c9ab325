"""Every refusal as problem+json: what is wrong, where, and what to do."""

import logging

from flask import Flask, Response, current_app
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from omnifer.api.openapi import Problem
from omnifer.formats.problem import InputProblem, what_of, where_of
from omnifer.store.tours import NotThereError, StaleError, UnreadableError

log = logging.getLogger(__name__)


def problem(
    status: int, title: str, detail: str, where: str = "", mend: str = "", current_revision: int | None = None
) -> Response:
    """A problem+json answer."""
    body = Problem(
        title=title, status=status, detail=detail, where=where, mend=mend, current_revision=current_revision
    ).model_dump_json(exclude_none=True)
    return current_app.response_class(body, status=status, mimetype="application/problem+json")


def register(app: Flask) -> None:
    """Answer every kind of trouble in the same form."""

    @app.errorhandler(InputProblem)
    def bad_input(error: InputProblem) -> Response:
        return problem(422, "This cannot be taken", error.what, error.where, error.mend)

    @app.errorhandler(ValidationError)
    def bad_fields(error: ValidationError) -> Response:
        first = error.errors()[0]
        more = f" ({error.error_count() - 1} more)" if error.error_count() > 1 else ""
        mend = "Change it and try again; nothing was kept."
        return problem(422, "This cannot be taken", f"{what_of(first)}{more}", where_of(first), mend)

    @app.errorhandler(UnreadableError)
    def unreadable(error: UnreadableError) -> Response:
        detail = f"The tour is kept, but this Omnifer cannot read it as it stands after \u201c{error.what}\u201d: {error}."
        mend = "Nothing is lost: save what is there as a file, go back to the state before, or open it with a newer Omnifer."
        return problem(422, "Kept, but not readable", detail, "", mend, error.revision)

    @app.errorhandler(NotThereError)
    def not_there(error: NotThereError) -> Response:
        return problem(404, "Not there", "There is no such tour.", str(error), "Choose one from the list of tours.")

    @app.errorhandler(StaleError)
    def stale(error: StaleError) -> Response:
        return problem(
            409,
            "Changed elsewhere",
            "Another window has changed the same part of this tour since this one read it. Nothing of it is lost.",
            mend="Show the newer state, then make your change again.",
            current_revision=error.current,
        )

    @app.errorhandler(CSRFError)
    def no_token(error: CSRFError) -> Response:
        return problem(400, "Not from this application", error.description or "", mend="Reload the page.")

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        code = error.code or 500
        answer = problem(code, error.name, error.description or error.name)
        if code == 413:
            answer = problem(413, "Too large", "The upload is larger than can be taken.", mend="Thin it or split it.")
        for name, value in error.get_headers():
            if name.lower() == "allow":
                answer.headers[name] = value
        return answer

    @app.errorhandler(Exception)
    def unforeseen(error: Exception) -> Response:
        log.exception("unforeseen trouble", exc_info=error)
        return problem(
            500, "Omnifer stumbled", "Something unforeseen went wrong; nothing was changed.", mend="Try again, or reload."
        )
