"""What chance alone brings about."""

from scipy.special import gammaincinv


def chi_square_within(share: float, freedom: int) -> float:
    """Return the value under which a share (0 to 1) of all sums of ``freedom`` squared standard normal figures lies.

    Source: the quantile of the chi-square distribution, 2 P⁻¹(f/2, share) with P the regularised incomplete gamma function (ISO 3534-1).
    """
    return float(2 * gammaincinv(freedom / 2, share))
