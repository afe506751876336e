"""The plan given on its drawing: the tape asks for one figure after another, and the draft outlives the page."""

import re

from playwright.sync_api import expect

from tests.conftest import entry_json
from tests.fuzzing import told

KEYS = {"count": 0}


def give(page, *figures):
    """Type figures one after another without waiting for any answer; count the keys."""
    field = page.locator("#tape-field")
    for figure in figures:
        field.press_sequentially(figure)
        field.press("Enter")
        KEYS["count"] += len(figure) + 1


def test_from_nothing_to_a_first_toe_verdict_in_eight_figures_by_keys_alone(page, served):
    KEYS["count"] = 0
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Plover")
    page.locator("#tape-field").focus()
    give(page, "2400", "1400", "381", "600")  # wheelbase, and the front axle
    give(page, "", "", "")  # the rear axle as the front
    expect(page.get_by_role("heading", name="Front axle, ride height of both wheels")).to_be_visible()
    for _ in range(8):
        page.locator("#tape-field").press("ArrowDown")
    expect(page.get_by_role("heading", name="Front axle, toe of both wheels", exact=True)).to_be_visible()
    give(page, "0.1", "0.2")
    answers = page.get_by_role("listitem").filter(has_text="Toe from string and rule")
    expect(answers).to_contain_text("it can")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    slug = page.url.rsplit("/", 1)[1]
    plan = served.ask(f"/api/cars/{slug}/plan.json")
    assert (plan["wheelbase"], plan["front"]["track"], plan["rear"]["rim_flange_diameter"]) == (2400, 1400, 381)
    assert {a["mark"]: (a["aim"], a["tolerance"]) for a in plan["aims"]} == {"LF.toe": (0.1, 0.2), "RF.toe": (0.1, 0.2)}
    page.goto(f"{served.url}/cars/{slug}/set/LF/gap_front")
    give(page, "100", "100")
    page.goto(f"{served.url}/cars/{slug}/set/LF/gap_hub")
    give(page, "100")
    page.goto(f"{served.url}/cars/{slug}/set/LR/gap_hub")
    give(page, "100")
    page.goto(f"{served.url}/cars/{slug}")
    expect(page.get_by_role("button", name=re.compile("Left front toe: 0.00°"))).to_be_visible()
    assert KEYS["count"] < 80


def test_a_draft_is_back_after_a_reload_and_gone_once_it_is_kept(page, served):
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Dunlin")
    page.locator("#tape-field").focus()
    give(page, "2310", "1390")
    place = page.get_by_role("button", name=re.compile("^Front axle: track"))
    expect(place).to_have_attribute("aria-label", "Front axle: track: 1390")
    page.wait_for_timeout(400)  # of the browser's own clock: a draft is written 0.12 s after the last key
    page.reload()
    expect(page.get_by_text("Your draft is back as you left it")).to_be_visible()
    expect(page.get_by_label("Name of the car")).to_have_value("Dunlin")
    expect(place).to_have_attribute("aria-label", "Front axle: track: 1390")
    page.get_by_role("button", name="All figures").click()
    expect(page.get_by_label("Wheelbase")).to_have_value("2310")
    page.get_by_role("button", name="Throw the draft away").click()
    expect(page.get_by_label("Wheelbase")).to_have_value("")
    page.reload()
    expect(page.get_by_label("Name of the car")).to_have_value("")
    expect(page.get_by_text("Your draft is back")).to_be_hidden()


MUTILATE = """() => new Promise((done) => {
  const opened = indexedDB.open('ready-corner-drafts');
  opened.onsuccess = () => {
    const store = opened.result.transaction('drafts', 'readwrite').objectStore('drafts');
    store.openCursor().onsuccess = (event) => {
      const at = event.target.result;
      if (!at) return done();
      const { draft } = at.value;
      for (const [name, part] of Object.entries(draft)) if (/ways|jig|footing|rear|units/.test(name))
        for (const key of Object.keys(part).filter((_, i) => i % 2)) delete part[key];
      for (const a of draft.adjusters) delete a.shims?.shelf;
      delete draft.loads;
      at.update(at.value);
      at.continue();
    };
  };
})"""


def test_a_draft_of_an_earlier_version_of_the_program_is_taken_up_with_what_it_has(page, demo_server):
    wrong = []
    page.on("pageerror", lambda error: wrong.append(str(error)))
    car = demo_server.car("heather")
    page.goto(f"{car}/plan")
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_role("button", name=re.compile("^Front axle, ride height of both wheels: 78")).click()
    page.locator("#tape-field").fill("79")
    page.locator("#tape-field").press("Enter")
    given = page.get_by_role("button", name=re.compile("^Front axle, ride height of both wheels: 79"))
    expect(given).to_be_visible()
    page.wait_for_timeout(400)  # of the browser's own clock, as above
    page.evaluate(MUTILATE)
    page.reload()
    expect(page.get_by_text("Your draft is back as you left it")).to_be_visible()
    for chapter in ("What can be turned", "What it stands on", "How it is read", "What is wanted"):
        page.get_by_role("button", name=chapter).first.click()
        expect(page.locator("#tape-field")).to_be_enabled()
    expect(given).to_be_visible()
    assert wrong == []


def test_a_figure_that_cannot_be_read_stands_at_its_place_until_it_is_mended_and_the_last_is_taken_back(page, served):
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Knot")
    held = []
    page.route("**/api/shop/read", lambda request: request.continue_() if held is None else held.append(request))
    page.locator("#tape-field").focus()
    give(page, "24oo", "1400")  # the next is typed while the first is still being read
    requests, held = held, None
    for request in requests:
        request.continue_()
    wheelbase = page.get_by_role("button", name=re.compile("^Wheelbase"))
    expect(page.get_by_role("button", name="Front axle: track: 1400")).to_be_visible()
    expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: 24oo")
    expect(page.locator("#tape-means")).to_contain_text("“oo” is no unit")  # asked for again, nothing having been typed since
    for late in (True, False):  # taken back while it is still being read, and once it stands
        held = [] if late else None
        page.locator("#tape-field").fill("2400")
        page.locator("#tape-field").press("Enter")
        expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: 2400")
        page.locator("#tape-field").press("Backspace")
        expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: not given yet")
        if late:
            while not held:
                page.wait_for_timeout(20)
            requests, held = held, None
            with page.expect_response("**/api/shop/read"):
                for request in requests:
                    request.continue_()
            expect(wheelbase).to_have_attribute("aria-label", "Wheelbase: not given yet")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("still missing")
    page.get_by_role("button", name="What is wanted").click()
    give(page, "110mmm")  # an aim that may be left out, but not by a slip
    expect(page.get_by_role("button", name=re.compile("^Front axle, ride height of both wheels: 110mmm"))).to_be_visible()
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("could not be read")
    expect(page.locator("#tape-field")).to_have_value("110mmm")
    page.locator("#tape-field").fill("")
    page.locator("#tape-field").press("Enter")
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("alert")).to_contain_text("still missing")


def test_a_draft_from_an_earlier_plan_is_asked_about_and_left_and_right_may_be_unlike(page, demo_server):
    car = demo_server.car("heather")
    page.goto(f"{car}/plan")
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_role("button", name=re.compile("^Front axle, toe of both wheels: (−|-)?0")).click()
    page.locator("#tape-field").press("b")
    expect(page.get_by_role("heading", name="Left front toe", exact=True)).to_be_visible()
    give(page, "0.25")
    expect(page.get_by_role("button", name="Left front toe: 0.25°")).to_be_visible()
    expect(page.get_by_role("button", name="Right front toe: −0.10°")).to_be_visible()
    page.wait_for_timeout(400)
    before = demo_server.server.ask(demo_server.api("heather").removeprefix(demo_server.url))
    plan = {**told("plan")["heather"], "name": "Heather", "about": "other words"}
    demo_server.server.ask(
        demo_server.api("heather").removeprefix(demo_server.url) + "/entries",
        entry_json({"kind": "plan", "version": 1, "plan": plan, "revises": before["plan_number"], "confirmed": True}),
    )
    page.goto(f"{car}/plan")
    # Either the plan as it was seen last is shown first, and the newer one overtakes the draft; or the draft is found to be the older.
    asked = page.get_by_text(re.compile("begun from an earlier plan|has revised this plan while"))
    expect(asked).to_be_visible()
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_role("button", name=re.compile("Take it up|Lay what I changed on it")).click()
    expect(page.get_by_role("button", name="Left front toe: 0.25°")).to_be_visible()
    expect(page.get_by_label("What it is")).to_have_value("other words")


class Giver:
    """Gives a plan at the tape: answers what is asked from a plan file, and counts what was typed."""

    def __init__(self, page, plan):
        self.page, self.plan, self.lines = page, plan, 0
        self.field = page.locator("#tape-field")

    def chapter(self, name):
        self.page.get_by_role("listitem").filter(has=self.page.get_by_text(name, exact=True)).get_by_role(
            "button"
        ).first.click()
        self.field.focus()

    def type(self, *lines):
        """Lines of figures, one Enter each; an empty one takes over what is alike."""
        for line in lines:
            self.field.press_sequentially(str(line))
            self.field.press("Enter")
            self.lines += bool(line)

    def words(self, *lines):
        """Names and what locks a thing are no figures."""
        for line in lines:
            self.field.press_sequentially(line)
            self.field.press("Enter")

    def skip(self, times=1):
        for _ in range(times):
            self.field.press("ArrowDown")

    def back(self, times):
        for _ in range(times):
            self.field.press("ArrowUp")

    def twin(self, name):
        """The place given last once more on the right, and on from there."""
        self.back(1)
        self.field.press("b")
        expect(self.page.get_by_text("Given on the other side too.")).to_be_visible()
        self.page.get_by_role("button", name=name.replace("left", "right"), exact=True).click()
        self.skip(3)

    def row(self, place):
        self.type("; ".join(f"{v:g}" for v in place))

    def points(self, prefix):
        """Every point of an end as it is asked for by name."""
        while ": how far ahead" in (title := self.title()):
            self.row(self.plan["points"][f"{prefix}.{title.split(':')[0].lower().replace(' ', '.')}"])

    def title(self):
        return self.page.locator("section.tape").get_attribute("aria-label")

    def end(self, end, prefix, springs, parts):
        self.chapter(f"{end} wheels".capitalize())
        self.words("double wish")
        for part in parts:
            self.page.get_by_role("button", name=part).click()
        self.field.focus()
        self.type(f"{self.plan[f'{end}_linkage']['loaded_radius']:g}", "", "")  # camber and toe as they are wanted
        self.points(prefix)
        self.type(*springs)

    def adjuster(self, kind, where, name, moves="", way=""):
        page = self.page
        self.chapter("What can be turned")
        page.get_by_label("Kind", exact=True).select_option(kind)
        page.get_by_label("Where", exact=True).select_option(where)
        page.get_by_label("Name", exact=True).fill(name)
        if moves:
            page.get_by_label("Moves", exact=True).select_option(moves)
        if way:
            page.get_by_label("Which way", exact=True).select_option(way)
        page.get_by_role("button", name="Put it on the car").click()
        self.field.focus()


def bare(plan):
    """A plan without what says the same in other ways: names of adjusters within the file, order of rows."""
    rows = {
        key: sorted(({k: v for k, v in r.items() if k != "id"} for r in plan[key]), key=str)
        for key in ("adjusters", "aims", "build_aims", "heights")
    }
    footing = {**plan["footing"], **{k: sorted(plan["footing"][k], key=str) for k in ("features", "low", "stands")}}
    ends = {
        e: {**plan[e], "joints": sorted(plan[e]["joints"], key=str), "lengths": plan[e]["lengths"]}
        for e in ("front_linkage", "rear_linkage")
    }
    # A plan without tools of its own works with the usual ones; the page writes those down.
    return {**plan, **rows, "footing": footing, **ends, "tools": [], "name": "", "points": dict(sorted(plan["points"].items()))}


def test_a_whole_car_given_on_its_drawing_is_its_plan_file(page, served):
    plan = told("plan")["heather"]
    page.goto(f"{served.url}/begin")
    page.get_by_label("Name of the car").fill("Heather")
    page.get_by_label("What it is").fill(plan["about"])
    g = Giver(page, plan)
    g.field.focus()
    g.type(2280, 1340, 352, 552, 1360, "", 576)
    g.type(78, 2, 86, "", -1.8, 0.2, -1.2, "", -0.1, 0.1, 0.15, "")
    page.get_by_role("button", name=re.compile("^Front axle, ride height of both wheels: 78")).click()
    page.get_by_label("Where it is from").fill("drawing")
    page.get_by_label("how far it is trusted").select_option("sure")
    page.get_by_role("button", name="So of all that are given here").click()
    g.chapter("Where heights are read")
    g.type("0; 230; 82")
    g.words("floor pan at the axle")
    g.type("", "", "", "")  # right front: as on the left
    g.type(-2280, 220, "", "")
    g.type("", "", "", "")
    g.end("front", "LF", (45, 200, 88, 42, 152, 254, ""), ("a coil by rod and rocker", "an anti-roll bar"))
    g.type(16, "", 410, 121.8)
    joints(g, "front")
    g.end("rear", "LR", ("",) * 7, ("a coil by rod and rocker", "a halfshaft"))
    g.type("", "")
    joints(g, "rear")
    for where, name, corner in (("front", "tie rod", "LF"), ("rear", "toe link", "LR")):
        g.adjuster("tube", where, name, f"={corner}.tie rod")
        if where == "front":
            g.type("M10x1.5", 28, 16)
            expect(
                page.get_by_role("button", name=re.compile("^Front axle, tie rod.*pitch a turn, right-hand end: 1.5"))
            ).to_be_visible()
            page.get_by_role("button", name=re.compile("^Front axle, tie rod of both sides: thread ⌀, left-hand")).click()
            g.type("", "", "")
            g.words("jam nuts, 17 mm")
        else:
            g.type("", "", "", "", "", "", "")
        g.adjuster("tube", where, "pushrod")
        g.type("", "", "", "", "", "")
        g.adjuster("shims", where, "upper bracket shims", f".{corner}.upper.ball", "outboard")
        if where == "front":
            g.type(1, 3, 7, 2)  # others on the shelf are twice as thick
            g.words("two M8 bolts")
        else:
            g.type("", "", "", "", "")
        g.adjuster("perch", where, "spring perch")
        if where == "front":
            g.type(1.5, 18, 14, 0.63)
            g.words("grub screw")
        else:
            g.type("", "", "", "", "")
    g.chapter("What it stands on")
    g.type(612)
    g.back(1)
    g.type(6)  # the bump stop before ground and body
    g.back(3)
    g.type(44)  # on the front; half and half stands there until it is said
    g.type(190, 24, 48, 52, 66, 205, 27, 52, 50, 58)
    for name, place in (("sill, left front", "-520; 505; 158"), ("sill, left rear", "-1700; 505; 158")):
        g.words(name)
        g.type(place)
        g.twin(name)
    g.words("")
    for name, place in (("skid under the nose", "340; 0; 88"), ("skid under the tail", "-2120; 0; 92")):
        g.words(name)
        g.type(place)
    g.words("")
    for name, place in (
        ("front crossmember", "150; 0; 96"),
        ("rear crossmember, left", "-2050; 230; 96"),
    ):
        g.words(name)
        g.type(place)
    g.twin("rear crossmember, left")
    g.words("")
    g.type(360, 62)
    g.type(200, 600, "", "", -2500, "", "", "", 1.75)
    g.chapter("Points of the frame")
    page.get_by_role("button", name=re.compile("^How far a pickup may be off")).click()
    g.type(1.5)
    g.words("panel nose")
    g.type("420; 0; 130")
    for name, place in (("rail left front", "-380; 300; 120"), ("rail left rear", "-1750; 300; 120")):
        g.words(name)
        g.type(place)
        g.twin(name)
    g.chapter("While it is built")
    page.get_by_role("button", name=re.compile("^While it is built: Front axle, camber of both wheels")).first.click()
    g.type(0, 0.5, "", "", 0, 0.5, "", "")
    page.get_by_role("button", name=re.compile("^While it is built: Front axle, camber of both wheels: ")).first.click()
    page.get_by_label("Where it is from").fill("upright and straight, to hang the body by")
    page.get_by_label("how far it is trusted").select_option("sure")
    page.get_by_role("button", name="So of all that are given here").click()
    g.chapter("How it is read")
    page.get_by_role("button", name=re.compile("^Middle of the hubs")).click()
    g.type(0.5)
    page.get_by_role("button", name=re.compile("^Span over the rims")).click()
    g.type(1, 0)
    page.get_by_role("button", name=re.compile("^The strings are: how they are set")).click()
    page.get_by_label("They rest").select_option(plan["ways"]["strings_on"])
    g.words(plan["ways"]["strings_reason"])
    page.get_by_role("button", name="Begin the car").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    made = served.ask(f"/api/cars/{page.url.rsplit('/', 1)[1]}/plan.json")
    wanted, given = bare(plan), bare(made)
    assert given == wanted
    assert g.lines <= 120  # a place is one line of three figures


def joints(giver, end):
    """How far each joint works, as it is asked; what the file does not say is passed over."""
    limits = {(j["member"], j["at"]): f"{j['limit_deg']:g}" for j in giver.plan[f"{end}_linkage"]["joints"]}
    for _ in range(10):
        found = re.search(r"how far the (\w+) joint of the (.+) works", giver.title())
        limit = limits.get((found[2], found[1]))
        giver.type(limit) if limit and end == "front" else giver.type("") if limit else giver.skip()


def test_names_and_places_typed_faster_than_they_are_read_go_where_they_belong(page, served):
    """All typed while not one answer is there; the answers then come in any order."""
    page.goto(f"{served.url}/begin")
    g = Giver(page, {})
    g.chapter("Points of the frame")
    page.get_by_role("button", name=re.compile("^How far a pickup may be off")).click()
    held = []
    page.route("**/api/shop/read", lambda request: request.continue_() if held is None else held.append(request))
    g.type(1.5)
    for name, place in (("rail left front", "-380; 300; 120"), ("rail left rear", "-1750; 300; 121"), ("nose", "420; 0; 130")):
        g.words(name)
        g.type(place)
    g.words("")
    page.wait_for_timeout(200)  # of the browser's own clock: every question has been asked
    requests, held = held, None
    for request in reversed(requests):
        request.continue_()
    g.chapter("Points of the frame")
    for name, figures in (
        ("rail left front", (-380, 300, 120)),
        ("rail left rear", (-1750, 300, 121)),
        ("nose", (420, 0, 130)),
    ):
        page.get_by_role("button", name=name, exact=True).click()
        for part, figure in zip(("ahead", "left", "high"), figures, strict=True):
            said = f"{figure}".replace("-", "−")
            expect(page.locator("figure g").filter(has_text=re.compile(f"^{part} {said}$"))).to_be_visible()


def test_what_a_plan_cannot_prove_and_what_contradicts_itself_is_said_while_it_is_given(page, demo_server):
    page.goto(demo_server.car("heather") + "/plan")
    limit = page.get_by_role("row").filter(has_text="left front toe: read once it is sure")
    expect(limit).to_contain_text("nothing can hold ± 0.10°")
    page.get_by_role("button", name="What is wanted").click()
    page.get_by_role("button", name="Front axle, toe of both wheels: how far off still does: 0.10°").click()
    field = page.locator("#tape-field")
    field.press_sequentially("0.5")
    field.press("Enter")
    expect(limit).to_have_count(0)
    page.get_by_role("button", name="Main dimensions").click()
    page.get_by_role("button", name="Front axle: rim over its flanges: 352").click()
    field.press_sequentially("700")
    field.press("Enter")
    wrong = page.get_by_role("button", name=re.compile("the rim .* is not smaller than its tyre"))
    expect(wrong).to_be_visible()  # before anybody would keep it
    wrong.click()  # it leads to its place
    field.press_sequentially("352")
    field.press("Enter")
    expect(wrong).to_have_count(0)


def test_a_dimension_is_provisional_with_one_key_and_a_tool_is_put_in_the_box(page, demo_server):
    car = demo_server.car("heather")
    page.goto(f"{car}/plan")
    page.get_by_role("button", name="Wheelbase: 2280").click()
    page.locator("#tape-field").press("v")
    expect(page.get_by_role("button", name="Wheelbase: ≈ 2280")).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="the wheelbase settled: it is provisional")).to_contain_text(
        "pickup points hang on it"
    )
    page.locator("#tape-field").press("v")
    expect(page.get_by_role("button", name="Wheelbase: 2280")).to_be_visible()
    page.locator("#tape-field").press("v")
    page.get_by_role("button", name="How it is read").first.click()
    page.get_by_role("button", name="Put it in the box").click()
    expect(page.get_by_text("Give it a name first")).to_be_visible()
    page.get_by_label("A tool more: its name").fill("Vernier")
    page.get_by_role("button", name="Put it in the box").click()
    expect(page.get_by_role("heading", name="Vernier: step of its scale")).to_be_visible()
    page.locator("#tape-field").focus()
    give(page, "0.05", "0.02")
    expect(page.get_by_role("heading", name="Vernier: how well its zero is known")).to_be_visible()
    page.get_by_label("Read with a tool of its own").select_option("gap to the rim's front edge")
    page.get_by_label("With", exact=True).select_option("Vernier")
    expect(page.get_by_text("gap to the rim's front edge: Vernier")).to_be_visible()
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("heading", name="Walk-round")).to_be_visible()
    plan = demo_server.server.ask(demo_server.api("heather").removeprefix(demo_server.url) + "/plan.json")
    assert plan["provisional"] == ["wheelbase"]
    assert plan["tool_for"] == {"gap_front": "vernier"}
    assert {"id": "vernier", "name": "Vernier", "measures": "length", "step": 0.05, "repeatability": 0.02, "zero": 0} in plan[
        "tools"
    ]
