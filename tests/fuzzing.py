"""Drawn and mutilated plans and logbooks, sent through the real doors; the store is a list, so that thousands go through in a minute."""

import contextlib
import copy
import json
import random
import uuid
from importlib.resources import files

from fastapi.testclient import TestClient

from ready_corner.storage.logbooks import CarKey, CarLine, TakenError
from ready_corner.web.app import make_app
from ready_corner.workshop import Workshop

NUMBERS = (0, -1, 1, 1e-9, -1e-9, 0.05, 25.4, 90, -90, 89.999, 180, 1000, 99_999, -99_999, 1e6, 1e12, 1.7e308, -1.7e308, 1e-308)
PARTS = ("log", "jig", "stance", "wanting", "plan.json", "logbook.json", "points.csv")


class ListedLogbooks:
    """Stands for the repository: the same promises, kept in memory."""

    def __init__(self):
        self.keys, self.entries = {}, {}

    def find(self, slug):
        return self.keys.get(slug)

    def cars(self):
        return [CarLine(slug, slug, "", len(self.entries[key.id])) for slug, key in self.keys.items()]

    def after(self, car_id, number):
        return self.entries[car_id][number:]

    def count(self, car_id):
        return len(self.entries[car_id])

    @contextlib.contextmanager
    def one_writer(self, car_id):
        yield self

    def find_id(self, car_id):
        return next((k for k in self.keys.values() if k.id == car_id), None)

    def begin(self, car, entries):
        if car.slug in self.keys:
            raise TakenError("uq_cars_slug")
        self.keys[car.slug] = CarKey(car.id, car.slug)
        self.entries[car.id] = list(entries)

    def append(self, car_id, entries):
        self.entries[car_id] += entries


def client_in_memory(logbooks=None):
    return TestClient(make_app(Workshop(logbooks or ListedLogbooks()), None))


def told(kind):
    """The demo files of a kind, by name."""
    found = sorted(files("ready_corner.demo").iterdir(), key=lambda f: f.name)
    return {f.name.split(".")[0]: json.loads(f.read_text()) for f in found if f.name.endswith(f".{kind}.json")}


def _places(tree, path=()):
    yield path
    if isinstance(tree, dict):
        for key in tree:
            yield from _places(tree[key], (*path, key))
    elif isinstance(tree, list):
        for i in range(len(tree)):
            yield from _places(tree[i], (*path, i))


def mutilated(tree, rng: random.Random, most=3):
    """Return a copy with a few things in it gone, doubled, exchanged, renamed, or a number no car has."""
    tree = copy.deepcopy(tree)
    for _ in range(rng.randint(1, most)):
        path = rng.choice([p for p in _places(tree) if p])
        holder = tree
        for key in path[:-1]:
            holder = holder[key]
        key, value = path[-1], holder[path[-1]]
        words = [v for p in _places(tree) if isinstance(v := _at(tree, p), str) and v]
        match rng.randrange(7):
            case 0:
                del holder[key]
            case 1 if isinstance(holder, list):
                holder.insert(rng.randrange(len(holder) + 1), copy.deepcopy(value))
            case 2 if isinstance(value, int | float) and not isinstance(value, bool):
                holder[key] = rng.choice((0.5, -1, 2, 10, 1e-3)) * value
            case 3 if isinstance(value, str) and words:
                holder[key] = rng.choice(words)
            case 4 if isinstance(holder, dict) and isinstance(value, list | int | float):
                other = rng.choice(list(holder))  # two points in one place, a diameter for a pitch
                holder[other] = copy.deepcopy(value)
            case 5 if isinstance(value, list) and len(value) > 1:
                rng.shuffle(value)
            case _:
                holder[key] = None if rng.random() < 0.1 else rng.choice(NUMBERS) if isinstance(value, int | float) else value
    return tree


def _at(tree, path):
    for key in path:
        tree = tree[key]
    return tree


def entry(what):
    return {"id": str(uuid.uuid4()), "at": "2026-11-26T10:00:00+00:00", "what": what}


def as_sent(kept):
    """What a browser would have sent for an entry of a logbook file."""
    figures = ("value", "denominator", "upright_deg", "amount", "bound", "diameters_mm", "burnt_mm", "first", "second", "ahead", "behind")  # fmt: skip
    return {k: v for k, v in kept.items() if k not in figures}


def post(client, path, body):
    """Send what JSON itself may hold, numbers without end included."""
    return client.post(path, content=json.dumps(body), headers={"content-type": "application/json"})


class BrokenError(AssertionError):
    """A door that did not hold, with what was sent."""


def walk(client, slug, rng=None):
    """Open every page of a car; all of them open, whatever was taken."""
    for part in ("", *PARTS):
        answer = client.get(f"/api/cars/{slug}/{part}".rstrip("/"))
        if answer.status_code != 200:
            raise BrokenError(f"{part or 'car'} answers {answer.status_code}: {answer.text[:300]}")
        if part == "" and answer.json().get("trouble"):
            raise BrokenError(f"not reckoned: {answer.json()['trouble']}")
    if rng:
        end, over = rng.choice(("front", "rear")), rng.choice(("travel", "roll", "steer", "heave"))
        asked = {"end": end, "over": over, "low": -40, "high": 40, "rows": 9}
        for answer in (
            client.post(f"/api/cars/{slug}/travel", json=asked),
            client.get(f"/api/cars/{slug}/levers?end={end}&answer=camber"),
        ):
            if answer.status_code not in (200, 422):
                raise BrokenError(f"travel answers {answer.status_code}: {answer.text[:300]}")


def try_plan(client, plan, rng):
    """Begin a car with a plan; where it is taken, open all of it. Return its short name, or None where it was refused."""
    plan = {**plan, "name": f"Drawn {uuid.uuid4().hex[:12]}"} if isinstance(plan.get("name", ""), str) else plan
    answer = post(client, "/api/cars", entry({"kind": "plan", "plan": plan, "confirmed": True}))
    if answer.status_code == 422:
        assert answer.json()["sentence"]
        return None
    if answer.status_code != 201:
        raise BrokenError(f"begun with {answer.status_code}: {answer.text[:300]}")
    walk(client, answer.json()["slug"], rng)
    return answer.json()["slug"]


EXTREMES = ("0", "90", "-400", "90000", "0.001", "1", "-90", "89.99", "180", "600", "9999")
READ_WITH = {"height": "tape", "camber": "digital", "gap_front": "rule", "gap_back": "rule", "gap_hub": "rule", "pad": "rule", "load": "scales", "radius": "tape", "stand": "tape", "hub": "tape"}  # fmt: skip


def extremes(most=None):
    """Yield readings of each quantity at every corner, alike, as no car reads them but a hand may type them."""
    for quantity, tool in READ_WITH.items():
        for typed in EXTREMES[:most]:
            yield [{"kind": "reading", "quantity": quantity, "corner": c, "typed": typed, "tool": tool, "confirmed": True} for c in ("LF", "RF", "LR", "RR")]  # fmt: skip


def try_entry(client, slug, what, look=True):
    """Send an entry; where it is taken, open all of the car. Return whether it was."""
    answer = post(client, f"/api/cars/{slug}/entries", entry(what))
    if answer.status_code in (409, 422):
        return False
    if answer.status_code not in (200, 201):
        raise BrokenError(f"recorded with {answer.status_code}: {answer.text[:300]}")
    if look:
        walk(client, slug)
    return True


def acts_of(plan):
    """What is ordinarily done to a car of a plan, as functions of a generator that return what is sent; a reading is near its aim."""
    aims = {a["mark"]: a for a in plan.get("aims", [])}
    adjusters = [a["id"] for a in plan.get("adjusters", [])]
    corners = ("LF", "RF", "LR", "RR")
    points = list(plan.get("points", {}))

    def reading(rng):
        quantity = rng.choice(("height", "camber", "gap_front", "gap_back", "gap_hub", "pad", "load", "toe", "caster"))
        corner = rng.choice(corners)
        aim = aims.get(f"{corner}.{quantity}", {})
        about = {"height": 120.0, "gap_front": 100.0, "gap_back": 100.0, "gap_hub": 120.0, "pad": 0.0, "load": 140.0}.get(
            quantity, aim.get("aim", 0.0)
        )
        by = {"camber": 0.4, "toe": 0.2, "caster": 0.5}.get(quantity, 3.0)
        tool = {"camber": "digital", "caster": "digital", "load": "scales"}.get(quantity, rng.choice(("tape", "rule")))
        return {
            "kind": "reading",
            "quantity": quantity,
            "corner": corner,
            "typed": f"{about + rng.uniform(-by, by):.2f}",
            "tool": tool,
            "confirmed": True,
        }

    def turned(rng):
        return {
            "kind": "turned",
            "adjuster": rng.choice(adjusters),
            "typed": rng.choice(("1", "-1", "2", "-2", "1/2", "1f", "-2f")),
        }

    def happened(rng):
        what = rng.choice(
            ("settled", "settled", "bar_off", "bar_on", "string", "tyre", "load", "level", "weld", "cut", "knock")
        )
        told = {"kind": "happened", "what": what, "corner": rng.choice((None, *corners)), "points": []}
        if rng.random() < 0.7 and (what == "load" or (what == "tyre" and told["corner"])):  # by how much, and where
            place = {"place": [rng.uniform(-2500, 300), rng.uniform(-500, 500)], "corner": None} if what == "load" else {}
            told |= {"by": rng.choice((-1, 1)) * rng.choice((0.5, 4, 60)), **place}
        return told

    def stuck(rng):
        return {"kind": "stuck", "adjuster": rng.choice(adjusters)}

    def surveyed(rng):
        a, b = rng.sample(points, 2)
        return {
            "kind": "survey",
            "reading": "distance",
            "points": [a, b],
            "typed": f"{rng.uniform(100, 2000):.1f}",
            "tool": "tape",
            "confirmed": True,
        }

    ways = [(reading, 12), (turned, 5), (happened, 3)]
    return [*ways, (stuck, 1)] + ([(surveyed, 4)] if len(points) > 1 else []) if adjusters else [(reading, 12), (happened, 3)]


def revised_somehow(plan, rng):
    """A plan as it is revised in a shop: an adjuster or a point renamed or dropped, an aim changed or dropped."""
    plan = copy.deepcopy(plan)
    match rng.randrange(5):
        case 0 if plan.get("adjusters"):
            plan["adjusters"].pop(rng.randrange(len(plan["adjusters"])))
        case 1 if plan.get("adjusters"):
            one = rng.choice(plan["adjusters"])
            one["id"] = f"{one['id']}-{rng.randrange(100)}"
        case 2 if plan.get("aims"):
            plan["aims"].pop(rng.randrange(len(plan["aims"])))
        case 3 if plan.get("points"):  # one of the car's own, as of a frame: no linkage hangs on it
            loose = [n for n in plan["points"] if n.split(".")[0] not in ("LF", "RF", "LR", "RR", "front", "rear")]
            if loose:
                name = rng.choice(loose)
                plan["points"][f"{name}.{rng.randrange(100)}"] = plan["points"].pop(name)
        case _ if plan.get("aims"):
            rng.choice(plan["aims"])["tolerance"] *= rng.choice((0.5, 2))
    return plan


def ordinary_job(client, plan, rng, count=300):
    """A long job of ordinary acts: readings, turns, strikes, revisions that rename and drop, welds. Nothing in it may be a fault of the program."""
    plan = {**plan, "name": f"Job {uuid.uuid4().hex[:12]}"}
    answer = post(client, "/api/cars", entry({"kind": "plan", "plan": plan, "confirmed": True}))
    assert answer.status_code == 201, answer.text[:300]
    slug, revision, kept = answer.json()["slug"], 1, []
    acts = acts_of(plan)
    for n in range(count):
        dice = rng.random()
        if dice < 0.07 and kept:
            what = {"kind": "correction", "strikes": rng.choice(kept)}
        elif dice < 0.1:
            plan = revised_somehow(plan, rng)
            what = {"kind": "plan", "plan": plan, "revises": revision, "confirmed": True}
        else:
            what = rng.choices([a for a, _ in acts], [w for _, w in acts])[0](rng)
        sent = entry(what)
        answer = post(client, f"/api/cars/{slug}/entries", sent)
        if answer.status_code in (409, 422):
            if "could not be reckoned" in answer.text:
                raise BrokenError(f"not reckoned: {answer.text[:300]} for {json.dumps(what)[:300]}")
            if what["kind"] == "plan":
                plan = client.get(f"/api/cars/{slug}/plan.json").json()
            continue
        if answer.status_code not in (200, 201):
            raise BrokenError(f"recorded with {answer.status_code}: {answer.text[:300]}")
        if what["kind"] == "plan":
            revision, acts = answer.json().get("number", revision), acts_of(plan)
        elif what["kind"] != "correction":
            kept.append(sent["id"])
        if n % 40 == 39:
            walk(client, slug)
    walk(client, slug)
