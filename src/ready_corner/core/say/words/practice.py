"""Practice cars, and tools at the end of a line."""

WORDS = {
    "practice.none": "This is no car to practise on: nothing of it is hidden. Begin one under Practice.",
    "practice.no-fault": "There is no fault “{name}” to practise on. {near}",
    "practice.no-layout": "There is no practice car “{name}”. {near}",
    "practice.of": "{words}; number {number}",
    "practice.end": "{ready?Truly ready: all {marks} marks are within tolerance|Not ready: {out} of {marks} marks are truly out}. {lifts} lift{lifts=1?|s}, {readings} readings.",
    "tool.away": "No tool answers at {host}:{port}. Switch it on, or type the figure.",
    "tool.none-on-line": "No tool is on the line. Type the figure.",
    "tool.refused": "The tool gives no figure: {said}",
    "tool.no-figure": "The tool did not answer with a figure in mm, in, deg, kg or lb (“{said}”). Type what it shows.",
}
