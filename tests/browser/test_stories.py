"""Stories in the real page: typed, corrected, told of an example, uncovered on the Wall, made to order; by keys,
narrow, and with axe.
"""

from playwright.sync_api import expect

from tests.browser.test_bench import PageTests

ROPE = "Alder has 8 m of rope. He uses 1 1/4 m and 2 2/3 m. How much rope is left?"


class StoryTests(PageTests):
    problems = (ROPE + " {what goes = 1 1/4 + 2 2/3; 8 - what goes}", "7 1/4 - 3 5/6 ft")

    def test_a_story_is_typed_corrected_and_put_on_the_ladder_by_keys(self):
        self.page.keyboard.press("/")
        self.page.keyboard.type("A log is 2 1/4 m long")  # words that tell: the larger field takes over
        dialog = self.page.locator("[role=dialog]")
        expect(dialog.get_by_label("The story, with its question at the end")).to_be_focused()
        self.page.keyboard.type(" and weighs 30 kg. Teasel saws 5/6 m off. ")
        expect(dialog.locator(".chip")).to_have_count(3)
        expect(dialog.locator(".refusal")).to_contain_text("Nothing is asked in this story.")
        self.page.keyboard.type("How long is the rest?")
        expect(dialog.locator(".answer")).to_contain_text("The rest is")
        expect(dialog.locator(".chip").nth(1)).to_contain_text("not needed")
        expect(dialog.get_by_label("Calculation")).to_have_value("2 1/4 - 5/6")
        dialog.get_by_label("Calculation").fill("2 1/4 + 5/6")  # a correction by hand
        dialog.get_by_label("Answer sentence").fill("Both make _.")
        expect(dialog.locator(".answer")).to_contain_text("Both make")
        dialog.get_by_label("Calculation").fill("2 1/4 - 5")
        expect(dialog.locator(".refusal")).to_contain_text("“5/6 m” is not used in the calculation.")
        dialog.get_by_text("Read the text anew").click()
        expect(dialog.get_by_label("Calculation")).to_have_value("2 1/4 - 5/6")
        self.assertEqual(self.unfair(), [])
        self.page.keyboard.press("Control+Enter")
        self.wait_for_ladder(3)
        expect(self.page.locator(".paper p.text")).to_contain_text("Teasel saws")
        expect(self.page.locator(".paper .sentence")).to_contain_text("The rest is")
        expect(self.page.locator("#entry")).to_have_value("")
        self.page.reload()
        expect(self.page.locator(".paper .sentence")).to_contain_text("m long.")
        self.assertEqual(self.unfair(), [])

    def test_what_can_be_meant_in_two_ways_is_asked(self):
        self.page.fill("#entry", "Sedge has 3 m of red rope and 2 m of blue rope. How much is it?")
        dialog = self.page.locator("[role=dialog]")
        expect(dialog.locator(".reading")).to_have_count(2)
        expect(dialog.get_by_text("Put it on the ladder")).to_be_disabled()
        dialog.locator(".reading").nth(1).click()
        expect(dialog.get_by_label("Calculation")).to_have_value("3 - 2")
        dialog.get_by_text("Put it on the ladder").click()
        self.wait_for_ladder(3)

    def test_an_example_is_told_as_a_story_and_becomes_numbers_again(self):
        self.page.locator(".pick").nth(1).click()
        self.page.click("text=Tell it as a story")
        dialog = self.page.locator("[role=dialog]")
        expect(dialog.locator("article")).to_have_count(3)
        self.assertEqual(self.unfair(), [])
        told = dialog.locator("article .text").first.inner_text()
        dialog.get_by_text("Take this one").first.click()
        expect(self.page.locator(".paper p.text")).to_have_text(told, use_inner_text=True)
        expect(self.page.locator(".step[data-id]")).to_have_count(2)
        self.page.click("text=Only the numbers")
        expect(self.page.locator(".paper p.text")).to_have_count(0)
        self.page.click(".top >> text=Undo")
        expect(self.page.locator(".paper p.text")).to_have_text(told, use_inner_text=True)

    def test_the_paper_leaves_model_calculation_and_sentence_to_pupils(self):
        paper = self.page.locator(".paper")
        expect(paper.locator(".models li")).to_have_count(2)
        expect(paper.locator(".model svg").first).to_have_attribute("data-state", "before")
        paper.locator(".model").first.click()  # what is found
        expect(paper.locator(".model svg").first).to_have_attribute("data-state", "after")
        bars = self.page.evaluate(
            """() => { const top = document.querySelector('.paper .squared').getBoundingClientRect().top
              return [...document.querySelectorAll('.paper .row .bar')].map(one => {
                const box = one.getBoundingClientRect(); return (box.top + box.height / 2 - top) / 22 }) }"""
        )
        self.assertLess(max(abs(at - round(at)) for at in bars), 1 / 22)  # the rows below sit in the squares
        self.page.click("text=Put blanks")
        paper.get_by_text("pupils draw it").first.click()
        expect(paper.locator(".fill.drawn")).to_have_count(1)
        paper.locator(".sentence").get_by_text("pupils write it").click()
        expect(paper.locator(".sentence .fill")).to_have_count(1)
        self.page.click("text=Look under them")
        expect(paper.locator(".fill.drawn")).to_have_count(0)

    def test_the_wall_tells_text_question_model_calculation_and_sentence_one_by_one(self):
        self.page.click(".top >> text=Wall")
        story = self.page.locator(".wall .text")
        expect(story).to_contain_text("Alder has")
        self.assertNotIn("How much", story.inner_text())
        asked = self.page.locator(".cover")
        for cover, seen in (
            ("What may be asked?", None), ("Can you draw it?", "question"),
            ("What is to be calculated?", ".model svg[data-state=before]"),
            ("What would you write next?", "li.line"),
        ):  # fmt: skip
            if seen == "question":
                expect(story).to_contain_text("How much rope is left?")
            elif seen:
                expect(self.page.locator(f".wall {seen}").first).to_be_visible()
            expect(asked).to_contain_text(cover)
            self.page.keyboard.press("PageDown")
        self.page.keyboard.press("End")
        expect(self.page.locator(".lines p.label")).to_contain_text("m of rope is left.")
        expect(self.page.locator(".card svg")).to_have_attribute("data-state", "after")
        self.page.keyboard.press("PageUp")
        expect(self.page.locator(".lines p.label")).to_have_count(0)
        expect(asked).to_contain_text("Answer it in a sentence.")

    def test_stories_are_made_to_order_with_a_scenario_of_ones_own(self):
        self.page.goto(f"{self.server.address}/scenarios")
        self.page.click("text=Copy it and change the copy")
        self.page.get_by_label("Name", exact=True).fill("Our pond")
        self.page.click("text=Keep this scenario")
        expect(self.page.locator("[role=status]")).to_have_text("Kept.")
        self.assertEqual(self.unfair(), [])
        self.page.goto(f"{self.server.address}/bench/{self.set_id}")
        self.page.click(".tools >> text=Stories")
        expect(self.page.locator("ol .told")).to_have_count(6)  # they come with the wish, without a press
        anywhere = [self.page.locator("ol .told").nth(i).inner_text() for i in range(6)]
        with self.page.expect_response(f"{self.server.address}/api/stories/make") as made:
            self.page.locator("#scenario").click()
            self.page.get_by_role("option", name="Our pond (yours)").click()
        self.assertEqual(len(made.value.json()["stories"]), 6)
        # A copy tells one as its original does; it does not tell all six so, where the six were told anywhere.
        expect(self.page.locator("ol .told")).not_to_have_text(anywhere, use_inner_text=True)
        expect(self.page.locator("ol .told")).to_have_count(6)
        self.page.get_by_label("One more: a story: put together, or taken away").first.click()
        expect(self.page.locator("ol .told")).to_have_count(7)
        first, second = (self.page.locator("ol .told").nth(i).inner_text() for i in (0, 1))
        self.page.get_by_text("Swap").nth(1).click()
        expect(self.page.locator("ol .told").nth(1)).not_to_have_text(second, use_inner_text=True)
        expect(self.page.locator("ol .told").first).to_have_text(first, use_inner_text=True)
        self.assertEqual(self.unfair(), [])
        self.page.click("text=Put them on the ladder")
        self.wait_for_ladder(9)

    def test_on_a_narrow_screen_nothing_is_cut_off(self):
        self.page.set_viewport_size({"width": 390, "height": 780})
        self.page.click("text=Change the story")
        expect(self.page.locator("[role=dialog] .chip")).to_have_count(3)
        self.assertLessEqual(self.page.evaluate("document.querySelector('[role=dialog]').scrollWidth"), 390)
        self.page.get_by_text("Leave it").click()
        for path in (f"/stories/{self.set_id}", "/scenarios"):
            self.page.goto(self.server.address + path)
            self.page.wait_for_selector(".sheet")
            self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390, path)
