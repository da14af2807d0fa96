"""What each page answers: behind the question mark of every page, and all together as a guide."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import Flask, request


@dataclass(frozen=True)
class PageHelp:
    """What a page is for."""

    place: str  #: of the bar, under which the guide lists it
    name: str
    question: str  #: that it answers
    how: str  #: what one does there


def _page(place: str, name: str, question: str, how: str) -> PageHelp:
    return PageHelp(place, name, question, how)


HELP: dict[str, PageHelp] = {
    "home.show": _page("Home", "Home", "How does the shop stand, and what is first?",
        "Look at what is red, at the strip of the coming weeks, at what is first and why. Tap what you did."),
    "start.ask": _page("Home", "Start", "What would a first line do?",
        "Five questions; each may stay at “don't know”, and what is guessed is marked as a guess."),
    "line.show": _page("Line", "Drawing", "Is there enough air, does it carry, what stays in the bin?",
        "Pick a part, change it, watch the figures. Click a gate to open or shut it. Try a change before you keep it."),
    "line.way": _page("Line", "The way", "I have so much money and time: what do I do?",
        "Say money and hours; strike out what you will not do; tick off what is done."),
    "line.ports": _page("Line", "Ports", "What does each tool get, alone and together with others?",
        "Print it and pin it up. A click on a tool leads to its hood."),
    "hood.show": _page("Line", "Hood", "What does this tool catch, and what would catch more?",
        "Measure the distance, say what flies; the list says what a flange, a box or a closer port would gain."),
    "dust.show": _page("Line", "Dust", "Where do a hundred grams go, and what do I breathe?",
        "Follow the stream; set the job and the room; see how long to stay masked."),
    "ageing.show": _page("Line", "Ageing", "How long do filter and bin last, and what does an hour cost?",
        "Say how many hours a filter should last; compare with and without the separator, with a bag and without."),
    "line.joints": _page("Line", "Joints", "Does each cuff fit what it is pushed on?",
        "Measure inside and outside with a ruler; the list says slip, tape or turn an adapter."),
    "line.drawer": _page("Line", "From the drawer", "What is the best line from hoses and adapters I own?",
        "Pick a tool; the best lines come first, each as a variant to keep."),
    "line.vacuum": _page("Line", "Vacuum", "What does this vacuum really pull?",
        "Figures off its label, or a plate with holes and a tube of water."),
    "line.compare_with": _page("Line", "Compare", "Which of two lines is better, and by how much?",
        "Every figure with its band; better, worse, or not to be told."),
    "line.compare": _page("Line", "Compare", "Which of two lines is better, and by how much?",
        "Every figure with its band; better, worse, or not to be told."),
    "separator.show": _page("Separator", "Separator", "What does it keep, size by size, and when does it stop working?",
        "Drag a knob on the section; watch the grains; change its kind."),
    "separator.show_schools": _page("Separator", "Where makers disagree", "Who is right, on this line?",
        "Both ways worked out with their bands."),
    "finder.show": _page("Separator", "Finder", "Which separator of all that can be made does most?",
        "Say what you can cut, how high it may stand and what counts; pick a mark on the plot."),
    "build.show": _page("Build", "Build", "What is to be made, in which order, when can it run?",
        "Tick off what is there and what is done; say what came out otherwise."),
    "build.show_sheets": _page("Build", "Sheets", "How do the parts lie on what I have?",
        "Enter off-cuts in the shop; print templates 1:1 and measure the square on them."),
    "build.show_steps": _page("Build", "Steps", "What comes next, and what must hold before it?",
        "One step a screen; hold points stop you before it is too late."),
    "build.show_joints": _page("Build", "Joints to make", "What holds on what?",
        "Pick two materials; what bonds, how long it cures, what never will."),
    "build.make_or_buy.show_make_or_buy": _page("Build", "Make or buy", "Is it worth making?",
        "Hours and money of both, beside what they do on this line."),
    "trials.hub": _page("Test", "Tests", "What was tested, and what came of it?",
        "Plan a test with what you own; it says beforehand what it can tell."),
    "trials.propose": _page("Test", "What to test", "Which test tells me most for its minutes?",
        "Say what you want to know and what you have got. A test that answers comes before one that does not, a short "
        "one before a long one; each says what is weighed out, and what would answer it that you have not got."),
    "trials.plan": _page("Test", "Plan", "What can this test show, with this scale and so many runs?",
        "Choose the heap, the states and the runs; their order is drawn by lot."),
    "trials.show": _page("Test", "Result", "Is the difference real?",
        "The interval says it; runs that cannot be are kept apart with their reason."),
    "trials.run": _page("Test", "Run", "What do I do now?",
        "Step by step with a clock; every keystroke is kept."),
    "readings.show": _page("Test", "Readings and tuning", "How does my line differ from its description?",
        "Enter what a gauge or a tube of water says; tune, and switch it off again."),
    "phone.inside.show": _page("Test", "Inside of the bin", "What is thrown back, and where does it cling?",
        "Pin a photo to its height over the floor; beside it stands what the model keeps with dust up to there."),
    "phone.show": _page("Test", "By telephone", "What can I measure with what is in my pocket?",
        "A photo of a filter, a sheet, the bin or a U of water; a recording of the motor. With its band, or why not."),
    "phone.result": _page("Test", "By telephone", "What can I measure with what is in my pocket?",
        "A photo of a filter, a sheet, the bin or a U of water; a recording of the motor. With its band, or why not."),
    "faults.show": _page("Test", "Fault finder", "What is wrong with it?",
        "Say what you notice; the next measurement is the one that tells most."),
    "air_log.show": _page("Test", "The room's air", "How much dust did that cut make, and when was it gone?",
        "Open a monitor's log, or read it live; mark the cuts."),
    "practice.show": _page("Test", "Practice", "Could I find a fault by its readings?",
        "A line with a hidden fault: measure, and say what it is."),
    "lessons.show": _page("Test", "Lessons", "Which judgements do people get wrong?",
        "Predict, see what the model makes of it, and why. A minute each."),
    "lessons.ask": _page("Test", "Lessons", "Which judgements do people get wrong?",
        "Predict, see what the model makes of it, and why. A minute each."),
    "device.show": _page("Test", "Devices", "Which scale, monitor or gauge is read?",
        "A serial port, or an address this machine's owner has allowed."),
    "log.show": _page("Log", "Log", "What was done?",
        "One tap for the usual; a tap on an entry changes it or adds a photo. Undo takes the last step back."),
    "log.ask": _page("Log", "An entry", "What is there to say of it?",
        "What is said makes the next forecast surer; all but one figure may stay empty."),
    "log.edit": _page("Log", "An entry", "What is there to say of it?",
        "What is said makes the next forecast surer; all but one figure may stay empty."),
    "log.due": _page("Log", "Due", "What is due, when, and how sure is that?",
        "The dot is likely, the bar holds nine in ten. A click logs it as done."),
    "log.trend": _page("Log", "Is it getting worse?", "Does it slowly get worse, and since when?",
        "Take the same few figures again and again at the same place; steps are explained by what happened."),
    "log.money": _page("Log", "Money", "What did it cost, and what did the separator save?",
        "Say what things cost when you log them; ask what a job that comes once takes."),
    "log.emptying": _page("Log", "Emptying", "How is this bin emptied, and what does that take?",
        "Step by step for its closure and stand."),
    "shop.show": _page("Shop", "Shop", "What do I own, and where does it stand?",
        "Click a thing on the plan; the list below takes what is not on it. A line can be filled from the shop."),
    "checks.show": _page("Shop", "Checks", "What breaks, hurts or does not fit?",
        "Worst first; say why you live with one, and it stays in sight."),
    "workings.all_figures": _page("Shop", "Workings", "Which figures can I follow?", "Pick one."),
    "workings.show": _page("Shop", "A working", "How does this figure come about?",
        "Every step with its formula, its numbers and their source."),
    "reference.assumptions": _page("Shop", "What the figures rest on", "Which rules of thumb are in it?",
        "Search them; each has its range and its source."),
    "reference.words": _page("Shop", "Words", "What does that word mean?", "One sentence each, with its formula."),
    "reference.guide": _page("Shop", "Guide", "Which page answers my question?", "Search it, or print it."),
    "backups.show": _page("Shop", "Copies and the whole shop", "How do I never lose any of it?",
        "A copy comes by itself each day; the whole shop goes out and in as one file."),
    "backups.whole.watch": _page("Shop", "Copies and the whole shop", "How do I never lose any of it?",
        "A copy comes by itself each day; the whole shop goes out and in as one file."),
    "backups.look": _page("Shop", "A copy", "What would putting it back change?",
        "Look first; then put it back, or add to it."),
}  # fmt: skip
PLACES = ("Home", "Line", "Separator", "Build", "Test", "Log", "Shop")


def help_of(endpoint: str | None) -> PageHelp | None:
    """What the page of an endpoint answers; None for what is no page of its own."""
    return HELP.get(endpoint or "")


def init_app(app: Flask) -> None:
    """Tell every template what its page answers."""

    @app.context_processor
    def _here() -> dict[str, Any]:
        return {"page_help": help_of(request.endpoint)}
