"""A whole desk as one file: what is packed comes out again, and nothing that looks like one breaks its reader."""

import io
import json
import unittest
import zipfile

from hypothesis import given
from hypothesis import strategies as st

from keen_slate.core.errors import CoreError
from keen_slate.export.class_document import ClassDocument
from keen_slate.export.desk_document import MOST_FILES, UNPACKED, WholeDesk, packed, refuse_large, unpacked
from keen_slate.export.set_document import ExamplePart, SetDocument

BOATS = {"format": "keen-slate/scenario", "version": 1, "code": "boats", "name": "A boat yard",
    "doers": ["Reed", "Flax"],
         "things": [{"kind": "doing", "name": "row", "unit": "km", "from": "1/4", "to": "20",
             "where": "on the lake"}]}  # fmt: skip


def a_set(title, *problems):
    return SetDocument(
        format="keen-slate/set", version=1, title=title, examples=[ExamplePart(problem=one) for one in problems]
    )


DESK = WholeDesk(
    "O'Hara <b>", {"ties": "down"},
    {
        "sets/shelf/00001-planks.json": a_set("Planks", "7 1/4 - 3 5/6 ft"),
        "sets/shelf/00002-planks.json": a_set("Planks"),
        "sets/archive/00001-ber-alles-x.json": a_set("Über alles / ../x", "1/2 + 1/3"),
        "sets/bin/00001-.json": a_set("!"),
    },
    [ClassDocument(format="keen-slate/class", version=1, name="Heron")], [BOATS],
)  # fmt: skip
FILE = packed(DESK)


def zipped(**files):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as file:
        for name, content in files.items():
            file.writestr(name, content)
    return out.getvalue()


class DeskDocumentTests(unittest.TestCase):
    def test_what_is_packed_comes_out_again(self):
        found = unpacked(FILE)
        self.assertEqual(found, DESK)
        self.assertEqual(packed(found), FILE)
        with zipfile.ZipFile(io.BytesIO(FILE)) as file:
            names = file.namelist()
        self.assertEqual(names, [
            "desk.json", "sets/shelf/00001-planks.json", "sets/shelf/00002-planks.json",
            "sets/archive/00001-ber-alles-x.json",
            "sets/bin/00001-.json", "classes/00001-heron.json", "scenarios/00001-boats.json",
        ])  # fmt: skip

    def test_a_part_that_cannot_be_read_is_left_out_and_named(self):
        head = json.dumps({"format": "keen-slate/desk", "version": 1})
        parts = {
            "sets/shelf/1.json": "{", "sets/attic/2.json": "{}", "classes/3.json": "[]", "scenarios/4.json": "{}",
            "x": "",
            "scenarios/5.json": "{", "sets/shelf/../6.json": "{}",
            "sets/shelf/7.json": json.dumps(a_set("Bad", "1/0").model_dump()),
            "sets/shelf/8.json": json.dumps(a_set("Good", "1/2 + 1/4").model_dump()),
        }  # fmt: skip
        found = unpacked(zipped(**{"desk.json": head}, **parts))
        self.assertEqual([one.title for one in found.sets.values()], ["Good"])
        self.assertEqual({said.split(": ")[0] for said in found.left}, set(parts) - {"sets/shelf/8.json"})
        self.assertTrue(all(len(said.split(": ", 1)[1]) > 10 for said in found.left))

    def test_what_is_no_desk_or_too_large_is_refused_unread(self):
        bomb = zipped(**{"desk.json": "{}", "sets/shelf/1.json": b"0" * (UNPACKED + 1)})
        many = zipped(**{"desk.json": "{}"}, **{f"classes/{i}": "" for i in range(MOST_FILES)})
        for file, said in (
            (b"", "no file of a whole desk"), (b"PK", "no file of a whole desk"),
            (zipped(x=""), "no file of a whole desk"),
            (bomb, "too large"), (many, "too large"),
        ):  # fmt: skip
            with self.assertRaisesRegex(CoreError, said):
                refuse_large(file)
        self.assertLess(len(bomb), 1_000_000)
        for head in (
            "",
            "{",
            "[]",
            '{"format": "keen-slate/set", "version": 1}',
            '{"format": "keen-slate/desk", "version": 2}',
        ):
            with self.assertRaises(CoreError):
                unpacked(zipped(**{"desk.json": head}))
        with self.assertRaisesRegex(CoreError, "ways"):
            unpacked(zipped(**{"desk.json": '{"format": "keen-slate/desk", "version": 1, "ways": {"x": "y"}}'}))

    @given(st.lists(st.tuples(st.integers(0, len(FILE) - 1), st.integers(0, 255)), min_size=1, max_size=12))
    def test_a_file_with_any_bytes_changed_is_read_or_refused(self, changes):
        broken = bytearray(FILE)
        for at, byte in changes:
            broken[at] = byte
        try:
            found = unpacked(bytes(broken))
        except CoreError:
            return
        self.assertLessEqual(len(found.sets) + len(found.classes) + len(found.scenarios), 6)
