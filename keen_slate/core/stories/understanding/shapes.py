"""Round something, its area, its side; and one amount in another unit."""

from __future__ import annotations

from ...reading.measures import ratio_of, unit_named
from .amounts import Amount, combined, over, plain, times
from .world import Finding, World

_ROUND = (
    r"\b(?:perimeter|all (?:the way )?(?:a)?round|(?:a)?round (?:the|its|his|her|this) (?:whole |outside |"
    r"outer )?(?:edge|outside|border|bed|garden|field|lawn|pond|playground|rug|picture|table)|right round|(?:the way|"
    r"go(?:es)?) (?:a)?round|edging|border)\b"
)
_EDGES = frozenset(
    ["edging", "border", "fencing", "fence", "board", "tape", "string", "wire", "ribbon", "hedge", "skirting"]
)
_ALLOWED = "all whole each both half"


def shape(world: World) -> Finding | None:
    """A perimeter, an area, or a side of a rectangle, a square or a triangle."""
    if not world.says(r"\b(?:rectang\w+|squares?|triang\w+|sides?|perimeter|area)\b") or not world.amounts("u"):
        return None
    lengths = [one for one in world.amounts("u") if one.unit and one.unit.measure == "length"]
    areas = [one for one in world.amounts("u") if one.unit and one.unit.measure == "area"]
    if len(lengths) + len(areas) != len(world.needed):
        return None
    asks_area = world.asks(r"\barea\b|\bhow many square\b|\bhow large\b") is not None
    asks_round = world.asks(_ROUND) is not None or (
        world.says(_ROUND) is not None and world.asks(r"\bhow (?:much|many|long)\b") is not None and not asks_area
    )
    told_round = any(_is_perimeter(world, one) for one in lengths)
    square = world.says(
        r"\bsquare (?!met|cent|kilo|f[oe]+t|yard|inch|mile)[a-z]+|\bsquare\b(?= (?:has|is|with))|\ba square\b(?! "
        r"(?:met|cent|kilo|f[oe]+t|yard|inch|mile))|\bequal sides\b"
    ) is not None and not world.says(r"\brectang|\btriang")
    world.may_name = _EDGES
    world.look_at_words(_ALLOWED + " square")
    if (told_round and not asks_round) or (told_round and world.asks(r"\bside\b")):
        if square and len(lengths) == 1:
            return world.found(over(lengths[0], plain(4, "the sides"), "the side"), "equal-groups", "size")
        return None
    if areas and len(lengths) == 1 and not asks_area and world.says(r"\brectang"):
        return _other_side(world, areas[0], lengths[0])
    if asks_area:
        return _area(world, lengths, square)
    if not asks_round:
        return None
    if square and len(lengths) == 1:
        return world.found(times(plain(4, "the sides"), lengths[0]), "equal-groups", "product")
    if world.says(r"\brectang") and len(lengths) == 2:
        half = combined([("+", one) for one in lengths], world.asked.unit, "half of the way round")
        return world.found(times(plain(2, "the two halves"), half), "steps", "answer")
    if (world.says(r"\btriang") and len(lengths) == 3) or (len(lengths) > 2 and world.says(r"\bsides of\b")):
        return world.found(world.total(lengths), "put-together", "total")
    return None


def _is_perimeter(world: World, one: Amount) -> bool:
    return (
        world.says(rf"\bperimeter (?:of [a-z ]+ )?(?:is|of|was|measures) <u{one.index}>|<u{one.index}> (?:a)?round\b")
        is not None
    )


def _area(world: World, lengths: list[Amount], square: bool) -> Finding | None:
    sides = lengths * 2 if square and len(lengths) == 1 else lengths
    if len(sides) != 2 or not (square or world.says(r"\brectang")):
        return None
    first, second = sides
    if first.unit is None or second.unit is None or ratio_of(first.unit, second.unit) != 1:
        return None
    unit = unit_named(f"square {first.unit.many}")
    if unit is None:
        return None
    area = Amount(first.number * second.number, unit, operator="×", made=(("+", first), ("+", second)), name="the area")
    return world.found(area, "equal-groups", "product")


def _other_side(world: World, area: Amount, side: Amount) -> Finding | None:
    if area.unit is None or side.unit is None or area.unit.many != f"square {side.unit.many}":
        return None
    return world.found(
        Amount(area.number / side.number, side.unit, operator="÷", made=(("+", area), ("+", side)), name="the side"),
        "equal-groups",
        "size",
    )


def converted(world: World) -> Finding | None:
    """One amount, told in one unit and asked for in another."""
    amounts = world.amounts("u")
    unit = world.asked.unit
    if unit is None or len(amounts) != 1 or len(world.needed) != 1:
        return None
    one = amounts[0]
    if one.unit is None or ratio_of(one.unit, unit) in (None, 1):
        return None
    world.look_at_words("")
    if not world.asks(
        r"^(?:and )?(?:for )?how many [a-z ]+ (?:is|are|was|were) (?:that|it|this)$|^how many [a-z ]+ "
        r"(?:do|does|did|is|are|was|were|has|have) (?:it|the|he|she|they|[A-Z][a-z]+)\b[^<]*$|^express|^what is "
        r"(?:that|this|it) in "
    ):
        world.text.doubt("question-unclear", "It is not clear whether more than a change of the unit is asked for.")
    if world.asks(r"\b(?:left|more|less|still|each|need|altogether|together|all)\b"):
        world.text.doubt("question-unclear", "It is not clear whether more than a change of the unit is asked for.")
    return world.found(one, "equal-groups", "product")
