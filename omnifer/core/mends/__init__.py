"""What helps against one finding: things moved, exchanged, put otherwise or left, another bag, another date.

Every mend that is made here has been tried: it ends the finding, or says that it only lessens it; and it says what it brings
besides. All limits are asked with vessels full and with what rides in a thing going along, as the search asks them.
"""

from omnifer.core.assess import situation_of
from omnifer.core.findings import SPECS, find, look_for
from omnifer.core.mends.change import mended
from omnifer.core.mends.elsewhere import Elsewhere, loaded_otherwise
from omnifer.core.mends.nested import packed_into
from omnifer.core.mends.stays import left_at_home, other_bags, other_dates
from omnifer.core.model.finding import Mend
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import say

__all__ = ["mended", "mends_of"]


def mends_of(tour: TourSheet, road: Profile | None, finding_id: str) -> list[Mend]:
    """All that helps against a finding. Raises KeyError where there is none that is called so."""
    here = situation_of(tour, road)
    finding = next((f for f in find(here) if f.id == finding_id), None)
    if finding is None:
        raise KeyError(finding_id)
    trial = Elsewhere(here, road, finding)
    found = trial.proven(look_for(finding.kind, here)[finding_id].offers())
    spec = SPECS[finding.kind]
    if spec.loaded and tour.load.placements:
        found = [*loaded_otherwise(trial), *packed_into(trial), *found, *left_at_home(trial)]
    if spec.seasonal:
        found += other_dates(trial)
    if spec.of_size:
        found += other_bags(trial)
    found = trial.as_a_whole(found)
    if not found and spec.advice:
        name, consequence = spec.advice
        found = [Mend(name=say(name), consequence=say(consequence))]
    return found
