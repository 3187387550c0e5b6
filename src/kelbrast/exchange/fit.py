"""From the size that a job file wants of a face to the face of the core."""

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.precision.face import to_size
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.sized import Sized
from kelbrast.core.units import to_si
from kelbrast.exchange.job_file import FaceFile
from kelbrast.exchange.size_wanted import gauge_in_si, readings_in_si, round_part


def with_fit(face: Face, file: FaceFile, made_of: Material | None, field: str) -> Face:
    """The face with the size that is wanted of it, if one is; without a material no reading is one at a temperature.

    Raises:
        BadInput: the size wanted is none, or the readings can not be of one part.
    """
    fit, kind, shape = file.fit, file.round_kind, file.shape
    if fit is None or kind is None or shape is None or shape.length_mm is None or made_of is None:
        return face
    part = round_part(fit.want, kind, length=to_si(shape.length_mm, "mm"), marks=face.found.worst or 0.0, field=f"{field}.")
    read = readings_in_si(fit.readings, part, made_of, gauge_c=fit.gauge_c, field=f"{field}.readings")
    try:
        return to_size(face, Sized(part, gauge_in_si(fit.gauge), read))
    except OutsideValidity as problem:
        raise BadInput.one(f"{field}.readings", f"these readings can not be of one part: {problem}") from None
