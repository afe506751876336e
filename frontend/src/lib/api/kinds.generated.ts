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
      "spot": "the pad",
      "kind": "length"
    },
    "height": {
      "short": "ride",
      "spot": "the ride height",
      "kind": "length"
    },
    "camber": {
      "short": "cam",
      "spot": "camber",
      "kind": "angle"
    },
    "lean_top": {
      "short": "top",
      "spot": "the gap at the top",
      "kind": "length"
    },
    "lean_bottom": {
      "short": "bottom",
      "spot": "the gap at the bottom",
      "kind": "length"
    },
    "plate_in": {
      "short": "plate in",
      "spot": "the plate",
      "kind": "angle"
    },
    "sweep_in": {
      "short": "cam in",
      "spot": "the camber steered in",
      "kind": "angle"
    },
    "plate_out": {
      "short": "plate out",
      "spot": "the plate",
      "kind": "angle"
    },
    "sweep_out": {
      "short": "cam out",
      "spot": "the camber steered out",
      "kind": "angle"
    },
    "caster": {
      "short": "caster",
      "spot": "the lean of the joints",
      "kind": "angle"
    },
    "caster_offset": {
      "short": "behind",
      "spot": "how far it lies behind",
      "kind": "length"
    },
    "inclination": {
      "short": "incl",
      "spot": "the lean of the joints",
      "kind": "angle"
    },
    "inclination_offset": {
      "short": "inside",
      "spot": "how far it lies inside",
      "kind": "length"
    },
    "joint_height": {
      "short": "joints",
      "spot": "the height between the joints",
      "kind": "length"
    },
    "gap_front": {
      "short": "front",
      "spot": "the front gap",
      "kind": "length"
    },
    "gap_back": {
      "short": "back",
      "spot": "the back gap",
      "kind": "length"
    },
    "gap_hub": {
      "short": "hub",
      "spot": "the hub gap",
      "kind": "length"
    },
    "load": {
      "short": "load",
      "spot": "the load",
      "kind": "mass"
    },
    "radius": {
      "short": "radius",
      "spot": "the tyre radius",
      "kind": "length"
    },
    "stand": {
      "short": "stand",
      "spot": "the height on stands",
      "kind": "length"
    },
    "hub": {
      "short": "hub height",
      "spot": "the hub height",
      "kind": "length"
    },
    "wheelbase": {
      "short": "base",
      "spot": "the wheelbase",
      "kind": "length"
    }
  }
} as const;
