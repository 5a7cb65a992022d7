"""How displayed figures follow from others: formula, inputs, source. The interface shows these beside the figure.

Expressions are arithmetic on their inputs' symbols, with log10, sqrt, abs, max and sum; an input whose path has "[]"
in it is a list. Paths start at a record of the analysis: levels, hum, noise, sum, balance, loudspeaker, data, source,
channel, destination, venue.
"""

from ruvak.core.rig.values import Record

COMMON = "common practice"
POWER_SUM = "incoherent signals add as powers, any textbook"


class FormulaInput(Record):
    """One symbol of an expression."""

    symbol: str
    """The symbol."""
    path: str
    """Path of the figure it stands for."""
    words: str
    """What it is."""
    unit: str
    """Its unit."""


class Formula(Record):
    """One figure: `figure` is its own path."""

    figure: str
    """Path of the figure it explains."""
    name: str
    """What the figure is called."""
    unit: str
    """Unit of the figure."""
    expression: str
    """The formula, in symbols."""
    inputs: tuple[FormulaInput, ...]
    """What the symbols stand for."""
    source: str
    """Where the formula is from."""


def _formula(
    figure: str, name: str, unit: str, expression: str, source: str, *inputs: tuple[str, str, str, str]
) -> Formula:
    given = tuple(FormulaInput(symbol=s, path=p, words=w, unit=u) for s, p, w, u in inputs)
    return Formula(figure=figure, name=name, unit=unit, expression=expression, inputs=given, source=source)


ARRIVES = ("arrives", "levels.arriving_dbu", "programme at the input's contacts", "dBu")

FORMULAS: tuple[Formula, ...] = (
    _formula(
        "levels.headroom_db",
        "Headroom",
        "dB",
        "clips - peaks",
        "definition",
        ("clips", "levels.clip_dbu", "where the input clips", "dBu"),
        ("peaks", "levels.peak_dbu", "loudest passages there", "dBu"),
    ),
    _formula(
        "levels.gap_db",
        "Gain wanted",
        "dB",
        "wants - arrives",
        "definition",
        ("wants", "levels.nominal_dbu", "level the input wants with its control at the mark", "dBu"),
        ARRIVES,
    ),
    _formula(
        "levels.short_db",
        "Too quiet by",
        "dB",
        "max(0, wants - arrives - control)",
        "definition",
        ("wants", "levels.nominal_dbu", "level the input wants with its control at the mark", "dBu"),
        ARRIVES,
        ("control", "levels.boost_db", "what the control adds above the mark", "dB"),
    ),
    _formula(
        "data.end_reflected_percent",
        "Sent back by the line's end",
        "%",
        "100 * abs((end - made) / (end + made))",
        "reflection of a voltage wave, any textbook of lines",
        ("end", "data.end_ohm", "what ends the line", "Ω"),
        ("made", "data.wave_ohm", "what the line is made for", "Ω"),
    ),
    _formula(
        "loudspeaker.loss_db",
        "Lost in the lead",
        "dB",
        "sent - gets",
        "definition",
        ("sent", "loudspeaker.sent_dbu", "loudest at the amplifier's contacts", "dBu"),
        ("gets", "loudspeaker.gets_dbu", "loudest at the loudspeaker's", "dBu"),
    ),
    _formula(
        "loudspeaker.peak_w",
        "The loudspeaker gets at most",
        "W",
        "0.6 * 10 ** (peaks / 10) / ohm",
        "P = U squared over R, 0 dBu being the root of 0.6 V",
        ("peaks", "levels.peak_dbu", "loudest at its contacts", "dBu"),
        ("ohm", "loudspeaker.ohm", "its impedance", "ohm"),
    ),
    _formula(
        "loudspeaker.rated_w",
        "The loudspeaker bears",
        "W",
        "0.6 * 10 ** (bears / 10) / ohm",
        "P = U squared over R, 0 dBu being the root of 0.6 V",
        ("bears", "levels.clip_dbu", "level it bears", "dBu"),
        ("ohm", "loudspeaker.ohm", "its impedance", "ohm"),
    ),
    _formula(
        "hum.below_programme_db",
        "Hum under the programme",
        "dB",
        "arrives - hum",
        "hum A-weighted by IEC 61672-1, programme as it is",
        ARRIVES,
        ("hum", "hum.weighted_dbu", "hum and buzz, A-weighted, likely", "dBu"),
    ),
    _formula(
        "hum.likely_dbu",
        "Hum and buzz together",
        "dBu",
        "10 * log10(sum(10 ** (x / 10) for x in causes) + 10 ** (rest / 10))",
        POWER_SUM,
        ("causes", "hum.causes[].likely_dbu", "each cause by itself", "dBu"),
        ("rest", "hum.rest_dbu", "causes too small to be told", "dBu"),
    ),
    _formula(
        "noise.total_dbu",
        "Hiss together",
        "dBu",
        "10 * log10(10 ** (own / 10) + 10 ** (warmth / 10))",
        POWER_SUM,
        ("own", "noise.receiver_dbu", "the input's own", "dBu"),
        ("warmth", "noise.thermal_dbu", "4 k T R of the resistances joined to it (Nyquist 1928)", "dBu"),
    ),
    _formula(
        "noise.below_programme_db",
        "Hiss under the programme",
        "dB",
        "arrives - hiss",
        "definition",
        ARRIVES,
        ("hiss", "noise.total_dbu", "hiss, 20 Hz to 20 kHz", "dBu"),
    ),
    _formula(
        "sum.centre_db",
        "Centre, against one side alone",
        "dB",
        "20 * log10(sqrt(10 ** (ideal / 10) + sum(10 ** (x / 10) for x in parts)))",
        "what is of unknown sign adds as powers; see docs/physics.md, Centre and sides",
        ("ideal", "sum.centre_ideal_db", "what is left with every part as stated", "dB"),
        ("parts", "sum.residues[].likely_db", "what each mismatch lets through", "dB"),
    ),
    _formula(
        "balance.mismatch_percent",
        "Legs differ by",
        "%",
        "100 * abs(hot - cold) / ((hot + cold) / 2)",
        "definition, IEC 60268-3",
        ("hot", "balance.hot_ohm", "impedance hot sees", "ohm"),
        ("cold", "balance.cold_ohm", "impedance cold sees", "ohm"),
    ),
    _formula(
        "destination.hum_dba",
        "Hum at the listener",
        "dBA",
        "programme - under",
        "the gain that brings the programme to the listener brings the hum along",
        ("programme", "venue.programme_db_spl", "programme at the listener", "dB SPL"),
        ("under", "destination.hum_below_db", "hum under the programme, all inputs together", "dB"),
    ),
    _formula(
        "destination.noise_dba",
        "Hiss at the listener",
        "dB",
        "programme - under",
        "the gain that brings the programme to the listener brings the hiss along",
        ("programme", "venue.programme_db_spl", "programme at the listener", "dB SPL"),
        ("under", "destination.noise_below_db", "hiss under the programme, all inputs together", "dB"),
    ),
)
