"""The OpenAPI document, made from the blueprints' own functions and the core's models."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from flask import Flask
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from omnifer.api.desk import HOLDS
from omnifer.jobs.errands import event_name
from omnifer.office.problems import Problem
from omnifer.office.shapes import TourAnswer, TourOtherwise

Function = TypeVar("Function", bound=Callable[..., Any])


@dataclass(frozen=True)
class Operation:
    """What one function takes and gives."""

    summary: str
    gives: type[BaseModel] | None
    takes: type[BaseModel] | None
    upload: type[BaseModel] | None
    tells: tuple[type[BaseModel], ...]
    media: str
    status: int
    problems: tuple[int, ...]
    asks: tuple[str, ...]


def operation(
    gives: type[BaseModel] | None = None,
    takes: type[BaseModel] | None = None,
    upload: type[BaseModel] | None = None,
    tells: tuple[type[BaseModel], ...] = (),
    media: str = "application/json",
    status: int = 200,
    problems: tuple[int, ...] = (),
    asks: tuple[str, ...] = (),
) -> Callable[[Function], Function]:
    """Describe a view function; its docstring's first line is the summary.

    `upload` names the form fields that come along with files, `tells` what is told on the way to a request that accepts an
    event stream.
    """

    def describe(function: Function) -> Function:
        summary = (function.__doc__ or "").strip().split("\n")[0]
        function.operation = Operation(summary, gives, takes, upload, tells, media, status, problems, asks)  # type: ignore[attr-defined]
        return function

    return describe


EVENT_STREAM = "text/event-stream"
ALWAYS = (400, 401, 403, 429, 503)
"""What any question may be answered with: no token, nobody signed in, somebody else's proxy, too many at a time, the database
away."""


def document(app: Flask) -> dict[str, Any]:
    """The OpenAPI 3.1 document of an application."""
    described = []
    for rule in app.url_map.iter_rules():
        found = getattr(app.view_functions[rule.endpoint], "operation", None)
        if isinstance(found, Operation):
            described.append((rule, found))
    described.sort(key=lambda pair: pair[0].rule)
    given = {(model, "serialization") for _, op in described for model in (*_given(op), *op.tells)}
    given |= {(Problem, "serialization")}
    taken = {(op.takes, "validation") for _, op in described if op.takes}
    models = sorted(given | taken, key=lambda pair: (pair[0].__name__, pair[1]))
    refs, definitions = models_json_schema(models, ref_template="#/components/schemas/{model}")  # type: ignore[arg-type]
    paths: dict[str, dict[str, Any]] = {}
    for rule, op in described:
        path = re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", rule.rule)
        for method in sorted((rule.methods or set()) - {"HEAD", "OPTIONS"}):
            paths.setdefault(path, {})[method.lower()] = _operation(rule, op, refs)
    problem = {"application/problem+json": {"schema": refs[Problem, "serialization"]}}
    return {
        "openapi": "3.1.0",
        "info": {"title": "Omnifer", "version": "1", "description": "Carrying everything on a bicycle for weeks."},
        "paths": paths,
        "components": {"schemas": definitions["$defs"], "responses": {"Refused": {"description": "Refused", "content": problem}}},
    }


def _operation(rule: Any, op: Operation, refs: dict[Any, Any]) -> dict[str, Any]:
    result: dict[str, Any] = {"operationId": rule.endpoint.rpartition(".")[2], "summary": op.summary}
    if rule.arguments:
        result["parameters"] = [
            {
                "name": name,
                "in": "path",
                "required": True,
                "schema": {"type": "integer" if f"<int:{name}>" in rule.rule else "string"},
            }
            for name in sorted(rule.arguments)
        ]
    for name in op.asks:
        parameter = {"name": name, "in": "query", "required": False, "schema": {"type": "string"}}
        result.setdefault("parameters", []).append(parameter)
    if op.takes:
        result["requestBody"] = {
            "required": True,
            "content": {"application/json": {"schema": refs[op.takes, "validation"]}},
        }
    if len(_given(op)) > 1:
        holds = {"name": HOLDS, "in": "header", "required": False, "schema": {"type": "string"}}
        result.setdefault("parameters", []).append(holds | {"description": "The state of the tour that the reader has"})
    if op.upload:
        form = op.upload.model_json_schema()
        fields = {"file": {"type": "string", "format": "binary"}, **form.get("properties", {})}
        schema = {"type": "object", "properties": fields, "required": ["file", *form.get("required", [])]}
        result["requestBody"] = {"required": True, "content": {"multipart/form-data": {"schema": schema}}}
    success: dict[str, Any] = {"description": "Done"}
    if op.gives:
        schemas = [refs[model, "serialization"] for model in _given(op)]
        success["content"] = {op.media: {"schema": schemas[0] if len(schemas) == 1 else {"anyOf": schemas}}}
        if op.tells:
            success["content"][EVENT_STREAM] = {"schema": _events(op, refs)}
    elif op.status != 204:
        kind = "object" if op.media.endswith(("json", EVENT_STREAM)) else "string"
        success["content"] = {op.media: {"schema": {"type": kind}}}
    result["responses"] = {str(op.status): success} | {
        str(code): {"$ref": "#/components/responses/Refused"} for code in sorted({*op.problems, *ALWAYS})
    }
    return result


def _given(op: Operation) -> tuple[type[BaseModel], ...]:
    """What it may answer: a tour also as far as it is otherwise than its reader has it."""
    if op.gives is TourAnswer and (op.takes or op.upload):
        return TourAnswer, TourOtherwise
    return (op.gives,) if op.gives else ()


def _events(op: Operation, refs: dict[Any, Any]) -> dict[str, Any]:
    """The data of each event, by the event's name; `answer` or `problem` is the last."""
    events = {event_name(model): refs[model, "serialization"] for model in op.tells}
    events |= {"answer": refs[op.gives, "serialization"], "problem": refs[Problem, "serialization"]}
    return {"type": "object", "description": "Data of each server-sent event, by its name", "properties": events}
