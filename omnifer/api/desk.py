"""What every blueprint needs: the desk of the rider who asks, what came along, and answers."""

from typing import TypeVar

from flask import Response, current_app, g, request
from pydantic import BaseModel

from omnifer.api.packing import PLAIN, QUICK, WORTH_PACKING, json_of, packing_for
from omnifer.formats.problem import InputProblem
from omnifer.office.desk import Desk
from omnifer.office.problems import SignInFirst
from omnifer.office.shapes import TourAnswer
from omnifer.store.accounts import SignedIn
from omnifer.store.database import LOCAL_RIDER

Form = TypeVar("Form", bound=BaseModel)


def desk() -> Desk:
    """The desk of the rider who asks: of who is signed in where it is hosted, else of the local rider."""
    if "desk" not in g:
        office = current_app.extensions["omnifer"]
        hosted = current_app.extensions["hosting"] is not None
        g.desk = office.desk_for(rider_here().owner_id, g.access.owner_id) if hosted else office.desk_of(LOCAL_RIDER)
    found: Desk = g.desk
    return found


def rider_here() -> SignedIn:
    """Who is signed in. Raises SignInFirst."""
    found: SignedIn | None = g.get("rider")
    if found is None:
        raise SignInFirst
    return found


def body() -> bytes:
    """The request's JSON, refused in words where it is none. Numbers that are not finite are refused by the models."""
    if not request.is_json:
        raise InputProblem("This request is not JSON", "header Content-Type", "Send application/json.")
    return bytes(request.get_data())


HOLDS = "Omnifer-Holds"
"""Header by which a reader says which state of a tour it has."""


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON; a tour only as far as it is otherwise than its reader has it."""
    holds = request.headers.get(HOLDS)
    if holds and isinstance(model, TourAnswer):
        model = desk().since(holds, model) or model
    plain = model.model_dump_json().encode()
    packing = packing_for(request, QUICK) if len(plain) > WORTH_PACKING else PLAIN
    return json_of(packing.pack(plain), packing, status)


def uploaded() -> bytes:
    """The uploaded file."""
    file = request.files.get("file")
    if file is None:
        raise InputProblem("No file came along", "field file", "Choose a file first.")
    content: bytes = file.read()
    return content


def form(model: type[Form]) -> Form:
    """The fields that came along with an upload; empty ones count as left out. Raises ValidationError."""
    return model.model_validate({name: text for name, text in request.form.items() if text})
