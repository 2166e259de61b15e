"""Sets as files: what was written is read back the same, and what is broken or hostile is refused with its place."""

import csv
import io
import json
import unittest
import zipfile
from datetime import datetime

from hypothesis import given, settings
from hypothesis import strategies as st
from openpyxl import Workbook, load_workbook

from keen_slate.core.errors import ReadError
from keen_slate.core.expressions.text import text
from keen_slate.core.limits import LARGEST_FILE
from keen_slate.core.reading.reader import read
from keen_slate.core.ways.settings import SETTINGS, Ways
from keen_slate.core.worked import work_text
from keen_slate.export.json_document import written
from keen_slate.export.set_document import ExamplePart, FadingPart, SetDocument, read_document
from keen_slate.export.table import judged, rows_for, table
from keen_slate.export.workbook import table_in, workbook
from tests import strategies
from tools.schema import DIRECTORY, SCHEMAS, schema

words = st.text(st.characters(blacklist_categories=("Cs", "Cc"), blacklist_characters="\ufffe\uffff"), max_size=40)
problems = strategies.classroom_pairs.map(text)
examples = st.builds(
    ExamplePart, problem=problems, note=words, words=st.dictionaries(st.just("add 0"), words.filter(str.strip)),
    ways=st.fixed_dictionaries({}, optional={"ties": st.sampled_from(tuple(SETTINGS["ties"].codes))}),
    fading=st.builds(FadingPart, hide=st.integers(0, 9), blanks=st.lists(st.just("problem 0"), max_size=1)),
    marks=st.dictionaries(st.just("answer"), st.integers(0, 20)),
)  # fmt: skip
documents = st.builds(
    SetDocument, format=st.just("keen-slate/set"), version=st.just(1), title=words.filter(str.strip), note=words,
    objective=words,
    standards=st.lists(words, max_size=2), lesson_minutes=st.none() | st.integers(1, 90),
    examples=st.lists(examples, max_size=4),
)  # fmt: skip
GOOD = {"format": "keen-slate/set", "version": 1, "title": "Planks", "examples": [{"problem": "1/2 + 1/3"}]}


class DocumentTests(unittest.TestCase):
    @given(documents)
    def test_what_was_written_is_read_back(self, document):
        self.assertEqual(read_document(written(document)), document)

    def test_the_published_schema_is_current(self):
        for name, model in SCHEMAS.items():
            self.assertEqual((DIRECTORY / name).read_text(encoding="utf-8"), schema(model))

    def test_a_fault_is_named_by_its_place(self):
        wrong = [  # what is changed in a good document, and what the refusal says
            ({"examples": [{"problem": "1/2 + 1/3"}, {"problem": "1/0"}]}, "examples[1].problem: "),
            ({"examples": [{"problem": "1/2 + 1/3", "hide": 1}]}, "examples[0].hide: "),
            ({"examples": [{"problem": "1/2 + 1/3", "ways": {"ties": "left"}}]}, "examples[0].ways: "),
            ({"examples": [{"problem": "1/2 + 1/3", "marks": {"answer": 21}}]}, "examples[0].marks.answer: "),
            ({"examples": [{"problem": "1/2 + 1/3", "fading": {"blanks": ["<b>"]}}]}, "examples[0].fading.blanks[0]: "),
            ({"examples": [{"problem": "1/2 + 1/3", "words": {"x y": "z"}}]}, "examples[0].words"),
            ({"examples": [{"problem": "1/2 + 1/3"}] * 61}, "examples: "),
            ({"title": " "}, "title: "), ({"version": 2}, "version"),
            ({"format": "x"}, "not a Keen Slate set"), ({"lesson_minutes": "10"}, "lesson_minutes: "),
            ({"by": "me"}, "by: "),
        ]  # fmt: skip
        for change, said in wrong:
            with self.assertRaises(ReadError) as caught:
                read_document(json.dumps(GOOD | change).encode())
            self.assertIn(said, caught.exception.message)
            self.assertTrue(caught.exception.hint)

    def test_hostile_files_are_refused_in_words(self):
        files = [
            b"", b"\xff\xfe", b"{", b"[]", b"null", b"[" * 200_000, b'{"a":' * 50_000,
            b'{"format": ' + b"9" * 9_000 + b"}",
            b"<?xml version='1.0'?><!DOCTYPE x [<!ENTITY a 'b'>]><x>&a;</x>", b" " * (LARGEST_FILE + 1),
            b"PK\x03\x04rest of a zip",
        ]  # fmt: skip
        for file in files:
            with self.assertRaises(ReadError, msg=file[:20]) as caught:
                read_document(file)
            self.assertTrue(caught.exception.message and caught.exception.hint)

    @given(st.binary(max_size=60) | st.recursive(st.none() | st.booleans() | st.integers() | words,
        lambda inner: st.lists(inner) | st.dictionaries(
            st.sampled_from(["title", "examples", "problem", "ways", "fading"]),
        inner)).map(lambda part: json.dumps(GOOD | {"examples": part}).encode()))  # fmt: skip
    def test_any_file_is_read_or_refused(self, file):
        try:
            read_document(file)
        except ReadError as error:
            self.assertTrue(error.message)


class TableTests(unittest.TestCase):
    @given(st.lists(problems, min_size=1, max_size=5, unique_by=lambda p: str(work_text(p).working.value) + p))
    def test_problems_come_back_from_the_csv(self, sources):
        written_table = table([work_text(source) for source in sources])
        rows = list(csv.DictReader(io.StringIO(written_table)))
        self.assertEqual([read(row["problem"].removeprefix("'")).text for row in rows], [read(s).text for s in sources])
        lines = judged(written_table, [], Ways())
        self.assertEqual([line.text for line in lines], [read(s).text for s in sources])
        self.assertTrue(all(line.verdict in ("read", "duplicate") for line in lines))

    def test_no_cell_is_a_formula(self):
        rows = csv.reader(io.StringIO(table([work_text("-1/2 + 3/4"), work_text("1/4 - 3/4")])))
        for row in rows:
            for cell in row:
                self.assertNotIn(cell[:1], ("=", "+", "-", "@"), row)

    def test_each_line_is_judged(self):
        brought = '1/2 + 1/3\n\n1/3 + 1/2\n2_1/3 + 1\n=HYPERLINK("x")\n<b>1/2</b>\n7 1/4 - 3 5/6 ft\n2/3 + 1/6'
        lines = judged(brought, ["2/3 + 1/6"], Ways())
        self.assertEqual([(line.number, line.verdict) for line in lines], [
            (1, "read"), (3, "duplicate"), (4, "unreadable"), (5, "unreadable"), (6, "unreadable"), (7, "read"),
            (8, "duplicate")])  # fmt: skip
        self.assertIn("one space", lines[2].why)
        with_head = judged('name,problem\nSedge,1/2 + 1/5\n"O\'Hara, x","1/2 + 1/7"\nonly\n', [], Ways())
        self.assertEqual([(line.number, line.text) for line in with_head], [(2, "1/2 + 1/5"), (3, "1/2 + 1/7")])

    def test_the_numbers_of_exercises_are_no_part_of_their_problems(self):
        brought = "1) 2/7 + 1/2 =\n2. 3.5 + 2 =\n(c) 7 - 2 1/3\n1.5 + 2\n4: (1/2 + 3) × 2"
        lines = judged(brought, [], Ways())
        self.assertEqual([one.text for one in lines], ["2/7 + 1/2", "3.5 + 2", "7 - 2 1/3", "1.5 + 2", "(1/2 + 3) × 2"])
        self.assertEqual({one.verdict for one in lines}, {"read"})

    def test_any_separator_is_found_out_and_a_fraction_alone_stays_text(self):
        for separator in ",;\t":
            brought = f'name{separator}problem\n"a, b; c"{separator}1/2 + 1/5\nonly\n'
            self.assertEqual([(one.number, one.text) for one in judged(brought, [], Ways())], [(2, "1/2 + 1/5")])
        made = table([work_text("15/18"), work_text("1/2 + 1/3")], "\t")
        rows = list(csv.reader(io.StringIO(made), delimiter="\t"))
        self.assertEqual([row[2] for row in rows[1:]], ["'5/6", "'5/6"])  # no spreadsheet makes a date of it
        self.assertEqual([one.text for one in judged(made, [], Ways())], ["15/18", "1/2 + 1/3"])

    def test_nothing_vanishes_silently(self):
        for brought, said in (
            ("1/2 + 1/3\n" * 501, "There are 501 problems; 500 are taken"),
            ("problem\n" + "1/2\n" * 502, "503 lines; 500"),
            ('problem\n1/2 + 1/3\n"1/4 + 1/5\n', "opened on line 3 and never closed"),
        ):  # fmt: skip
            with self.assertRaisesRegex(ReadError, said):
                judged(brought, [], Ways())
        self.assertEqual(len(judged("1/2 + 1/3\n" * 500, [], Ways())), 500)

    @given(st.text(max_size=80))
    def test_any_text_is_judged(self, brought):
        try:
            lines = judged(brought, [], Ways())
        except ReadError as error:
            return self.assertTrue(error.message and error.hint)
        for line in lines:
            self.assertIn(line.verdict, ("read", "unreadable", "duplicate"))


class WorkbookTests(unittest.TestCase):
    @given(st.lists(strategies.classroom_pairs.map(text), min_size=1, max_size=5))
    @settings(max_examples=25)
    def test_a_spreadsheets_own_file_keeps_texts_as_texts_and_is_read_back(self, sources):
        file = workbook(rows_for([work_text(source) for source in sources]))
        sheet = load_workbook(io.BytesIO(file)).active
        for row, source in zip(sheet.iter_rows(min_row=2), sources, strict=True):
            self.assertEqual((row[1].value, row[1].data_type, row[1].number_format), (source, "s", "@"))
        self.assertEqual(
            [one.text for one in judged(table_in(file), [], Ways()) if one.verdict != "duplicate"],
            list(dict.fromkeys(sources)),
        )

    def test_a_cell_is_no_formula_whatever_it_begins_with(self):
        cell = load_workbook(io.BytesIO(workbook([["=1+1"]]))).active["A1"]
        self.assertEqual((cell.value, cell.data_type), ("=1+1", "s"))

    def test_what_a_spreadsheet_made_of_a_fraction_is_told_or_undone(self):
        made = Workbook()
        for value, shown in (
            ("problem", None),
            (5 / 6, "# ?/?"),
            (1.75, "0.00"),
            (3.0, "General"),
            (2.25, "# ?/?"),
            ("'1/2", "@"),
        ):
            made.active.append([value])
            made.active.cell(made.active.max_row, 1).number_format = shown or "General"
        out = io.BytesIO()
        made.save(out)
        self.assertEqual(table_in(out.getvalue()).split("\n"), ["problem", "5/6", "1.75", "3", "2 1/4", "'1/2"])
        made.active.append([datetime(2026, 6, 5)])
        out = io.BytesIO()
        made.save(out)
        with self.assertRaisesRegex(ReadError, "Cell A7 holds a date \\(05 June 2026\\)"):
            table_in(out.getvalue())

    @given(st.binary(max_size=400), st.integers(0, 4000), st.integers(0, 255))
    def test_a_broken_file_is_refused_in_words(self, junk, at, byte):
        good = workbook([["problem"], ["1/2 + 1/3"]])
        at %= len(good)
        for file in (junk, good[:at], good[:at] + bytes([byte]) + good[at + 1 :], b"PK" + junk):
            try:
                table_in(file)
            except ReadError as error:
                self.assertTrue(error.message)

    def test_what_unpacks_without_end_is_not_unpacked(self):
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/worksheets/sheet1.xml", b" " * (11 * LARGEST_FILE))
        with self.assertRaisesRegex(ReadError, "too large"):
            table_in(out.getvalue())
