"""The answers to sums: what, and how much."""

LINES = {
    "sum.spring": ("Spring", "{rate:rate}"),
    "sum.free-length": ("Free length, the perch left where it is", "{length:small}"),
    "sum.at-wheel": ("At the wheel", "{rate:rate}"),
    "sum.swings": ("The corner swings at", "{hz:.2f} Hz without its tyre"),
    "sum.sag": ("Sag from full droop, without preload", "{sag:small}"),
    "sum.preload": ("Preload changes the height", "and never the rate"),
    "sum.at-bump": ("Between its eyes at the bump stop", "{length:small}"),
    "sum.closing": ("Room left closing", "{room:small}{short? short}"),
    "sum.at-droop": ("Between its eyes at the droop stop", "{length:small}"),
    "sum.opening": ("Room left opening", "{room:small}{short? short}"),
    "sum.so": ("So", "{fit}"),
    "sum.hangs": ("Hangs free", "{angle:angle} {under?under|over} level"),
    "sum.finest": ("Finest step with both ends", "{angle:angle3}"),
    "sum.to-come": ("To come {size:small} {up?up|down}", "turn it {angle:angle}"),
    "sum.shift": ("Shift", "inner {inner}, outer {outer}"),
    "sum.left-over": (
        "Left for the fine adjuster",
        "{angle:angle3}, {at_end:small} at the end of the arm: {covers?it covers that|it does not cover that}",
    ),
    "sum.mark-both": (
        "Before anything is drawn out",
        "mark both ends against their seats; the bar holds energy until the car is up",
    ),
    "sum.twist": ("Twist, both arms counted", "{angle:degrees}"),
    "sum.end-force": ("Force at the left end, rigid arms", "{force:.0f} N"),
    "sum.end-rate": ("At its end, per difference of the two ends", "{rate:rate}"),
    "sum.bar-ratio": ("Bar end over wheel", "{ratio:.3f}"),
    "sum.bar-at-wheel": ("At the wheel, per difference of the two wheels", "{rate:rate}"),
    "sum.arm": ("Arm", "{arm:small} in every line"),
    "sum.cut": ("Cut the tube", "{length:small}"),
    "sum.eye-to-eye": ("Eye to eye then", "{length:small}"),
    "sum.either-way": ("Either way", "{thread:small} of thread at each end"),
    "sum.height": ("{corner:Corner}, {at}", "{height:small}"),
}
WORDS = {"sum.splines": "{count?{count} spline{several?s} {down?down at the arm|up at the arm}|none}"}
