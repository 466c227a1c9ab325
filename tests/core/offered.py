"""What a finding offers, before it is tried."""

from omnifer.core.assess import profile_of, situation_of
from omnifer.core.findings import look_for
from omnifer.core.model.finding import Finding, Mend
from omnifer.core.model.tour import Tour


def offers(tour: Tour, finding: Finding) -> list[Mend]:
    """Mends of a finding of a tour."""
    return look_for(finding.kind, situation_of(tour, profile_of(tour)))[finding.id].offers()
