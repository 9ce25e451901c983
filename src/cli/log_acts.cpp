// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/log_acts.h"

#include "cli/log_work.h"
#include "core/judge/gate_case.h"
#include "core/judge/judged.h"
#include "core/measure/rockwell.h"
#include "core/steel/grade_sheet.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/notes.h"
#include "logbook/actions/proof.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "logbook/actions/undo.h"
#include "logbook/transfer/import.h"

#include <algorithm>

// The acts that a line can ask for, one row each: its fields and the window's own function.
namespace rollcall::cli {

namespace {

constexpr LogField inBatch{"batch", true, "name of the batch"};
constexpr LogField ofBlade{"blade", true, "its mark"};
constexpr LogField ofBlades{"blades", false, "marks, or \"all\"; or blade"};
constexpr LogField oneBlade{"blade", false, "instead of blades"};
constexpr LogField atGate{"gate", true, "steel, heat, quench, temper, edge, proof, release"};
constexpr LogField wasSoldAs{"sold_as", false, "grade"};
constexpr LogField isTakenFor{"taken_for", false, "grade"};
constexpr LogField itsUse{"purpose", false, ""};
constexpr LogField itsWindow{"window", false, "61:63"};
constexpr LogField itsMinimum{"minimum", false, "HRC as quenched"};
constexpr LogField itsTempers{"tempers", false, "fewest"};
constexpr LogField isFinishedKnife{"finished", false, "true: no temper of ours"};
constexpr LogField because{"reason", true, "why"};

} // namespace

const std::vector<LogAct>& logActs() {
    static const std::vector<LogAct> acts{
        {"person",
         "somebody at work",
         {{"initials", true, ""}, {"name", false, ""}},
         [](const LogLine& l) { return only(addPerson(l.logbook(), l.text("initials"), l.text("name", ""))); }},
        {"tester",
         "a tester, or a set of files",
         {{"name", true, ""},
          {"kind", true, "bench, rebound, files, other"},
          {"resolution", false, "HRC; 0.1"},
          {"indenter", false, ""},
          {"anvil", false, ""},
          {"files", false, "HRC of each file of a set"}},
         [](const LogLine& l) {
             Tester tester;
             tester.name = l.text("name");
             tester.kind = l.word<TesterKind>("kind");
             tester.resolution = l.optionalPlain("resolution", 0, 5).value_or(0.1);
             tester.indenter = l.text("indenter", "");
             tester.anvil = l.text("anvil", "");
             if (l.has("files")) tester.files = l.numbers("files", 20, 75);
             std::sort(tester.files.begin(), tester.files.end());
             return only(addTester(l.logbook(), tester));
         }},
        {"block",
         "a test block",
         {{"name", true, ""},
          {"certified", true, ""},
          {"uncertainty", false, "k = 2; 0.3"},
          {"scale", false, "HRC"},
          {"diameter", false, "mm"},
          {"spacing", false, "mm"},
          {"certifier", false, "laboratory of its certificate"},
          {"certified_on", false, "2026-01-31"},
          {"expires", false, "2028-01-31"}},
         [](const LogLine& l) -> Result<Done> {
             Block block;
             block.name = l.text("name");
             block.certified = l.plain("certified", 0, 130);
             block.uncertainty = l.optionalPlain("uncertainty", 0, 5).value_or(0.3);
             block.scale = l.text("scale", "HRC");
             block.diameter_mm = l.optional("diameter", Quantity::length, 5, 500).value_or(60);
             block.spacing_mm = l.optional("spacing", Quantity::length, 0.5, 20).value_or(3);
             block.certificate.by = l.text("certifier", "");
             block.certificate.on = l.text("certified_on", "");
             block.certificate.until = l.text("expires", "");
             return only(addBlock(l.logbook(), block));
         }},
        {"batch",
         "blades hardened together",
         {{"name", true, ""},
          {"blades", false,
           "array of {mark, thickness?, length?, height?, sold_as?, window?, minimum?, purpose?, tempers?, finished?}"},
          {"count", false, "instead of blades"},
          {"marks", false, "with count: GK-#"},
          wasSoldAs,
          itsWindow,
          itsMinimum,
          itsUse,
          {"lot", false, ""},
          {"gates", false, "array of gates asked; quench and temper"},
          {"evidence", false, "{quench: files}: by which evidence a gate is asked"},
          {"planned", false, "readings for each blade; 3"},
          itsTempers,
          {"rule", false, "chance, guarded, plain, allowance; the shop's, else chance, of finished knives guarded"},
          {"allowance", false, "HRC"},
          isFinishedKnife},
         makeBatch},
        {"verify",
         "readings on a block",
         {{"tester", true, ""}, {"block", true, ""}, {"readings", true, "array"}},
         verifyOnBlock},
        {"reading",
         "a reading on a blade",
         {inBatch,
          ofBlade,
          atGate,
          {"zone", false, "edge, spine, tang, ricasso, skin, core, cladding, patch"},
          {"value", true, ""},
          {"tester", true, ""},
          {"scale", false, "HRC"},
          {"x", false, "mm from the heel"},
          {"y", false, "mm from the edge"},
          {"after_temper", false, "number of it"},
          {"convex_radius", false, "mm"},
          {"note", false, ""}},
         logOneReading},
        {"strikes",
         "a series of rebound strikes",
         {inBatch,
          ofBlade,
          atGate,
          {"tester", true, ""},
          {"values", true, "array"},
          {"instrument_mean", false, ""},
          {"support", false, "how it lay"},
          {"scale", false, "HRC"}},
         logStrikes},
        {"strike_out",
         "a reading no longer stands",
         {inBatch, ofBlade, atGate, {"value", false, "of the reading"}, {"nth", false, "or its number"}, because},
         strikeOut},
        {"replace_set",
         "one tester's set stands for all",
         {inBatch, ofBlades, oneBlade, atGate, {"keep", true, "tester whose set stands"}, because},
         replaceSet},
        {"files",
         "what files did on a blade",
         {inBatch,
          ofBlade,
          atGate,
          {"tester", false, "the set"},
          {"skates", false, "HRC"},
          {"bites", false, "HRC"},
          {"touches", false, "HRC"},
          {"surface", false, "bare, scale, decarburised"}},
         tryFiles},
        {"shot",
         "a shot of an analyser",
         {inBatch,
          {"blade", false, "none: the bar"},
          {"method", true, "xrf, oes"},
          {"elements", true, "{\"Cr\": 13.1, \"V\": \"<0.05\", \"Mo\": [0.5, 0.02]}"},
          {"sigmas", false, "that the errors are"},
          {"piece", false, "where"}},
         takeShot},
        {"certificate",
         "the mill's values",
         {inBatch, {"elements", true, ""}, {"number", false, ""}},
         [](const LogLine& l) {
             return addCertificate(l.logbook(), l.batch().id, elementsIn(l),
                                   QString::fromStdString(l.text("number", "")), {});
         }},
        {"spark",
         "sparks beside a known bar",
         {inBatch, {"agrees", true, "true, false"}, {"text", false, ""}},
         [](const LogLine& l) { return steelNote(l, SteelNoteKind::spark); }},
        {"coupon",
         "a hardened coupon",
         {inBatch, {"hrc", true, "number or array"}, {"text", false, ""}},
         [](const LogLine& l) { return steelNote(l, SteelNoteKind::coupon); }},
        {"changed",
         "pieces changed, as by carburising",
         {inBatch, ofBlades, oneBlade, {"text", true, ""}},
         [](const LogLine& l) { return steelNote(l, SteelNoteKind::changed); }},
        {"grade",
         "a grade of the shop's own",
         {{"name", true, ""}, {"based_on", false, "grade"}, {"sheet", false, "fields as in grades.csv"}},
         keepGrade},
        {"take_for",
         "what the batch or a blade is taken for",
         {inBatch, {"blade", false, "none: the batch"}, {"grade", true, ""}, {"reason", false, ""}},
         [](const LogLine& l) {
             if (l.has("blade")) {
                 const Batch batch = l.batch();
                 return takeFor(l.logbook(), batch, l.blade(batch), l.text("grade"));
             }
             return assignGrade(l.logbook(), l.batch().id, l.text("grade"), l.text("reason", "composition"));
         }},
        {"heat",
         "a heat begins",
         {inBatch,
          {"as", true, "a name for later lines"},
          {"oven", true, "made when new"},
          {"set", true, "°C"},
          {"soak_least", false, "min"},
          {"soak_most", false, "min"},
          {"medium", true, "its words; an oil may say: fast oil, flash 180"},
          {"medium_temperature", false, "°C"},
          {"surface", false, "scaled, foil, coated"},
          {"edge", false, "mm"},
          {"trace", false, "file beside the lines, or array of [s, °C]"}},
         beginHeat},
        {"in_heat",
         "blades in a heat, in seconds on its clock",
         {{"heat", true, "its name"},
          ofBlades,
          oneBlade,
          {"in", false, "s"},
          {"out", false, "s"},
          {"quenched", false, "s"},
          {"transfer", false, "s"},
          {"quenchant", false, "°C"},
          {"noted_temperature", false, "°C"},
          {"noted_soak", false, "min"},
          {"note", false, ""}},
         inHeat},
        {"temper",
         "a temper",
         {inBatch,
          ofBlades,
          oneBlade,
          {"temperature", false, "°C; null: not noted"},
          {"hours", false, "h"},
          {"colour", false, "seen on bare metal, instead of a temperature"},
          {"color", false, "the same"}},
         temperBlades},
        {"cold",
         "blades held cold",
         {inBatch, ofBlades, oneBlade, {"temperature", true, "°C, -200 to 0"}, {"hours", true, "h"}},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             std::vector<std::string> ids;
             for (const Blade* blade : l.blades(batch)) ids.push_back(blade->id);
             return logCold(l.logbook(), batch, ids, l.number("temperature", Quantity::temperature, -200, -0.1),
                            l.number("hours", Quantity::duration, 0.01, 72), l.logbook().now());
         }},
        {"colour",
         "a temper colour",
         {inBatch,
          ofBlade,
          {"zone", true, "edge, flat, spine"},
          {"colour", false, "or color; one is needed"},
          {"color", false, ""},
          {"surface", false, "bare, coated, scaled, foil"},
          {"torch", false, "true"}},
         noteColour},
        {"warp", "a blade on the plate", {inBatch, ofBlade, {"mm", true, ""}, {"high", true, "L, R"}}, noteWarp},
        {"geometry",
         "an edge measured",
         {inBatch,
          ofBlade,
          {"behind_edge", true, "mm"},
          {"angle", true, "degrees per side"},
          {"grind", false, "flat, convex, hollow"},
          {"finish", false, ""}},
         measure},
        {"rung",
         "an edge pressed on the rod",
         {inBatch,
          ofBlade,
          {"force", false, "N; none: by hand"},
          {"raise", false, "degrees"},
          {"outcome", true, "true, set, roll, chip, crack"},
          {"size", false, "mm"},
          {"place", false, "mm"},
          {"contact", false, "mm"}},
         rungOnRod},
        {"burnt", "colour in grinding", {inBatch, ofBlade, {"cleared", false, "true"}, {"text", false, ""}}, burnt},
        {"trial",
         "a piece tried by a protocol",
         {inBatch,
          ofBlade,
          {"protocol", true, "its name"},
          {"steps", true, "array of {step?, ok or value, or failed: {what, how?}}"}},
         tryPiece},
        {"cuts",
         "cuts until it is dull",
         {inBatch,
          ofBlade,
          {"medium", false, "rope, card"},
          {"criterion", false, "what still counts as sharp"},
          {"looks", true, "array of [cuts in all, pass, hesitates or fails]"}},
         cutRope},
        {"damage",
         "damage seen",
         {inBatch,
          ofBlade,
          {"kind", true, "chip, tip, bend, burn, roll, crack, break"},
          {"place", false, "mm"},
          {"size", false, "mm"},
          {"note", false, ""},
          {"cleared", false, "true: repaired, ground out, inspected or accepted"},
          {"reason", false, "why it is cleared"}},
         damaged},
        {"fracture",
         "a broken piece counted at the microscope, or rated by eye",
         {inBatch,
          ofBlade,
          {"lines", false, ""},
          {"zone", false, ""},
          {"untempered", false, ""},
          {"rating", false, ""}},
         countFracture},
        {"cleared",
         "damage repaired, ground out, inspected or accepted; a crack first",
         {inBatch, ofBlade, because},
         [](const LogLine& l) -> Result<Done> {
             const Batch batch = l.batch();
             const Blade& blade = l.blade(batch);
             if (openCrack(blade)) return clearCrack(l.logbook(), blade, l.text("reason"));
             if (const DamageMark* mark = openDamage(blade))
                 return clearDamage(l.logbook(), mark->id, l.text("reason"));
             return Error{ErrorKind::refused, "blade", "no damage of it is open"};
         }},
        {"looked",
         "a surprise looked into, and it stands",
         {inBatch, ofBlade, because},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             const Blade& blade = l.blade(batch);
             return lookInto(l.logbook(), blade, lastTemper(blade), l.text("reason"));
         }},
        {"study",
         "pieces side by side",
         {{"name", true, ""}, {"factor", false, ""}, {"pieces", true, "array of [batch, blade]"}},
         newStudy},
        {"note",
         "a plain sentence worth keeping",
         {inBatch,
          {"blade", false, "its mark; none: on the batch"},
          {"text", true, ""},
          {"card", false, "true: onto the card"}},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             Note note;
             note.text = l.text("text");
             note.on_card = l.yes("card", false);
             if (l.has("blade")) note.blade = l.blade(batch).id;
             return only(addNote(l.logbook(), batch.id, note));
         }},
        {"excuse",
         "a blade need not answer",
         {inBatch, ofBlades, oneBlade, atGate, because},
         [](const LogLine& l) {
             return eachBlade(
                 l, [&](const Blade& b) { return excuse(l.logbook(), b.id, l.gate("gate"), l.text("reason")); });
         }},
        {"out",
         "a blade leaves the batch",
         {inBatch,
          ofBlades,
          oneBlade,
          {"fate", true, "cracked, scrapped, coupon, removed"},
          {"gate", false, "gates after it are excused; quench"},
          {"reason", false, ""}},
         [](const LogLine& l) {
             return eachBlade(l, [&](const Blade& b) {
                 const Gate gate = l.has("gate") ? l.gate("gate") : Gate::quench;
                 return takeOut(l.logbook(), b.id, l.word<Fate>("fate"), gate,
                                l.text("reason", nameOf(l.word<Fate>("fate"))));
             });
         }},
        {"reharden",
         "a new hardening round",
         {inBatch, ofBlades, oneBlade, because},
         [](const LogLine& l) {
             return eachBlade(l, [&](const Blade& b) {
                 return only(reharden(l.logbook(), b.id, l.text("reason"), l.logbook().now()));
             });
         }},
        {"ground_off",
         "the marks are ground off",
         {inBatch, ofBlades, oneBlade},
         [](const LogLine& l) { return eachBlade(l, [&](const Blade& b) { return grindOff(l.logbook(), b.id); }); }},
        {"rename",
         "another mark",
         {inBatch, ofBlade, {"mark", true, "the new one"}},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             return renameBlade(l.logbook(), l.blade(batch).id, l.text("mark"));
         }},
        {"limits",
         "another window or minimum",
         {inBatch, {"blade", false, "none: the batch's"}, itsWindow, {"minimum", false, "HRC"}},
         newLimits},
        {"claim",
         "what one blade was sold as and is asked for",
         {inBatch, ofBlade, wasSoldAs, isTakenFor, itsUse, itsWindow, itsMinimum, itsTempers, isFinishedKnife},
         changeOneClaim},
        {"add_blade",
         "a forgotten blade",
         {inBatch,
          {"mark", true, ""},
          {"thickness", false, "mm"},
          {"length", false, "mm"},
          {"height", false, "mm"},
          wasSoldAs,
          isTakenFor,
          itsUse,
          itsWindow,
          itsMinimum,
          itsTempers,
          isFinishedKnife},
         addOneBlade},
        {"made_by_mistake",
         "a blade that never was",
         {inBatch, ofBlade, because},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             return takeOut(l.logbook(), l.blade(batch).id, Fate::removed, Gate::steel, l.text("reason"));
         }},
        {"edge",
         "the rod that a batch's edges are asked for",
         {inBatch, {"force", true, "N"}, {"raise", true, "degrees"}, itsUse},
         [](const LogLine& l) {
             EdgeAsk ask;
             ask.purpose = l.text("purpose", "");
             ask.rung = {l.number("force", Quantity::force, 0.1, 1000), l.plain("raise", 0.1, 89)};
             return askEdge(l.logbook(), l.batch().id, ask);
         }},
        {"other_steel",
         "another steel in the blades, and where it lies",
         {inBatch, {"grade", false, "none: takes it back"}, {"place", true, "cladding, core, second layer"}},
         [](const LogLine& l) {
             const std::string grade = l.text("grade", "");
             const Grade* known = l.context().tables.grade(grade);
             return nameSteelPart(l.logbook(), l.batch().id, {known != nullptr ? known->name : grade, l.text("place")});
         }},
        {"zone_window",
         "what another zone than the edge is to read",
         {inBatch, {"zone", true, "spine, tang, ricasso, skin, core, cladding, patch"}, {"window", false, "45:52"}},
         newZoneWindow},
        {"plan",
         "whether a gate is asked",
         {inBatch,
          atGate,
          {"required", true, "true, false"},
          {"planned", false, "readings"},
          {"by_files", false, "true: by files alone"}},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             const Gate gate = l.gate("gate");
             const int planned = l.has("planned") ? l.whole("planned", 1, 50) : batch.planOf(gate).planned_readings;
             const auto done = changePlan(l.logbook(), batch.id, gate, {l.yes("required", true), planned});
             if (!done || !l.has("by_files")) return done;
             return changeMeans(l.logbook(), batch.id, gate, l.yes("by_files", false));
         }},
        {"rule",
         "the rules a batch is judged by",
         {inBatch,
          {"rule", false, "chance, guarded, plain, allowance"},
          {"allowance", false, "HRC"},
          {"as_read", false, "true: not corrected"},
          {"verify_every", false, "day, week, month"},
          {"rehardening_limit", false, "rounds"},
          {"spacing", false, "mm between indents, stricter than E18's"},
          {"edge", false, "mm from edges"},
          {"later", false, "true: of batches to come too"}},
         [](const LogLine& l) {
             const Batch batch = l.batch();
             BatchRules rules = rulesOf(batch);
             if (l.has("rule")) rules.rule = l.word<DecisionRule>("rule");
             if (l.has("allowance")) rules.allowance = l.optionalPlain("allowance", 0, 3);
             rules.uncorrected = l.yes("as_read", rules.uncorrected);
             if (l.has("verify_every")) rules.verify_every = l.word<VerifyEvery>("verify_every");
             if (l.has("rehardening_limit")) rules.rehardening_limit = l.whole("rehardening_limit", 0, 20);
             rules.spacing.min_spacing_mm =
                 l.optional("spacing", Quantity::length, 0, 50).value_or(rules.spacing.min_spacing_mm);
             rules.spacing.min_edge_mm =
                 l.optional("edge", Quantity::length, 0, 50).value_or(rules.spacing.min_edge_mm);
             return changeRules(l.logbook(), batch.id, rules, l.yes("later", false));
         }},
        {"sample",
         "the chance asked for the blades left unread",
         {inBatch, {"chance", false, "0 to 1; null: none"}},
         [](const LogLine& l) { return askSample(l.logbook(), l.batch().id, l.optionalPlain("chance", 0, 1)); }},
        {"sign",
         "a decision",
         {inBatch,
          ofBlades,
          oneBlade,
          {"decision", true, "release, temper again, re-harden, other purpose, hold, scrap, send back"},
          {"reason", false, ""}},
         signFor},
        {"undo",
         "the last act where it only wrote, or the last import",
         {},
         [](const LogLine& l) -> Result<Done> {
             const auto last = lastAct(l.logbook());
             if (!last) return last.error();
             if (!*last) return Error{ErrorKind::refused, "undo", "nothing was done yet"};
             if ((*last)->kind == LastAct::Kind::written) return undo(l.logbook(), (*last)->entry);
             const auto import = lastImport(l.logbook());
             if (!import) return import.error();
             if (!*import) return Error{ErrorKind::refused, "", "there is no import to take back"};
             return takeBackImport(l.logbook(), (*import)->id);
         }},
    };
    return acts;
}

} // namespace rollcall::cli
