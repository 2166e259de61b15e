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
from keen_slate.export.odt import SPACES, TYPE, odt
from keen_slate.export.qti import ITEM, MANIFEST, expected, qti, right_spellings
from tests import strategies
from tests.export.test_notation import from_mathml

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


def tags(node):
    return [child.tag.split("}")[1] for child in node]


class Player:
    """The response processing of an item, run as the standard says: string matches, or, outcome values."""

    def __init__(self, item):
        self.item = item

    def outcomes(self, response):
        found = {}
        for branch in self.item.find(f".//{{{ITEM}}}qti-response-condition"):
            tests = list(branch.iter(f"{{{ITEM}}}qti-string-match"))
            if any(m[1].text.lower() == response.lower() for m in tests):
                for put in branch.iter(f"{{{ITEM}}}qti-set-outcome-value"):
                    found[put.get("identifier")] = put[0].text
                return found
        return found


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
        for problem, ways, accepted, not_accepted in (
            ("7 1/4 - 3 5/6 ft", {}, ["3 5/12", "3 5/12 ft", "3 5/12ft"], ["41/12", "3 10/24", "4 7/12"]),
            ("7 1/4 - 3 5/6", {"answer_form": "any-equal"}, ["3 5/12", "41/12"], ["4 7/12"]),
            ("100 - 41 3/8%", {}, ["58 5/8", "58 5/8%", "58 5/8 %"], ["58 5/8 ft"]),
            ("3.75 + 2.65", {"decimal_mark": "comma"}, ["6,4", "6,40"], ["6.4", "64"]),
            ("1/4 - 3/4", {}, ["-1/2", "\u22121/2"], ["1/2"]),
            ("$4.75 + $12.60", {}, ["17.35", "$17.35"], ["17.53"]),
        ):
            with self.subTest(problem):
                worked = work_text(problem, Ways.of(ways), ".")
                player = Player(
                    ET.fromstring(zipfile.ZipFile(io.BytesIO(qti(TITLE, [worked], [2]))).read("items/item-1.xml"))
                )
                for spelled in accepted:
                    self.assertEqual(player.outcomes(spelled).get("SCORE"), "2", spelled)
                for spelled in not_accepted:
                    self.assertNotIn("SCORE", player.outcomes(spelled), spelled)

    @settings(max_examples=60)
    @given(strategies.classroom_pairs, strategies.all_ways)
    def test_no_accepted_spelling_is_one_that_the_core_refuses(self, expr, ways):
        try:
            worked = work_text(text(expr), ways)
        except CoreError:
            assume(False)
        for spelled in right_spellings(worked)[1:]:
            self.assertEqual(
                diagnose(text(expr), spelled, ways, "," if ways.decimal_mark == "comma" else ".").verdict,
                "right",
                spelled,
            )

    def test_a_label_may_be_written_or_left_to_the_page(self):
        (right, *_) = expected(work_text("7 1/4 - 3 5/6 ft"))
        self.assertEqual(right.texts, ("3 5/12", "3 5/12 ft", "3 5/12ft"))


class OdtTests(unittest.TestCase):
    @given(problems)
    @settings(max_examples=60)
    def test_every_line_is_a_formula_that_is_declared_and_linked(self, sources):
        worked = [work_text(source) for source in sources]
        made = odt(TITLE, worked)
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
        self.assertEqual(content.find(".//text:h", SPACES).text, TITLE)
        links = [o.get(f"{{{SPACES['xlink']}}}href") for o in content.iter(f"{{{SPACES['draw']}}}object")]
        lines = [e for one in worked for e in (one.working.problem.expr, *[s.after for s in one.working.steps])]
        read = [from_mathml(ET.fromstring(opened.read(f"{link[2:]}/content.xml"))) for link in links]
        self.assertEqual([re.sub(r"\s", "", r) for r in read], [re.sub(r"\s", "", text(e)) for e in lines])
        answers = [p.text for p in content.iter(f"{{{SPACES['text']}}}p") if p.text.startswith("Answer")]
        self.assertEqual(answers, [f"Answer: {one.working.answer_text}" for one in worked])
        self.assertEqual(made, odt(TITLE, worked))
