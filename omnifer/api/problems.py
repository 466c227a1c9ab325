"""Every refusal as problem+json: what is wrong, where, and what to do."""

from flask import Flask, Response, current_app
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import HTTPException

from omnifer.office.problems import Problem, problem_of

RETRY_S = 2
"""When to try again where something is away for a moment [s]."""


def problem(told: Problem) -> Response:
    """A problem+json answer."""
    response = current_app.response_class(
        told.model_dump_json(exclude_none=True), status=told.status, mimetype="application/problem+json"
    )
    if told.status in (429, 503):
        response.headers["Retry-After"] = str(told.wait_s or RETRY_S)
    return response


def register(app: Flask) -> None:
    """Answer every kind of trouble in the same form."""

    @app.errorhandler(CSRFError)
    def no_token(error: CSRFError) -> Response:
        detail = error.description or ""
        # A page that outlived its session gets a new token and asks again by itself.
        told = Problem(status=400, title="Not from this application", detail=detail, mend="Reload the page.", again=True)
        return problem(told)

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        code = error.code or 500
        told = Problem(status=code, title=error.name, detail=error.description or error.name)
        if code == 413:
            detail, mend = "The upload is larger than can be taken.", "Thin it or split it."
            told = Problem(status=413, title="Too large", detail=detail, mend=mend)
        answer = problem(told)
        for name, value in error.get_headers():
            if name.lower() == "allow":
                answer.headers[name] = value
        return answer

    @app.errorhandler(Exception)
    def trouble(error: Exception) -> Response:
        return problem(problem_of(error))
