"""What every blueprint needs: the owner's tours, cached profiles, and answers."""

from collections import OrderedDict
from threading import Lock
from typing import Any

from flask import Response, current_app, request
from pydantic import BaseModel

from omnifer.api.shapes import TourAnswer, TourView
from omnifer.core.assess import assess, profile_of
from omnifer.core.model.tour import Tour
from omnifer.core.road.profile import Profile
from omnifer.formats.problem import InputProblem
from omnifer.outside.weather import WeatherService
from omnifer.store.tours import StoredTour, Tours

MOST_PROFILES = 8


class Desk:
    """The local rider's tours, and the profiles of the tracks lately used."""

    def __init__(self, tours: Tours, weather: WeatherService) -> None:
        self.tours = tours
        self.weather = weather
        self._profiles: OrderedDict[int, Profile] = OrderedDict()
        self._lock = Lock()

    def profile(self, stored: StoredTour) -> Profile | None:
        """The road of a tour; tracks never change, so theirs are kept."""
        if stored.track_id is None:
            return profile_of(Tour.model_validate(stored.sheet.model_dump()))
        with self._lock:
            found = self._profiles.get(stored.track_id)
            if found is not None:
                self._profiles.move_to_end(stored.track_id)
                return found
        found = profile_of(self.whole(stored))
        assert found is not None
        with self._lock:
            self._profiles[stored.track_id] = found
            while len(self._profiles) > MOST_PROFILES:
                self._profiles.popitem(last=False)
        return found

    def whole(self, stored: StoredTour) -> Tour:
        """The tour with its raw track."""
        return Tour.model_construct(**dict(stored.sheet), track=self.tours.read_track(stored.track_id))

    def answer(self, tour_id: str, remarks: list[str] | None = None) -> TourAnswer:
        """The tour as it now stands, and what that means."""
        stored = self.tours.read(tour_id)
        return TourAnswer(tour=view(stored), assessment=assess(stored.sheet, self.profile(stored)), remarks=remarks or [])


def desk() -> Desk:
    """The desk of the running application."""
    found: Desk = current_app.extensions["omnifer"]
    return found


def view(stored: StoredTour) -> TourView:
    """A stored tour as screens see it."""
    return TourView(
        id=stored.id,
        revision=stored.revision,
        changed_at=stored.changed_at,
        what=stored.what,
        has_track=stored.track_id is not None,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
        sheet=stored.sheet,
    )


def body() -> bytes:
    """The request's JSON, refused in words where it is none. Numbers that are not finite are refused by the models."""
    if not request.is_json:
        raise InputProblem("This request is not JSON", "header Content-Type", "Send application/json.")
    return bytes(request.get_data())


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    return current_app.response_class(model.model_dump_json(), status=status, mimetype="application/json")


def uploaded() -> bytes:
    """The uploaded file."""
    file = request.files.get("file")
    if file is None:
        raise InputProblem("No file came along", "field file", "Choose a file first.")
    content: bytes = file.read()
    return content


def uploaded_revision() -> int:
    """The revision that an upload changes."""
    text: Any = request.form.get("revision", "")
    if not text.isdigit():
        raise InputProblem("The upload does not say which revision it changes", "field revision", "Reload the page.")
    return int(text)
