"""Draws a scene of wholes and parts in rows of strips, circles or squares, as it is before and after."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from ..expressions.typeset import Role
from .display import DIGIT_WIDTH, WIDTH, Figure, Shape, When
from .scenes import Blocks, Joining, NumberShown, Scene, Shown, Taking, in_blocks, wholes_in
from .shapes import Form, exact

_GAP = 12
_ROW_GAP = 4
_LABEL = 24
_BASELINE = 17


@dataclass(slots=True)
class _Sheet:
    """Where the next row goes, and everything drawn so far."""

    forms: Sequence[Form]  # of the rows; the last one serves the rows after it
    shapes: list[Shape] = field(default_factory=list)
    said: list[str] = field(default_factory=list)
    y: int = 0
    row: int = 0
    x: int = 0  # where the wholes of this row begin, behind a block of others

    @property
    def form(self) -> Form:
        return self.forms[min(self.row, len(self.forms) - 1)]

    def caption(self, before: str, after: str, role: Role) -> None:
        """The line of words above a row."""
        at = (0, self.y + _BASELINE)
        if before == after:
            self.shapes.append(Shape("text", "label", at, role, text=after))
        else:
            self.shapes.append(Shape("text", "label", at, role, "before", text=before))
            self.shapes.append(Shape("text", "label", at, role, "after", text=after))
        self.y += _LABEL

    def places(self, count: int) -> list[tuple[int, int]]:
        """The corners of *count* wholes in rows from here on; the next row of numbers goes below them."""
        form = self.form
        per_row = (WIDTH - self.x + _GAP) // (form.width + _GAP)
        corners = [
            (self.x + (i % per_row) * (form.width + _GAP), self.y + (i // per_row) * (form.height + _GAP))
            for i in range(count)
        ]
        self.y += -(-count // per_row) * (form.height + _GAP)
        return corners

    def block(self, wholes: int, role: Role, *, crossed: bool = False) -> None:
        """So many *wholes* as one block with its number, at the beginning of a row; *crossed* off afterwards."""
        if not wholes:
            return
        high = self.form.height
        room = DIGIT_WIDTH * len(str(wholes)) + 12
        wide = max(high * 4 // 5, 64, room)
        self.shapes.append(Shape("rect", "part", (self.x, self.y, wide, high), role))
        self.shapes.append(Shape("rect", "block", (self.x, self.y, wide, high)))
        middle, foot = self.x + wide // 2, self.y + high // 2 + 7
        self.shapes.append(Shape("rect", "plate", (middle - room // 2, foot - 21, room, 28)))
        self.shapes.append(Shape("text", "label", (middle, foot), text=str(wholes), anchor="middle"))
        if crossed:
            ends = (self.x, self.y + high, self.x + wide, self.y)
            self.shapes.append(Shape("line", "cross", ends, when="after"))
        self.x += wide + _GAP

    def end_row(self) -> None:
        self.x = 0
        self.y += _ROW_GAP
        self.row += 1


def draw(scene: Scene, kind: str, forms: Sequence[Form], *, blocks: bool = False) -> Figure:
    """*scene* drawn in *forms*, one for each row of numbers; *kind* names the figure.

    With *blocks* many wholes are one.
    """
    sheet = _Sheet(forms)
    together = in_blocks(scene) if blocks else Blocks(scene, ())
    if kind == "bars" and not wholes_in(scene):
        _one_whole(sheet)
    match scene:
        case Shown():
            _draw_shown(sheet, scene, together)
        case Joining():
            _draw_joining(sheet, scene)
        case Taking():
            _draw_taking(sheet, scene, together)
    return Figure(kind, WIDTH, sheet.y - _ROW_GAP - _GAP + 2, tuple(sheet.shapes), " ".join(sheet.said))


def _one_whole(sheet: _Sheet) -> None:
    """The strip that all others are compared with."""
    width = sheet.form.width
    sheet.shapes.append(Shape("rect", "whole", (0, 0, width, _LABEL)))
    sheet.shapes.append(Shape("text", "label", (exact(width, 2), _BASELINE + 1), text="1 <whole>", anchor="middle"))
    sheet.said.append("A strip for <one whole>, and below it strips as long.")
    sheet.y += _LABEL + 4


def _draw_shown(sheet: _Sheet, scene: Shown, together: Blocks) -> None:
    rows = together.scene.rows if isinstance(together.scene, Shown) else ()
    for i, (whole_before, whole_after, role) in enumerate(scene.rows):
        caption = scene.captions[i] if i < len(scene.captions) else ""
        sheet.caption(caption or whole_before.said, caption or whole_after.said, role)
        form = sheet.form
        before, after, _ = rows[i]
        kept = together.kept[i] if together.kept else 0
        sheet.block(kept, role)
        corners = sheet.places(max(before.places, after.places)) if _is_there(before, kept) else sheet.places(1)[:0]
        if before == after:
            _shade(sheet, corners, after, role, "", scene.carried)
        else:
            _shade(sheet, corners, before, role, "before", carried=False)
            _shade(sheet, corners, after, role, "after", scene.carried, before)
        for j, corner in enumerate(corners):
            _cut(sheet, corner, _den(before, j), _den(after, j))
        said = _seen(before, form, kept)
        sheet.said.append(
            f"{caption or whole_before.said}: {said}"
            + ("." if before == after else f"; then {_seen(after, form, kept)}.")
        )
        sheet.end_row()


def _draw_joining(sheet: _Sheet, scene: Joining) -> None:
    (first, role), *others = scene.amounts
    den = scene.total.den
    sheet.caption(first.said, scene.total.said, role)
    form = sheet.form
    goal = sheet.places(scene.total.places)
    cut = scene.total.cut
    # The first number's wholes, then all that is cut, then the wholes that come: nothing of the first has to move.
    uncut = goal[: first.wholes] + goal[first.wholes + cut :]
    cut_places = goal[first.wholes : first.wholes + cut]
    _shade(sheet, goal[: first.places], first, role, "")
    for corner in uncut[: first.wholes]:
        _cut(sheet, corner, 1, 1)
    for j, corner in enumerate(cut_places):
        _cut(sheet, corner, den, den, "" if j < max(1, first.cut) else "after")
    for corner in uncut[first.wholes :]:
        _cut(sheet, corner, 1, 1, "after")
    seen = [f"{first.said}: {_seen(first, form)}."]
    sheet.end_row()
    whole_slot, part_slot = first.wholes, first.num
    moved: list[Shape] = []
    for amount, ink in others:
        sheet.caption(amount.said, f"{amount.said}, moved up", ink)
        source_form = sheet.form
        source = sheet.places(amount.places)
        for j, corner in enumerate(source):
            _cut(sheet, corner, _den(amount, j), _den(amount, j))
        for j in range(amount.wholes):
            here, there = uncut[whole_slot], source[j]
            moved.append(_arriving(form.part(*here, 0, 1, ink, ""), source_form.part(*there, 0, 1, ink, "")))
            sheet.shapes += source_form.cross(*there, 0, 1, "after")
            whole_slot += 1
        for k in range(amount.num):
            here, there = cut_places[part_slot // den], source[amount.wholes + k // den]
            part = form.part(*here, part_slot % den, den, ink, "")
            moved.append(_arriving(part, source_form.part(*there, k % den, den, ink, "")))
            sheet.shapes += source_form.cross(*there, k % den, den, "after")
            part_slot += 1
        seen.append(f"{amount.said}: {_seen(amount, source_form)}.")
        sheet.end_row()
    # What moves lies over everything while it moves, and under the cuts once it has arrived.
    sheet.shapes[:0] = moved
    sheet.said += seen
    sheet.said.append(
        f"Then all of them stand in the first row, {_seen(scene.total, form)}; below, what moved is crossed off."
    )


def _draw_taking(sheet: _Sheet, scene: Taking, together: Blocks) -> None:
    sheet.caption(scene.start.said, f"take away {scene.away.said}", scene.role)
    form = sheet.form
    assert isinstance(together.scene, Taking), "what is taken away stays so"
    start, away = together.scene.start, together.scene.away
    stays = together.kept[0] if together.kept else 0
    sheet.block(stays, scene.role)
    sheet.block(together.taken, scene.role, crossed=True)
    corners = sheet.places(start.places) if _is_there(start, stays + together.taken) else sheet.places(1)[:0]
    _shade(sheet, corners, start, scene.role, "")
    for j, corner in enumerate(corners):
        _cut(sheet, corner, _den(start, j), _den(start, j))
    for j in range(start.wholes - away.wholes, start.wholes):
        sheet.shapes += form.cross(*corners[j], 0, 1, "after")
    for k in range(start.num - away.num, start.num):
        corner = corners[start.wholes + k // start.den]
        sheet.shapes += form.cross(*corner, k % start.den, start.den, "after")
    off = [f"the block of {together.taken}"] * bool(together.taken)
    off += [f"{away.wholes} whole {_noun(form, away.wholes)}"] * bool(away.wholes) + [
        f"{away.num} {'part' if away.num == 1 else 'parts'}"
    ] * bool(away.num)
    blocks = [f"a block of {n} <wholes>" for n in (stays, together.taken) if n]
    seen = ", and ".join([*blocks, *([_seen(start, form)] if _is_there(start, len(blocks)) else [])])
    sheet.said.append(f"{scene.start.said}: {seen}; then {' and '.join(off) or 'nothing'} crossed off.")
    sheet.end_row()


def _arriving(part: Shape, before: Shape) -> Shape:
    """*part* as it comes from where *before* is, both parts of the same size."""
    turn = before.at[3] - part.at[3] if part.shape == "sector" else 0
    return replace(part, moved=(before.at[0] - part.at[0], before.at[1] - part.at[1], turn))


def _den(amount: NumberShown, place: int) -> int:
    """Into how many parts the whole at *place* is cut: the uncut ones come first."""
    uncut = place < amount.wholes or (amount.wholes > 0 and place >= amount.wholes + amount.cut)
    return 1 if uncut else amount.den


def _cut(sheet: _Sheet, corner: tuple[int, int], before: int, after: int, when: When = "") -> None:
    """The outline and the cuts of one whole; cuts that are new, or that go, are thin and belong to one state."""
    form = sheet.form
    common = min(before, after)
    sheet.shapes += form.cuts(*corner, common, 1, "thick", when)
    if before != after:
        state: When = "after" if after > before else "before"
        sheet.shapes += form.cuts(*corner, max(before, after), common, "thin", state)
    sheet.shapes.append(form.outline(*corner, when))


def _shade(
    sheet: _Sheet, corners: Sequence[tuple[int, int]], amount: NumberShown, role: Role, when: When,
    carried: bool = False, before: NumberShown | None = None,
) -> None:  # fmt: skip
    form = sheet.form
    for j in range(amount.wholes):
        sheet.shapes.append(form.part(*corners[j], 0, 1, role, when))
    for k in range(amount.num):
        place = amount.wholes + k // amount.den
        # What was a whole and is cut now is the one that was regrouped.
        ink: Role = "carried" if carried and before and place < before.wholes else role
        sheet.shapes.append(form.part(*corners[place], k % amount.den, amount.den, ink, when))


def _noun(form: Form, count: int) -> str:
    return form.noun + ("s" if count != 1 else "")


def _is_there(amount: NumberShown, beside: int) -> bool:
    """Whether something of an *amount* is drawn: an empty whole stands for nothing, but not *beside* others."""
    return bool(amount.wholes or amount.num or not beside)


def _seen(amount: NumberShown, form: Form, block: int = 0) -> str:
    """What is seen of an amount, beside a *block* of wholes.

    >>> from .shapes import Strip
    >>> _seen(NumberShown(2, 3, 12), Strip(240))
    '2 strips shaded whole, and a strip cut into 12 equal parts, 3 of them shaded'
    >>> _seen(NumberShown(0, 15, 12), Strip(240))
    '2 strips, each cut into 12 equal parts, 15 of the parts shaded'
    """
    said = [f"a block of {block} <wholes>"] if block else []
    if not _is_there(amount, block):
        return said[0]
    said += [f"{amount.wholes} {_noun(form, amount.wholes)} shaded whole"] if amount.wholes else []
    if amount.den == 1 and not amount.wholes:
        said.append(f"an empty {form.noun}")
    elif amount.num or not amount.wholes:
        if amount.cut > 1:
            said.append(
                f"{amount.cut} {form.noun}s, each cut into {amount.den} equal parts, {amount.num} of the parts shaded"
            )
        else:
            said.append(f"a {form.noun} cut into {amount.den} equal parts, {amount.num} of them shaded")
    return ", and ".join(said)
