/* Written by scripts/contracts from the descriptions in the core. Do not edit. */

export const TOLD = {
  "forms": {
    "gap": {
      "title": "Clearances and bush gaps",
      "at": "weld",
      "fields": [
        {
          "name": "point",
          "label": "Point",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "to",
          "label": "To what",
          "as": "text",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "what",
          "label": "Of a",
          "as": "choice",
          "options": [
            "neighbour",
            "bush"
          ],
          "needed": false,
          "preset": "neighbour"
        },
        {
          "name": "typed",
          "label": "Clearance or gap",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        }
      ]
    },
    "opening": {
      "title": "Wheel opening",
      "at": "weld",
      "fields": [
        {
          "name": "corner",
          "label": "Corner",
          "as": "choice",
          "options": [
            "LF",
            "RF",
            "LR",
            "RR"
          ],
          "needed": true,
          "preset": null
        },
        {
          "name": "ahead_typed",
          "label": "Ahead",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "behind_typed",
          "label": "Behind",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        }
      ]
    },
    "sill": {
      "title": "Height of sill or seam",
      "at": "weld",
      "fields": [
        {
          "name": "place",
          "label": "At the",
          "as": "choice",
          "options": [
            "front",
            "rear"
          ],
          "needed": true,
          "preset": null
        },
        {
          "name": "side",
          "label": "Side",
          "as": "choice",
          "options": [
            "left",
            "right"
          ],
          "needed": true,
          "preset": null
        },
        {
          "name": "typed",
          "label": "Sill or seam, height",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "sag",
          "label": "it was so before",
          "as": "check",
          "options": [],
          "needed": false,
          "preset": false
        }
      ]
    },
    "brace": {
      "title": "A brace, set or taken out",
      "at": "weld",
      "fields": [
        {
          "name": "name",
          "label": "Brace",
          "as": "text",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "first",
          "label": "From",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "second",
          "label": "To",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "out",
          "label": "taken out",
          "as": "check",
          "options": [],
          "needed": false,
          "preset": false
        }
      ]
    },
    "dropped": {
      "title": "A point dropped by laser or plumb line",
      "at": "weld",
      "fields": [
        {
          "name": "point",
          "label": "Dropped point",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "depth_typed",
          "label": "First depth",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "miss_typed",
          "label": "Off by, there",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "second_depth_typed",
          "label": "Second depth",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "second_miss_typed",
          "label": "Off by, there too",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "mark_typed",
          "label": "Depth of the mark",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        }
      ]
    },
    "cut_line": {
      "title": "A line not to be cut beyond",
      "at": "weld",
      "fields": [
        {
          "name": "what",
          "label": "Where",
          "as": "text",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "point",
          "label": "Measured from",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "by_typed",
          "label": "Not nearer than",
          "as": "figure",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "reason",
          "label": "For what",
          "as": "text",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "out",
          "label": "taken back",
          "as": "check",
          "options": [],
          "needed": false,
          "preset": false
        }
      ]
    },
    "carry": {
      "title": "A dimension that carries the datum over",
      "at": "weld",
      "fields": [
        {
          "name": "gauge",
          "label": "Gauge that keeps it",
          "as": "text",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "first",
          "label": "From",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "second",
          "label": "To",
          "as": "point",
          "options": [],
          "needed": true,
          "preset": null
        },
        {
          "name": "out",
          "label": "no more",
          "as": "check",
          "options": [],
          "needed": false,
          "preset": false
        }
      ]
    },
    "job": {
      "title": "A new job begins",
      "at": "log",
      "fields": [
        {
          "name": "words",
          "label": "What is to be done",
          "as": "text",
          "options": [],
          "needed": false,
          "preset": ""
        }
      ]
    }
  },
  "marks": {
    "kinds": {
      "height": {
        "label": "ride height",
        "short": "height",
        "unit": "mm",
        "read": "height",
        "plus": "",
        "ways": {
          "tape": "tape"
        },
        "only_aimed": false,
        "aimed": true,
        "at": [
          "LF",
          "RF",
          "LR",
          "RR"
        ]
      },
      "caster": {
        "label": "caster",
        "short": "caster",
        "unit": "deg",
        "read": "sweep_in",
        "plus": "",
        "ways": {
          "sweep": "sweep on turn plates",
          "bar": "gauge on a bar across the ball joints",
          "plumb": "plumb lines and rule"
        },
        "only_aimed": true,
        "aimed": true,
        "at": [
          "LF",
          "RF"
        ]
      },
      "inclination": {
        "label": "inclination",
        "short": "inclination",
        "unit": "deg",
        "read": "inclination",
        "plus": "",
        "ways": {
          "bar": "gauge on a bar across the ball joints",
          "plumb": "plumb lines and rule",
          "sweep": "sweep on turn plates"
        },
        "only_aimed": true,
        "aimed": true,
        "at": [
          "LF",
          "RF"
        ]
      },
      "camber": {
        "label": "camber",
        "short": "camber",
        "unit": "deg",
        "read": "camber",
        "plus": "",
        "ways": {
          "gauge": "gauge on the rim",
          "plumb": "plumb line and rule"
        },
        "only_aimed": false,
        "aimed": true,
        "at": [
          "LF",
          "RF",
          "LR",
          "RR"
        ]
      },
      "toe": {
        "label": "toe",
        "short": "toe",
        "unit": "deg",
        "read": "gap_front",
        "plus": "in",
        "ways": {
          "string": "string and rule",
          "rail": "straight edge along a proved rail",
          "bars": "hub bars and a line down the middle"
        },
        "only_aimed": false,
        "aimed": true,
        "at": [
          "LF",
          "RF",
          "LR",
          "RR"
        ]
      },
      "load": {
        "label": "load",
        "short": "load",
        "unit": "kg",
        "read": "load",
        "plus": "",
        "ways": {
          "scales": "scales"
        },
        "only_aimed": false,
        "aimed": false,
        "at": [
          "LF",
          "RF",
          "LR",
          "RR"
        ]
      },
      "wheelbase": {
        "label": "wheelbase",
        "short": "wheelbase",
        "unit": "mm",
        "read": "wheelbase",
        "plus": "",
        "ways": {
          "trammel": "trammel"
        },
        "only_aimed": false,
        "aimed": false,
        "at": [
          "LF",
          "RF"
        ]
      },
      "total_toe": {
        "label": "total toe",
        "short": "total toe",
        "unit": "deg",
        "read": null,
        "plus": "in",
        "ways": {
          "toes": "the toes of both wheels",
          "plates": "toe plates and tape"
        },
        "only_aimed": true,
        "aimed": true,
        "at": [
          "front",
          "rear"
        ]
      },
      "thrust": {
        "label": "thrust angle",
        "short": "thrust angle",
        "unit": "deg",
        "read": null,
        "plus": "to the left",
        "ways": {},
        "only_aimed": false,
        "aimed": true,
        "at": [
          "car"
        ]
      },
      "rake": {
        "label": "rake",
        "short": "rake",
        "unit": "deg",
        "read": null,
        "plus": "nose down",
        "ways": {},
        "only_aimed": false,
        "aimed": true,
        "at": [
          "car"
        ]
      },
      "cross": {
        "label": "cross difference of heights",
        "short": "cross difference",
        "unit": "mm",
        "read": null,
        "plus": "LF+RR up",
        "ways": {},
        "only_aimed": false,
        "aimed": true,
        "at": [
          "car"
        ]
      },
      "cross_weight": {
        "label": "cross weight",
        "short": "cross weight",
        "unit": "%",
        "read": null,
        "plus": "",
        "ways": {},
        "only_aimed": false,
        "aimed": true,
        "at": [
          "car"
        ]
      },
      "setback": {
        "label": "setback",
        "short": "setback",
        "unit": "mm",
        "read": null,
        "plus": "right front further back",
        "ways": {},
        "only_aimed": false,
        "aimed": true,
        "at": [
          "car"
        ]
      }
    },
    "corner": [
      "height",
      "caster",
      "inclination",
      "camber",
      "toe"
    ],
    "whole": [
      "front.total_toe",
      "rear.total_toe",
      "car.thrust",
      "car.rake",
      "car.cross",
      "car.cross_weight",
      "car.setback"
    ],
    "corners": [
      "LF",
      "RF",
      "LR",
      "RR"
    ]
  },
  "quantities": {
    "pad": {
      "short": "pad",
      "words": "height of the floor under the tyre",
      "spot": "the pad",
      "scene": "level",
      "mistake": "Both ends of the hose open, no air in it; or the laser warmed up. Read at the mark, not at the edge of the pad.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "pad_step": {
      "short": "step",
      "words": "step of the floor from the tyre before",
      "spot": "the pad, from the one before it",
      "scene": "stepped",
      "mistake": "Read it, turn the level end for end, and take the mean. Straight edge on its edge; go all round, so that the last step proves the others.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "height": {
      "short": "ride",
      "words": "ride height",
      "spot": "the ride height",
      "scene": "upright",
      "mistake": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "height"
      ],
      "turned": true,
      "by_eye": false
    },
    "camber": {
      "short": "cam",
      "words": "camber",
      "spot": "camber",
      "scene": "gauge",
      "mistake": "Flat on bare rim, no weight or lip under it. Let it come to rest; read it, turn nothing by eye.",
      "kind": "angle",
      "measures": "angle",
      "marks": [
        "camber"
      ],
      "turned": true,
      "by_eye": true
    },
    "lean_top": {
      "short": "top",
      "words": "gap from the plumb line to the rim's top edge",
      "spot": "the gap at the top",
      "scene": "plumb",
      "mistake": "Let the line hang still, clear of the tyre. The rule lies level, from the line and not from the bob.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "camber"
      ],
      "turned": true,
      "by_eye": false
    },
    "lean_bottom": {
      "short": "bottom",
      "words": "gap from the plumb line to the rim's bottom edge",
      "spot": "the gap at the bottom",
      "scene": "plumb",
      "mistake": "Let the line hang still, clear of the tyre. The rule lies level, from the line and not from the bob.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "camber"
      ],
      "turned": true,
      "by_eye": false
    },
    "plates_front": {
      "short": "plates front",
      "words": "tape across the toe plates in front",
      "spot": "the tape in front",
      "scene": "across",
      "mistake": "Taut, the same pull at either end, nothing touched on its way. A tape that sags reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "total_toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "plates_back": {
      "short": "plates back",
      "words": "tape across the toe plates behind",
      "spot": "the tape behind",
      "scene": "across",
      "mistake": "Taut, the same pull at either end, nothing touched on its way. A tape that sags reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "total_toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "plate_in": {
      "short": "plate in",
      "words": "angle the plate shows, steered in",
      "spot": "the plate",
      "scene": "plate",
      "mistake": "Read the plate under the wheel, not the steering wheel, eye straight above its mark. Nobody leans on the car.",
      "kind": "angle",
      "measures": "steer",
      "marks": [
        "caster",
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "sweep_in": {
      "short": "cam in",
      "words": "camber steered in",
      "spot": "the camber steered in",
      "scene": "gauge",
      "mistake": "Flat on bare rim, no weight or lip under it. Let it come to rest; read it, turn nothing by eye.",
      "kind": "angle",
      "measures": "angle",
      "marks": [
        "caster",
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "plate_out": {
      "short": "plate out",
      "words": "angle the plate shows, steered out",
      "spot": "the plate",
      "scene": "plate",
      "mistake": "Read the plate under the wheel, not the steering wheel, eye straight above its mark. Nobody leans on the car.",
      "kind": "angle",
      "measures": "steer",
      "marks": [
        "caster",
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "sweep_out": {
      "short": "cam out",
      "words": "camber steered out",
      "spot": "the camber steered out",
      "scene": "gauge",
      "mistake": "Flat on bare rim, no weight or lip under it. Let it come to rest; read it, turn nothing by eye.",
      "kind": "angle",
      "measures": "angle",
      "marks": [
        "caster",
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "caster": {
      "short": "caster",
      "words": "lean of the ball joints, from the side",
      "spot": "the lean of the joints",
      "scene": "bar",
      "mistake": "The bar seated on both joints alike, dirt wiped off. Lay the gauge the same way round each time.",
      "kind": "angle",
      "measures": "angle",
      "marks": [
        "caster"
      ],
      "turned": true,
      "by_eye": false
    },
    "caster_offset": {
      "short": "behind",
      "words": "upper ball joint behind the lower",
      "spot": "how far it lies behind",
      "scene": "plumb",
      "mistake": "Let the line hang still, clear of the tyre. The rule lies level, from the line and not from the bob.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "caster"
      ],
      "turned": true,
      "by_eye": false
    },
    "inclination": {
      "short": "incl",
      "words": "lean of the ball joints, from ahead",
      "spot": "the lean of the joints",
      "scene": "bar",
      "mistake": "The bar seated on both joints alike, dirt wiped off. Lay the gauge the same way round each time.",
      "kind": "angle",
      "measures": "angle",
      "marks": [
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "inclination_offset": {
      "short": "inside",
      "words": "upper ball joint further in than the lower",
      "spot": "how far it lies inside",
      "scene": "plumb",
      "mistake": "Let the line hang still, clear of the tyre. The rule lies level, from the line and not from the bob.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "joint_height": {
      "short": "joints",
      "words": "height of the upper ball joint over the lower",
      "spot": "the height between the joints",
      "scene": "upright",
      "mistake": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "caster",
        "inclination"
      ],
      "turned": true,
      "by_eye": false
    },
    "gap_front": {
      "short": "front",
      "words": "gap to the rim's front edge",
      "spot": "the front gap",
      "scene": "string",
      "mistake": "Eye square over the rule, at the near side of the string. A rule that leans reads too much; one that pushes the string, too little.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "gap_back": {
      "short": "back",
      "words": "gap to the rim's back edge",
      "spot": "the back gap",
      "scene": "string",
      "mistake": "Eye square over the rule, at the near side of the string. A rule that leans reads too much; one that pushes the string, too little.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "gap_hub": {
      "short": "hub",
      "words": "gap to the hub centre",
      "spot": "the hub gap",
      "scene": "string",
      "mistake": "Eye square over the rule, at the near side of the string. A rule that leans reads too much; one that pushes the string, too little.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "gap_mark": {
      "short": "mark",
      "words": "gap from the frame's mark to the string",
      "spot": "the gap at the mark",
      "scene": "string",
      "mistake": "Eye square over the rule, at the near side of the string. A rule that leans reads too much; one that pushes the string, too little.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "edge_front": {
      "short": "front",
      "words": "gap from the straight edge to the rim's front edge",
      "spot": "the front gap",
      "scene": "out",
      "mistake": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "edge_back": {
      "short": "back",
      "words": "gap from the straight edge to the rim's back edge",
      "spot": "the back gap",
      "scene": "out",
      "mistake": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "rail": {
      "short": "rail",
      "words": "distance of the rail from the centreline",
      "spot": "where the rail is",
      "scene": "out",
      "mistake": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "bar_front": {
      "short": "front",
      "words": "distance from the middle line to the hub bar's front mark",
      "spot": "the distance in front",
      "scene": "out",
      "mistake": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "bar_back": {
      "short": "back",
      "words": "distance from the middle line to the hub bar's back mark",
      "spot": "the distance behind",
      "scene": "out",
      "mistake": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "toe"
      ],
      "turned": true,
      "by_eye": false
    },
    "load": {
      "short": "load",
      "words": "load on the scale",
      "spot": "the load",
      "scene": "scale",
      "mistake": "All four level and zeroed before the car is on them, tyres at pressure, nobody leaning on it.",
      "kind": "mass",
      "measures": "mass",
      "marks": [
        "load"
      ],
      "turned": false,
      "by_eye": false
    },
    "radius": {
      "short": "radius",
      "words": "loaded tyre radius",
      "spot": "the tyre radius",
      "scene": "upright",
      "mistake": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "stand": {
      "short": "stand",
      "words": "height over the floor on stands",
      "spot": "the height on stands",
      "scene": "upright",
      "mistake": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "hub": {
      "short": "hub height",
      "words": "hub height over the floor",
      "spot": "the hub height",
      "scene": "upright",
      "mistake": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [],
      "turned": false,
      "by_eye": false
    },
    "wheelbase": {
      "short": "base",
      "words": "wheelbase",
      "spot": "the wheelbase",
      "scene": "across",
      "mistake": "Taut, the same pull at either end, nothing touched on its way. A tape that sags reads too much.",
      "kind": "length",
      "measures": "length",
      "marks": [
        "wheelbase"
      ],
      "turned": false,
      "by_eye": false
    }
  }
} as const;
