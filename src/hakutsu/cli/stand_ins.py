"""Stand-ins for outside devices."""

from __future__ import annotations

from typing import Annotated

import typer

from hakutsu.cli.common import LOOPBACK, fail, gauges, vehicles


@gauges.command("simulate")
def simulate_gauge(
    car: Annotated[str, typer.Option(help="A car that ships (strand, lantern, fell), or any name: it is the seed.")],
    port: Annotated[int, typer.Option(min=0, max=65535, help="Port on loopback; 0 takes a free one.")] = 0,
    style: Annotated[str | None, typer.Option(help="Body style, where the car is not one that ships.")] = None,
    doors: Annotated[int | None, typer.Option(help="Number of doors, likewise.")] = None,
    until_stdin_closes: Annotated[bool, typer.Option("--until-stdin-closes", help="End with its owner.")] = False,
) -> None:
    """Measure a simulated painted car: the line protocol of docs/format.md on a loopback port."""
    from hakutsu.instruments.gauge_stand_in import StandIn, serve_stand_in

    try:
        stand_in = StandIn(car, style, doors)
    except KeyError as error:
        fail(f"no body of style {style} with {doors} doors: {error}")
    try:
        serve_stand_in(stand_in, port, _announce_gauge, until_stdin_closes=until_stdin_closes)
    except OSError as error:
        fail(f"port {port} on {LOOPBACK} cannot be used ({error.strerror}); choose another with --port", code=1)


def _announce_gauge(port: int) -> None:
    print(f"stand-in gauge at socket://{LOOPBACK}:{port}", flush=True)


@vehicles.command("simulate")
def simulate_vehicle(
    scenario: Annotated[str, typer.Option(help="What its control units have to say; see docs/format.md.")] = "healthy",
    engine: Annotated[str | None, typer.Option(help="Another engine than the scenario's, such as overheating.")] = None,
    fast: Annotated[float, typer.Option(min=0.1, max=600, help="How much faster than the clock its time runs.")] = 1.0,
    port: Annotated[int, typer.Option(min=0, max=65535, help="Port on loopback; 0 takes a free one.")] = 0,
    until_stdin_closes: Annotated[bool, typer.Option("--until-stdin-closes", help="End with its owner.")] = False,
) -> None:
    """Let a simulated vehicle idle behind a simulated adapter: its control units on a loopback port."""
    from hakutsu.instruments.diagnostic.simulated_engine import engines
    from hakutsu.instruments.diagnostic.simulated_vehicle import SimulatedVehicle, scenarios
    from hakutsu.instruments.diagnostic.stand_in import serve_vehicle

    if scenario not in scenarios():
        fail(f"no scenario “{scenario}” ships; there are {', '.join(scenarios())}")
    if engine is not None and engine not in engines():
        fail(f"no engine “{engine}” ships; there are {', '.join(engines())}")
    try:
        vehicle = SimulatedVehicle.of(scenario, engine, fast)
        serve_vehicle(vehicle, port, _announce_vehicle, until_stdin_closes=until_stdin_closes)
    except OSError as error:
        fail(f"port {port} on {LOOPBACK} cannot be used ({error.strerror}); choose another with --port", code=1)


def _announce_vehicle(port: int) -> None:
    print(f"stand-in adapter at socket://{LOOPBACK}:{port}", flush=True)
