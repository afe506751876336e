"""The frame as it stands: which readings still hold, the network of them, and the axes of the car laid on it.

Source: least-squares adjustment of a free network; docs/survey.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import combinations

import numpy as np

from ready_corner.core.engines.survey.datum import Datum, Laid, fitted, kabsch, lay, whole_motions_about_origin
from ready_corner.core.engines.survey.moved import Drift, Fit, Known, drift, fit
from ready_corner.core.engines.survey.network import Network, adjust, lies_flat
from ready_corner.core.engines.survey.propose import Means, possible
from ready_corner.core.engines.survey.readings import Array, Reading, compared
from ready_corner.core.engines.survey.wrong import SLIPS_INCH, SLIPS_MM, Verdict, find_wrong
from ready_corner.core.plan.corners import Point
from ready_corner.core.plan.plan import Gone, Plan, places_of
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.tools import STEP_TO_U
from ready_corner.core.record.jig_acts import DatumChosen, Disturbed, JigLog, Noted, SurveyRead, datum_of

UNHANDED = ("distance", "compare", "height", "rise", "slope", "in_line")
LEAST_TO_TURN = 5  # points from which on upside down is told from bent
UPSIDE_DOWN = 0.3  # of what the points miss the plan by upright: missing it by less the other way up, the frame lies so
PLANNED = "planned height of "
FLAT_MM = 8.0  # standard uncertainty of a height that is not read, of a frame that is planned flat


def as_reading(noted: Noted, plan: Plan, gone: Gone) -> Reading:
    """Return a reading as the network takes it: its tool's step and scatter as its u, the zero left to the tool."""
    read, id_ = noted.read, str(noted.number)
    if read.reading == "compare" and read.says:
        a, b, c, d = read.points
        made = compared(id_, (a, b, c, d), read.says, read.bound)
        return Reading(made.id, made.kind, made.points, made.value, made.u, "", noted.support)
    if read.reading == "in_line":
        return Reading(id_, "in_line", read.points, 0.0, read.bound / np.sqrt(3), "", noted.support)
    tool = gone.tool(plan, read.tool)
    return Reading(
        id_,
        read.reading,
        read.points,
        read.value,
        float(np.hypot(tool.step * STEP_TO_U, tool.repeatability)),
        tool.id,
        noted.support,
    )


def as_measured(frame: "Frame", reading: Reading) -> Measured:
    """Return a reading with what its tool does to it: its own u, and the zero that the tool's other readings share."""
    zero = frame.zeros.get(reading.tool, 0.0)
    return Measured(reading.value, {f"reading {reading.id}": reading.u, **({f"{reading.tool} zero": zero} if zero else {})})


@dataclass(frozen=True)
class Frame:
    """The survey of one car as it stands.

    Readings taken before something that may have moved one of their points do not count any more, nor do those of another support state
    than the present one.
    """

    plan: Plan
    log: JigLog
    gone: Gone = field(default_factory=Gone)

    @cached_property
    def planned(self) -> dict[str, Point]:
        """Where the plan has every point."""
        return places_of(self.plan)

    def last_disturbance(self, point: str) -> Disturbed | None:
        """Return what may have moved a point last."""
        return next((d for d in reversed(self.log.disturbed) if d.moves(point)), None)

    def holds(self, noted: Noted) -> bool:
        """Whether a reading still counts. A slope counted from the frame itself says nothing of how the frame stands."""
        if noted.support != self.log.support or (noted.read.reading == "slope" and noted.zero == "frame"):
            return False
        return all((d := self.last_disturbance(p)) is None or d.number < noted.number for p in noted.read.points)

    @cached_property
    def readings(self) -> tuple[Reading, ...]:
        """The readings that count."""
        return tuple(as_reading(n, self.plan, self.gone) for n in self.log.noted if self.holds(n))

    @property
    def zeros(self) -> dict[str, float]:
        """Standard uncertainty of the zero of each tool."""
        return {t.id: t.zero for t in (*self.gone.tools.values(), *self.plan.toolbox)}

    @cached_property
    def start(self) -> dict[str, Array]:
        """Rough places: the plan's, shifted to where heights, offsets and stations were read on the whole.

        A point that is not planned any more begins where it was planned last, if a reading still refers to it.
        """
        read = {p for r in self.readings for p in r.points}
        return start_of({**{n: p for n, p in self.gone.points.items() if n in read}, **self.planned}, self.readings)

    @cached_property
    def adjusted(self) -> Network | None:
        """The network of every reading that counts, wrong ones too; None while nothing was read."""
        if not self.readings:
            return None
        found = adjust(self.readings, self.start, self.zeros)
        flat = lies_flat(found)
        return adjust((*self.readings, *self._as_planned(flat)), self.start, self.zeros) if flat else found

    @property
    def flat(self) -> bool:
        """Whether nothing was read of heights and the frame is taken to be as flat as planned, so that its squareness can be told."""
        return self.adjusted is not None and any(r.reading.id.startswith(PLANNED) for r in self.adjusted.rows)

    def _as_planned(self, names: Sequence[str]) -> tuple[Reading, ...]:
        """Return heights of a flat frame as the plan has them, for want of readings: they hold it flat and say nothing more."""
        return tuple(Reading(f"{PLANNED}{n}", "height", (n,), float(self.start[n][2]), FLAT_MM) for n in names)

    @cached_property
    def verdict(self) -> Verdict | None:
        """What is wrong with the readings; None where they agree, or there are none."""
        if self.adjusted is None:
            return None
        found = {n: tuple(self.adjusted.place(n)) for n in self.adjusted.names}
        slips = SLIPS_INCH if self.plan.units.inches else SLIPS_MM
        return find_wrong(self.adjusted, self.start, self.zeros, possible(found, Means()), slips)

    @property
    def network(self) -> Network | None:
        """What is judged from: the network without any reading that is wrong or may be; of all readings where nothing explains them."""
        return self.verdict.sure or self.adjusted if self.verdict else self.adjusted

    @property
    def unexplained(self) -> bool:
        """Whether the readings do not agree and nothing tells which are wrong: then nothing is judged from them."""
        return self.verdict is not None and self.verdict.sure is None

    def doubted(self, point: str) -> bool:
        """Whether what is known of a point hangs on readings that are wrong or may be."""
        if self.verdict is None or self.adjusted is None or point not in self.adjusted.determined:
            return False
        return self.verdict.sure is None or point not in self.verdict.sure.determined

    @cached_property
    def laid(self) -> tuple[Laid | None, Finding | None]:
        """The survey in the axes of the car, and why it is not in those of the datum where it is not."""
        network = self.network
        if network is None:
            return None, finding("laid.nothing")
        if self._on_its_back:
            return None, finding("laid.upside-down")
        if self.log.datum is None:
            return self._by_fit(finding("laid.no-datum"))
        try:
            return lay(network, self.datum_of(self.log.datum), self.planned), None
        except ReadyCornerError as wrong:
            found, why_not = self.recovered
            if found is not None:
                stayed = sum(p.stayed for p in found.points)
                return _in_old_axes(network, found), finding("laid.in-old-axes", why=wrong.finding, stayed=stayed)
            return self._by_fit(finding("laid.meanwhile", why=wrong.finding, why_not=why_not))

    def _by_fit(self, why: Finding) -> tuple[Laid | None, Finding]:
        assert self.network
        try:
            return fitted(self.network, self.planned), why
        except ReadyCornerError as wrong:
            return None, wrong.finding

    @property
    def _on_its_back(self) -> bool:
        """Whether heights and tapes, which cannot tell a frame from its mirror image, fit the plan's with up and down exchanged and not else."""
        network = self.network
        names = [n for n in self.planned if network and n in network.determined]
        if network is None or len(names) < LEAST_TO_TURN or any(r.reading.kind not in UNHANDED for r in network.rows):
            return False
        found, planned = (np.array([of(n) for n in names], dtype=float) for of in (network.place, self.planned.__getitem__))

        def off(places: Array) -> float:
            rotation, shift = kabsch(places, planned, np.ones(len(names)))
            return float(np.sqrt(((places @ rotation.T + shift - planned) ** 2).sum(axis=1).mean()))

        upright, turned = off(found), off(found * [1, 1, -1])
        return upright > self.plan.point_tolerance and turned < UPSIDE_DOWN * upright

    def laid_beside(self, names: Sequence[str]) -> Laid | None:
        """Return the survey in axes that do not hang on these points: those of the datum; without one the plan's, by the other points alone, which
        may each be off by the tolerance of a point. None where these are too few."""
        if self.log.datum is not None or self.network is None:
            return self.laid[0]
        others = {n: p for n, p in self.planned.items() if n not in names}
        try:
            return fitted(self.network, others, self.plan.point_tolerance / COVERAGE)
        except ReadyCornerError:
            return None

    def datum_of(self, chosen: DatumChosen) -> Datum:
        """Return the datum with the plan's figures at its points. Raises MeasuredError for a point the plan does not have."""
        return datum_of(chosen, self.planned)

    @cached_property
    def carried(self) -> DatumChosen | None:
        """Return a datum from points that have stayed, with the figures they have in the old axes; None where the datum is not lost.

        The plane by the three that stand furthest apart, the line by the two furthest apart along the car. To be confirmed by the builder.
        """
        laid, why = self.laid
        found, _ = self.recovered
        if why is None or found is None or laid is None or self.log.datum is None:
            return None
        stayed = [p.name for p in found.points if p.stayed and p.name in laid.names]
        at = {n: laid.place(n) for n in stayed}
        a, b, c = max(
            combinations(stayed, 3), key=lambda t: float(np.linalg.norm(np.cross(at[t[1]] - at[t[0]], at[t[2]] - at[t[0]])))
        )
        line = (max(stayed, key=lambda n: at[n][0]), min(stayed, key=lambda n: at[n][0]))
        heights, offsets = [float(at[n][2]) for n in (a, b, c)], [float(at[n][1]) for n in line]
        figures = (heights[0], heights[1], heights[2], offsets[0], offsets[1], float(at[line[0]][0]))
        words = "carried on from points that have stayed"
        return DatumChosen((a, b, c), line, line[0], words, "named points", figures)

    @cached_property
    def before(self) -> "Frame | None":
        """The frame as it was surveyed before the last disturbance, if it was."""
        if not self.log.disturbed:
            return None
        last = self.log.disturbed[-1].number
        earlier = replace(
            self.log,
            noted=tuple(n for n in self.log.noted if n.number < last),
            disturbed=tuple(d for d in self.log.disturbed if d.number < last),
        )
        frame = Frame(self.plan, earlier, self.gone)
        return frame if frame.readings else None

    @cached_property
    def recovered(self) -> tuple[Fit | None, Finding | None]:
        """The present survey fitted on the one before the last disturbance: what stayed, what has moved; or why that cannot be said."""
        if self.before is None or self.network is None:
            return None, None
        if self.unexplained or self.before.unexplained:
            return None, finding("moved.when-they-agree")
        laid, _ = self.before.laid
        if laid is None or self.before.network is None:
            return None, None
        sure = self.before.network.determined & self.network.determined
        earlier = {n: Known(laid.place(n), laid.cov(n)) for n in laid.names if n in sure}
        later = {n: Known(self.network.place(n), self.network.cov(n)) for n in self.network.names if n in sure}
        try:
            return fit(earlier, later), None
        except ReadyCornerError as wrong:
            return None, wrong.finding

    @cached_property
    def drift(self) -> Drift | None:
        """What moved between the survey before the last disturbance and this one, in the axes of the car; None while that cannot be told.

        Both stand in the axes of their own readings, the table and what else was read from; no survey is fitted to the other beforehand.
        """
        if self.before is None or self.network is None or self.before.network is None:
            return None
        if self.unexplained or self.before.unexplained:
            return None
        axes, _ = self.before.laid
        if axes is None:
            return None
        old, new = self.before.network, self.network
        names = [n for n in old.names if n in old.determined & new.determined]
        known = []
        doubt, loose = np.zeros((3 * len(names),) * 2), []
        for network in (old, new):
            at = [3 * network.names.index(n) + k for n in names for k in range(3)]
            big = np.kron(np.eye(len(names)), axes.rotation)
            doubt += big @ network.covariance[np.ix_(at, at)] @ big.T
            loose.append(big @ network.loose[at])
            places = (axes.rotation @ network.place(n) + axes.shift for n in names)
            known.append({n: Known(p, network.cov(n)) for n, p in zip(names, places, strict=True)})
        try:
            return drift(known[0], known[1], doubt, np.hstack(loose))
        except ReadyCornerError:
            return None


def _in_old_axes(network: Network, found: Fit) -> Laid:
    """Return a survey in the axes of an earlier one, with the doubt of the fit on top of its own."""
    places = found.recovered(network.places)
    big = np.kron(np.eye(len(places)), found.rotation)
    g = whole_motions_about_origin(places)
    covariance = big @ network.covariance @ big.T + g @ found.covariance @ g.T
    return Laid(network.names, places, np.asarray(covariance), found.rotation, found.shift)


def start_of(planned: Mapping[str, Point], readings: tuple[Reading, ...]) -> dict[str, Array]:
    """Return rough places in the axes of the readings: the plan shifted by the middle of what heights, offsets and stations say."""
    shift = np.zeros(3)
    for k, kind in enumerate(("station", "offset", "height")):
        off = [r.value - planned[r.points[0]][k] for r in readings if r.kind == kind and r.points[0] in planned]
        if off:
            shift[k] = float(np.median(off))
    return {n: np.asarray(p, dtype=float) + shift for n, p in planned.items()}


def expected(frame: Frame, read: SurveyRead) -> tuple[float, float] | None:
    """Return what the other readings say a reading should be, with its U; None where they do not say."""
    network = frame.network
    if network is None or not set(read.points) <= network.determined or read.reading == "in_line":
        return None
    if network.gauge and read.reading not in ("distance", "compare", "height", "rise", "slope"):
        return None
    try:
        value, u = network.says(Reading("asked", read.reading, read.points, read.value or 1.0, 1.0))
    except ReadyCornerError:
        return None
    return value, 2 * u
