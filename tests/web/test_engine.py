from uuid import uuid4
from xml.etree import ElementTree

from hakutsu.core.engine.warm_up import Sample, warm_up
from hakutsu.entries.day import Arrival
from hakutsu.entries.engine import Air, Battery, EngineLook, EngineSample, EngineStart, Pack
from hakutsu.entries.fluids import Fluid
from hakutsu.entries.general import Strike
from hakutsu.entries.money import MechanicsSaid
from hakutsu.figures.warm_up import warm_up_curve
from tests.builders import NOON
from tests.web.case import RoundCase

HEALTHY = [15, 24, 32, 39, 46, 52, 57, 62, 66, 70, 74, 77, 80, 83, 85, 87, 89, 90, 90, 90, 90, 90, 90, 90, 90, 90]


class EngineStation(RoundCase):
    def text(self, room):
        answer = self.client.get(f"{self.here}/engine/{room}")
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def run_up(self, values, **more):
        self.write("engine.start", EngineStart(coolant_c=values[0], **more))
        for minute, degrees in enumerate(values[1:], 1):
            self.write("engine.sample", EngineSample(minute=minute, coolant_c=degrees))

    def causes(self):
        return [one.cause.key for one in self.client.app.state.desk.reckoning(self.inspection).stand_downs]

    def test_rooms_stand_empty_and_a_wrong_one_says_which_there_are(self):
        self.assertIn("5 more before anything can be said", self.text("run"))
        self.assertIn("Not measured", self.text("air"))
        self.assertIn("Not measured", self.text("electric"))
        self.assertEqual(self.client.get(f"{self.here}/engine/cellar").status_code, 404)
        self.assertNotIn("Engine, air and battery", self.client.get(f"{self.here}/report").text)

    def test_an_electric_vehicle_has_nothing_to_warm_up(self):
        self.assertNotIn("no engine to warm up", self.text("run"))
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "electric"}))
        self.assertIn("no engine to warm up", self.text("run"))
        self.assertNotIn("engine_warm_up", [one.part for one in self.place("bay").parts])

    def test_high_is_usual_only_where_a_computer_moves_the_thermostat(self):
        self.run_up([15, *(min(15 + 12 * m, 108) for m in range(1, 22))])
        self.assertIn("High: normal only where", self.text("run"))
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"map_thermostat": True}))
        self.assertIn("Usual", self.text("run"))
        self.assertNotIn("High: normal", self.text("run"))

    def test_a_healthy_run_settles_is_drawn_and_reported(self):
        self.run_up(HEALTHY, smoke="blue_start")
        text = self.text("run")
        self.assertIn("Usual", text)
        self.assertIn("Settled at 90", text)
        self.assertEqual(text.count("wu-read"), len(HEALTHY) - 1)
        self.assertIn("oil past the valve seals", text)
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("Engine, air and battery", report)
        self.assertIn("usual: settled at 90", report)
        self.assertEqual(self.causes(), [])

    def test_heat_stands_down_and_a_single_odd_reading_only_asks_for_another(self):
        self.run_up(HEALTHY[:20])
        self.write("engine.sample", EngineSample(minute=20, coolant_c=131))
        self.assertIn("read again at once", self.text("run"))
        self.assertEqual(self.causes(), [])
        written = self.write("engine.sample", EngineSample(minute=20.2, coolant_c=130))
        self.assertIn("Stop the engine", self.text("run"))
        self.assertEqual(self.causes(), ["overheating"])
        self.assertIn("Stand-down", self.text("run"))
        self.write("general.strike", Strike(because="mistyped"), strikes=written)
        self.assertEqual(self.causes(), [])

    def test_lamps_and_steam_stop_at_once(self):
        self.write("engine.look", EngineLook(steam=True))
        self.write("engine.look", EngineLook(oil_lamp=True, fumes="puffing"))
        self.assertEqual(self.causes(), ["overheating", "oil_pressure"])

    def test_a_second_start_begins_a_new_run_and_takes_nothing_back(self):
        self.run_up(HEALTHY[:6])
        self.write("engine.start", EngineStart(jump_started=True))
        self.write("engine.look", EngineLook(fumes="puffing"))
        self.assertEqual(self.dossier().engine.now.samples, [])
        self.assertIn("jump started", self.text("run"))
        self.write("engine.start", EngineStart(noise="tick", noise_is="still"))
        codes = {one.code for one in self.client.app.state.desk.reckoning(self.inspection).findings}
        self.assertLessEqual({"engine.jump_started", "engine.fumes_puffing", "engine.noise_stays"}, codes)
        self.assertEqual(len(self.dossier().engine.told.coolant), 5)
        for minute in range(5):
            self.write("engine.sample", EngineSample(minute=minute, coolant_c=80 + minute))
        self.assertEqual([one[1] for one in self.dossier().engine.told.coolant][:2], [80, 81])

    def test_an_idling_diesel_in_the_cold_is_left_open(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "diesel"}))
        arrival = Arrival(weather="snow", light="daylight", stands="level", there="seller", engine="measured",
                          engine_c=1, surroundings_c=0)  # fmt: skip
        self.write("day.arrival", arrival)
        self.run_up([0, *(round(56 * (1 - 0.9**m), 1) for m in range(1, 25))])
        self.assertIn("judge after the drive", self.text("run"))

    def test_fluids_are_told_in_words_and_swatches_and_counted_together(self):
        self.write("fluid.looked", Fluid(fluid="engine_oil", colour="cream"))
        self.write("fluid.looked", Fluid(fluid="coolant", debris=("film",), freezes_c=-4))
        text = self.text("fluids")
        for said in (
            "(counted together)",
            "pale cream, like mayonnaise",
            "Coolant freezes at −4 °C",
            "winter of −15 °C",
        ):
            self.assertIn(said, text)
        self.assertIn("pressure test", self.client.get(f"{self.here}/report").text)
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "electric"}))
        self.assertNotIn("Save engine oil", self.text("fluids"))

    def test_air_battery_and_pack_say_what_their_conditions_allow(self):
        self.write("engine.air", Air(intake_c=25, vent_c=10, humidity=0.5, heater_c=40, engine_warm=True))
        air = self.text("air")
        self.assertIn("Cools as it should", air)
        self.assertIn("Heater does not heat", air)
        self.write("engine.battery", Battery(rest_v=12.6, rested_h=1, charging_v=13.0))
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"first_used": "2022-11-20"}))
        self.write("engine.pack", Pack(health=0.9, spread_mv=150, charged=0.5, chemistry="nmc", cycles=500))
        text = self.text("electric")
        for said in ("says nothing: not rested four hours", "13 V where 13.8 to 14.7", "cells 150 mV apart",
                     "Pack health 90 %", "usual at this age 88 %"):  # fmt: skip
            self.assertIn(said, text)

    def test_impossible_numbers_are_refused_at_their_field(self):
        for body, field in (
            ({"minute": -1, "coolant_c": 20}, "minute"),
            ({"minute": 1, "coolant_c": 900}, "coolant_c"),
        ):
            draft = {"id": str(uuid4()), "at": NOON.isoformat(), "kind": "engine.sample", "body": body}
            reply = self.client.post(f"{self.here}/entries", json={"entries": [draft]}).json()
            self.assertEqual(reply["refused"][0]["field"], field)

    def test_the_curve_is_well_formed_with_and_without_a_fit(self):
        samples = [Sample(m, t) for m, t in enumerate(HEALTHY)]
        ElementTree.fromstring(warm_up_curve([], None))
        ElementTree.fromstring(warm_up_curve(samples, warm_up(samples)))
