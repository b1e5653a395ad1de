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
