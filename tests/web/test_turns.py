"""Pages go first, in turn; the background works behind them, one piece at a time."""

import asyncio
import threading
import time
import unittest
from unittest.mock import patch

from hakutsu.web import turns
from hakutsu.web.turns import Turns


class Pages(unittest.TestCase):
    def test_few_at_a_time_in_the_order_they_came(self):
        async def work():
            taking, at_once, most, order = Turns(2), 0, 0, []

            async def page(number):
                nonlocal at_once, most
                async with taking.taken():
                    at_once += 1
                    most = max(most, at_once)
                    order.append(number)
                    await asyncio.sleep(0)
                    at_once -= 1

            await asyncio.gather(*(page(number) for number in range(7)))
            return most, order

        self.assertEqual(asyncio.run(work()), (2, list(range(7))))

    def test_one_that_fails_gives_its_turn_back(self):
        async def work():
            taking = Turns(1)
            for _ in range(3):
                try:
                    async with taking.taken():
                        raise ValueError
                except ValueError:
                    pass
            return taking._wanted

        self.assertEqual(asyncio.run(work()), 0)


class Behind(unittest.TestCase):
    def begins_after(self, taking, stopped=None):
        began = time.monotonic()
        with taking.behind(stopped or threading.Event()):
            return time.monotonic() - began

    def test_it_waits_for_calm_but_not_for_ever(self):
        taking, stopped = Turns(), threading.Event()
        self.assertLess(self.begins_after(taking), 0.2)
        taking.asked()
        with patch.object(turns, "CALM", 0.3):
            self.assertGreaterEqual(self.begins_after(taking), 0.2)
        taking._wanted = 1
        with patch.object(turns, "LONGEST", 0.3):
            self.assertGreaterEqual(self.begins_after(taking), 0.3)
        stopped.set()
        self.assertLess(self.begins_after(taking, stopped), 0.3)

    def test_one_piece_at_a_time(self):
        taking, stopped, at_once, most = Turns(), threading.Event(), 0, 0

        def work():
            nonlocal at_once, most
            with taking.behind(stopped):
                at_once += 1
                most = max(most, at_once)
                time.sleep(0.01)
                at_once -= 1

        threads = [threading.Thread(target=work) for _ in range(5)]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        self.assertEqual(most, 1)
