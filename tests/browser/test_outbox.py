from tests.browser.case import BrowserCase


class Outbox(BrowserCase):
    """The server dies in the middle; nothing typed is lost, and nothing arrives twice."""

    def tearDown(self):
        if self.server.process.poll() is not None:
            self.server.start()

    def type_offline(self, text):
        self.one("#line").send_keys(text + "\n")
        self.wait(lambda: self.one("#line").get_property("value") == "")

    def readings(self, here):
        script = "return fetch(arguments[0]).then((answer) => answer.json())"
        entries = self.driver.execute_script(script, f"{here}/entries")
        return [entry["body"]["value_um"] for entry in entries if entry["kind"] == "film.reading"]

    def test_readings_typed_while_the_server_is_dead_arrive_after_a_reload_once_and_in_order(self):
        here = self.new_inspection()
        self.type_line("118")
        self.server.kill()
        for number in ("119", "120", "bo 121"):
            self.type_offline(number)
        self.wait(lambda: "3 waiting" in self.text("#saved"))
        self.server.start()
        self.open(f"{here}/film")
        self.wait(lambda: self.all("html[data-ready=film]"))
        self.wait_saved()
        # The page left behind may have sent them while this one was being rendered: then only a new look shows them.
        self.wait(lambda: len(self.readings(here)) >= 4)
        self.assertEqual(self.readings(here), [118, 119, 120, 121])
        self.open(f"{here}/film")
        self.assertEqual(self.count_on("bonnet"), "1/3")

    def test_it_keeps_trying_without_a_reload(self):
        here = self.new_inspection()
        self.server.kill()
        self.type_offline("133")
        self.wait(lambda: "kept on this device" in self.text("#saved"))
        self.server.start()
        self.wait_saved()
        self.assertEqual(self.readings(here), [133])

    def test_an_answer_lost_on_the_way_does_not_store_twice(self):
        here = self.new_inspection()
        self.driver.execute_script(
            "const real = window.fetch; let lost = true;"
            "window.fetch = async (...a) => { const answer = await real(...a);"
            "  if (lost && a[1]?.method === 'POST') { lost = false; throw new TypeError('lost'); } return answer; };"
        )
        self.type_offline("127")
        self.wait_saved()
        self.wait(lambda: self.count_on("roof") == "1/3")
        self.assertEqual(self.readings(here), [127])

    def stored_and_aside(self, here):
        """What the server has, and what the page says is not stored."""
        return self.readings(here), self.text("#aside-open")

    def refusing(self, status, times=99):
        """Let the server's answer be a status where an entry of 777 is sent (so often)."""
        self.driver.execute_script(
            "const real = window.fetch; let left = arguments[1];"
            "window.fetch = async (...a) => {"
            "  if (a[1]?.method === 'POST' && a[1].body.includes('777') && left > 0) { left -= 1;"
            "    return new Response(JSON.stringify({message: 'no such thing'}), {status: arguments[0]}); }"
            "  return real(...a); };",
            status,
            times,
        )

    def test_whatever_the_server_says_of_one_the_others_go_on(self):
        for status in (400, 413, 500):
            with self.subTest(status):
                here = self.new_inspection()
                self.refusing(status)
                for number in ("777", "118", "119"):
                    self.type_offline(number)
                self.wait(lambda: self.text("#aside-open") == "1 not stored", f"{status}: {self.text('#saved')}")
                self.wait_saved()
                self.assertEqual(self.stored_and_aside(here), ([118, 119], "1 not stored"))
                self.open(f"{here}/film")  # it is shown after a reload, on every page that writes
                self.wait(lambda: self.text("#aside-open") == "1 not stored")

    def test_a_fault_of_the_server_that_passes_is_no_reason_to_step_aside(self):
        here = self.new_inspection()
        self.refusing(500, times=2)
        self.type_offline("777")
        self.wait(lambda: self.readings(here) == [777])
        self.assertEqual(self.text("#aside-open"), "")

    def test_what_stepped_aside_is_mended_and_sent_again_or_dropped(self):
        here = self.new_inspection()
        self.refusing(400)
        for number in ("777", "1777"):
            self.type_offline(number)
        self.wait(lambda: self.text("#aside-open") == "2 not stored")
        self.press("#aside-open")
        self.wait(lambda: self.one("#aside").is_displayed())
        self.assertIn("Not stored: no such thing", self.text("#aside"))
        field = self.one('#aside form input[name="value_um"]')
        field.clear()
        field.send_keys("117")
        self.press("#aside form .button-main")
        self.wait(lambda: self.readings(here) == [117])
        self.wait(lambda: self.text("#aside-open") == "1 not stored")
        self.press("#aside form button:not(.button-main)")
        self.wait(lambda: not self.all("#aside-open"))
        self.assertFalse(self.one("#aside").is_displayed())
        self.assertEqual(self.readings(here), [117])

    def test_an_entry_the_server_refuses_is_said_and_does_not_block_the_next(self):
        here = self.new_inspection()
        self.driver.execute_script(
            "return import('/static/js/outbox.js').then(({ Outbox, draft }) => {"
            "  const box = new Outbox(arguments[0], { context: () => ({}), onReply() {}, onState() {},"
            "    onRefused: (refused) => { window.refused = refused; } });"
            "  return box.add([draft('film.reading', { value_um: 118 }, { place: 'keel' }),"
            "    draft('film.reading', { value_um: 119 }, { place: 'roof' })]).then(() => box.sending); });",
            here.split("/")[2],
        )
        self.wait(lambda: self.driver.execute_script("return window.refused && window.refused[0].field") == "place")
        self.assertEqual(self.readings(here), [119])
