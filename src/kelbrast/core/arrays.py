"""The arrays of the computation, by what they hold."""

import numpy as np
from numpy.typing import NDArray

Reals = NDArray[np.float64]
Flags = NDArray[np.bool_]
