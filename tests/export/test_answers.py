"""A class leaves the house and comes back: its answers as a table, all of it as one document; what is no table or
document is refused in words.
"""

import csv
import io
import json
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from keen_slate.core.errors import ReadError
from keen_slate.export import answers_table
from keen_slate.export.class_document import (
    AnswerPart,
    ClassDocument,
    MovePart,
    PupilPart,
    QuestionPart,
    SittingPart,
    WordPart,
    read_document,
)
from keen_slate.export.json_document import written

PROBLEMS = ("7 1/4 - 3 5/6 ft", "1/2 + 1/3", "9 - 4 2/3")
ALIASES = ("Sedge", "O'Hara's <b>", "=Alder", "Yarrow, tall", 'the "second"', "Ling; old")
WRITTEN = st.one_of(st.none(), st.sampled_from(["4 7/12", "5/6", "", "= 4", "1,5", "a\nb", "4 7/12 ft", "'x", '"']))
CELLS = st.lists(WRITTEN, min_size=len(PROBLEMS), max_size=len(PROBLEMS))


class TableTests(unittest.TestCase):
    @given(st.dictionaries(st.sampled_from(ALIASES), CELLS, min_size=1))
    def test_answers_come_back_from_the_csv(self, wrote):
        rows = [(alias, [(one, "right") for one in row], 3) for alias, row in wrote.items()]
        made = answers_table.table(PROBLEMS, rows)
        for row in csv.reader(io.StringIO(made)):
            self.assertFalse([cell for cell in row if cell[:1] in ("=", "+", "-", "@")])  # no spreadsheet calculates
        found = answers_table.read(made, PROBLEMS, {alias: alias for alias in ALIASES})
        self.assertEqual(found.said, ())
        self.assertEqual([row.pupil for row in found.rows], list(wrote))
        for read, cells in zip(found.rows, wrote.values(), strict=True):
            self.assertEqual(read.why, "")
            self.assertEqual(list(read.written), ["away" if one is None else one.strip() for one in cells])

    def test_columns_and_lines_are_matched(self):
        pupils = {"Sedge": "s", "Alder": "a"}
        for text, questions, first in (
            ("alias\t3\t1\nSedge\t5\t4 7/12", (None, 2, 0), ("4 7/12", "", "5")),
            ("\ufeffPupil;9 - 4 2/3;1/2+1/3\nSEDGE;5;5/6", (None, 2, 1), ("", "5/6", "5")),
            ("Sedge,4 7/12,5/6,5,7", (None, 0, 1, 2, None), ("4 7/12", "5/6", "5")),
            ("name,Problem 2,Q1\nSedge,x,y", (None, 1, 0), ("y", "x", "")),
            ("alias,1,1\nSedge,x,y", (None, 0, None), ("x", "", "")),
        ):
            with self.subTest(text):
                found = answers_table.read(text, PROBLEMS, pupils)
                self.assertEqual((found.questions, found.rows[0].pupil, found.rows[0].written), (questions, "s", first))
        odd = answers_table.read("alias,1,4,x\nSedge,1,2,3\nSedge,4,5,6\nMoss,1,1,1\n,9,9,9", PROBLEMS, pupils)
        self.assertEqual(odd.questions, (None, 0, None, None))
        self.assertEqual(len(odd.said), 2)
        self.assertEqual([row.line for row in odd.rows], [2, 3, 4, 5])
        for row, why in zip(
            odd.rows, ("", "stands on line 2", "No pupil is called Moss", "names no pupil"), strict=True
        ):
            self.assertIn(why, row.why)
        self.assertIn("longer than 500", answers_table.read("Sedge," + "1" * 501, PROBLEMS, pupils).rows[0].why)
        self.assertIn("1 more", answers_table.read("Sedge,1,2,3,4", PROBLEMS, pupils).said[0])

    def test_what_is_no_table_is_refused_with_its_line(self):
        for text, message in (
            ("", "nothing in this table"), (" \n,,\n", "nothing in this table"),
            ('Sedge,"4 7/12\nAlder,1\n', "line 1 and never closed"),
            ("a,1\n" * 502, "502 lines"),
        ):  # fmt: skip
            with self.subTest(text[:20]), self.assertRaisesRegex(ReadError, message):
                answers_table.read(text, PROBLEMS, {"Sedge": "s"})

    @settings(max_examples=300)
    @given(
        st.one_of(
            st.text(max_size=200),
            st.lists(st.sampled_from(["Sedge", ",", "\t", ";", '"', "\n", "\r", "1", "4 7/12", "alias"])).map("".join),
        )
    )
    def test_any_text_is_read_or_refused(self, text):
        try:
            found = answers_table.read(text, PROBLEMS, {"Sedge": "s"})
        except ReadError as error:
            return self.assertTrue(error.message and error.hint)
        for row in found.rows:
            self.assertEqual(len(row.written), len(PROBLEMS))
            self.assertTrue(row.pupil or row.why)


DOCUMENTS = st.builds(
    lambda aliases, answers: ClassDocument(
        format="keen-slate/class", version=1, name="Heron", returns=[2, 9], forget_months=6,
        pupils=[PupilPart(alias=alias, here=i % 2 == 0) for i, alias in enumerate(aliases)],
        sittings=[
            SittingPart(
                title="Planks", day="2026-11-12", kind="quiz", labels=True,
                questions=[QuestionPart(problem="7 1/4 - 3 5/6 ft", marks={"answer": 2}),
                    QuestionPart(problem="1/2", to="decimal")],
                answers=[
                    AnswerPart(pupil=alias, problem=1, written=one, word=WordPart(right=True, points=2))
                    for alias, one in zip(aliases, answers, strict=False)
                ],
                moves=[MovePart(pupil=alias, codes=["smaller-from-larger"]) for alias in aliases[:1]],
                set="sets/shelf/00001-planks.json",
            )
        ],
    ),
    st.lists(st.sampled_from(ALIASES), unique=True), st.lists(WRITTEN),
)  # fmt: skip


class DocumentTests(unittest.TestCase):
    @given(DOCUMENTS)
    def test_a_class_is_read_back(self, document):
        self.assertEqual(read_document(written(document)), document)

    def test_a_fault_is_named_by_its_place(self):
        whole = json.loads(written(_document()))
        for change, message in (
            (lambda one: one["pupils"].append({"alias": "sedge"}), "an alias stands there twice"),
            (lambda one: one["sittings"][0].update(day="2026-02-30"), r"sittings\[0\].day: 2026-02-30 is no day"),
            (
                lambda one: one["sittings"][0]["questions"][0].update(problem="1/0"),
                r"sittings\[0\].questions\[0\].problem: ",
            ),
            (
                lambda one: one["sittings"][0]["questions"][0].update(ways={"x": "y"}),
                r"sittings\[0\].questions\[0\].ways: ",
            ),
            (
                lambda one: one["sittings"][0]["answers"][0].update(pupil="Moss"),
                r"answers\[0\].pupil: Moss is not among",
            ),
            (
                lambda one: one["sittings"][0]["answers"][0].update(problem=3),
                r"answers\[0\].problem: there are 2 problems",
            ),
            (
                lambda one: one["sittings"][0]["answers"].append(one["sittings"][0]["answers"][0]),
                "two answers to problem 1",
            ),
            (
                lambda one: one["sittings"][0]["answers"][0]["word"].update(codes=["nosuch"]),
                "no misconception 'nosuch'",
            ),
            (
                lambda one: one["sittings"][0]["moves"].append({"pupil": "Moss"}),
                r"moves\[0\].pupil: Moss is not among",
            ),
            (
                lambda one: one["sittings"][0]["moves"].append({"pupil": "Sedge", "codes": ["nosuch"]}),
                r"moves\[0\].codes: there is no misconception 'nosuch'",
            ),
            (
                lambda one: one["sittings"][0]["moves"].extend([{"pupil": "Sedge"}, {"pupil": "sedge"}]),
                r"moves: a pupil stands there twice",
            ),
            (lambda one: one.update(pupils=[{"alias": f"p{i}"} for i in range(61)]), "pupils: "),
            (lambda one: one.update(format="keen-slate/set"), "not a Keen Slate class"),
            (lambda one: one.update(extra=1), "extra: "),
        ):
            broken = json.loads(json.dumps(whole))
            change(broken)
            with self.subTest(message), self.assertRaisesRegex(ReadError, message):
                read_document(json.dumps(broken).encode())

    @settings(max_examples=200)
    @given(st.recursive(
        st.one_of(st.none(), st.booleans(), st.integers(), st.text(max_size=8),
            st.sampled_from(["keen-slate/class", "2026-11-12", "Sedge"])),
        lambda inner: st.one_of(st.lists(inner, max_size=3), st.dictionaries(st.sampled_from(
            ["format", "version", "name", "pupils", "sittings", "alias", "day", "questions", "answers"]), inner,
            max_size=5)), max_leaves=12,
    ))  # fmt: skip
    def test_any_document_is_read_or_refused(self, value):
        if isinstance(value, dict):
            value = {"format": "keen-slate/class", "version": 1, "name": "Heron"} | value
        try:
            self.assertIsInstance(read_document(json.dumps(value).encode()), ClassDocument)
        except ReadError as error:
            self.assertTrue(error.message and error.hint)


def _document():
    return ClassDocument(
        format="keen-slate/class", version=1, name="Heron", pupils=[PupilPart(alias="Sedge")],
        sittings=[
            SittingPart(
                title="Planks", day="2026-11-12", kind="quiz",
                questions=[QuestionPart(problem="7 1/4 - 3 5/6 ft"), QuestionPart(problem="1/2 + 1/3")],
                answers=[AnswerPart(pupil="Sedge", problem=1, written="4 7/12")],
            )
        ],
    )  # fmt: skip
