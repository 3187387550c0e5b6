"""The schemas of the reference files: keys, dimensions, and references between files."""

from collections.abc import Collection, Iterator, Sequence
from typing import Any, Final

from kelbrast.core.errors import Fault
from kelbrast.core.reference.raw import record_written, sources_written, table_written
from kelbrast.core.reference.shape import Each, Entry, Many, Name, Number, Plain, Schema, Written

KINDS: Final = {
    "published": "read in the named publication",
    "memory": "a published value, quoted from memory",
    "practice": "common practice, no single source",
    "fitted": "chosen by us to reproduce named check values",
    "assumed": "a round figure to start with; put in your own",
    "own": "as the shop says that owns it, or as it measured",
}
SYSTEMS: Final = ("P", "F", "CAMI", "JIS")  # of grit grades
HARDNESSES: Final = ("HB", "HRC", "HRB", "Shore D")  # scales besides Vickers
LAYS: Final = ("one-way", "none", "any")
WAYS: Final = ("wet", "hot-water", "soak", "solvent", "ultrasonic")  # of working, which what is stuck in a part may forbid
WEAR_LAWS: Final = ("coated", "graded", "lap", "constant", "compound")
PROTECTIONS: Final = ("none", "oil", "wax", "lacquer")
FOUND: Final = ("scratches", "lay", "waviness", "pits", "nick", "raised")  # what a face is found with
LOOKED_AFTER: Final = ("wheel", "abrasive-wheel", "shop", "waxed")
QUANTITIES: Final = ("size", "coat", "ra", "gloss", "temperature", "spindle", "weight")


def misfits(name: str, given: dict[str, Any]) -> Iterator[Fault]:
    """What does not fit in this content of `records/<name>.toml`, each with file, entry, key and what is expected.

    >>> [str(fault) for fault in misfits("looks", {"tin": {"body": [2, "mm", "looks"]}})][0]
    'looks.toml:tin.body: is in "mm"; expected a ratio, in 1'
    """
    yield from RECORDS[name].faults(f"{name}.toml:", given)


def table_misfits(name: str, lines: Sequence[Sequence[str]]) -> Iterator[Fault]:
    """The same for the lines of `tables/<name>.csv`, its heading first."""
    columns = TABLES[name]
    heading, *rows = lines
    if list(heading) != list(columns):
        yield Fault(f"{name}.csv:1", f"has the columns {', '.join(heading)}; expected {', '.join(columns)}")
        return
    for number, row in enumerate(rows, start=2):
        if len(row) != len(columns):
            yield Fault(
                f"{name}.csv:{number}",
                f"has {len(row)} cells; expected {len(columns)}, one with a comma in it in quotes",
            )
            continue
        for (column, shape), cell in zip(columns.items(), row, strict=True):
            yield from shape.faults(f"{name}.csv:{number}.{column}", cell)


def _key_of(name: str, *path: str) -> Name:
    def known() -> Collection[str]:
        rows = record_written(name)
        for part in path:
            rows = rows[part]
        return rows.keys()

    return Name(f"a key of {name}.toml" + "".join(f", [{part}]" for part in path), known)


def _one_of(*names: str) -> Name:
    return Name(f"one of {', '.join(names)}", lambda: names)


def _number(*dimensions: str) -> Number:
    return Number(dimensions, sources_written)


def _taken_by_machines() -> Collection[str]:
    return {mount for machine in record_written("machines").values() for mount in machine["takes"]}


def _on_a_rack() -> Collection[str]:
    written = record_written("carriers")
    grades = {
        f"{key}-{grade.lower()}" for key, row in written.items() for grade in (*row.get("grades", ()), *row.get("sizes", ()))
    }
    return {*written, *grades, *record_written("machines"), *record_written("compounds")}


def _keys(shapes: dict[Schema, str]) -> dict[str, Schema]:
    """The keys of a group, written by their shape: `{LENGTH: "width depth"}`."""
    return {key: shape for shape, keys in shapes.items() for key in keys.split()}


def _all_of(shapes: dict[Schema, str]) -> Entry:
    return Entry(_keys(shapes))


TEXT, NOTE, FLAG, COUNT = Plain(str), Plain(str, empty=True), Plain(bool), Plain(int)
RATIO, LENGTH, AREA, TIME, ANGLE = (_number(one) for one in ("ratio", "length", "area", "time", "angle"))
SHAKING = _number("acceleration")
SPEED, TURNING, FORCE, PRESSURE, MONEY, MASS = (
    _number(one) for one in ("speed", "turning", "force", "pressure", "money", "mass")
)
TEMPERATURE, STEP, PER_TIME, TRANSFER = (_number(one) for one in ("temperature", "temperature step", "rate", "heat transfer"))
FAMILY, WORDS = _key_of("families"), Many(TEXT)
_READ: Final = _number("length", "ratio", "turning", "temperature step", "mass")
PROTECTION: Final = _one_of(*PROTECTIONS)
BANDS: Final = {"buffing_bands": "ft/min", "abrasive_bands": "m/s"}
BAND: Final = Name("a use of the speed tables", lambda: {row[0] for name in BANDS for row in table_written(name)[1:]})
_SHELTER: Final = _keys({PROTECTION: "protection", TIME: "protect_within"})

_CARRIER: Final = Entry(
    _keys(
        {
            TEXT: "label kind unit",
            FLAG: "levels backed open tight",
            Name("a mount that a machine takes", _taken_by_machines): "mount",
            _one_of(*WEAR_LAWS): "wear_law",
            Many(_one_of("one-way", "none", "arcs")): "lays",
            RATIO: "hold friction",
            FORCE: "force light_force",
            AREA: "patch",
            TIME: "setup change",
            MONEY: "price",
            Many(_key_of("advice", "cautions")): "cautions",
        }
    ),
    _keys(
        {
            WORDS: "grades",
            COUNT: "packet",
            Each(LENGTH): "sizes",
            Many(_key_of("compounds")): "compounds",
            FLAG: "flat_only scallops wears_down keeps_size turned_only wet takes_by_hardness drawn_only swirls waves edges"
            " first_only life_by_grain retired",
            RATIO: "reach_in_grains wear cut_rate",
            LENGTH: "reaches_depth inside_radius reach_in diameter floor wear_grain takes_in_all",
            AREA: "least_face least_curved most_face",
            Many(_key_of("materials")): "not_on",
            _key_of("carriers"): "like",
            PRESSURE: "hardest pressure",
            BAND: "band",
            SPEED: "marked_limit",
            TIME: "life lasts",
            Many(FAMILY): "not_for",
        }
    ),
    together=(("inside_radius", "reach_in"),),
)
_MACHINE: Final = Entry(
    _keys({TEXT: "label", WORDS: "takes", RATIO: "contact"}),
    _keys(
        {
            FLAG: "stands turns_work",
            COUNT: "spindles",
            Many(TURNING): "speeds",
            TURNING: "speed_low speed_high",
            LENGTH: "orbit",
            SPEED: "stroke",
            SHAKING: "vibration",
            MASS: "least_mass",
            _one_of("side", "face"): "view",
            _one_of("clockwise", "anticlockwise"): "turns",
            ANGLE: "worker touch_from touch_to",
            TEXT: "where",
            Many(_key_of("advice", "mounting")): "mounting",
            _key_of("machines"): "like",
        }
    ),
    together=(("speed_low", "speed_high"), ("view", "turns", "worker", "touch_from", "touch_to", "where")),
)
_PROCESS: Final = Entry(
    {
        "scratch": _all_of(
            {LENGTH: "coefficient", RATIO: "exponent hardness_exponent depth_per_ra", PRESSURE: "reference_hardness"}
        ),
        "removal": _all_of(
            {
                RATIO: "coated fine_exponent coarse_exponent life_exponent torn_share torn_exponent lap"
                " lap_exponent waviness_share bore_contact",
                LENGTH: "reference_grain lap_grain",
            }
        ),
        "clearance": _all_of({RATIO: "found mark_length_per_grain largest_offset largest_scale", LENGTH: "mark_width"}),
        "deformed": _all_of({RATIO: "hidden satin mirror"}),
        "looks": _all_of(
            {
                LENGTH: "mirror_below satin_below clear_below lapped_below",
                AREA: "flat_area",
                RATIO: "grip_range like_piece",
                PRESSURE: "hard_flat",
            }
        ),
        "heat": _all_of(
            {
                RATIO: "into_work wet_share rest_to",
                TEMPERATURE: "room hand guarded",
                TIME: "shortest_stay handling",
                TRANSFER: "loss_air loss_water",
                LENGTH: "thick",
            }
        ),
        "work": _all_of(
            {
                TIME: "wet_wipe check wash",
                PER_TIME: "bench_rate",
                AREA: "bath carried_area",
                MASS: "carried_mass",
                LENGTH: "carried_side",
                RATIO: "wash_lot beyond contact_fades",
            }
        ),
        "plan": _all_of({RATIO: "differs limit_near metal_worth retreat_most without_most", TIME: "change_worth"}),
        "speed": _all_of({RATIO: "slowest_share low_school"}),
        "habit": Entry({habit: _all_of({RATIO: "jump lap first first_raised soft"}) for habit in ("double-up", "every-grade")}),
        "end": _all_of({RATIO: "scatter price surely"}),
        "price": _all_of({RATIO: "worth_offering"}),
        "rework": _all_of({RATIO: "odds steepness first_most"}),
        "handover": _all_of({LENGTH: "fine_paper early_wheel colour_below colour_after"}),
        "blend": _all_of(
            {
                RATIO: "show_slope working_slope raised_share window_slope deformed_show rim corner match all_of_it",
                LENGTH: "overlap mark_length mark_width",
                AREA: "least_patch width_least width_small width_hand width_wide",
            }
        ),
        "bench": _all_of(
            {
                RATIO: "keep_going metal_near speed_near doubt_share",
                TIME: "least_more recharge break_after doubt_from",
                LENGTH: "coat_near",
                STEP: "heat_near",
            }
        ),
        "trial": _all_of(
            {
                RATIO: "one_square judged risk_price compared read looks",
                LENGTH: "side largest_side plate coarsest",
                TIME: "shortest best longest",
            }
        ),
        "grades": _all_of({RATIO: "alike"}),
        "coat": _all_of({RATIO: "coarsest_share"}),
        "advice": _all_of(
            {
                AREA: "small_sheet bowl_face",
                LENGTH: "sheet skin",
                RATIO: "strokes many batch",
                PRESSURE: "soft_sheet hard",
                TIME: "in_hand",
            }
        ),
        "edges": _all_of({RATIO: "sharp_share", LENGTH: "break_least break_most radius_most usual usual_length"}),
        "spread": _all_of({RATIO: "rate hand depth pace check_fails again"}),
        "learning": _all_of(
            {RATIO: "prior noise noise_worth least_noise huber fewest_runs most_of_step newest", TIME: "mistap"}
        ),
        "lots": _all_of({RATIO: "reserve", AREA: "rack"}),
        "day": _all_of(
            {RATIO: "soak_most", SHAKING: "action_value", TIME: "exposure_over least_block longest_block dust_lies"}
        ),
        "precision": _all_of(
            {
                PRESSURE: "lap_pressure",
                RATIO: "end_place cool_readings lap_reach uneven"
                " prior prior_known drift risk short overhang lap_contact expansion_unsure shop_four"
                " file_ferrous_low file_ferrous_high file_other_low file_other_high",
                LENGTH: "bias beyond_clean finish_least finish_most most_stock slack_least slack_most slide file_most"
                " file_least cloth_most file_minute cloth_minute finishing_grain",
                TIME: "least_work least_strokes",
                STEP: "warmth_unsure",
                SPEED: "lap_slowest lap_fastest polish",
            }
        ),
        "house": _all_of({RATIO: "deeper worked"}),
        "metrology": _all_of({RATIO: "periodic as_like"}),
        "gloss": _all_of({LENGTH: "wavelength ripple", RATIO: "rq_per_ra"}),
        "simulation": _all_of(
            {
                RATIO: "mark_width_per_grain groove_power rim coverage pit_shallowest not_yet not_yet_most not_yet_least"
                " tells_apart",
                LENGTH: "shape_length ripple_length bead_width pit_smallest pit_largest nick_half_length nick_half_width"
                " finest_grain coarsest_grain",
                AREA: "pit_area",
                ANGLE: "crossing",
            }
        ),
        "upkeep": _all_of({RATIO: "minded"}),
        "light": _all_of(
            {
                ANGLE: "height direction tube_angle",
                RATIO: "lamp dull glint sharpness white room above near fall gamma tube tube_at tube_lean tube_bend"
                " seen_blur seen_noise tube_width tube_blur mirror_bend mirror_edge mirror_blur mirror_dark mirror_light",
            }
        ),
    }
)
RECORDS: Final[dict[str, Schema]] = {
    "advice": Entry(
        {
            "cautions": Each(TEXT),
            "checks": _all_of(
                {TEXT: "cross along none level rim raised polish size size-last last-mirror last-tooth last-satin"}
            ),
            "general": _all_of({TEXT: "defer keep_off hot light schools wet slow sharp_edge edge"}),
            "advice": _all_of(
                {
                    TEXT: "sheet unwieldy stays nothing-hard long-step pits worn-in cushion block black strokes scrap hot"
                    " graphite plate skin tarnish sweepings crazes loads over-polished bowl in-the-lathe"
                }
            ),
            "mounting": _all_of({TEXT: "two-spindles wheel belt pad lathe disc shank"}),
        }
    ),
    "carriers": Each(_CARRIER),
    "compounds": Each(Entry(_keys({TEXT: "label", LENGTH: "grain", RATIO: "wear"}), {"swirls": FLAG})),
    "damages": Each(
        Entry(
            _keys({TEXT: "label says", _one_of(*FOUND): "kind", LENGTH: "likely worst"}),
            {"length": LENGTH, "width": LENGTH, "off_first": Many(_key_of("operations")), "passivate": FLAG},
        )
    ),
    "eye": Entry(
        {
            "file": _all_of({RATIO: "blocks coarse darkest clipped lost black white"}),
            "camera": _all_of({RATIO: "pixels nearly_all"}),
            "field": _all_of({RATIO: "surroundings gamma"}),
            "lay": _all_of({RATIO: "claimed weak sigmas highest most", LENGTH: "longest", ANGLE: "wedge refined"}),
            "soft": _all_of({RATIO: "doubted blurred", ANGLE: "near far"}),
            "lamp": _all_of({RATIO: "hidden shows", ANGLE: "lay_off height"}),
            "place": _all_of({RATIO: "near told"}),
            "marks": _all_of(
                {RATIO: "pixels sigmas across along step piece stands_out", ANGLE: "crossing away hidden removed"}
            ),
            "verdict": _all_of({RATIO: "seen look_again one_place chance chance_single fields"}),
        }
    ),
    "families": Each(
        Entry(
            _keys(
                {
                    TEXT: "label caution",
                    _key_of("looks"): "look",
                    FLAG: "sparks bath alcohol anodises",
                    Many(_key_of("compounds")): "bars",
                    PROTECTION: "protection",
                }
            ),
            {"protect_within": TIME, "worked_by": Many(_key_of("carriers")), "speeds_as": FAMILY, "burns": FLAG},
        )
    ),
    "faults": Each(_all_of({TEXT: "seen avoid", WORDS: "why cure"})),
    "feels": Each(_all_of({TEXT: "label", LENGTH: "likely worst"})),
    "finishes": Each(
        Entry(
            _keys({TEXT: "label purpose", _one_of(*LAYS): "lay", _key_of("process", "deformed"): "shows"}),
            _keys({LENGTH: "ra_low ra_high", TEXT: "no_finer_than", _key_of("finishes"): "simpler"}),
        )
    ),
    "inserts": Each(_all_of({TEXT: "label word", TEMPERATURE: "limit", Many(_one_of(*WAYS)): "forbids"})),
    "instruments": Each(
        _all_of(
            {
                TEXT: "label",
                _one_of(*QUANTITIES): "quantity",
                _READ: "resolution error",
            }
        )
    ),
    "kits": Each(_all_of({TEXT: "label about", Many(Name("something that can stand on a rack", _on_a_rack)): "items"})),
    "laps": Each(_all_of({TEXT: "label note", PRESSURE: "hardness"})),
    "looks": Each(_all_of({Many(RATIO): "reflects", RATIO: "body"})),
    "machines": Each(_MACHINE),
    "materials": Each(
        Entry(
            {
                "label": TEXT,
                "family": FAMILY,
                "hardness": PRESSURE,
                "conductivity": _number("conductivity"),
                "density": _number("density"),
                "specific_heat": _number("specific heat"),
                "limit": TEMPERATURE,
                "expansion": _number("expansion"),
            },
            {
                "worked_wet": FLAG,
                "passivates": FLAG,
                "caution": TEXT,
                "tips": Many(_key_of("advice", "advice")),
                "look": _key_of("looks"),
                "cut_share": RATIO,
                "smear": RATIO,
                "coarsest": LENGTH,
                **_SHELTER,
            },
            together=(("protection", "protect_within"),),
        )
    ),
    "operations": Each(
        Entry(
            _keys({TEXT: "label text", TIME: "active"}),
            _keys(
                {TIME: "lot per_dm2 passive", Many(_one_of(*WAYS)): "forbidden_by", WORDS: "cautions", Many(FAMILY): "families"}
            ),
        )
    ),
    "process": _PROCESS,
    "sentences": Each(Each(TEXT)),
    "upkeep": Each(
        Entry(
            _keys({TEXT: "label text", _one_of(*LOOKED_AFTER): "on"}),
            _keys({TIME: "after every", FLAG: "worked"}),
        )
    ),
    "uses": Each(Entry(_keys({TEXT: "label reason", _key_of("finishes"): "finish"}), {"no_finer_than": TEXT})),
}
_CITED: Final[dict[str, Schema]] = {"source": Name("a key of sources.toml", sources_written), "locator": NOTE, "note": NOTE}
_BAND_COLUMNS: Final[dict[str, dict[str, Schema]]] = {
    name: {
        "use": TEXT,
        "family": FAMILY,
        f"low_{unit.replace('/', '_')}": Written(),
        f"high_{unit.replace('/', '_')}": Written(),
    }
    for name, unit in BANDS.items()
}
_TOLERANCE_COLUMNS: Final = "over_mm to_mm it4_um it5_um it6_um it7_um it8_um f_um g_um k_um m_um n_um p_um"
_CUT_OFF_COLUMNS: Final = "ra_low_um ra_high_um rsm_low_mm rsm_high_mm cut_off_mm noise_um"
TABLES: Final[dict[str, dict[str, Schema]]] = {
    "grains": {"system": _one_of(*SYSTEMS), "grade": Written(), "median_um": Written(), **_CITED},
    **{name: {**columns, **_CITED} for name, columns in _BAND_COLUMNS.items()},
    "hardness": {"scale": _one_of(*HARDNESSES), "value": Written(), "vickers": Written(), **_CITED},
    "tolerances": {**{column: Written(zero=column in ("over_mm", "k_um")) for column in _TOLERANCE_COLUMNS.split()}, **_CITED},
    "cutoffs": {**{column: Written() for column in _CUT_OFF_COLUMNS.split()}, "source": _CITED["source"]},
}
SOURCES: Final = Each(_all_of({TEXT: "title", _one_of(*KINDS): "kind"}))
