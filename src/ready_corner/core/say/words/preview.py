"""What an entry would mean before it is recorded."""

WORDS = {
    "preview.read": "{reading:echo}",
    "preview.load": "{load} · {cross} · {aim}",
    "preview.mark": "{would} · {aim}{upright? · counted from {upright:upright} upright}{odd? · does not agree with the last one here}",
    "preview.would-be": "{quantity=cross_weight?cross weight|{quantity}} would be {value:value} {sure:u}",
    "preview.aim": "aim {aim}",
    "preview.no-aim": "no aim",
    "preview.radius": "loaded radius {stand_in?of the stand-in; what it is off the planned tyre is taken out of the heights|of its own tyre; every height is counted with it}",
    "preview.hub-on-it": "the car will stand as wanted here",
    "to-go.on-it": "on it",
    "preview.hub": "set so, the car will stand {ride:size} {higher?higher|lower} here than wanted",
    "to-go.hub": "{size:size} {up?up|down} to go",
    "preview.against-string": "{toe:value} against the string; the hub gaps will tell the string's own angle",
    "preview.floor-level": "the floor counts as level until all four pads are read",
    "preview.floor": "floor {nose:angle} {down?nose down|nose up}, left side {left:angle} {up?up|down}; taken out of camber",
    "preview.would-read": "{quantity} would read {value:value}",
    "preview.turn": "{length:size} {way} · {would?{would:list}|what it does is not known yet: read camber and toe after it}",
}
