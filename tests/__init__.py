"""Tests of Hakutsu."""

from hypothesis import HealthCheck, settings

# Nothing is judged by the clock: machines are noisy, and speed is shown in `bench/`.
settings.register_profile("hakutsu", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("hakutsu")
