"""Rules of service papers: the plan against what is proven, the countdown, advisories, owners and cover."""
