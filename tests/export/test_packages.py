"""QTI and OpenDocument packages, opened with general means and compared with what was put in."""

import io
import re
import unittest
import xml.etree.ElementTree as ET
import zipfile

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from keen_slate.core.diagnosing.answers import diagnose
from keen_slate.core.errors import CoreError
from keen_slate.core.expressions.text import text
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.export.expected import expected, right_pattern, right_spellings
from keen_slate.export.odt import TYPE, odt
from keen_slate.export.opendocument import SPACES
from keen_slate.export.qti import KINDS, qti
from tests import strategies
from tests.export.test_notation import from_mathml
from tests.support_core import as_item

ITEM, MANIFEST = KINDS["3.0"].item, KINDS["3.0"].manifest
problems = st.lists(strategies.classroom_pairs.map(text), min_size=1, max_size=4)
TITLE = "O'Hara's <b>planks</b> & \"rope\""
# The order that the standard's schema gives to the parts of an item (from memory).
ORDER = [
    "qti-response-declaration",
    "qti-outcome-declaration",
    "qti-outcome-declaration",
    "qti-item-body",
    "qti-response-processing",
]


# Problem, ways, what is right in any spelling, what is not.
SPELLINGS = [
    (
        "7 1/4 - 3 5/6 ft",
        {},
        ["3 5/12", " 3 5/12 ", "3 5/12 ft", "3 5/12ft", "3 5/12  ft", "03 5/12", "+3 5/12", "3 05/12"],
        ["41/12", "3 10/24", "4 7/12", "3 5/12 in", "35/12"],
    ),
    ("7 1/4 - 3 5/6", {"answer_form": "any-equal"}, ["3 5/12", "41/12", " 41/12"], ["4 7/12", "14/12"]),
    ("100 - 41 3/8%", {}, ["58 5/8", "58 5/8%", "58 5/8 %"], ["58 5/8 ft"]),
    ("3.75 + 2.65", {"decimal_mark": "comma"}, ["6,4", "6,40", "06,400"], ["6.4", "64", "6,41"]),
    ("3.75 + 2.65", {}, ["6.4", "6.40", " 6.4"], ["6,4", "6.04", "6.4.0"]),
    ("1/2 - 1/2", {}, ["0", ".0", "0.0", "0.00"], ["0.1", "10", "0,0"]),
    ("3/2 - 5/2", {"decimal_mark": "comma"}, ["-1", "-1,0", "\u22121,00"], ["1,0", "-1.0", "-0,1"]),
    ("1/4 - 3/4", {}, ["-1/2", "\u22121/2", "- 1/2", " -1/2 "], ["1/2", "+1/2", "--1/2"]),
    ("$4.75 + $12.60", {}, ["17.35", "$17.35", "17.350"], ["17.53", "17.35$$"]),
    ("0.5 + 1/3", {"answer_form": "any-equal"}, ["5/6", "10/12", "25/30"], ["0.83", "0.8[3]", "11/12"]),
]


def tags(node):
    return [child.tag.split("}")[1] for child in node]


class Player:
    """The response processing of an item, run as the standard says: matches, or, and, outcome values."""

    def __init__(self, item):
        self.item = item

    def outcomes(self, *responses):
        ids = [one.get("identifier") for one in self.item.iter(f"{{{ITEM}}}qti-response-declaration")]
        given = dict(zip(ids, responses, strict=True))
        for branch in self.item.find(f".//{{{ITEM}}}qti-response-condition"):
            if self.holds(branch[0], given):
                return {p.get("identifier"): p[0].text for p in branch if p.tag.endswith("set-outcome-value")}
        return {}

    def holds(self, test, given):
        name = test.tag.removeprefix(f"{{{ITEM}}}qti-")
        if name in ("or", "and"):
            return {"or": any, "and": all}[name]([self.holds(one, given) for one in test])
        written = given[test[0].get("identifier")]
        if name == "pattern-match":
            return re.fullmatch(test.get("pattern"), written) is not None
        return test[1].text == written


def item_of(problem, ways=None, number=1, **how):
    worked = work_text(problem, Ways.of(ways or {}), ".")
    return ET.fromstring(zipfile.ZipFile(io.BytesIO(qti(TITLE, [worked], [2], **how))).read(f"items/item-{number}.xml"))


class QtiTests(unittest.TestCase):
    def test_an_item_to_choose_from_has_four_options_and_says_what_each_tells(self):
        worked = [work_text("7 1/4 - 3 5/6 ft"), work_text("2.75 + 1.48"), work_text("4/8")]
        opened = zipfile.ZipFile(io.BytesIO(qti(TITLE, worked, [3, 1, 1], to_choose=True)))
        for i, one in enumerate(worked):
            item = ET.fromstring(opened.read(f"items/item-{i + 1}.xml"))
            self.assertEqual(tags(item)[:5], ORDER)
            options = {c.get("identifier"): c.text for c in item.iter(f"{{{ITEM}}}qti-simple-choice")}
            self.assertEqual(list(options), ["A", "B", "C", "D"])
            right = next(item.iter(f"{{{ITEM}}}qti-correct-response"))[0].text
            self.assertEqual(options[right], one.working.answer_text)
            said = {f.get("identifier"): "".join(f.itertext()) for f in item.iter(f"{{{ITEM}}}qti-modal-feedback")}
            for branch in item.find(f".//{{{ITEM}}}qti-response-condition"):
                label = branch.find(f".//{{{ITEM}}}qti-match")[1].text
                put = {o.get("identifier"): o[0].text for o in branch.iter(f"{{{ITEM}}}qti-set-outcome-value")}
                self.assertEqual(put.get("SCORE"), str([3, 1, 1][i]) if label == right else None)
                self.assertEqual(said[put["FEEDBACK"]] == "Right.", label == right)

    @given(problems)
    @settings(max_examples=60)
    def test_every_item_judges_its_answers(self, sources):
        worked = [work_text(source) for source in sources]
        opened = zipfile.ZipFile(io.BytesIO(qti(TITLE, worked, [2] * len(worked))))
        self.assertIsNone(opened.testzip())
        manifest = ET.fromstring(opened.read("imsmanifest.xml"))
        addresses = [r.get("href") for r in manifest.iter(f"{{{MANIFEST}}}resource")]
        self.assertEqual(sorted(["imsmanifest.xml", *addresses]), sorted(opened.namelist()))
        test = ET.fromstring(opened.read("test.xml"))
        self.assertEqual(test.get("title"), TITLE)
        refs = [r.get("href") for r in test.iter(f"{{{ITEM}}}qti-assessment-item-ref")]
        self.assertEqual(refs, addresses[1:])
        for one, address in zip(worked, refs, strict=True):
            item = ET.fromstring(opened.read(address))
            self.assertEqual(tags(item)[:5], ORDER)
            self.assertEqual(set(tags(item)[5:]), {"qti-modal-feedback"})
            player = Player(item)
            self.assertEqual(player.outcomes(one.working.answer_text), {"SCORE": "2", "FEEDBACK": "RIGHT"})
            self.assertEqual(player.outcomes("no such answer"), {})
            feedback = [f.get("identifier") for f in item.iter(f"{{{ITEM}}}qti-modal-feedback")]
            self.assertEqual(len(feedback), len(set(feedback)))
            for judged in expected(one)[1:]:
                for written in judged.texts:
                    self.assertEqual(player.outcomes(written), {"FEEDBACK": judged.identifier})
                self.assertIn(judged.identifier, feedback)
            self.assertNotRegex(
                opened.read(address).decode(), r"<\w+:m\w+"
            )  # no prefix, which readers of HTML do not know
            shown = item.find(".//{http://www.w3.org/1998/Math/MathML}math")
            self.assertEqual(re.sub(r"\s", "", from_mathml(shown)), re.sub(r"\s", "", text(one.working.problem.expr)))

    def test_what_the_core_takes_for_right_is_scored_in_any_spelling(self):
        for problem, ways, accepted, not_accepted in SPELLINGS:
            with self.subTest(problem):
                player = Player(item_of(problem, ways))
                for spelled in accepted:
                    self.assertEqual(player.outcomes(spelled).get("SCORE"), "2", spelled)
                for spelled in not_accepted:
                    self.assertNotIn("SCORE", player.outcomes(spelled), spelled)

    @settings(max_examples=80)
    @given(strategies.classroom_pairs, strategies.all_ways, st.data())
    def test_a_spelling_is_scored_exactly_where_the_core_takes_it_for_right(self, expr, ways, data):
        """Each written form of the answer, and what pupils do to it: further spaces and zeros, signs, a digit
        too many.
        """
        try:
            worked = work_text(text(expr), ways)
        except CoreError:
            assume(False)
        mark = "," if ways.decimal_mark == "comma" else "."
        spelled = data.draw(
            st.sampled_from([*right_spellings(worked), *[t for j in expected(worked)[1:] for t in j.texts]])
        )
        for _ in range(data.draw(st.integers(0, 2))):
            at = data.draw(st.integers(0, len(spelled)))
            put = data.draw(st.sampled_from([" ", "0", "-", "\u2212", "+", mark, "7", "ft"]))
            spelled = spelled[:at] + put + spelled[at:]
        verdict = diagnose(text(expr), spelled, ways, mark)
        right = verdict.verdict == "right" or verdict.form_fault == "label-missing"
        scored = spelled in right_spellings(worked) or re.fullmatch(right_pattern(worked), spelled) is not None
        if scored:
            self.assertTrue(right, spelled)
        elif right:  # what the pattern leaves to the core: zeros without end, -0 and the like
            self.assertRegex(spelled, r"000|\+|\s\s|^\s*-\s|^\s*[-\u2212][\s0.,]+$")

    def test_a_recurring_decimal_is_written_with_dots_or_brackets(self):
        worked = work_text("5/6", target="decimal")
        player = Player(ET.fromstring(zipfile.ZipFile(io.BytesIO(qti(TITLE, [worked], [2]))).read("items/item-1.xml")))
        for spelled in ("0.8[3]", "0.833...", "0.83333…", ".8333..."):
            self.assertEqual(player.outcomes(spelled).get("SCORE"), "2", spelled)
        for spelled in ("0.83", "0.838...", "0.8333", "5/6"):
            self.assertNotIn("SCORE", player.outcomes(spelled), spelled)

    def test_a_label_may_be_written_or_left_to_the_page(self):
        (right, *_) = expected(work_text("7 1/4 - 3 5/6 ft"))
        self.assertEqual(right.texts, ("3 5/12", "3 5/12 ft", "3 5/12ft"))

    def test_blanks_are_boxes_and_what_has_many_answers_is_named(self):
        chain = Player(item_of("2/7 = _/21 = 12/_"))
        for written, score in ((("6", "42"), "2"), ((" 6", "042"), "2"), (("42", "6"), None), (("6", ""), None)):
            self.assertEqual(chain.outcomes(*written).get("SCORE"), score, written)
        missing = Player(item_of("5/8 + _ = 1 1/4"))
        self.assertEqual([missing.outcomes(one).get("SCORE") for one in ("5/8", "10/16", "5/4")], ["2", None, None])
        worked = [work_text("_/2 + _/3 = 13/6"), work_text("1/2 + 1/3")]
        opened = zipfile.ZipFile(io.BytesIO(qti(TITLE, worked, [1, 1])))
        self.assertIn("1. _/2 + _/3 = 13/6", opened.read("left-out.txt").decode())
        self.assertEqual([name for name in opened.namelist() if name.startswith("items/")], ["items/item-2.xml"])

    def test_the_older_version_has_the_same_under_its_own_names(self):
        for how in ({}, {"to_choose": True}):
            new = item_of("7 1/4 - 3 5/6 ft", **how)
            old = item_of("7 1/4 - 3 5/6 ft", version="2.1", **how)
            names = [e.tag.rpartition("}")[2] for e in old.iter()]
            self.assertFalse([name for name in names if "-" in name or name.startswith("qti")])
            self.assertFalse([a for e in old.iter() for a in e.attrib if "-" in a])
            self.assertNotIn("contentBody", names)
            self.assertEqual((names[0], old.get("timeDependent")), ("assessmentItem", "false"))
            self.assertEqual(
                {"responseDeclaration", "outcomeDeclaration", "itemBody", "responseProcessing", "modalFeedback"}
                - set(names),
                set(),
            )
            self.assertEqual(
                [t.strip() for t in old.itertext() if t.strip()], [t.strip() for t in new.itertext() if t.strip()]
            )


class OdtTests(unittest.TestCase):
    @given(problems)
    @settings(max_examples=60)
    def test_every_line_is_a_formula_that_is_declared_and_linked(self, sources):
        worked = [work_text(source) for source in sources]
        items = list(map(as_item, worked))
        made = odt(TITLE, items, "A teacher")
        self.assertEqual(
            made[30:38] + made[38 : 38 + len(TYPE)], b"mimetype" + TYPE.encode()
        )  # known by its first bytes
        opened = zipfile.ZipFile(io.BytesIO(made))
        self.assertIsNone(opened.testzip())
        declared = [
            e.get(f"{{{SPACES['manifest']}}}full-path") for e in ET.fromstring(opened.read("META-INF/manifest.xml"))
        ]
        files = [name for name in declared if not name.endswith("/")]
        self.assertEqual(sorted([*files, "mimetype", "META-INF/manifest.xml"]), sorted(opened.namelist()))
        content = ET.fromstring(opened.read("content.xml"))
        heads = [head.text for head in content.iterfind(".//text:h", SPACES)]
        self.assertEqual(
            (content.find(".//text:p", SPACES).text, len(heads), heads[-1]), (TITLE, len(worked) + 1, "Answers")
        )
        about = ET.fromstring(opened.read("meta.xml"))
        self.assertEqual(
            [about.find(f".//dc:{name}", SPACES).text for name in ("title", "creator")], [TITLE, "A teacher"]
        )
        links = [o.get(f"{{{SPACES['xlink']}}}href") for o in content.iter(f"{{{SPACES['draw']}}}object")]
        lines = [e for one in worked for e in (one.working.problem.expr, *[s.after for s in one.working.steps])]
        read = [from_mathml(ET.fromstring(opened.read(f"{link[2:]}/content.xml"))) for link in links]
        self.assertEqual([re.sub(r"\s", "", r) for r in read], [re.sub(r"\s", "", text(e)) for e in lines])
        answers = [p.text for p in content.iterfind(".//text:list-item/text:p", SPACES)]
        self.assertEqual(answers, [one.working.answer_text for one in worked])
        self.assertEqual(made, odt(TITLE, items, "A teacher"))
        named = {e.get(f"{{{SPACES['style']}}}name") for e in ET.fromstring(opened.read("styles.xml")).iter()}
        used = {e.get(f"{{{SPACES['text']}}}style-name") for e in content.iter()}
        self.assertEqual(used - named - {None}, set())
