"""The commands of the command line: a module each, with what may stand after it and what it does; loaded when it is
used.
"""

COMMANDS = {
    "work": "work a problem",
    "figure": "draw a problem, or a step of its working, as SVG",
    "build": "build a number from others with + - × ÷, each used at most once",
    "diagnose": "explain what a pupil answered",
    "estimate": "judge a pupil's estimate",
    "choices": "four options to choose from, one of them right",
    "check": "check a written working, a line each from standard input",
    "ladder": "build a set of problems to order",
    "story": "work a problem told in words, or make some",
    "believe": "what the pupils of a class hold, from what they wrote",
}
