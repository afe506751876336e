"""A practice car on a server: its readings as a builder would type them, for tests that go through the API or the pages."""

from ready_corner.border.plan import PlanModel
from ready_corner.core.judge.read import default_tool
from ready_corner.core.record.readings import QUANTITIES
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import practice_plan
from tests.conftest import entry_json
from tests.core.linkage.cars import plan

BAR = {"disconnect": "bar_off", "reconnect": "bar_on"}


def named_in(reason, tools):
    """Return the identities of those tools, of (identity, name), that are named in what is said."""
    return [id_ for id_, name in tools if name.lower() in reason.lower()]


class OnServer:
    """A practice car of a layout, begun on a server; ``ask`` sends JSON and returns JSON."""

    def __init__(self, ask, layout="heather", seed=1, name=""):
        self.ask = ask
        self.car = HiddenCar(practice_plan(plan(layout), layout), seed)
        sent = PlanModel.from_core(self.car.plan).model_dump(mode="json")
        self.slug = ask(
            "/api/cars", entry_json({"kind": "plan", "plan": {**sent, "name": name or f"Practice {layout} {seed}"}})
        )["slug"]

    def typed(self, corner, quantity, tool_id=None, half=False):
        """What a builder types after reading a place once."""
        tools = self.car.plan.toolbox
        usual = default_tool(self.car.plan, quantity)
        tool = next((t for t in tools if t.id == tool_id), usual)
        figure = self.car.read(corner, quantity, tool, 180.0 * half)
        digits = 2 if QUANTITIES[quantity].kind == "angle" else 1
        return f"{figure:.{digits}f}", tool.id

    def tell(self, what):
        return self.ask(f"/api/cars/{self.slug}/entries", entry_json(what))["car"]

    def read_on(self):
        """Do what is said next by the API for as long as it is reading; return the step at which something is to be turned, or it ends."""
        view = self.ask(f"/api/cars/{self.slug}")
        for _ in range(200):
            if (step := view["next"])["kind"] not in ("read", "settle", *BAR):
                return view
            if step["kind"] == "read":
                for quantity in (
                    ("gap_front", "gap_back")
                    if step["quantity"].startswith("gap_") and step["quantity"] != "gap_hub"
                    else (step["quantity"],)
                ):
                    measures = default_tool(self.car.plan, quantity).measures
                    named = named_in(step["reason"], [(t.id, t.name) for t in self.car.plan.toolbox if t.measures == measures])
                    half = step["half"] and quantity == step["quantity"]
                    typed, tool = self.typed(step["corner"], quantity, named[-1] if named else None, half)
                    what = {"corner": step["corner"], "quantity": quantity, "typed": typed, "tool": tool, "half_turn": half}
                    view = self.tell({"kind": "reading", **what})
            elif step["kind"] == "settle":
                self.car.roll()
                view = self.tell({"kind": "happened", "what": "settled"})
            else:
                view = self.tell({"kind": "happened", "what": BAR[step["kind"]]})
        raise AssertionError(f"no end of reading: {view['next']}")


def worked_on(ask, slug, most=200):
    """Work on a practice car of a server by the figures its tool shows, a minute a line, until it is done or something would have to change; the last step."""
    view = ask(f"/api/cars/{slug}")

    def tell(what, minute):
        at = f"2026-11-26T{10 + minute // 60:02d}:{minute % 60:02d}:00Z"
        return ask(f"/api/cars/{slug}/entries", {**entry_json(what), "at": at})["car"]

    for minute in range(most):
        step = view["next"]
        if step["kind"] == "read":
            place = (step["corner"], step["quantity"])
            asked = next(a for a in view["round"] + view["floor_round"] if (a["corner"], a["quantity"]) == place)
            named = named_in(step["reason"], [(t["id"], t["name"]) for t in view["plan"]["tools"]])
            with_ = {
                "corner": place[0],
                "quantity": place[1],
                "tool": named[0] if named else asked["tool"],
                "half_turn": step["half"],
            }
            typed = ask(f"/api/cars/{slug}/take", with_)["typed"]
            view = tell({"kind": "reading", **with_, "typed": typed}, minute)
        elif step["kind"] in ("settle", *BAR):
            view = tell({"kind": "happened", "what": BAR.get(step["kind"], "settled")}, minute)
        elif step["kind"] == "lift":
            turn = next(t for s in view["lift"]["stops"] for t in s["turns"] if t["left"])
            view = tell({"kind": "turned", "adjuster": turn["adjuster"], "typed": turn["say"]}, minute)
        else:
            return step
    raise AssertionError(f"no end after {most} lines")
