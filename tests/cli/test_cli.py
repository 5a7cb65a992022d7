"""The ruvak command, as a person runs it."""

import contextlib
import io
import json
import os
import tempfile
from pathlib import Path
from unittest import mock

from ruvak.cli.main import main
from ruvak.core.analyse import analyse
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.files import rig_to_json
from ruvak.service.states import Person
from tests.support.database import DatabaseTest, new_database
from tests.support.earths import class_1, earthed, hum_of, outlets, ts_cable, ts_input, ts_source
from tests.support.rigs import demo_rig


class Command(DatabaseTest):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.file = self.folder / "rig.json"
        self.file.write_text(rig_to_json(demo_rig()), encoding="utf-8")

    def run_command(self, *arguments: str, url: str | None = None) -> tuple[int, str, str]:
        out, err = io.StringIO(), io.StringIO()
        environment = {"RUVAK_DATABASE_URL": url or self.url}
        with mock.patch.dict(os.environ, environment), contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            code = main(list(arguments))
        return code, out.getvalue(), err.getvalue()

    def test_solve_prints_the_analysis(self) -> None:
        code, out, _ = self.run_command("solve", str(self.file))
        self.assertEqual(code, 0)
        self.assertEqual(json.loads(out), analyse(demo_rig()).model_dump(mode="json"))

    def test_solve_takes_a_file_that_only_names_library_parts(self) -> None:
        bare = json.loads(self.file.read_text(encoding="utf-8"))
        del bare["parts"], bare["assumptions"]
        self.file.write_text(json.dumps(bare), encoding="utf-8")
        _, out, _ = self.run_command("solve", str(self.file))
        self.assertEqual(json.loads(out), analyse(demo_rig()).model_dump(mode="json"))

    def test_netlists_are_written_into_a_folder(self) -> None:
        code, out, _ = self.run_command("netlists", str(self.file), "-o", str(self.folder / "spice"))
        written = sorted(path.name for path in (self.folder / "spice").iterdir())
        self.assertEqual(code, 0)
        self.assertIn(f"Wrote {len(written)} netlists", out)
        self.assertTrue(any(name.endswith("-programme.cir") for name in written), written)

    def test_a_clamp_reading_is_written_into_the_rig_file(self) -> None:
        parts = [ts_source("source", 600, class_1(1e-9)), ts_input("desk", 1e9, class_1(1e-9)), ts_cable()]
        run = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        rig = earthed(parts, run, leads, {"source": "here", "desk": "there"}, outlets(here=0.0, there=0.0))
        self.file.write_text(rig_to_json(rig), encoding="utf-8")
        measured = self.folder / "measured.json"
        code, out, _ = self.run_command("clamp", str(self.file), "lead", "0.05", "-o", str(measured))
        self.assertEqual(code, 0)
        self.assertIn("60 mV between outlets", out)
        self.assertAlmostEqual(hum_of(rig_from_json(measured.read_bytes())).likely_dbu, -23.8, delta=0.05)
        code, _, err = self.run_command("clamp", str(self.file), "ghost", "0.05", "-o", str(measured))
        self.assertEqual((code, err), (2, "ruvak: There is no lead 'ghost' in this rig.\n"))

    def test_a_bad_file_is_told_field_by_field(self) -> None:
        self.file.write_text('{"format": "ruvak-rig", "version": 2, "id": "A b"}', encoding="utf-8")
        code, out, err = self.run_command("solve", str(self.file))
        self.assertEqual((code, out), (2, ""))
        self.assertIn("ruvak: id: should be small letters", err)
        self.assertIn("ruvak: venue: is missing", err)

    def test_a_missing_file(self) -> None:
        code, _, err = self.run_command("solve", str(self.folder / "none.json"))
        self.assertEqual(code, 2)
        self.assertIn("No such file", err)

    def test_import_and_export_lose_nothing(self) -> None:
        code, out, _ = self.run_command("import", str(self.file))
        self.assertEqual(code, 0)
        name = out.split()[-1].rstrip(".")
        copy = self.folder / "copy.json"
        self.assertEqual(self.run_command("export", name, "-o", str(copy))[0], 0)
        self.assertEqual(rig_from_json(copy.read_bytes()), demo_rig().with_fields(id=name))
        self.assertEqual(self.run_command("export", "nothing")[0], 2)

    def test_backup_and_restore_bring_everything_back(self) -> None:
        saved = self.rigs.import_rig(demo_rig(), Person(id="a", name="A")).rig
        file = self.folder / "all.backup"
        self.assertEqual(self.run_command("backup", str(file))[0], 0)
        self.rigs.delete(saved.id)
        self.assertEqual(self.run_command("restore", str(file))[0], 0)
        self.assertEqual(self.rigs.export(saved.id), saved)

    def test_a_backup_restores_into_an_empty_database(self) -> None:
        saved = self.rigs.import_rig(demo_rig(), Person(id="a", name="A")).rig
        file = self.folder / "all.backup"
        self.run_command("backup", str(file))
        fresh = new_database()
        self.assertEqual(self.run_command("restore", str(file), url=fresh)[0], 0)
        code, out, _ = self.run_command("export", saved.id, url=fresh)
        self.assertEqual((code, rig_from_json(out)), (0, saved))

    def test_backups_are_never_overwritten_and_bad_ones_change_nothing(self) -> None:
        saved = self.rigs.import_rig(demo_rig(), Person(id="a", name="A")).rig
        code, _, err = self.run_command("backup", str(self.file))
        self.assertEqual(code, 2)
        self.assertIn("exists already", err)
        self.assertEqual(self.run_command("restore", str(self.file))[0], 2)
        self.assertEqual(self.rigs.export(saved.id), saved)

    def test_without_a_database(self) -> None:
        code, _, err = self.run_command("export", "x", url="postgresql+psycopg://x:y@127.0.0.1:9/none")
        self.assertEqual(code, 2)
        self.assertIn("script/demo", err)
        with mock.patch.dict(os.environ):
            os.environ.pop("RUVAK_DATABASE_URL", None)
            with contextlib.redirect_stderr(io.StringIO()) as said:
                self.assertEqual(main(["export", "x"]), 2)
        self.assertIn("RUVAK_DATABASE_URL", said.getvalue())
