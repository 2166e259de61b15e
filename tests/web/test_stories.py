"""Stories over HTTP and in files: read while they are typed, kept, told, made, with scenarios of one's own."""

import io
import json
import re
import unittest
import uuid
import zipfile

from tests import support
from tests.web.test_api import Client
from tools.server import LiveServer

PLANK = "A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is what is left?"
TAGS = "Sedge's <b>rope</b> & wire has 8 m. He uses 1 1/4 m and 2 2/3 m. How much rope is left?"
BOATS = {
    "code": "boats", "name": "A boat yard", "doers": ["Reed", "Flax"],
    "things": [{"kind": "doing", "name": "row", "unit": "km", "from": "1/8", "to": 30, "where": "on the lake"}],
}  # fmt: skip


class StoryTests(unittest.TestCase):
    client: Client
    server: LiveServer
    teacher: uuid.UUID

    @classmethod
    def setUpClass(cls):
        cls.teacher = support.new_teacher()
        cls.server = support.live_server()
        cls.client = Client(cls.server, cls.teacher)

    def setUp(self):
        self.set_id = str(support.new_set(self.teacher, "Stories", ["7 1/4 - 3 5/6 ft"]))

    def call(self, *arguments):
        return self.client.call(*arguments)

    def added(self, source, version=1):
        status, made = self.call("POST", f"/api/sets/{self.set_id}/examples", {"version": version, "source": source})
        self.assertEqual(status, 201, made)
        return made

    def test_a_story_is_understood_as_far_as_it_is_typed(self):
        status, found = self.call("POST", "/api/stories/read", {"text": PLANK[:48]})
        self.assertEqual((status, [one["text"] for one in found["numbers"]]), (200, ["3 1/4 m", "1 2/3 m"]))
        self.assertIn("Nothing is asked", found["refusal"]["message"])
        whole = self.call("POST", "/api/stories/read", {"text": PLANK})[1]
        (story,) = whole["readings"]
        self.assertTrue(whole["certain"])
        self.assertEqual((story["situation"], story["answer"]), ("take-from", "What is left is 1 7/12 m long."))
        self.assertEqual(
            "".join(
                part["text"] or "" for piece in story["pieces"] for part in piece["glyphs"] if part["kind"] == "words"
            )[:9],
            "A plank is"[:9],
        )
        unsure = self.call(
            "POST", "/api/stories/read", {"text": "Sedge has 3 m of rope and 2 m of wire. How much is it?"}
        )[1]
        self.assertFalse(unsure["certain"])
        self.assertEqual(len(unsure["readings"]), 2)

    def test_a_story_is_kept_with_its_calculation_and_worked_as_any_example(self):
        made = self.added(PLANK)
        summary = made["set"]["examples"][-1]
        self.assertEqual(summary["source"], f"{PLANK} {{take-from result: 3 1/4 - 1 2/3}}")
        self.assertEqual((summary["rung"], summary["text"]), ("S1", PLANK))
        story = made["example"]["working"]["story"]
        self.assertEqual([part["rung"] for part in story["calculations"]], ["M8"])
        fading = {"hide": 0, "blanks": ["model 0 cell 2", "sentence 0 row", "calculation 0 row"], "pause": None}
        path = f"/api/sets/{self.set_id}/examples/{summary['id']}"
        faded = self.call("PATCH", path, {"version": 2, "fading": fading})[1]["example"]["working"]["story"]
        self.assertTrue(faded["answer_hidden"] and faded["calculations"][0]["hidden"])
        texts = [mark["text"] for mark in faded["calculations"][0]["model"]["marks"]]
        self.assertIn("?", texts)
        self.assertEqual(self.call("POST", f"{path}/parallel", {"seed": 3})[0], 200)
        status, numbers = self.call("PATCH", path, {"version": 3, "source": story["numbers"]})
        self.assertEqual((status, numbers["example"]["working"]["problem"]["text"]), (200, "3 1/4 - 1 2/3 m"))
        refused = self.call(
            "POST", f"/api/sets/{self.set_id}/examples", {"version": 4, "source": PLANK.replace("?", ".")}
        )
        self.assertEqual((refused[0], refused[1]["error"]["message"]), (422, "Nothing is asked in this story."))

    def test_a_class_with_a_decimal_comma_reads_and_sees_its_own_mark(self):
        text = "Eine Kanne hält 2,5 l. Sedge gießt 0,75 l aus. Wie viel bleibt? {2,5 - 0,75; says Es bleiben _.}"
        self.call("PATCH", f"/api/sets/{self.set_id}", {"version": 1, "ways": {"decimal_mark": "comma"}})
        made = self.added(text, 2)
        story = made["example"]["working"]["story"]
        self.assertEqual((story["answer"], story["calculations"][0]["text"]), ("Es bleiben 1,75 l.", "2,5 - 0,75 l"))
        self.assertIn("{take-from result: 2.5 - 0.75;", made["set"]["examples"][-1]["source"])
        again = self.call("POST", "/api/stories/read", {"text": story["source"], "ways": {"decimal_mark": "comma"}})[1]
        self.assertEqual(again["readings"][0]["calculation"], story["calculation"])

    def test_files_carry_stories_whole_and_names_harmless(self):
        self.added(TAGS)
        document = self.client.open(f"/api/sets/{self.set_id}/set.json").read()
        brought = self.call("POST", "/api/sets/bring", document)[1]
        self.assertEqual(brought["examples"][1]["source"], json.loads(document)["examples"][1]["problem"])
        page = self.client.open(f"/api/sets/{self.set_id}/set.html").read().decode()
        self.assertIn("Sedge&#39;s &lt;b&gt;rope&lt;/b&gt; &amp; wire has", page)
        self.assertIn("of rope is left.", re.sub(r"<[^>]+>", "", page))
        table = self.client.open(f"/api/sets/{self.set_id}/problems.csv").read().decode()
        self.assertIn("Sedge's <b>rope</b> & wire", table)
        with zipfile.ZipFile(io.BytesIO(self.client.open(f"/api/sets/{self.set_id}/qti.zip").read())) as package:
            item = package.read("items/item-2.xml").decode()
        self.assertIn("&lt;b&gt;rope&lt;/b&gt;", item)
        with zipfile.ZipFile(io.BytesIO(self.client.open(f"/api/sets/{self.set_id}/set.odt").read())) as package:
            self.assertIn("4 1/12 m of rope is left.", package.read("content.xml").decode())
        for form in ("problems", "full"):
            pdf = self.client.open(f"/api/sets/{self.set_id}/handout.pdf?form={form}").read()
            self.assertTrue(pdf.startswith(b"%PDF"))
        lines = self.call("POST", f"/api/sets/{self.set_id}/judge", {"text": f"{PLANK}\n{TAGS}\n1/2 + 1/3"})[1]["lines"]
        self.assertEqual([line["verdict"] for line in lines], ["read", "duplicate", "read"])

    def test_an_example_is_told_as_a_story_and_stories_are_made_to_order(self):
        told = self.call("POST", "/api/stories/tell", {"text": "7 1/4 - 3 5/6 ft", "seed": 2})[1]["stories"]
        self.assertEqual(len(told), 3)
        self.assertEqual({one["story"]["calculations"][0]["text"] for one in told}, {"7 1/4 - 3 5/6 ft"})
        wish = {"rungs": {"S1": 2, "S4": 1}, "scenario": "trail", "seed": 5}
        status, made = self.call("POST", "/api/stories/make", {"spec": wish, "set_id": self.set_id})
        self.assertEqual((status, [one["rung"] for one in made["stories"]]), (200, ["S1", "S1", "S4"]))
        kept = [made["stories"][0]["story"]["source"], None, None]
        again = self.call("POST", "/api/stories/make", {"spec": wish | {"seed": 6}, "kept": kept})[1]
        self.assertEqual(again["stories"][0]["story"]["text"], made["stories"][0]["story"]["text"])
        taken = {"version": 1, "problems": [one["story"]["source"] for one in made["stories"]]}
        self.assertEqual(len(self.call("POST", f"/api/sets/{self.set_id}/problems", taken)[1]["examples"]), 4)
        refused = self.call("POST", "/api/stories/make", {"spec": {"rungs": {"X": 1}}})
        self.assertEqual((refused[0], refused[1]["error"]["key"]), (422, "rungs"))

    def test_a_scenario_of_ones_own_is_kept_told_with_and_taken_away(self):
        status, kept = self.call("PUT", "/api/stories/scenarios/boats", BOATS)
        self.assertEqual((status, kept["own"], kept["document"]["name"]), (200, True, "A boat yard"))
        known = [one["document"]["code"] for one in self.call("GET", "/api/stories")[1]["scenarios"]]
        self.assertEqual(known[-1], "boats")
        spec = {"rungs": {"S1": 1}, "scenario": "boats", "seed": 1}
        made = self.call("POST", "/api/stories/make", {"spec": spec})[1]["stories"]
        self.assertRegex(made[0]["story"]["text"], "on the lake")
        other = Client(self.server, support.new_teacher())
        self.assertNotIn(
            "boats", [one["document"]["code"] for one in other.call("GET", "/api/stories")[1]["scenarios"]]
        )
        bad = BOATS | {"things": [BOATS["things"][0] | {"unit": "parsec"}]}
        refused = self.call("PUT", "/api/stories/scenarios/boats", bad)
        self.assertEqual((refused[0], refused[1]["error"]["message"]), (422, "things[0].unit: 'parsec' is not known."))
        self.assertEqual(self.call("PUT", "/api/stories/scenarios/trail", BOATS | {"code": "trail"})[0], 422)
