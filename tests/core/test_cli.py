"""The command line as a user meets it: its output, its exit status; twice by the real script, else in the process."""

import io
import json
import re
import subprocess
import unittest
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest import mock

from keen_slate import cli

SLATE = Path(__file__).resolve().parents[2] / "slate"


def slate(*arguments: str, given: bytes = b"") -> tuple[int, str, str]:
    """Exit status, output and errors of a command that is *given* something."""
    typed = io.TextIOWrapper(io.BytesIO(given), encoding="utf-8")
    out, err = io.StringIO(), io.StringIO()
    with mock.patch("sys.stdin", typed), redirect_stdout(out), redirect_stderr(err):
        try:
            status = cli.main(arguments)
        except SystemExit as end:
            status = int(end.code or 0)
    return status, out.getvalue(), err.getvalue()


def script(*arguments: str, given: bytes = b"") -> tuple[int, str, str]:
    """The same by the real script."""
    done = subprocess.run([SLATE, *arguments], input=given, capture_output=True, check=False)
    return done.returncode, done.stdout.decode(), done.stderr.decode()


STACKED = """\
    11
  5   6
    1\u0336
      1\u0336
  6\u0336 2\u0336 ─
      5

      4
− 1 8 ─
      5

───────

      2
  4 3 ─
      5
"""


class CommandLineTests(unittest.TestCase):
    def test_a_problem_gives_the_published_document(self):
        status, out, err = script("work", "7 1/4 - 3 5/6 ft", "--json", "--set", "ties=down")
        document = json.loads(out)
        self.assertEqual((status, err), (0, ""))
        self.assertEqual((document["format"], document["version"]), ("keen-slate/working", 1))
        self.assertEqual(document["problem"], {"text": "7 1/4 - 3 5/6 ft", "kind": "add-subtract", "label": "ft"})
        self.assertEqual(document["answer"], {"text": "3 5/12 ft", "value": "41/12"})
        self.assertEqual([step["kind"] for step in document["steps"]], ["common-denominator", "regroup", "subtract"])
        self.assertEqual(document["steps"][1]["after"], "6 15/12 - 3 10/12")
        self.assertEqual((document["estimate"]["value"], document["estimate"]["ties"]), ("3/1", [0]))
        self.assertEqual(document["misconceptions"][0]["answer"], "4 7/12 ft")
        self.assertEqual(document["features"]["rung"], "M8")

    def test_a_text_that_cannot_be_read_gives_the_error_object_and_status_2(self):
        status, out, err = slate("work", "1/0", "--json")
        self.assertEqual((status, out), (2, ""))
        error = json.loads(err)["error"]
        self.assertEqual((error["position"], error["length"]), (2, 1))
        self.assertEqual(set(error), {"message", "position", "length", "hint"})

    def test_a_setting_that_does_not_exist_is_refused_with_the_ones_that_do(self):
        status, _, err = slate("work", "1/2 + 1/3", "--json", "--set", "ties=left")
        self.assertEqual(status, 2)
        self.assertEqual(json.loads(err)["error"]["hint"], "Ways of ties: up, down.")

    def test_a_text_that_begins_with_a_minus_needs_no_help(self):
        for arguments in (["-1/2 + 3/4", "--json"], ["--json", "-1/2 + 3/4"], ["--json", "--", "-1/2 + 3/4"]):
            status, out, _ = slate("work", *arguments)
            self.assertEqual((status, json.loads(out)["answer"]["text"]), (0, "1/4"))

    def test_a_layout_is_drawn_in_characters(self):
        # Read by eye: the 2 lends a whole, then takes ten from the 6; what is crossed out has a stroke through it.
        self.assertEqual(slate("work", "62 1/5 - 18 4/5 ft", "--layout", "stacked")[1], STACKED)

    def test_lines_give_a_document_or_an_error_each(self):
        given = b"1/2 + 1/3\r\n\n\xff1\n2 3/4 + 1 2/3"
        status, out, err = script("work", "--lines", "--json", given=given)
        documents = [json.loads(line) for line in out.splitlines()]
        self.assertEqual((status, err), (0, ""))
        self.assertEqual([("error" in d) or d["answer"]["text"] for d in documents], ["5/6", True, True, "4 5/12"])

    def test_without_json_it_is_written_for_people(self):
        status, out, _ = slate("work", "2/3 + 1/6")
        self.assertEqual(status, 0)
        self.assertIn("  = 4/6 + 1/6", out)
        self.assertIn("Answer: 5/6", out)

    def test_a_ladder_is_built_or_the_limit_is_named(self):
        wish = {"rungs": {"M7": 1, "M8": 2}, "targets": ["regroup-ten"], "separate": True, "seed": 7, "label": "ft"}
        status, out, err = slate("ladder", "-", "--json", given=json.dumps(wish).encode())
        document = json.loads(out)
        self.assertEqual((status, err, document["not_separated"]), (0, "", []))
        self.assertEqual([p["features"]["rung"] for p in document["problems"]], ["M7", "M8", "M8"])
        self.assertTrue(all(p["text"].endswith(" ft") for p in document["problems"]))
        self.assertIn("regroup-ten", document["reveals"])
        status, out, _ = slate("ladder", "-", "--json", given=b'{"rungs": {"F6": 1}, "denominators": [2, 4]}')
        self.assertEqual(
            (status, json.loads(out)), (3, {"impossible": {"limit": "denominators", "nearest": [2, 3, 4]}})
        )
        for wrong in (b"[", b'{"rungs": {"F0": 1}}', b"\xff", b"[" * 100_000):
            status, out, err = slate("ladder", "-", given=wrong)
            self.assertEqual((status, out), (2, ""))
            self.assertTrue(json.loads(err)["error"]["hint"])

    def test_where_there_is_no_such_picture_those_that_there_are_are_named(self):
        _, _, refused = slate("figure", "5/8 + _ = 1 1/4")
        offered = re.findall(r"--step (\d+) --kind ([a-z, -]+)", json.loads(refused)["error"]["hint"])
        self.assertEqual([step for step, _ in offered], ["1", "2", "3", "4"])
        for step, kinds in offered:
            for kind in kinds.split(", "):
                _, drawn, _ = slate("figure", "5/8 + _ = 1 1/4", "--step", step, "--kind", kind)
                self.assertRegex(drawn, "^<svg.*<title>[^<]+</title><desc>[^<]+</desc>")
