"""Vectors in stacks of shape (..., 3), real or complex.

The derivatives of the linkage are taken by a complex step: a function that only adds, multiplies, divides and takes roots is
evaluated at x + ih with h = 1e-30, and its imaginary part over h is the derivative to the last digit, with no difference in it.
So nothing here conjugates, takes absolute values or branches on an imaginary part.
Source: W. Squire and G. Trapp, Using complex variables to estimate derivatives of real functions, SIAM Review 40 (1998).
"""

from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[Any]  # of float64, or of complex128 on the way of a complex step
STEP = 1e-30


def dot(a: Array, b: Array) -> Array:
    """Return the inner product over the last axis, without conjugation.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    product = a * b
    return np.asarray(product[..., 0] + product[..., 1] + product[..., 2])


def cross(a: Array, b: Array) -> Array:
    """Return the vector product over the last axis.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    a0, a1, a2 = a[..., 0], a[..., 1], a[..., 2]
    b0, b1, b2 = b[..., 0], b[..., 1], b[..., 2]
    first = a1 * b2 - a2 * b1
    out = np.empty((*first.shape, 3), dtype=first.dtype)
    out[..., 0], out[..., 1], out[..., 2] = first, a2 * b0 - a0 * b2, a0 * b1 - a1 * b0
    return out


def length(a: Array) -> Array:
    """Return the length over the last axis.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    return np.sqrt(dot(a, a))


def unit(a: Array) -> Array:
    """Return vectors of length one; nan where there is no length.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(a / length(a)[..., None])


def turned(rotation: Array, vector: Array) -> Array:
    """Return rotation (..., 3, 3) applied to vector (..., 3), stacks broadcast together.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    return np.asarray((rotation @ vector[..., None])[..., 0])


def atan2(y: Array, x: Array) -> Array:
    """Return the angle in radians; of complex numbers, with the derivative carried along.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    y, x = np.asarray(y), np.asarray(x)
    angle = np.arctan2(y.real, x.real)
    if not (np.iscomplexobj(y) or np.iscomplexobj(x)):
        return np.asarray(angle)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(angle + 1j * (x.real * y.imag - y.real * x.imag) / (x.real**2 + y.real**2))


def atan2_deg(y: Array, x: Array) -> Array:
    """Return the angle in degrees; see :func:`atan2`.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    return np.asarray(atan2(y, x) * (180 / np.pi))


def rotation_by(vector: Array) -> Array:
    """Return the rotation (..., 3, 3) about a vector (..., 3) by its length in radians (Rodrigues).

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    angle2 = dot(vector, vector)
    angle = np.sqrt(angle2)
    small = np.abs(angle2) < 1e-8  # below 1e-4 rad three terms of the series hold 16 digits, and 0/0 is near
    safe = np.where(small, 1.0, angle)
    s = np.where(small, 1 - angle2 / 6 + angle2**2 / 120, np.sin(safe) / safe)
    c = np.where(small, 0.5 - angle2 / 24 + angle2**2 / 720, (1 - np.cos(safe)) / safe**2)
    k = skew(vector)
    return np.asarray(np.eye(3) + s[..., None, None] * k + c[..., None, None] * (k @ k))


def skew(vector: Array) -> Array:
    """Return the matrix (..., 3, 3) of the vector product with a vector from the left.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    out = np.zeros((*vector.shape, 3), dtype=vector.dtype)
    x, y, z = vector[..., 0], vector[..., 1], vector[..., 2]
    out[..., 0, 1], out[..., 0, 2] = -z, y
    out[..., 1, 0], out[..., 1, 2] = z, -x
    out[..., 2, 0], out[..., 2, 1] = -y, x
    return out


def square_to(direction: Array) -> tuple[Array, Array]:
    """Return two unit vectors square to a direction (..., 3) and to each other.

    Source: vector algebra; complex-step derivative (Squire and Trapp 1998).
    """
    axis = unit(direction)
    seed = np.eye(3)[np.argmin(np.abs(axis.real), axis=-1)]
    first = unit(cross(axis, seed))
    return first, cross(axis, first)
