"""ruvak solve | netlists | clamp | export | import | backup | restore | add-person | passphrase-link | migrate | demo |
schema | openapi"""

import argparse
import json
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import get_args

from sqlalchemy.exc import OperationalError

from ruvak.core.analyse import analyse
from ruvak.core.errors import RigFault, RuvakError
from ruvak.core.parts.reading import file_schema, rig_from_json
from ruvak.core.prepare import prepare
from ruvak.core.results.clamp import earth_from_current
from ruvak.core.rig.edits import apply
from ruvak.core.rig.files import rig_to_json
from ruvak.formats.house import house_from_zip, house_to_zip
from ruvak.formats.spice import netlists
from ruvak.service.access import Role
from ruvak.service.demo_data import add_demo
from ruvak.service.people import PassphraseLink
from ruvak.service.states import Person
from ruvak.service.upkeep import back_up, bring_back, house_at, house_import_at, migrate, people_at, rigs_at

AT_THE_PROMPT = Person(id="command-line", name="Command line")
DEMO_ADDRESS = "http://127.0.0.1:8140"


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; 0 when it worked, 2 with a sentence on standard error when it did not."""
    options = _parser().parse_args(arguments)
    command: Callable[[argparse.Namespace], str] = options.command
    try:
        said = command(options)
    except RigFault as fault:
        for entry in fault.faults:
            print(f"ruvak: {entry.where}: {entry.sentence}", file=sys.stderr)
        return 2
    except RuvakError as problem:
        print(f"ruvak: {problem}", file=sys.stderr)
        return 2
    except OperationalError:
        print("ruvak: the database does not answer. Start it with script/demo, then try again.", file=sys.stderr)
        return 2
    except OSError as problem:
        print(f"ruvak: {problem.filename}: {problem.strerror}.", file=sys.stderr)
        return 2
    if said:
        print(said)
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ruvak", description="Plans sound runs and computes what they will do.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    def add(name: str, words: str, command: Callable[[argparse.Namespace], str]) -> argparse.ArgumentParser:
        made = commands.add_parser(name, help=words, description=words)
        made.set_defaults(command=command)
        return made

    add("solve", "analyse a rig file and print the analysis as JSON", _solve).add_argument("file", type=Path)
    spice = add("netlists", "write a rig file's SPICE netlists, one for each disturbance and channel", _netlists)
    spice.add_argument("file", type=Path)
    spice.add_argument("-o", "--output", type=Path, required=True, help="folder to write them into")
    clamp = add(
        "clamp", "enter what a clamp meter round a lead shows, and write the rig file with the earth voltage", _clamp
    )
    clamp.add_argument("file", type=Path)
    clamp.add_argument("item", help="the lead's id")
    clamp.add_argument("ampere", type=float, help="reading, total rms")
    clamp.add_argument("-o", "--output", type=Path, required=True, help="rig file to write")
    export = add("export", "write a saved rig as a rig file", _export)
    export.add_argument("rig")
    export.add_argument("-o", "--output", type=Path, help="file to write; standard output without it")
    add("import", "save a rig file into the database", _import).add_argument("file", type=Path)
    add("backup", "write every rig with its history into one file", _backup).add_argument("file", type=Path)
    add("restore", "replace everything in the database by a backup", _restore).add_argument("file", type=Path)
    person = add("add-person", "add somebody with an account, and print the link to choose a passphrase", _add_person)
    person.add_argument("name")
    person.add_argument("--role", choices=get_args(Role), default="owner", help="owner where it is left out")
    renewed = add("passphrase-link", "print a link for somebody who has forgotten their passphrase", _passphrase_link)
    renewed.add_argument("name")
    for command in (person, renewed):
        command.add_argument("--address", default=DEMO_ADDRESS, help=f"of the server ({DEMO_ADDRESS})")
    add("export-house", "write the whole house as one archive of JSON and CSV", _export_house).add_argument(
        "file", type=Path
    )
    add("import-house", "add what an exported house has and this one does not", _import_house).add_argument(
        "file", type=Path
    )
    add("migrate", "bring the database's schema up to date", _migrate)
    add("demo", "add the demo rig to an empty database", _demo)
    add("schema", "print the rig format's JSON Schema", _schema)
    add("openapi", "print the API's OpenAPI document", _openapi)
    return parser


def _url() -> str:
    url = os.environ.get("RUVAK_DATABASE_URL")
    if not url:
        raise RuvakError("RUVAK_DATABASE_URL is not set. Use script/ruvak while script/demo runs: it sets it.")
    return url


def _solve(options: argparse.Namespace) -> str:
    return analyse(rig_from_json(options.file.read_bytes())).model_dump_json(indent=2)


def _netlists(options: argparse.Namespace) -> str:
    written = netlists(rig_from_json(options.file.read_bytes()))
    options.output.mkdir(parents=True, exist_ok=True)
    for name, text in written.items():
        (options.output / name).write_text(text, encoding="ascii")
    return f"Wrote {len(written)} netlists to {options.output}; run one with: ngspice -b {next(iter(written))}"


def _clamp(options: argparse.Namespace) -> str:
    rig = prepare(rig_from_json(options.file.read_bytes()))
    edit = earth_from_current(rig, options.item, options.ampere)
    options.output.write_text(rig_to_json(apply(rig, edit)), encoding="utf-8")
    return f"{edit.label}. Wrote {options.output}."


def _export(options: argparse.Namespace) -> str:
    text = rig_to_json(rigs_at(_url()).export(options.rig))
    if options.output is None:
        return text.rstrip("\n")
    options.output.write_text(text, encoding="utf-8")
    return f"Wrote {options.output}."


def _import(options: argparse.Namespace) -> str:
    state = rigs_at(_url()).import_rig(rig_from_json(options.file.read_bytes()), AT_THE_PROMPT)
    return f"Saved as {state.rig.id}."


def _backup(options: argparse.Namespace) -> str:
    back_up(_url(), options.file)
    return f"Wrote {options.file}."


def _restore(options: argparse.Namespace) -> str:
    bring_back(_url(), options.file)
    return f"Everything is as it was in {options.file}."


def _export_house(options: argparse.Namespace) -> str:
    if options.file.exists():
        raise RuvakError(f"{options.file} exists already; name another file.")
    options.file.write_bytes(house_to_zip(house_at(_url()).export()))
    return f"Wrote {options.file}."


def _import_house(options: argparse.Namespace) -> str:
    made = house_import_at(_url()).add(house_from_zip(options.file.read_bytes()), AT_THE_PROMPT)
    counted = (
        f"{made.rigs} rigs, {made.occasions} dates, {made.things} things, {made.venues} venues, {made.people} people"
    )
    return "\n".join((f"Added {counted}.", *made.said))


def _add_person(options: argparse.Namespace) -> str:
    return _link_words(people_at(_url()).add(options.name, options.role, AT_THE_PROMPT.name), options.address)


def _passphrase_link(options: argparse.Namespace) -> str:
    people = people_at(_url())
    return _link_words(people.renew_passphrase(people.named(options.name), AT_THE_PROMPT.name), options.address)


def _link_words(link: PassphraseLink, address: str) -> str:
    until = f"{link.ends_at.astimezone():%Y-%m-%d %H:%M}"
    return f"{link.name} chooses a passphrase, once and until {until}, at\n{address.rstrip('/')}/#/link/{link.token}"


def _migrate(options: argparse.Namespace) -> str:
    migrate(_url())
    return ""


def _demo(options: argparse.Namespace) -> str:
    return "Added the demo rigs." if add_demo(_url()) else ""


def _schema(options: argparse.Namespace) -> str:
    return json.dumps(file_schema(), indent=2)


def _openapi(options: argparse.Namespace) -> str:
    from ruvak.web.openapi import describe_api

    return json.dumps(describe_api(), indent=2)


if __name__ == "__main__":
    sys.exit(main())
