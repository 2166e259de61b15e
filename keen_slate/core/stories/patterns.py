"""Sentence patterns of made stories, by kind of thing, situation and unknown.

A block begins with its situation, its unknown and its calculations (as in the braces of a story, `#1` for the number
told first). Each line is what is told and asked, `=>`, and the sentence that answers. Their slots:

- `{a}` the thing with its article, `{n}` its name, `{ns}` its plural, `{where}`, `{size}` and `{er}`, `{less}` its words of size;
- `{q1}` a quantity, `{c1}` a count, `{f1}` a fraction, `{s1}` a quantity in a smaller unit whose plural is `{small}`;
- `{D}`, `{E}` two who do something; `{far}`, `{farther}` of what is done;
- verbs between square brackets, in the tense of the story: `[be]`, `[use]`, `[put]`, `[do]` (the thing's own verbs), any other by its base;
  with `+` in the plural, with a number as quantity so and so asks for; `[aux]` is the does or did of a question;
- `{use}`, `{put}`, `{do}` the thing's own verbs in their base. A line that begins with `PAST` is only told in the past.
"""

from __future__ import annotations

from dataclasses import dataclass

from .rung import rung_of_story
from .scenarios import ThingKind


@dataclass(frozen=True, slots=True)
class Pattern:
    """A pattern: what is *told* and asked, the sentence that *answers*, its *calculation*; *slots* are the kinds of its
    numbers in order.
    """

    kind: ThingKind
    situation: str
    unknown: str
    told: str
    says: str
    calculation: str
    past_only: bool
    slots: str

    @property
    def rung(self) -> str:
        """The rung of its stories, where nothing is added to them."""
        return rung_of_story(
            self.situation, self.unknown, self.calculation.count(";") + 1, more="s" in self.slots,
            groups="×" in self.calculation or "÷" in self.calculation,
            larger_second=self.calculation.find("#2") < self.calculation.find("#1"),
        )  # fmt: skip


def _of(kind: ThingKind, told: str) -> tuple[Pattern, ...]:
    made = []
    for block in told.strip().split("\n\n"):
        head, *lines = [line.strip() for line in block.strip().splitlines()]
        situation, unknown, calculation = [part.strip() for part in head.split("|")]
        for line in lines:
            body, says = [part.strip() for part in line.split(" => ")]
            past = body.startswith("PAST ")
            body = body.removeprefix("PAST ")
            slots = "".join([body[body.index(f"{i}}}") - 1] for i in range(1, 5) if f"{i}}}" in body])
            made.append(Pattern(kind, situation, unknown, body, says, calculation, past, slots.lower()))
    return tuple(made)


PATTERNS: tuple[Pattern, ...] = (
    *_of("piece", """
        add-to | result | #1 + #2
        {A} [be] {q1} {size}. {D} [put] {q2} on. How {size} [be] the {n} then? => The {n} [be] _ {size} then.
        {D} [have] {a} of {q1}. {D} [put] another {q2} on. How {size} [be] the {n} then? => The {n} [be] _ {size} then.

        add-to | change | #2 - #1
        {A} [be] {q1} {size} so far. It [be] to be {q2} {size}. How much [be] missing? => _ [be+] missing.
        PAST {A} was {q1} {size}. {D} [put] some on. Then the {n} was {q2} {size}. How much [aux] {D} {put} on? => {D} [put] on _.

        add-to | start | #2 - #1
        PAST {D} [put] {q1} on {a}. Then it was {q2} {size}. How {size} was the {n} before? => The {n} was _ {size} before.
        PAST {D} [put] another {q1} on {a}. It was {q2} {size} then. How {size} was it at first? => It was _ {size} at first.

        take-from | result | #1 - #2
        {A} [be] {q1} {size}. {D} [use] {q2} off. How {size} [be] the rest? => The rest [be] _ {size}.
        {D} [have] {a} of {q1}. {D} [use] {q2} off. How {size} [be] what [be] left? => What [be] left [be] _ {size}.

        take-from | change | #1 - #2
        PAST {A} was {q1} {size}. {D} [use] some off. Then the {n} was {q2} {size}. How much [aux] {D} {use} off? => {D} [use] off _.
        PAST {D} had {a} of {q1}. {D} [use] a bit off. Then it was {q2} {size}. How much [aux] {D} {use} off? => {D} [use] off _.

        take-from | start | #1 + #2
        PAST {D} [use] {q1} off {a}. The rest was {q2} {size}. How {size} was the {n} at first? => The {n} was _ {size} at first.
        PAST {D} [use] {q1} off {a}. Then {q2} [be 2] left. How {size} was the {n} before? => The {n} was _ {size} before.

        put-together | total | #1 + #2
        One {n} [be] {q1} {size}. The other [be] {q2} {size}. How {size} [be+] both together? => Both [be+] _ {size} together.
        {D} [have] {a} of {q1}. {E} [have] {a} of {q2}. How {size} [be+] they together? => They [be+] _ {size} together.

        put-together | part | #1 - #2
        Both {ns} [be+] {q1} {size} together. One of them [be] {q2} {size}. How {size} [be] the other one? => The other one [be] _ {size}.
        Both {ns} together [be+] {q1} {size}. {D}'s {n} [be] {q2} {size}. How {size} [be] the other one? => The other one [be] _ {size}.

        compare | difference | #1 - #2
        {D}'s {n} [be] {q1} {size}. {E}'s {n} [be] {q2} {size}. How much {er} [be] {D}'s {n} than {E}'s {n}? => {D}'s {n} [be] _ {er} than {E}'s {n}.

        compare | difference | #2 - #1
        {D}'s {n} [be] {q1} {size}. {E}'s {n} [be] {q2} {size}. How much {er} [be] {E}'s {n} than {D}'s {n}? => {E}'s {n} [be] _ {er} than {D}'s {n}.
        {D}'s {n} [be] {q1} {size}. {E}'s {n} [be] {q2} {size}. How much {less} [be] {D}'s {n} than {E}'s {n}? => {D}'s {n} [be] _ {less} than {E}'s {n}.

        compare | larger | #1 + #2
        {D}'s {n} [be] {q1} {size}. {E}'s {n} [be] {q2} {er} than {D}'s {n}. How {size} [be] {E}'s {n}? => {E}'s {n} [be] _ {size}.
        {D}'s {n} [be] {q1} {size}. It [be] {q2} {less} than {E}'s {n}. How {size} [be] {E}'s {n}? => {E}'s {n} [be] _ {size}.

        compare | smaller | #1 - #2
        {D}'s {n} [be] {q1} {size}. {E}'s {n} [be] {q2} {less} than {D}'s {n}. How {size} [be] {E}'s {n}? => {E}'s {n} [be] _ {size}.
        {D}'s {n} [be] {q1} {size}. It [be] {q2} {er} than {E}'s {n}. How {size} [be] {E}'s {n}? => {E}'s {n} [be] _ {size}.

        steps | answer | what goes = #2 + #3; #1 - what goes
        {A} [be] {q1} {size}. {D} [use] {q2} off. {E} [use] {q3} off. How {size} [be] the rest? => The rest [be] _ {size}.
        {D} [have] {a} of {q1}. {D} [use] {q2} off, and later {q3}. How {size} [be] the rest? => The rest [be] _ {size}.

        equal-groups | product | #1 × #2
        {D} [need] {c1} {ns}. Each {n} [be] {q2} {size}. How {size} [be+] they in all? => They [be+] _ {size} in all.

        equal-groups | size | #1 ÷ #2
        {A} of {q1} [be] cut into {c2} equal pieces. How {size} [be] each piece? => Each piece [be] _ {size}.

        equal-groups | number | #1 ÷ #2
        {A} [be] {q1} {size}. {D} [cut] it into pieces of {q2}. How many pieces [be+] there? => There [be+] _.

        take-from | result | the {small} = #1 × {each}; the {small} - #2
        {A} [be] {q1} {size}. {D} [use] {s2} off. How many {small} [be+] left? => _ [be+] left.
        {D} [have] {a} of {q1}. {D} [use] {s2} off. How many {small} [be+] left? => _ [be+] left.

        steps | answer | all groups = #2 × #3; what goes = all groups + #4; #1 - what goes
        {A} [be] {q1} {size}. {D} [use] off {c2} pieces of {q3}. {E} [use] {q4} off. How {size} [be] the rest? => The rest [be] _ {size}.
    """),
    *_of("stuff", """
        add-to | result | #1 + #2
        There [be] {q1} of {n} {where}. {D} [bring] another {q2}. How much {n} [be] there then? => There [be] _ of {n} then.
        {D} [have] {q1} of {n}. {E} [bring] {q2} more. How much {n} [be] there then? => There [be] _ of {n} then.

        add-to | change | #2 - #1
        PAST There [be] {q1} of {n} {where}. {D} [bring] some. Then there [be] {q2}. How much {n} [aux] {D} bring? => {D} [bring] _ of {n}.
        {D} [have] {q1} of {n}. {D} [need] {q2}. How much {n} [be] missing? => _ of {n} [be] missing.

        add-to | start | #2 - #1
        PAST {D} [bring] {q1} of {n}. Then there [be] {q2} {where}. How much {n} was there before? => There [be] _ of {n} before.
        PAST {D} got another {q1} of {n}. Then {D} had {q2}. How much {n} did {D} have before? => {D} had _ of {n} before.

        take-from | result | #1 - #2
        There [be] {q1} of {n} {where}. {D} [use] {q2}. How much {n} [be] left? => _ of {n} [be] left.
        {D} [have] {q1} of {n}. {D} [use] {q2} of it. How much {n} [be] left? => _ of {n} [be] left.

        take-from | change | #1 - #2
        PAST There [be] {q1} of {n} {where}. {D} [use] some. Then {q2} [be] left. How much {n} [aux] {D} {use}? => {D} [use] _ of {n}.
        PAST {D} had {q1} of {n}. {D} [use] a part of it. Then {q2} [be] left. How much {n} [aux] {D} {use}? => {D} [use] _ of {n}.

        take-from | start | #1 + #2
        PAST {D} [use] {q1} of {n}. Then {q2} [be] left {where}. How much {n} was there at first? => There [be] _ of {n} at first.
        PAST {D} [use] {q1} of {n} and had {q2} left. How much {n} did {D} have at the start? => {D} had _ of {n} at the start.

        put-together | total | #1 + #2
        {D} [carry] {q1} of {n}. {E} [carry] {q2}. How much {n} [be] that in all? => That [be] _ of {n} in all.
        There [be] {q1} of {n} {where}. {D} [have] {q2}. How much {n} [be] that altogether? => That [be] _ of {n} altogether.

        put-together | part | #1 - #2
        {D} and {E} [have+] {q1} of {n} in all. {D} [have] {q2}. How much {n} [have] {E}? => {E} [have] _ of {n}.
        {D} and {E} [carry+] {q1} of {n} together. {D} [carry] {q2}. How much {n} [aux] {E} carry? => {E} [carry] _ of {n}.

        compare | difference | #1 - #2
        {D} [have] {q1} of {n}. {E} [have] {q2}. How much more {n} [have] {D} than {E}? => {D} [have] _ more {n} than {E}.

        compare | difference | #2 - #1
        {D} [carry] {q1} of {n}. {E} [carry] {q2}. How much less {n} [aux] {D} carry than {E}? => {D} [carry] _ less {n} than {E}.
        {D} [have] {q1} of {n}. {E} [have] {q2}. How much more {n} [have] {E} than {D}? => {E} [have] _ more {n} than {D}.

        compare | larger | #1 + #2
        {D} [have] {q1} of {n}. {E} [have] {q2} more than {D}. How much {n} [have] {E}? => {E} [have] _ of {n}.
        {D} [have] {q1} of {n}. That [be] {q2} less than {E} [have]. How much {n} [have] {E}? => {E} [have] _ of {n}.

        compare | smaller | #1 - #2
        {D} [have] {q1} of {n}. {E} [have] {q2} less than {D}. How much {n} [have] {E}? => {E} [have] _ of {n}.
        {D} [have] {q1} of {n}. That [be] {q2} more than {E} [have]. How much {n} [have] {E}? => {E} [have] _ of {n}.

        steps | answer | what goes = #2 + #3; #1 - what goes
        There [be] {q1} of {n} {where}. {D} [use] {q2}. {E} [use] {q3}. How much {n} [be] left? => _ of {n} [be] left.
        {D} [have] {q1} of {n}. {D} [use] {q2} and {q3}. How much {n} [be] left? => _ of {n} [be] left.

        equal-groups | product | #1 × #2
        {D} [fill] {c1} boxes with {q2} of {n} each. How much {n} [aux] {D} need? => {D} [need] _ of {n}.

        equal-groups | size | #2 ÷ #1
        {C1} children [share+] {q2} of {n} equally. How much {n} [aux] each child get? => Each child [get] _ of {n}.

        equal-groups | number | #1 ÷ #2
        {D} [have] {q1} of {n}. Each box [hold] {q2}. How many boxes [aux] {D} fill? => {D} [fill] _.

        part-of | part | #2 × #1
        {D} [have] {q1} of {n}. {D} [use] {f2} of it. How much {n} [aux] {D} {use}? => {D} [use] _ of {n}.
        There [be] {q1} of {n} {where}. {D} [use] {f2} of it. How much {n} [aux] {D} {use}? => {D} [use] _ of {n}.

        take-from | result | the {small} = #1 × {each}; the {small} - #2
        {D} [have] {q1} of {n}. {D} [use] {s2}. How many {small} [be+] left? => _ [be+] left.

        steps | answer | what goes = #2 + #3; the rest = #1 - what goes; the rest ÷ #4
        {D} [have] {q1} of {n}. {D} [use] {q2} and {q3}. The rest [be] shared equally among {c4} boxes. How much {n} [be] in each box? => _ of {n} [be] in each box.
    """),
    *_of("doing", """
        put-together | total | #1 + #2
        {D} [do] {q1} {where} on Monday. On Tuesday {D} [do] {q2}. How {far} [aux] {D} {do} in all? => {D} [do] _ in all.
        {D} [do] {q1} {where}. {E} [do] {q2}. How {far} [aux+] they {do} altogether? => They [do+] _ altogether.

        put-together | part | #1 - #2
        PAST On Monday and Tuesday {D} [do] {q1} in all. On Monday it was {q2}. How {far} [aux] {D} {do} on Tuesday? => {D} [do] _ on Tuesday.
        PAST {D} and {E} [do+] {q1} {where} altogether. {D} [do] {q2}. How {far} [aux] {E} {do}? => {E} [do] _.

        add-to | change | #1 - #2
        {D} [want] to {do} {q1} {where}. So far it [be] {q2}. How much [be] missing? => _ [be+] missing.

        compare | difference | #1 - #2
        {D} [do] {q1} {where}. {E} [do] {q2}. How much {farther} [aux] {D} {do} than {E}? => {D} [do] _ {farther} than {E}.

        compare | difference | #2 - #1
        {D} [do] {q1} {where}. {E} [do] {q2}. How much {farther} [aux] {E} {do} than {D}? => {E} [do] _ {farther} than {D}.

        compare | larger | #1 + #2
        {D} [do] {q1} {where}. {E} [do] {q2} {farther} than {D}. How {far} [aux] {E} {do}? => {E} [do] _.

        compare | smaller | #1 - #2
        {D} [do] {q1} {where}. {E} [do] {q2} less than {D}. How {far} [aux] {E} {do}? => {E} [do] _.

        steps | answer | what goes = #2 + #3; #1 - what goes
        PAST {D} wanted to {do} {q1} {where}. On Monday {D} [do] {q2}. On Tuesday it was {q3}. How much was left? => _ [be+] left.
    """),
)  # fmt: skip
