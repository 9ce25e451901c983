// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/names.h"
#include "core/heat/colour.h"
#include "core/heat/recipe.h"
#include "core/heat/soak.h"
#include "core/heat/temper.h"
#include "core/heat/warp.h"
#include "core/judge/measurement.h"
#include "core/measure/control.h"
#include "core/measure/files.h"
#include "core/measure/outline.h"
#include "core/proof/edge_ladder.h"
#include "core/proof/fracture.h"
#include "core/proof/trial.h"
#include "core/steel/composition.h"

#include <algorithm>
#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

/// What judgement works on: plain values of one batch, as the logbook holds them. Nothing here judges.
namespace rollcall {

/// The gates in working order.
enum class Gate { steel, heat, quench, temper, edge, proof, release };
inline constexpr std::size_t gateCount = 7;
inline constexpr std::array<Gate, gateCount> allGates{Gate::steel, Gate::heat,  Gate::quench, Gate::temper,
                                                      Gate::edge,  Gate::proof, Gate::release};
constexpr std::size_t indexOf(Gate gate) {
    return static_cast<std::size_t>(gate);
}
template<>
inline constexpr std::array namesOf<Gate>{"steel", "heat", "quench", "temper", "edge", "proof", "release"};
/// The gate's word in tables and signatures, where those of hardening heats were once called cycles: "cycle", "temper".
constexpr const char* storedName(Gate gate) {
    return gate == Gate::heat ? "cycle" : nameOf(gate);
}
/// The gate of a word, stored or spoken.
constexpr std::optional<Gate> gateNamed(std::string_view word) {
    return word == "cycle" ? Gate::heat : named<Gate>(word);
}

/// Why a reading no longer stands.
enum class StrikeReason { sameSpot, edge, scale, seating, overshoot, typingSlip, other, superseded };
template<>
inline constexpr std::array namesOf<StrikeReason>{"same spot", "edge",        "scale", "seating",
                                                  "overshoot", "typing slip", "other", "superseded"};

struct Strike {
    StrikeReason reason = StrikeReason::other;
    std::string note;
    std::string by;
    Instant at;
};

/// E6. The part of a blade that a reading belongs to. A gate judges the edge; zones are never averaged.
enum class Zone { edge, spine, tang, ricasso, skin, core, cladding, patch };
template<>
inline constexpr std::array namesOf<Zone>{"edge", "spine", "tang", "ricasso", "skin", "core", "cladding", "patch"};
inline constexpr std::array allZones{Zone::edge, Zone::spine, Zone::tang,     Zone::ricasso,
                                     Zone::skin, Zone::core,  Zone::cladding, Zone::patch};

/// What a zone other than the edge is to read, HRC; asked of no gate, shown beside it.
struct ZoneWindow {
    Zone zone = Zone::spine;
    Window window;
};

/// One hardness reading on a blade. Never changed: it is struck out, superseded or accepted by later entries.
struct Reading {
    std::string id;
    Gate gate = Gate::temper;
    int round = 1;                   ///< hardening round of the blade, from 1
    std::optional<int> after_temper; ///< number of the last temper before it; none when not known, 0 as quenched
    std::string scale = "HRC";
    double value = 0;
    double resolution = 0.1;
    std::optional<Instant> time; ///< none when not known: it matches no verification
    std::string tester;          ///< id
    std::string indenter;
    std::string anvil;
    std::optional<Spot> spot;
    Zone zone = Zone::edge;
    int surface = 0;                        ///< times the marks on the blade had been ground off before it was read
    std::optional<double> convex_radius_mm; ///< of the surface it was read on; none: flat
    std::string series;                     ///< id of the series of strikes it belongs to; empty for none
    std::string person;
    std::string note;
    std::optional<Strike> struck;
    std::string accepted_because; ///< why a reading that breaks a rule counts all the same; empty when it does not
};

/// One run on a block (M6).
struct Verification {
    std::string id;
    std::string tester;
    std::string indenter;
    std::string anvil;
    std::string scale = "HRC";
    std::string block; ///< name
    double certified = 0;
    double block_uncertainty = 0.3; ///< U of the certificate, k = 2
    std::string certified_by;       ///< whose certificate; empty when not noted
    std::optional<int> valid_until; ///< last local day of the certificate, counted as Instant::localDay()
    std::vector<double> readings;
    std::vector<std::string> reading_ids; ///< in the same order
    std::optional<Instant> time;          ///< of its last reading
};

enum class TesterKind { bench, rebound, files, other };
template<>
inline constexpr std::array namesOf<TesterKind>{"bench", "rebound", "files", "other"};

/// What a tester's readings up to the end of a local day say of its scatter.
struct ScatterDay {
    std::int64_t day = 0;
    std::optional<PooledScatter> known; ///< none: too little yet
};

/// A tester as it is set up now. Indenter and anvil are copied into every reading and run made with it.
struct Tester {
    std::string id;
    std::string name;
    TesterKind kind = TesterKind::bench;
    double resolution = 0.1;
    std::string indenter;
    std::string anvil;
    std::vector<double> files; ///< of a file set: hardness of each file, HRC, softest first
    /// M9, from this tester's own history of HRC readings; none before it has enough.
    std::optional<PooledScatter> learned;
    /// E56. The same as it was known at the end of each day on which it read, in order of the days; null: none.
    std::shared_ptr<const std::vector<ScatterDay>> learned_by_day = {};

    /// What was known of its scatter when it read on this local day: of the days before it.
    std::optional<PooledScatter> learnedBefore(std::int64_t day) const;
};

/// What the surface was like when files were tried on it; only bare metal says what the blade is.
enum class Surface { bare, scale, decarburised };
template<>
inline constexpr std::array namesOf<Surface>{"bare", "scale", "decarburised"};

/// One try of a set of files on a blade. A later one at the same gate takes its place.
struct FileTest {
    std::string id;
    Gate gate = Gate::quench;
    int round = 1;
    int after_temper = 0; ///< number of the last temper before it, 0 as quenched
    std::vector<FileTrial> trials;
    Surface surface = Surface::bare;
    std::string person;
    Instant at;
};

/// One temper as far as a blade has been through it.
struct Temper {
    std::string id;
    int round = 1;
    int number = 1;
    std::optional<double> temperature_c; ///< none when not noted
    std::optional<double> hours;
    std::string as_entered;
    std::optional<Instant> time;
    bool meant = false; ///< E44: a number that would make sense in another unit, and is meant as it stands
};

/// Why a blade is out of the batch.
enum class Fate { cracked, scrapped, coupon, removed };
template<>
inline constexpr std::array namesOf<Fate>{"cracked", "scrapped", "coupon", "removed"};

struct BladeFate {
    Fate fate = Fate::scrapped;
    Gate gate = Gate::quench; ///< gates after this one are excused
    std::string reason;
    std::string by;
    Instant at;
};

struct Excuse {
    Gate gate = Gate::temper;
    std::string reason;
    std::string by;
    Instant at;
};

struct Interval {
    double low = 0;
    double high = 0;
};

/// One shot of an analyser at the bar or at a blade.
struct SteelShot {
    std::string id;
    std::string blade; ///< id; empty: the bar
    AnalysisMethod method = AnalysisMethod::xrf;
    std::string piece; ///< what was shot, as it was called
    CompositionShot composition;
    bool struck = false;
    Instant at;
};

enum class SteelNoteKind { spark, coupon, changed };
template<>
inline constexpr std::array namesOf<SteelNoteKind>{"spark", "coupon", "changed"};

/// What else was found out about the steel, without an analyser.
struct SteelNote {
    SteelNoteKind kind = SteelNoteKind::spark;
    std::string text;
    std::optional<double> hrc;      ///< of a hardened coupon
    std::optional<bool> agrees;     ///< a spark beside a known bar
    std::vector<std::string> marks; ///< changed pieces (carburised, another lot); the others are the control
    Instant at;
};

/// One heat of an austenitise in an oven, and the clock that its blades' marks are read from.
struct HeatRun {
    std::string id;
    std::string oven;                    ///< name
    std::optional<Instant> oven_checked; ///< against a known thermocouple; none: never
    double set_c = 0;
    double near_c = 10; ///< soaking counts from this much below the set point
    std::optional<double> min_minutes;
    std::optional<double> max_minutes;
    HeatSurface surface = HeatSurface::scaled;
    std::string medium;
    std::optional<double> medium_c; ///< aimed at
    double medium_tolerance_c = 15;
    std::optional<double> edge_mm;      ///< thickness left at the edge before hardening; none: full stock
    Instant zero;                       ///< second 0 of its clock
    std::shared_ptr<const Trace> trace; ///< of the oven; null when there is none
    std::string trace_name;
    bool trace_damaged = false; ///< there is one, and it is not what was put in: it is not judged
};

/// A blade in a heat: its own moments on the run's clock, and what was noted by hand.
struct BladeHeat {
    std::string run; ///< id
    int round = 1;
    std::optional<double> in_s;
    std::optional<double> out_s;
    std::optional<double> quenched_s;
    std::optional<double> noted_transfer_s;
    std::optional<double> quenchant_c;
    std::optional<double> noted_c;       ///< soak temperature in the written note
    std::optional<double> noted_minutes; ///< soak in the written note
    std::string note;

    /// Seconds from the oven into the quench by its marks, which are no finer than the samples of a trace.
    std::optional<double> marked_transfer_s() const {
        return out_s && quenched_s ? std::optional(*quenched_s - *out_s) : std::nullopt;
    }
    /// Seconds from the oven into the quench: as noted, else by its marks (E23).
    std::optional<double> transfer_s() const { return noted_transfer_s ? noted_transfer_s : marked_transfer_s(); }
};

/// A blade laid on the plate.
struct WarpReading {
    int round = 1;
    int after_temper = 0; ///< 0 as quenched
    double mm = 0;
    WarpSide high = WarpSide::left;
    Instant at;
};

/// A blade held far below the room's temperature, to turn what the quench left soft.
struct ColdTreatment {
    int round = 1;
    int after_temper = 0; ///< 0 between quench and first temper, where it does most
    double temperature_c = 0;
    double hours = 0;
    Instant at;
};

/// A temper colour seen on a part of a blade.
struct ColourNote {
    int round = 1;
    int after_temper = 0;
    std::string zone; ///< edge, flat, spine
    std::string colour;
    OxideSurface surface = OxideSurface::bare;
    bool torch = false; ///< a selective softening pass, not the oven
    Instant at;
};

/// Colour or burning seen while grinding the edge; a later note takes the place of an earlier one.
struct GrindingNote {
    bool colour = false;
    bool cleared = false; ///< filed back, or read since
    std::string text;
    Instant at;
};

/// Damage seen on a blade and where.
struct DamageMark {
    std::string id;
    std::string kind;               ///< chip, roll, bend, crack, break, dull
    std::optional<double> place_mm; ///< along the blade from the heel
    std::optional<double> size_mm;
    std::string note;
    std::string photo; ///< name of the attached picture; empty for none
    Instant at;
    std::string cleared;    ///< why it no longer counts: ground out, inspected; empty: it counts
    std::string cleared_by; ///< initials
};

/// What a batch's edges are asked for, by purpose.
struct EdgeAsk {
    std::string purpose;
    std::string school;
    bool by_hand = false; ///< flexed over the rod by hand, without a scale
    EdgeLoadStep rung;
};

/// What becomes of a blade.
enum class Disposition { release, temperAgain, reharden, otherPurpose, hold, scrap, sendBack };
template<>
inline constexpr std::array namesOf<Disposition>{"release", "temper again", "re-harden", "other purpose",
                                                 "hold",    "scrap",        "send back"};
inline constexpr std::size_t dispositions = 7;

/// A decision about a blade that a person signed, and what it rested on then.
struct Signature {
    Disposition disposition = Disposition::hold;
    int round = 1;     ///< hardening round of the blade
    std::string basis; ///< the verdicts as they were, in the form of releaseBasis()
    std::string reason;
    std::string by;
    Instant at;
};

/// A series of rebound strikes: what the instrument made of it, and how the blade lay.
struct StrikeSeries {
    std::string id;
    std::optional<double> instrument_mean; ///< HRC
    std::string support;
};

/// E27. Somebody looked into a hardness far from what was expected: cycle, oven, reading and steel.
struct SurpriseLook {
    int round = 1;
    int after_temper = 0;
    std::string reason; ///< what was found
    std::string by;     ///< initials
    Instant at;
};

/// What a blade was sold as, is taken for and is asked for, where that is its own and not the batch's: in a pile of
/// finished knives each has its claim. What is left empty is the batch's.
struct BladeClaim {
    std::string claimed; ///< grade that it was sold as
    std::string grade;   ///< that it is taken for; may be one the library does not know
    std::string purpose;
    std::optional<Window> window; ///< after temper, HRC
    std::optional<double> quench_minimum;
    std::optional<int> minimum_tempers; ///< 0: finished, no temper of ours

    bool operator==(const BladeClaim&) const = default;
};

struct Blade {
    std::string id;
    std::string mark;
    std::optional<BladeClaim> own; ///< none: as the batch
    BladeShape shape;
    int surface = 0;                    ///< times the marks on it were ground off; marks of earlier ones are gone
    int round = 1;                      ///< hardening round it is in
    std::optional<Instant> quenched_at; ///< of this round
    std::vector<Reading> readings;      ///< all, of all rounds, in the order they were logged
    std::vector<Temper> tempers;        ///< all, of all rounds, in order
    std::vector<StrikeSeries> series;
    std::vector<FileTest> file_tests; ///< all, in the order they were made
    std::vector<BladeHeat> heats;     ///< in the order of the runs
    std::vector<WarpReading> warps;   ///< in order
    std::vector<ColourNote> colours;  ///< in order
    std::vector<ColdTreatment> colds; ///< in order
    std::vector<EdgeGeometry> edges;  ///< as measured, in order; the last is the present one
    std::vector<EdgeRung> rungs;      ///< in order
    std::vector<GrindingNote> grinding;
    std::vector<DamageMark> damage;
    std::vector<Trial> trials;            ///< in the order begun
    std::vector<FracturePhoto> fractures; ///< photos of it broken, in order; none that was struck out
    std::vector<Signature> signatures;    ///< in order; the last one counts
    std::vector<Excuse> excuses;
    std::vector<SurpriseLook> looks; ///< in order; the last one after a temper counts
    std::optional<BladeFate> fate;

    /// What was found on looking into a surprise of its present round; null when nobody looked.
    const SurpriseLook* lookedAfter(int temper) const {
        const auto found = std::find_if(looks.rbegin(), looks.rend(), [&](const SurpriseLook& look) {
            return look.round == round && look.after_temper == temper;
        });
        return found == looks.rend() ? nullptr : &*found;
    }
};

struct GatePlan {
    bool required = false;
    int planned_readings = 3;
    bool by_files = false; ///< E37: Quench or Temper answered by files alone, without a tester
};

/// E35. How often a tester must be verified; after the day of its run a verification is aged.
enum class VerifyEvery { day, week, month };
template<>
inline constexpr std::array namesOf<VerifyEvery>{"day", "week", "month"};

/// Something worth keeping that no gate asks for: a plain sentence on a batch, a blade or one reading.
struct Note {
    std::string id;
    std::string text;
    std::string blade;    ///< id; empty: on the batch
    std::string reading;  ///< id; empty: on no reading
    bool on_card = false; ///< goes onto the batch card
    std::string by;
    Instant at;
};

/// E39. Another steel in the blades of a batch than the one its edge is of: laminated, pattern-welded, san-mai.
struct SteelPart {
    std::string grade;
    std::string place; ///< cladding, core, second layer
};

/// E35. By which rules a batch is judged: two schools stay two schools.
struct BatchRules {
    DecisionRule rule = DecisionRule::guarded;
    std::optional<double> allowance; ///< HRC, of the rule with allowance; none: the tester's allowed error there
    bool uncorrected = false;        ///< judged as read, the tester's error added to U
    VerifyEvery verify_every = VerifyEvery::day;
    int rehardening_limit = 2;
    SpacingRule spacing; ///< stricter than E18's, never looser; 0 mm: E18's own
};

/// Everything judgement needs of one batch.
struct Batch {
    std::string id;
    std::string name;
    std::string purpose;
    std::string grade;                   ///< that it is taken for; may be one the library does not know
    std::string claimed;                 ///< that it was sold as
    std::vector<SteelPart> other_steels; ///< beside the edge's, in the order they were named
    std::string lot;                     ///< name of the bar or lot
    std::string supplier;
    std::string heat_number;
    std::vector<ElementReading> certificate; ///< the mill's values
    std::vector<SteelShot> shots;            ///< in order
    std::vector<SteelNote> steel_notes;
    Window window;                        ///< of the temper gate, HRC
    std::optional<double> quench_minimum; ///< HRC; none: the grade's own
    std::optional<int> minimum_tempers;   ///< none: by the grade
    DecisionRule rule = DecisionRule::guarded;
    std::optional<double> allowance; ///< none: the tester's allowed error at that hardness
    bool uncorrected = false;
    SpacingRule shop_spacing;
    int rehardening_limit = 2;
    VerifyEvery verify_every = VerifyEvery::day;
    std::array<GatePlan, gateCount> plan;
    std::vector<Blade> blades;
    std::vector<Verification> verifications; ///< of all testers used, in order of time
    std::vector<Tester> testers;
    std::optional<Instant> created;
    std::optional<Recipe> recipe; ///< the version this batch runs
    std::vector<HeatRun> heat_runs;
    OvenSteps oven; ///< of the shop that tempers it
    std::optional<EdgeAsk> edge_ask;
    std::optional<double> sample_asked;   ///< chance asked for all blades left unread (M18); none: each blade is read
    std::optional<double> grain_least;    ///< least grain size asked; none: 8
    std::vector<Note> notes;              ///< in order
    std::vector<ZoneWindow> zone_windows; ///< of zones other than the edge; one for each that has any
    std::vector<TemperObservation> temper_history; ///< of the shop's other batches of this grade

    const GatePlan& planOf(Gate gate) const { return plan[indexOf(gate)]; }
    /// What holds for a blade: its own claim, the batch's where that is silent. The window is always set.
    BladeClaim claimOf(const Blade& blade) const {
        BladeClaim claim{claimed, grade, purpose, window, quench_minimum, minimum_tempers};
        if (!blade.own) return claim;
        const BladeClaim& own = *blade.own;
        if (!own.claimed.empty()) claim.claimed = own.claimed;
        if (!own.grade.empty()) claim.grade = own.grade;
        if (!own.purpose.empty()) claim.purpose = own.purpose;
        if (own.window) claim.window = own.window;
        if (own.quench_minimum) claim.quench_minimum = own.quench_minimum;
        if (own.minimum_tempers) claim.minimum_tempers = own.minimum_tempers;
        return claim;
    }
    /// Whether any blade has a claim of its own: a pile.
    bool isPile() const {
        return std::any_of(blades.begin(), blades.end(), [](const Blade& blade) { return blade.own.has_value(); });
    }
    /// Whether the blades are of one bar as far as anybody says; a blade that is taken for a grade of its own is not.
    bool ofOneBar(const Blade& blade) const {
        return !blade.own || (blade.own->grade.empty() && blade.own->claimed.empty());
    }
    /// A finished knife: no temper or hardening of ours.
    bool isFinished(const Blade& blade) const { return claimOf(blade).minimum_tempers == 0; }
    /// E18. Why a blade is a changed piece (carburised, decarburised, of another lot); empty where it is none.
    std::string changedBy(const Blade& blade) const {
        std::string why;
        for (const SteelNote& note : steel_notes) {
            if (note.kind == SteelNoteKind::changed &&
                std::find(note.marks.begin(), note.marks.end(), blade.mark) != note.marks.end())
                why = note.text.empty() ? "changed" : note.text;
        }
        return why;
    }
    const Tester* tester(const std::string& testerId) const {
        for (const Tester& t : testers) {
            if (t.id == testerId) return &t;
        }
        return nullptr;
    }
};

inline BatchRules rulesOf(const Batch& batch) {
    return {batch.rule,         batch.allowance,         batch.uncorrected,
            batch.verify_every, batch.rehardening_limit, batch.shop_spacing};
}
inline void setRules(Batch& batch, const BatchRules& rules) {
    batch.rule = rules.rule;
    batch.allowance = rules.allowance;
    batch.uncorrected = rules.uncorrected;
    batch.verify_every = rules.verify_every;
    batch.rehardening_limit = rules.rehardening_limit;
    batch.shop_spacing = rules.spacing;
}

} // namespace rollcall
