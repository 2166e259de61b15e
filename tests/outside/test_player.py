"""Our items in a QTI player that somebody else wrote, in Chromium: right, wrong and every spelling score there as the
core judges them.
"""

import io
import unittest
import zipfile
from pathlib import Path

from playwright.sync_api import Page

from keen_slate.core.diagnosing.answers import Explainer
from keen_slate.core.ways.settings import Ways
from keen_slate.core.worked import work_text
from keen_slate.export.expected import expected
from keen_slate.export.qti import qti
from tests import support
from tests.export.test_packages import SPELLINGS

# The web components of CITO's laboratory (GPL-3.0), of the npm registry: used by this test alone.
PLAYER = Path(__file__).parents[2] / "frontend/node_modules/@citolab/qti-components/cdn/index.global.js"
SCORED = """async ([xml, responses]) => {
  document.body.replaceChildren()
  const container = document.createElement('item-container')
  document.body.appendChild(document.createElement('qti-item')).append(container)
  await container.updateComplete  // before that it does not look at what it is given
  container.itemXML = xml
  let item = null
  for (let i = 0; !item; i++) {
    if (i > 200) throw new Error('no item')
    await new Promise((r) => setTimeout(r, 20))
    item = container.shadowRoot.querySelector('qti-assessment-item')
  }
  await item.updateComplete
  const found = responses.map((given) => {
    item.resetResponses()
    Object.entries(given).forEach(([name, value]) => item.updateResponseVariable(name, value))
    item.processResponse()
    return ['SCORE', 'FEEDBACK'].map((name) => item.getOutcome(name)?.value ?? null)
  })
  return [found.map(([score, said]) => [Number(score ?? 0), said]), item.querySelectorAll('math mfrac').length]
}"""


class PlayerTests(unittest.TestCase):
    page: Page

    @classmethod
    def setUpClass(cls):
        cls.page = support.browser().new_page()
        cls.addClassCleanup(cls.page.close)
        cls.page.goto("about:blank")
        cls.page.add_script_tag(path=PLAYER)

    def played(self, worked, responses, **how):
        with zipfile.ZipFile(io.BytesIO(qti("Planks", [worked], [2], **how))) as package:
            xml = package.read("items/item-1.xml").decode()
        return self.page.evaluate(SCORED, [xml, responses])

    def test_each_answer_scores_and_is_answered_as_the_core_judges_it(self):
        for problem, ways, accepted, refused in SPELLINGS:
            worked = work_text(problem, Ways.of(ways), ".")
            wrong = {text: judged.identifier for judged in expected(worked)[1:] for text in judged.texts}
            given = [*accepted, *refused, *wrong, "no such answer"]
            found, fractions = self.played(worked, [{"RESPONSE": one} for one in given])
            explainer = Explainer(worked, "," if ways.get("decimal_mark") == "comma" else ".")
            for one, (score, feedback) in zip(given, found, strict=True):
                verdict = explainer.verdict(one)
                right = verdict.verdict == "right" or verdict.form_fault == "label-missing"
                self.assertEqual((score, feedback), (2, "RIGHT") if right else (0, wrong.get(one)), (problem, one))
            self.assertEqual(fractions > 0, "/" in problem, "the problem is drawn as mathematics")

    def test_options_and_blanks_score_there_too(self):
        found, _ = self.played(work_text("7 1/4 - 3 5/6 ft"), [{"RESPONSE": one} for one in "ABCD"], to_choose=True)
        self.assertEqual([score for score, _ in found], [0, 2, 0, 0])
        given = [("6", "42"), (" 06", "42 "), ("42", "6"), ("6", "")]
        found, _ = self.played(
            work_text("2/7 = _/21 = 12/_"), [{"RESPONSE1": one, "RESPONSE2": other} for one, other in given]
        )
        self.assertEqual([tuple(one) for one in found], [(2, "RIGHT"), (2, "RIGHT"), (0, None), (0, None)])
