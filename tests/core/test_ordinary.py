"""Ordinary stories: certain is right, the others are asked about, few are refused; what is said of them is a
sentence.
"""

import re
import unittest
from collections import Counter
from random import Random

from keen_slate.core.documents.story import published
from keen_slate.core.expressions.text import text
from keen_slate.core.expressions.tree import value
from keen_slate.core.stories.answering import PLAIN, answer_sentence
from keen_slate.core.stories.lexicon import base_of, past_of, verb_in
from keen_slate.core.stories.numbers import quantities_in
from keen_slate.core.stories.reading import read_story
from keen_slate.core.stories.understanding.amounts import stem
from keen_slate.core.stories.untold import NOT_TOLD, untold_in
from keen_slate.core.worked import work_text
from tests.core.test_certain import NAMES, SEED
from tests.ordinary import given, met, of_file, read, unclear

ALL = (*given(), *of_file("ordinary.txt"), *of_file("ordinary-closed.txt"))


class ReadTests(unittest.TestCase):
    def test_none_is_certain_and_wrong_and_nearly_all_are_right_at_once(self):
        found = Counter(map(met, ALL))
        self.assertEqual(found["certain, wrong"], 0)
        self.assertGreaterEqual(found["certain, right"], 0.97 * len(ALL), found)
        self.assertEqual(found["refused"] + found["not offered"], 0, found)

    def test_what_is_not_told_clearly_is_never_certain(self):
        for one in unclear():
            found = read(one.text)
            self.assertFalse(found is not None and found.certain, one.text)

    def test_of_somebody_of_whom_nothing_is_told_nothing_is_certain(self):
        named = re.compile(rf"\b(?:{'|'.join(NAMES)}|Basil|Linden|Tansy|Sorrel|Heather|Juniper|Alder)\b")
        seen = 0
        for one in ALL:
            told, _, question = one.text.rpartition(". ")
            if told and named.search(question):
                seen += 1
                found = read(f"{told}. {named.sub('Bracken', question)}")
                self.assertFalse(found is not None and found.certain, (one.text, question))
        self.assertGreater(seen, 12)

    def test_questions_of_other_stories_are_nearly_always_doubted(self):
        dice, certain, count = Random(SEED), [], 300
        parted = [one.text.rpartition(". ") for one in ALL if ". " in one.text]
        for _ in range(count):
            (told, _, own), (_, _, asked) = dice.sample(parted, 2)
            found = read(f"{told}. {asked}")
            if found is not None and found.certain and own != asked:
                certain.append((told, asked))
        self.assertLess(len(certain), 0.08 * count, (SEED, certain))


class WordTests(unittest.TestCase):
    def test_quantities_of_every_form_are_one_quantity_each(self):
        for told, wanted in (
            ("begins at 9:10 and ends at 1:05", ["9 1/6", "13 1/12"]), ("at 8:40 in the evening", ["20 2/3"]),
            ("at 12:15 a.m.", ["1/4"]),
            ("at half past nine", ["9 1/2"]), ("at a quarter to ten", ["9 3/4"]), ("at seven o'clock", ["7"]),
            ("it is -6.5 °C", ["-6.5"]),
            ("it is 3 °C and then 5 degrees below zero", ["3", "-5"]), ("5 dollars and 40 cents", ["5.40"]),
            ("1 m 35 cm", ["1.35"]),
            ("2 h 20 min", ["2 1/3"]), ("3 ft 7 in", ["3 7/12"]), ("6.25 more kilograms", ["6.25"]),
            ("page 38 in one hour", ["38", "1"]),
            ("8 1/2 in were left", ["8 1/2"]), ("a third is in the band", ["1/3"]),
        ):  # fmt: skip
            self.assertEqual([text(one.number) for one in quantities_in(f"Here: {told}.")], wanted, told)

    def test_verbs_and_nouns_are_known_in_their_forms(self):
        for word, base in (
            ("swum", "swim"),
            ("sawn", "saw"),
            ("carries", "carry"),
            ("trimmed", "trim"),
            ("used", "use"),
            ("buys", "buy"),
        ):
            self.assertEqual(base_of(word), base)
        self.assertEqual(
            [past_of(one) for one in ("swim", "saw", "carry", "trim", "mow", "cost")],
            ["swam", "sawed", "carried", "trimmed", "mowed", "cost"],
        )
        for one, many in (
            ("box", "boxes"),
            ("shelf", "shelves"),
            ("child", "children"),
            ("vase", "vases"),
            ("bus", "buses"),
            ("class", "classes"),
            ("berry", "berries"),
        ):
            self.assertEqual(stem(one), stem(many))
        self.assertEqual([verb_in("poured", frozenset([one])).effect for one in ("in", "out")], ["comes", "goes"])
        self.assertIsNone(verb_in("gave", frozenset(["back"])))


class SaidTests(unittest.TestCase):
    def test_answers_are_sentences_of_the_questions_own_words(self):
        for question, label, wanted in (
            ("How many pieces of 3/8 m can be cut from it?", "pieces", "_ of 3/8 m can be cut from it."),
            ("How much heavier is the cat?", "lb", "The cat is _ heavier."),
            ("What fraction of the rope did I use?", "", "I used _ of the rope."),
            ("How many minutes long is the film?", "minutes", "The film is _ long."),
            ("How much farther did he walk on Tuesday than on Monday?", "km",
                "He walked _ farther on Tuesday than on Monday."),
            ("How much seed has been sown?", "kg", "_ of seed has been sown."),
            ("How much did her aunt give her?", "$", "Her aunt gave her _."),
            ("How many minutes late is it?", "minutes", "It is _ late."),
            ("By how many inches is a pen of 5 inches longer than a nail of 3 inches?", "inches",
                "A pen of 5 inches is _ longer than a nail of 3 inches."),
            ("How many times as long as a lath is a beam?", "times", "A beam is _ as long as a lath."),
            ("At what time did it leave?", "hours", "It left at _."),
            ("How many hikers carried a map?", "hikers", "_ carried a map."),
            ("How much must be added to get 6 ft?", "ft", "_ must be added to get 6 ft."),
            ("How long does it take them to pave it, in hours?", "hours", "It takes them _ to pave it."),
            ("How much are they short?", "£", "They are _ short."),
            ("How many minutes more should she have swum?", "minutes", PLAIN),
        ):  # fmt: skip
            self.assertEqual(answer_sentence(question, (label, label.removesuffix("s")) if label else ()), wanted)

    def test_every_ordinary_story_is_answered_in_one_sentence(self):
        seen = Counter()
        for one in ALL:
            found = read(one.text)
            if found is None or not found.certain:
                continue
            said = published(work_text(one.text))["answer"]["text"]
            seen[said.startswith("Answer: ")] += 1
            self.assertRegex(said, r"^(?:Answer: \S.*|[A-Z\d$£-].*\.)$")
            self.assertNotRegex(said, r"\b([a-z]+) \1\b|\.\.|_|\bof (?:longer|more|late|fraction|part)\b", one.text)
        self.assertLess(seen[True], 0.03 * len(ALL), seen)

    def test_times_and_money_are_said_as_they_are_spoken_of(self):
        for told, said in (
            (
                "The train takes 1 3/4 hours and gets in at 11:20 a.m. At what time did it leave?",
                "It left at 9:35 a.m.",
            ),
            (
                "Fern's way takes 25 minutes. School begins at 9:10. When must she leave at the latest?",
                "She must leave at 8:45 at the latest.",
            ),
            (
                "Three notebooks and a pen cost $8.10 together. The pen costs $2.70. How much does one notebook cost?",
                "One notebook costs $1.80.",
            ),
            (
                "Four friends shared the cost of a tent equally. The tent was $131. How much did each of them pay?",
                "Each of them paid $32.75.",
            ),
        ):
            self.assertEqual(published(work_text(told))["answer"]["text"], said)

    def test_numbers_that_no_text_tells_are_named(self):
        for told, wanted in (
            ("5/8 of the wall is painted. What fraction of it is not painted?", [("1", "the whole")]),
            ("A square lawn has sides of 3 1/2 m. What is its perimeter?", [("4", "the sides of the square")]),
            (
                "A rectangular bed is 4 m long and 2 1/2 m wide. What is its perimeter?",
                [("2", "two sides of each length")],
            ),
            ("Ash threw 3 m, 4 m and 5 m. What was the average length of his throws?", [("3", "how many there are")]),
            (
                "22 candles are packed in boxes of 6. How many boxes are needed?",
                [("1/3", "what is missing to a whole one")],
            ),
            ("Fern's rope is 3 3/4 m long. Rowan's is twice as long. How long is Rowan's rope?", [("2", "twice")]),
            ("A rope is 3 m long. How long is it? {3 × 7}", [("7", NOT_TOLD)]),
        ):
            self.assertEqual(untold_in(read_story(told).story), wanted, told)

    def test_the_situation_of_a_typed_calculation_is_that_of_the_text(self):
        for told, wanted in (
            (
                "Two thirds of the 18 hikers carried a map. How many hikers carried a map? {2/3 × 18}",
                ("part-of", "part"),
            ),
            (
                "The red rope is 5 m long, the blue rope is 3 m long. How much longer is the red rope? {5 - 3}",
                ("compare", "difference"),
            ),
        ):
            story = read_story(told).story
            self.assertEqual((story.situation, story.unknown), wanted)

    def test_two_questions_are_a_and_b(self):
        for told, calculation, said in (
            (
                "A rope is 12 m long. Fern cuts off 3 3/4 m and then 2 1/2 m more. How much did she cut off in all? "
                "How much rope is left?",
                "steps answer: a = 3 3/4 + 2 1/2; 12 - a",
                "a) She cut 6 1/4 m off in all. b) 5 3/4 m of rope is left.",
            ),
            (
                "The red rope is 5 1/2 m long, the blue rope is 3 1/4 m long. How long are they together? How much "
                "longer is the red rope?",
                "steps answer: a = 5 1/2 + 3 1/4; 5 1/2 - 3 1/4",
                "a) They are 8 3/4 m long together. b) The red rope is 2 1/4 m longer.",
            ),
        ):
            found = read_story(told)
            self.assertTrue(found.certain, told)
            self.assertEqual(
                (found.story.calculation(), published(work_text(told))["answer"]["text"]), (calculation, said)
            )
            self.assertEqual(read_story(found.story.source).story, found.story)
        doubted = read_story(
            "A rope is 3 m long. Fern frobs 1 m of it. How long is it? How much longer is it than 2 m?"
        )
        self.assertFalse(doubted.certain)


# Sentences that change what a story comes to, or may do so; with one of them before the question nothing is as it was.
TURNS = (
    "Then he gave half of it back.", "It was the same on the next day.", "A friend had twice as much.",
    "Then 3 of them were broken.",
    "One of them was not used.", "The other half was sold.", "Two of them did not come.", "Some more came later.",
)  # fmt: skip


class TurnedTests(unittest.TestCase):
    def test_a_sentence_that_turns_the_story_is_never_passed_over(self):
        dice = Random(SEED)
        for one in ALL:
            told, _, question = one.text.rpartition(". ")
            if not told:
                continue
            turn = dice.choice(TURNS)
            found = read(f"{told}. {turn} {question}")
            self.assertFalse(
                found is not None and found.certain and value(found.story.whole) == one.value, (SEED, one.text, turn)
            )
