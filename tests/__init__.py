"""All tests. What holds for property tests everywhere is said here once."""

from hypothesis import HealthCheck, settings

# A busy machine decides nothing, and the sample is the same each time; script/fuzz looks further.
settings.register_profile("steady", deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
settings.load_profile("steady")
