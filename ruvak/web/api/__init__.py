"""Blueprints by topic: every module here that has one called `api` is served."""

from collections.abc import Iterator
from importlib import import_module
from pkgutil import iter_modules

from flask_openapi3 import APIBlueprint


def blueprints() -> Iterator[APIBlueprint]:
    """In the order of the modules' names."""
    for module in iter_modules(__path__):
        api = getattr(import_module(f"{__name__}.{module.name}"), "api", None)
        if isinstance(api, APIBlueprint):
            yield api
