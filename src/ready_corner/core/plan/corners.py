"""Corners, ends and places of a car."""

from collections.abc import Mapping
from typing import Literal, get_args

Corner = Literal["LF", "RF", "LR", "RR"]
End = Literal["front", "rear"]
Point = tuple[float, float, float]  # station forward, offset to the left, height, in mm
ENDS: tuple[End, End] = ("front", "rear")
CORNERS: tuple[Corner, ...] = get_args(Corner)
AROUND: tuple[Corner, ...] = ("LF", "RF", "RR", "LR")  # one after the other round the car
ROUND_AND_BACK: tuple[Corner, ...] = (*AROUND[1:], AROUND[0])  # where one comes to, from each to the next and back
CORNER_WORDS: Mapping[Corner, str] = {"LF": "left front", "RF": "right front", "LR": "left rear", "RR": "right rear"}
SIDE: Mapping[Corner, int] = {"LF": 1, "RF": -1, "LR": 1, "RR": -1}
END_OF: Mapping[Corner, End] = {"LF": "front", "RF": "front", "LR": "rear", "RR": "rear"}
