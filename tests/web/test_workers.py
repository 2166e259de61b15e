"""The processes of heavy requests: bounded by work and not by waiting, ended when they die or grow, none holds up
another.
"""

import os
import signal
import threading
import time
import unittest
from pathlib import Path

from keen_slate.core.searching.deadline import EndedEarlyError, look, one_of_many, passed
from keen_slate.web.workers import LARGEST, DiedError, Workers


def pid():
    return os.getpid()


def refuse():
    raise EndedEarlyError("Too long.")


def die():
    os.kill(os.getpid(), signal.SIGKILL)


def never_looks():
    while True:
        pass


def sleep(seconds):
    time.sleep(seconds)
    return passed()


def works(seconds):
    end = time.process_time() + seconds
    while time.process_time() < end:
        look()
    return True


def many(seconds, count):
    for _ in range(count):
        with one_of_many():
            works(seconds)
    return True


def grow(size):
    return len(bytearray(os.urandom(1)) * size), os.getpid()


def is_running(process):
    """Whether there is a process of this number that has not ended."""
    try:
        return Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False


class WorkerTests(unittest.TestCase):
    def setUp(self):
        self.workers = Workers()
        self.addCleanup(self.workers.stop)

    def run_one(self, task, *arguments, seconds=10):
        with self.workers.at_work(seconds, task, arguments) as under_way:
            while not under_way.done(0.02):
                pass
            return under_way.result()

    def test_a_process_stays_for_the_next_task_also_after_a_refusal(self):
        first = self.run_one(pid)
        with self.assertRaisesRegex(EndedEarlyError, "Too long"):
            self.run_one(refuse)
        self.assertEqual(self.run_one(pid), first)

    def test_one_that_dies_takes_nothing_with_it(self):
        innocent = []
        thread = threading.Thread(target=lambda: innocent.append(self.run_one(sleep, 1)))
        thread.start()
        for _ in range(3):
            with self.assertRaises(DiedError) as caught:
                self.run_one(die)
            self.assertFalse(caught.exception.worked_too_long)
            self.assertGreater(self.run_one(pid), 0)
        thread.join()
        self.assertEqual(innocent, [False])

    def test_an_idle_one_that_was_killed_is_replaced(self):
        first = self.run_one(pid)
        os.kill(first, signal.SIGKILL)
        while is_running(first):
            time.sleep(0.01)
        self.assertNotIn(self.run_one(pid), (0, first))

    def test_bounds_count_work_and_not_waiting(self):
        self.assertFalse(self.run_one(sleep, 1.3, seconds=1))  # it slept over its bound, and has all of it left
        with self.assertRaises(EndedEarlyError):
            self.run_one(works, 5, seconds=1)
        with self.assertRaises(DiedError) as caught:
            self.run_one(never_looks, seconds=-4)  # with the grace, one second
        self.assertTrue(caught.exception.worked_too_long)
        self.assertTrue(self.run_one(many, 0.3, 5, seconds=1))  # each of many has its own bound

    def test_one_that_has_grown_is_ended_after_its_task(self):
        _size, first = self.run_one(grow, LARGEST // 4)
        self.assertEqual(self.run_one(pid), first)
        _, second = self.run_one(keep_grown, LARGEST)
        self.assertEqual(second, first)
        self.assertNotEqual(self.run_one(pid), first)

    def test_what_cannot_be_sent_is_refused_here_and_hurts_nobody(self):
        deep = []
        for _ in range(5000):
            deep = [deep]
        with self.assertRaises(RecursionError):
            self.run_one(len, deep)
        self.assertGreater(self.run_one(pid), 0)


KEPT = []


def keep_grown(size):
    KEPT.append(bytearray(os.urandom(1)) * size)
    return size, os.getpid()
