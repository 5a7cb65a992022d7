"""What a solved rig says of each run: its sources, its inputs, and the mixes in which they are heard."""

from collections.abc import Sequence
from dataclasses import dataclass
from operator import itemgetter

import numpy as np

from ruvak.core.circuit.circuit import Drive, Receiver, Tolerance
from ruvak.core.parts.library import assumptions_of
from ruvak.core.results.balance import balance
from ruvak.core.results.cores import core_results, cores_of
from ruvak.core.results.data_line import data_line
from ruvak.core.results.destinations import Destinations
from ruvak.core.results.gains import Gains
from ruvak.core.results.hum import Phasors
from ruvak.core.results.hum_records import CaseVoltage, Hum, LeadCurrent
from ruvak.core.results.kept_results import MOST_FIGURES, Figures, KeptResults, digest
from ruvak.core.results.loudspeaker import loudspeaker_line
from ruvak.core.results.noise import noise
from ruvak.core.results.prefetched import prefetch
from ruvak.core.results.records import (
    Crosstalk,
    InputResult,
    Levels,
    MixResult,
    Noise,
    PhantomAt,
    Response,
    RunResult,
    SourceResult,
    Sum,
)
from ruvak.core.results.response import response
from ruvak.core.results.run_ports import RunPorts
from ruvak.core.results.sensitivities import Sensitivities, leg_rows, receive
from ruvak.core.results.solved_rig import SolvedRig
from ruvak.core.results.source_response import own_gains
from ruvak.core.results.sums import (
    arrives,
    centre_and_sides,
    channel_gains,
    likely_size,
    peak_volts,
    programme_gain,
)
from ruvak.core.rig.rig import Run
from ruvak.core.solve.network import Complexes
from ruvak.core.trace.kept_drawings import content_of_run
from ruvak.core.units import dbu_from_volts, floored_db, volts_from_dbu

Group = tuple[int, ...]
"""Numbers of one source's drives."""
NOTHING = 1e-15
"""Volts a volt that no solution tells from none."""
HEARD_DB = -80.0
"""Crosstalk below this is none."""


@dataclass(frozen=True)
class _Heard:
    """Gains from a run's sources at one place. `nominal`: (drives,); `effects`: (tolerances, drives)."""

    groups: tuple[Group, ...]
    nominal: Complexes
    effects: Complexes

    def of(self, group: int) -> tuple[Complexes, Complexes]:
        """One source's share."""
        first = sum(len(entry) for entry in self.groups[:group])
        own = slice(first, first + len(self.groups[group]))
        return self.nominal[own], self.effects[:, own]


class RunsReader:
    """Some runs' share of the solved rig, fetched at once."""

    def __init__(self, solved: SolvedRig, ports_by_run: list[RunPorts], runs: Sequence[str]) -> None:
        self.solved, self.rig, self.traced, self.circuit = solved, solved.rig, solved.traced, solved.circuit
        circuit, self.ports_by_run = self.circuit, ports_by_run
        receivers = tuple(dict.fromkeys(number for ports in ports_by_run for number in ports.receivers))
        drives = tuple(dict.fromkeys(number for ports in ports_by_run for group in ports.groups for number in group))
        self.row = {number: index for index, number in enumerate(receivers)}
        self.column = {number: index for index, number in enumerate(drives)}
        self.tolerances = [_belonging(solved.audio_of, ports) for ports in ports_by_run]
        self.first = np.cumsum([0, *(len(ports.receivers) for ports in ports_by_run)])
        self._effects = Sensitivities(circuit, self._heard(self.tolerances))
        legs = {row for number in receivers for row in leg_rows(circuit, circuit.receivers[number])}
        driving = {circuit.network.node_count + branch for n in drives for branch, _ in circuit.drives[n].branch_gains}
        size, touched = circuit.network.size, self._effects.rows
        reference = prefetch(solved.reference, size, legs | driving | touched, drives)
        self.gains = Gains(circuit, reference, solved.spots, receivers, drives)
        self._found = self._effects.of(reference, drives, programme=True)[0]
        self.swept = receive(circuit, solved.swept, receivers, drives)
        every = range(len(circuit.drives))
        self.everywhere = receive(circuit, solved.across, receivers, every) if solved.across else None
        over = {node for ports in ports_by_run for core in cores_of(circuit, ports) for node in (core.a, core.b)}
        self.over = prefetch(solved.swept, size, over, drives)
        self.temperature_c = assumptions_of(self.rig).temperature_c.value
        self.phasors: list[Phasors] = []
        if solved.disturbed is not None:
            disturbing = [_belonging(solved.hum_of, ports) for ports in ports_by_run]
            effects = Sensitivities(circuit, self._heard(disturbing))
            split = solved.full and (solved.detailed_run is None or solved.detailed_run in runs)
            self.phasors = solved.disturbed.prefetch(legs | effects.rows, 0).phasors(effects, split)

    def _heard(self, tolerances: list[tuple[Tolerance, ...]]) -> list[tuple[int, tuple[Tolerance, ...]]]:
        """Every input of every run in order, with what is uncertain about the run."""
        both = zip(self.ports_by_run, tolerances, strict=True)
        return [(number, own) for ports, own in both for number in ports.receivers]

    def effects(self, index: int, drives: list[int]) -> Complexes:
        """Of one run: (tolerances, receivers, drives)."""
        first, stop = self._effects.first[self.first[index : index + 2]]
        shape = (len(self.ports_by_run[index].receivers), len(self.tolerances[index]), len(self.column))
        own = self._found[first:stop].reshape(shape)
        values: Complexes = own[:, :, [self.column[number] for number in drives]].transpose(1, 0, 2)
        return values


def _belonging(tolerances: dict[str, list[Tolerance]], ports: RunPorts) -> tuple[Tolerance, ...]:
    return tuple(entry for owner in ports.owners for entry in tolerances.get(owner, ()))


class RunReader:
    """One run: its sources, its inputs, and what is uncertain about what belongs to it."""

    def __init__(self, shared: RunsReader, run: Run, index: int) -> None:
        self.shared, self.run_record, self.ports = shared, run, shared.ports_by_run[index]
        self.rig, self.circuit, self.gains = shared.rig, shared.circuit, shared.gains
        self.groups, self.receivers = self.ports.groups, self.ports.receivers
        flat = [number for group in self.groups for number in group]
        self.tolerances = shared.tolerances[index]
        self.nominal = self.gains.nominal(self.receivers, flat)
        self.effects = shared.effects(index, flat)
        own = slice(*shared.first[index : index + 2])
        self.phasors = dict(zip(self.receivers, shared.phasors[own], strict=False))

    def result(self) -> RunResult:
        """Everything about the run."""
        flat = [number for group in self.groups for number in group]
        return RunResult(
            run=self.run_record.id,
            sources=tuple(self._source(group) for group in self.groups),
            inputs=tuple(self._input(number) for number in self.receivers),
            mixes=self._mixes(),
            floating=self._floating(),
            phantom=self._phantom(flat),
            cores=tuple(core_results(self.circuit, self.shared.over, cores_of(self.circuit, self.ports), flat)),
            lead_currents=self._currents(),
            case_voltages=self._cases(),
            data=data_line(self.rig, self.run_record, self.circuit, self.ports, self.gains),
        )

    def kept_result(self, kept: KeptResults) -> RunResult:
        """As result(); the same record as before where nothing that it is made from has changed."""
        if sum(phasors.nominal.size for phasors in self.phasors.values()) > MOST_FIGURES:
            return self.result()
        rig_id, run_id, key, figures = self.rig.id, self.run_record.id, self._content(), self._figures()
        known = kept.find(rig_id, run_id, key, figures)
        if known is None:
            known = self.result()
            kept.keep(rig_id, run_id, key, figures, known)
        return known

    def _content(self) -> bytes:
        """A name for everything in the result that is no solved figure."""
        own = content_of_run(self.rig, self.shared.traced, self.run_record)
        return digest(
            own, self.shared.solved.content, repr((self._floating(), self.groups, self.receivers, self._brief))
        )

    def _figures(self) -> Figures:
        """Everything solved that result() reads."""
        shared, flat = self.shared, [number for group in self.groups for number in group]
        rows = [shared.row[number] for number in self.receivers]
        columns = [shared.column[number] for number in flat]
        cores = [node for core in cores_of(self.circuit, self.ports) for node in (core.a, core.b)]
        supplies = self._phantom(flat)
        phantom = [(supply.volt, supply.volt_low, supply.volt_high, supply.across_v) for supply in supplies]
        return [
            self.nominal,
            self.effects,
            *self.gains.figures(self.receivers, flat),
            shared.swept[:, rows][:, :, columns],
            *(np.delete(shared.everywhere[:, row], flat, axis=1) for row in rows if shared.everywhere is not None),
            shared.over.rows(np.array(cores, dtype=np.int64), np.array(flat, dtype=np.int64)),
            *(array for phasors in self.phasors.values() for array in phasors.arrays()),
            np.array(phantom),
            np.array([supply.leg_a for supply in supplies]),
            *(np.array([reading.likely_a, reading.worst_a]) for reading in self._currents()),
            *(np.array([reading.likely_v, reading.worst_v]) for reading in self._cases()),
        ]

    def add_to(self, destinations: Destinations, result: RunResult) -> None:
        """Its inputs, as its destinations hear them; after result()."""
        for number, receiver in zip(self.receivers, result.inputs, strict=True):
            destinations.add(number, receiver, self.phasors[number], result)

    def _phantom(self, drives: list[int]) -> tuple[PhantomAt, ...]:
        phantom = self.shared.solved.phantom
        return phantom.at(drives) if phantom else ()

    def _currents(self) -> tuple[LeadCurrent, ...]:
        current_of = self.shared.solved.current_of
        own = {current_of[piece] for piece in self.run_record.pieces if piece in current_of}
        return tuple(reading for _, reading in sorted(own, key=itemgetter(0)))

    def _cases(self) -> tuple[CaseVoltage, ...]:
        case_of = self.shared.solved.case_of
        own = {case_of[owner] for owner in self.run_record.owners if owner in case_of}
        return tuple(reading for _, reading in sorted(own, key=itemgetter(0)))

    @property
    def _brief(self) -> bool:
        """Whether hum is told in totals alone."""
        solved = self.shared.solved
        return solved.brief or solved.detailed_run not in (None, self.run_record.id)

    def _floating(self) -> tuple[str, ...]:
        owners = {*self.run_record.pieces, *self.run_record.owners}
        return tuple(owner for owner in self.circuit.floating if owner in owners)

    def _source(self, group: Group) -> SourceResult:
        drives = self._drives(group)
        return SourceResult(
            gear=drives[0].gear,
            output=drives[0].output.id,
            signal=drives[0].output.signal,
            channels=tuple(drive.channel for drive in drives),
            peak_dbu=drives[0].peak_dbu,
            nominal_dbu=drives[0].nominal_dbu,
            mono=drives[0].mono,
            load_ohm=min(self.gains.load_ohm(number) for number in group),
            min_load_ohm=drives[0].output.min_load_ohm.value if drives[0].output.min_load_ohm else None,
        )

    def _drives(self, group: Group) -> tuple[Drive, ...]:
        return tuple(self.circuit.drives[number] for number in group)

    def _heard(self, receivers: list[int]) -> _Heard:
        """All sources at some inputs added together."""
        at = [self.receivers.index(number) for number in receivers]
        return _Heard(self.groups, self.nominal[at].sum(axis=0), self.effects[:, at].sum(axis=1))

    def _main(self, heard: _Heard) -> int | None:
        """The source that arrives loudest, its programme and its sides considered."""
        tolerances = self.tolerances

        def loudness(number: int) -> float:
            nominal, effects = heard.of(number)
            sizes = [likely_size(complex(nominal[i]), effects[:, i], tolerances) for i in range(len(nominal))]
            return self.circuit.drives[heard.groups[number][0]].nominal_dbu + floored_db(max(sizes))

        return max(range(len(heard.groups)), key=loudness, default=None)

    def _channels(self, heard: _Heard) -> tuple[tuple[int, str], ...]:
        return tuple(
            (number, self.circuit.drives[drive].channel) for number, group in enumerate(heard.groups) for drive in group
        )

    def _input(self, number: int) -> InputResult:
        receiver, tolerances = self.circuit.receivers[number], self.tolerances
        heard = self._heard([number])
        main = self._main(heard)
        nominal, effects = heard.of(main) if main is not None else (heard.nominal, heard.effects)
        result, reason = centre_and_sides(nominal, effects, tolerances)
        drives = tuple(drive for group in self.groups for drive in self._drives(group))
        levels = self._levels(heard, main, receiver) if main is not None else None
        line = None
        if main is not None and levels is not None:
            line = loudspeaker_line(self.gains, self.groups[main][0], complex(nominal[0]), number, levels)
        return InputResult(
            gear=receiver.gear,
            input=receiver.input.id,
            label=receiver.input.label,
            signal=receiver.input.signal,
            main=main,
            channels=channel_gains(self._channels(heard), heard.nominal, heard.effects, tolerances),
            sum=result,
            sum_null=reason,
            levels=(levels,) if levels is not None else (),
            response=self._response(self.groups[main], number, nominal, effects) if main is not None else None,
            balance=balance(self.shared.traced, drives, receiver, self.gains.leg_ohm(number)),
            hum=self._hum(number, levels),
            noise=self._noise(number, levels) if self.shared.solved.full else None,
            crosstalk=self._crosstalk(number, levels),
            loudspeaker=line,
        )

    def _hum(self, number: int, levels: Levels | None) -> Hum | None:
        solved = self.shared.solved
        if solved.disturbed is None:
            return None
        programme_dbu = levels.arriving_dbu if levels is not None else None
        return solved.disturbed.hum(self.phasors[number], programme_dbu, self._brief)

    def _noise(self, number: int, levels: Levels | None) -> Noise:
        receiver = self.circuit.receivers[number]
        programme_dbu = levels.arriving_dbu if levels is not None else None
        ohm, frequencies_hz = self.gains.between_ohm(number), self.gains.spots.frequencies_hz
        return noise(ohm, frequencies_hz, self.shared.temperature_c, receiver.mode.noise_dbu.value, programme_dbu)

    def _crosstalk(self, number: int, levels: Levels | None) -> Crosstalk | None:
        """The loudest of all sources that are not this run's own."""
        everywhere, own = self.shared.everywhere, [drive for group in self.groups for drive in group]
        if everywhere is None or levels is None or len(own) == len(self.circuit.drives):
            return None
        gains = everywhere[:, self.shared.row[number]]
        # No floor in ratios here: an amplifier's volts by a ratio of nothing would be more than a microphone's.
        volts = np.maximum(np.abs(gains), NOTHING) * self.shared.solved.nominal_v
        result = 20.0 * np.log10(volts / volts_from_dbu(levels.arriving_dbu))
        result[:, own] = -np.inf
        loudest = int(np.argmax(result.max(axis=0)))
        if result[:, loudest].max() < HEARD_DB:
            return None
        drive = self.circuit.drives[loudest]
        low_db, high_db = result[:, loudest].tolist()
        return Crosstalk(gear=drive.gear, channel=drive.channel, at_1k_db=low_db, at_10k_db=high_db)

    def _levels(self, heard: _Heard, main: int, receiver: Receiver) -> Levels:
        mode, tolerances = receiver.mode, self.tolerances
        source = self.circuit.drives[heard.groups[main][0]]
        nominal, effects = heard.of(main)
        arriving_dbu = source.nominal_dbu + floored_db(programme_gain(nominal, effects, tolerances))
        sides = nominal[0] - nominal[-1] if len(nominal) == 2 else 0.0
        sides_effects = effects[:, 0] - effects[:, -1]
        peaks = [volts_from_dbu(drive.peak_dbu) for group in heard.groups for drive in self._drives(group)]
        peak_dbu = dbu_from_volts(peak_volts(heard.nominal, peaks))
        gap_db = mode.nominal_dbu.value - arriving_dbu
        return Levels(
            when=mode.when,
            active=True,
            arriving_dbu=arriving_dbu,
            sides_dbu=source.nominal_dbu + floored_db(likely_size(complex(sides), sides_effects, tolerances)),
            peak_dbu=peak_dbu,
            nominal_dbu=mode.nominal_dbu.value,
            clip_dbu=mode.clip_dbu.value,
            noise_dbu=mode.noise_dbu.value,
            headroom_db=mode.clip_dbu.value - peak_dbu,
            gap_db=gap_db,
            boost_db=mode.boost_db.value,
            short_db=max(0.0, gap_db - mode.boost_db.value),
        )

    def _response(self, group: Group, number: int, nominal: Complexes, effects: Complexes) -> Response | None:
        """Follows the centre where it survives, else the louder side."""
        if not any(arrives(complex(nominal[i]), effects[:, i], self.tolerances) for i in range(len(group))):
            return None
        names = [drive.channel for drive in self._drives(group)]
        sizes = np.abs(nominal)
        # The first of equals, whatever the last bits of a solution are.
        louder = int(np.argmax(sizes >= sizes.max() * (1.0 - 1e-9)))
        sweep_hz = self.shared.solved.sweep_hz
        own = own_gains(self.rig, self.circuit.drives[group[louder]], sweep_hz)
        columns = [self.shared.column[member] for member in group]
        curves = self.shared.swept[:, self.shared.row[number]][:, columns]
        if abs(nominal.sum()) > 0.5 * abs(nominal[louder]):
            of = "centre" if len(group) == 2 else names[0]
            return response(of, curves.sum(axis=1), sweep_hz, own)
        return response(names[louder], curves[:, louder], sweep_hz, own)

    def _mixes(self) -> tuple[MixResult, ...]:
        result, receivers = [], self.receivers
        for gear in dict.fromkeys(self.circuit.receivers[number].gear for number in receivers):
            own = [number for number in receivers if self.circuit.receivers[number].gear == gear]
            by_input = {self.circuit.receivers[number].input.id: number for number in own}
            mixed: set[int] = set()
            for mix in self.rig.part_of(gear).mixes:
                left = [by_input[name] for name in mix.left if name in by_input]
                right = [by_input[name] for name in mix.right if name in by_input]
                mixed |= {*left, *right}
                if left or right:
                    result.append(self._mix((gear, mix.id, mix.label), left, right, bool(mix.right)))
            loose = [number for number in own if number not in mixed]
            if len(loose) == 2 and self.groups:
                # Two channels of a desk that one run reaches are meant as a left and a right.
                label = " and ".join(self.circuit.receivers[number].input.label for number in loose)
                result.append(self._mix((gear, "pair", label), loose[:1], loose[1:], True))
        return tuple(result)

    def _mix(self, name: tuple[str, str, str], left: list[int], right: list[int], stereo: bool) -> MixResult:
        tolerances = self.tolerances
        heard = self._heard(left + right)
        main = self._main(heard)
        nominal, effects = heard.of(main) if main is not None else (heard.nominal, heard.effects)
        total, reason = centre_and_sides(nominal, effects, tolerances)
        sides = [self._heard(side) for side in (left, right)]
        channels = self._channels(heard)
        return MixResult(
            gear=name[0],
            mix=name[1],
            label=name[2],
            inputs=tuple(self.circuit.receivers[number].input.id for number in left + right),
            stereo=stereo,
            channels=channel_gains(channels, heard.nominal, heard.effects, tolerances),
            sum=total,
            sum_null=reason,
            left=channel_gains(channels, sides[0].nominal, sides[0].effects, tolerances) if stereo else (),
            right=channel_gains(channels, sides[1].nominal, sides[1].effects, tolerances) if stereo else (),
            pair=self._pair(sides, main) if stereo and left and right and main is not None else None,
        )

    def _pair(self, sides: list[_Heard], main: int) -> Sum | None:
        nominal = np.array([side.of(main)[0].sum() for side in sides])
        effects = np.stack([side.of(main)[1].sum(axis=1) for side in sides], axis=1)
        return centre_and_sides(nominal, effects, self.tolerances)[0]
