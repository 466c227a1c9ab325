"""Another rig for the same tour and kit, kept beside the one that is ridden."""

from omnifer.core.model.load import Load
from omnifer.core.model.quantities import Id, Name, Noun
from omnifer.core.model.rig import Rig


class Variant(Noun):
    """A rig under a name, with its load where it has one."""

    id: Id
    name: Name
    rig: Rig
    load: Load = Load()
