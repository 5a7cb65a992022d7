"""Printed pages: rendered, their codes read back, their type in them, and nothing cut away by odd names."""

import unittest
from typing import ClassVar

import pypdfium2
import zxingcpp
from PIL import Image

from ruvak.core.analyse import analyse
from ruvak.core.parts.library import library
from ruvak.core.prepare import prepare
from ruvak.core.pull.pull_list import PackLine, PulledLead, PullLine, PullList, Shortage
from ruvak.core.sheets.sheets import RigSheets, rig_sheets
from ruvak.core.sheets.wiring import is_soldered, wiring_sheet
from ruvak.formats.printed.document import SheetName, Wanted, printed
from ruvak.formats.printed.labels import LABEL_SHEETS, address_of, labels_to_csv
from ruvak.formats.printed.lists import inputs_to_csv
from ruvak.formats.printed.page import Paper
from ruvak.formats.printed.type import NAME, STRONG, TEXT, font_for, printable, shortened
from ruvak.formats.printed.wiring import say_ohm, wiring_svg
from tests.support.rigs import demo_rig

ADDRESS = "https://192.168.100.100:8443/#/rigs/midwinter-concert"
DOTS = 200
"""Dots an inch: of a plain office printer."""
A4, LETTER = (595.3, 841.9), (612.0, 792.0)
ALL: tuple[SheetName, ...] = ("pull", "inputs", "hook-up", "check", "labels", "wiring")


def pulled() -> PullList:
    lead = PulledLead(tag="M1", part="Microphone lead", length_m=10.0, store="van", suspect=True)
    line = PullLine(
        rig="a", rig_name="Concert", run="r", name="Lead vocal", number=1, part="Microphone lead", need_m=8.0,
        leads=(lead,), get_m=None, changed=False,
    )  # fmt: skip
    return PullList(
        lines=(line, line.model_copy(update={"name": "Kick", "leads": (), "get_m": 12.5})),
        shortages=(Shortage(part="Microphone lead", length_m=12.5, count=1, runs=("Kick",)),),
        packing=(PackLine(store="van", kind="lead", words="Microphone lead, 10 m", count=1, tags=("M1",)),),
        joins=0,
        left_over_m=2.0,
        proven=True,
        gap=0.0,
    )


class PdfTest(unittest.TestCase):
    """One analysis for all."""

    sheets: ClassVar[RigSheets]

    @classmethod
    def setUpClass(cls) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        cls.sheets = rig_sheets(rig, analyse(rig))

    def open(self, data: bytes) -> pypdfium2.PdfDocument:
        document = pypdfium2.PdfDocument(data)
        self.addCleanup(document.close)
        return document

    def text_of(self, document: pypdfium2.PdfDocument) -> str:
        return " ".join(page.get_textpage().get_text_range().replace("\r\n", " ") for page in document)

    def pictures(self, document: pypdfium2.PdfDocument) -> list[Image.Image]:
        return [page.render(scale=DOTS / 72).to_pil() for page in document]


class Labels(PdfTest):
    def test_each_code_is_read_back_from_the_rendered_page_at_every_size(self) -> None:
        wanted = sorted(address_of(label, ADDRESS) for label in self.sheets.labels)
        for size, sheet in LABEL_SHEETS.items():
            with self.subTest(size=size):
                document = self.open(printed(self.sheets, None, Wanted(("labels",), labels=size), ADDRESS))
                read = [code.text for page in self.pictures(document) for code in zxingcpp.read_barcodes(page)]
                self.assertEqual(sorted(read), wanted)
                on_one = sheet.rows * sheet.columns
                self.assertEqual(len(document), -(-len(wanted) // on_one))
                width, height = document[0].get_size()
                paper = LETTER if sheet.paper == "letter" else A4
                self.assertAlmostEqual(width, paper[0], delta=0.5)
                self.assertAlmostEqual(height, paper[1], delta=0.5)

    def test_sizes_fit_their_paper(self) -> None:
        millimetres = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
        for size, sheet in LABEL_SHEETS.items():
            width, height = millimetres[sheet.paper]
            self.assertEqual(sheet.rows * sheet.columns, int(size))
            self.assertLess(sheet.columns * sheet.width_mm + (sheet.columns - 1) * sheet.gap_mm, width)
            self.assertLess(sheet.rows * sheet.height_mm, height + 0.1)

    def test_a_sheet_that_is_used_in_part_is_gone_on_with(self) -> None:
        whole = self.open(printed(self.sheets, None, Wanted(("labels",), labels="14"), ADDRESS))
        begun = self.open(printed(self.sheets, None, Wanted(("labels",), labels="14", skip=13), ADDRESS))
        first = [code.text for code in zxingcpp.read_barcodes(self.pictures(begun)[0])]
        self.assertEqual(first, [address_of(self.sheets.labels[0], ADDRESS)])
        self.assertLessEqual(len(whole), len(begun))

    def test_data_is_told_from_audio_by_a_black_bar(self) -> None:
        def dark(name: str) -> float:
            labels = tuple(label for label in self.sheets.labels if label.name == name)[:1]
            sheets = self.sheets.model_copy(update={"labels": labels})
            (page,) = self.pictures(self.open(printed(sheets, None, Wanted(("labels",), labels="65"), ADDRESS)))
            # The left three millimetres of the first label.
            left, top = (round(mm / 25.4 * DOTS) for mm in (4.75, 10.7))
            strip = page.convert("L").crop(
                (left + 2, top + 4, left + round(3 / 25.4 * DOTS), top + round(20 / 25.4 * DOTS))
            )
            pixels = strip.tobytes()
            return sum(value < 128 for value in pixels) / len(pixels)

        self.assertGreater(dark("Front lantern data"), 0.7)
        self.assertLess(dark("Kick"), 0.3)

    def test_the_table_names_every_end(self) -> None:
        lines = labels_to_csv(self.sheets.labels, ADDRESS).splitlines()
        self.assertEqual(len(lines), 1 + len(self.sheets.labels))
        self.assertIn("1a,Lead vocal,M1,", lines[1])


class Lists(PdfTest):
    def test_one_file_has_all_sheets_in_our_own_type(self) -> None:
        papers: tuple[tuple[Paper, tuple[float, float]], ...] = (("a4", A4), ("letter", LETTER))
        for paper, size in papers:
            data = printed(self.sheets, pulled(), Wanted(ALL, paper, "65"), ADDRESS)
            document = self.open(data)
            self.assertAlmostEqual(document[0].get_size()[0], size[0], delta=0.5)
            text = self.text_of(document)
            for words in (
                "Pull list",
                "Packing list",
                "Input list",
                "Hook-up",
                "Switching off",
                "Line check",
                "Wiring",
            ):
                self.assertIn(words, text)
            for run in self.sheets.checks:
                self.assertIn(run.name, text)
            self.assertIn("test M1 first", text)
            self.assertIn("12.5 m", text)
            for font in (b"SairaCondensedSemiBold", b"IBMPlexSans"):
                self.assertIn(font, data)
            self.assertNotIn(b"/BaseFont /Helvetica", data.replace(b"/BaseFont /Helvetica /Encoding", b""))

    def test_nothing_runs_over_the_edge_of_the_paper(self) -> None:
        document = self.open(printed(self.sheets, pulled(), Wanted(ALL, "a4", "65"), ADDRESS))
        for page in document:
            width, height = page.get_size()
            text = page.get_textpage()
            for index in range(text.count_chars()):
                left, bottom, right, top = text.get_charbox(index)
                self.assertTrue(left >= 0 and bottom >= 0 and right <= width and top <= height)

    def test_names_of_any_length_and_alphabet_are_printed(self) -> None:
        odd = "Wörd 漢字 Ελλάδα Кирилл <b>&</b> " + "x" * 200
        sheets = self.sheets.model_copy(
            update={
                "name": odd,
                "labels": tuple(
                    label.model_copy(update={"name": odd, "plugs_into": odd}) for label in self.sheets.labels
                ),
                "inputs": tuple(line.model_copy(update={"name": odd, "note": odd}) for line in self.sheets.inputs),
                "checks": tuple(card.model_copy(update={"name": odd}) for card in self.sheets.checks),
            }
        )
        text = self.text_of(self.open(printed(sheets, None, Wanted(ALL), ADDRESS)))
        self.assertIn("Ελλάδα Кирилл <b>&</b>", text)
        self.assertIn("Wörd ??", text)

    def test_an_empty_rig_prints_a_page_that_says_so(self) -> None:
        bare = self.sheets.model_copy(update={"labels": ()})
        document = self.open(printed(bare, None, Wanted(("labels",)), ADDRESS))
        self.assertIn("nothing to print", self.text_of(document))

    def test_the_input_list_is_a_table_too(self) -> None:
        lines = inputs_to_csv(self.sheets.inputs).splitlines()
        self.assertEqual(len(lines), 1 + len(self.sheets.inputs))
        self.assertTrue(lines[1].startswith("Stage box,1,Lead vocal,"))


class Type(unittest.TestCase):
    def test_what_a_font_lacks_is_taken_from_another_or_marked(self) -> None:
        self.assertEqual((font_for("Kick", NAME), font_for("Ω", NAME)), (NAME, STRONG))
        self.assertEqual(font_for("漢", STRONG), TEXT)
        self.assertEqual(printable("a → b 漢"), "a \N{SINGLE RIGHT-POINTING ANGLE QUOTATION MARK} b ?")

    def test_what_is_too_long_ends_in_dots(self) -> None:
        self.assertEqual(shortened("Kick", NAME, 10, 500), "Kick")
        self.assertTrue(shortened("Kick drum outside", NAME, 10, 40).endswith("…"))

    def test_resistances_are_said_as_people_say_them(self) -> None:
        self.assertEqual([say_ohm(ohm) for ohm in (0.0, 680.0, 2200.0, 10_000.0)], ["0 Ω", "680 Ω", "2.2 kΩ", "10 kΩ"])


class Drawings(unittest.TestCase):
    def test_every_part_that_is_soldered_is_drawn_within_its_frame(self) -> None:
        for part in library().values():
            if is_soldered(part):
                svg = wiring_svg(wiring_sheet(part))
                self.assertTrue(svg.startswith("<?xml"), part.id)
                self.assertIn("circle", svg)

    def test_values_stand_in_the_drawing(self) -> None:
        self.assertIn("680 Ω", wiring_svg(wiring_sheet(library()["pad-20"])))


if __name__ == "__main__":
    unittest.main()
