"""The arrays of the computation, by what they hold, and how near two numbers of it are the same."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

Reals = NDArray[np.float64]
Flags = NDArray[np.bool_]
Places = NDArray[np.intp]
Waves = NDArray[np.complex128]
Bytes = NDArray[np.uint8]

SAME: Final = 1e-9  # relative: what two ways of working out one number may differ by
