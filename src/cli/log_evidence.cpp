// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/log_work.h"

#include "core/base/number.h"
#include "core/judge/doubts.h"
#include "core/judge/judged.h"
#include "core/measure/rockwell.h"
#include "core/proof/fracture.h"
#include "core/steel/grade_sheet.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/grain.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/proof.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "logbook/transfer/import.h"
#include "plot/fracture_picture.h"

#include <algorithm>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <map>
#include <QFile>
#include <QJsonArray>
#include <set>

// Steel, heat, edge and damage.
namespace rollcall::cli {

std::vector<ElementReading> elementsIn(const LogLine& line) {
    const double sigmas = line.has("sigmas") ? line.plain("sigmas", 1, 3) : 1;
    const QJsonObject elements = line.value("elements").toObject();
    if (elements.isEmpty()) throw BadField{"elements", "an object of elements is needed, like {\"Cr\": 13.1}"};
    std::vector<ElementReading> readings;
    for (auto one = elements.begin(); one != elements.end(); ++one) {
        ElementReading reading;
        reading.element = one.key().toStdString();
        const auto bad = [&](const std::string& text) { return BadField{"elements." + reading.element, text}; };
        QJsonValue value = one.value();
        if (value.isArray()) {
            const QJsonArray pair = value.toArray();
            if (pair.size() != 2 || !pair[1].isDouble()) throw bad("per cent and its error are needed");
            reading.sigma = pair[1].toDouble() / sigmas;
            value = pair[0];
        }
        if (value.isString() && value.toString().startsWith(QLatin1Char('<'))) {
            const auto lod = parseNumber(value.toString().mid(1).toStdString());
            if (!lod) throw bad(lod.error().text);
            reading.lod = *lod;
        } else if (value.isDouble()) {
            reading.percent = value.toDouble();
            if (!(*reading.percent >= 0 && *reading.percent <= 100)) throw bad("per cent lie within 0 to 100");
        } else {
            throw bad("per cent are needed, or \"<0.05\"");
        }
        readings.push_back(std::move(reading));
    }
    return readings;
}

Result<Done> takeShot(const LogLine& line) {
    const Batch batch = line.batch();
    ShotDraft draft;
    draft.batch = batch.id;
    if (line.has("blade")) draft.blade = line.blade(batch).id;
    draft.method = line.word<AnalysisMethod>("method");
    draft.composition.elements = elementsIn(line);
    draft.piece = line.text("piece", "");
    return only(addShot(line.logbook(), draft));
}

Result<Done> steelNote(const LogLine& line, SteelNoteKind kind) {
    const Batch batch = line.batch();
    SteelNote note;
    note.kind = kind;
    note.text = line.text("text", "");
    if (kind == SteelNoteKind::spark) note.agrees = line.yes("agrees", true);
    if (kind == SteelNoteKind::changed) {
        for (const Blade* blade : line.blades(batch)) note.marks.push_back(blade->mark);
    }
    if (kind != SteelNoteKind::coupon) return addSteelNote(line.logbook(), batch.id, note);
    for (const double hrc : line.numbers("hrc", 20, 70)) {
        note.hrc = hrc;
        if (auto done = addSteelNote(line.logbook(), batch.id, note); !done) return done;
    }
    return Done{};
}

Result<Done> keepGrade(const LogLine& line) {
    GradeSheet sheet;
    for (const char* field : {"name", "based_on"}) {
        if (line.has(field)) sheet[field] = line.text(field);
    }
    const QJsonObject fields = line.value("sheet").toObject();
    for (auto one = fields.begin(); one != fields.end(); ++one)
        sheet[one.key().toStdString()] =
            one.value().isDouble() ? fmt::format("{:g}", one.value().toDouble()) : one.value().toString().toStdString();
    if (const auto grade = gradeFromSheet(sheet, line.context().tables); !grade)
        throw BadField{grade.error().place.empty() ? "sheet" : grade.error().place, grade.error().text};
    return keepOwnGrade(line.logbook(), sheet);
}

Result<Done> beginHeat(const LogLine& line) {
    const Batch batch = line.batch();
    const auto shop = line.logbook().shop();
    if (!shop) return shop.error();
    HeatDraft draft;
    draft.batch = batch.id;
    const std::string oven = line.text("oven");
    for (const Oven& one : shop->ovens) {
        if (one.name == oven) draft.oven = one.id;
    }
    if (draft.oven.empty()) {
        const auto made = addOven(line.logbook(), {"", oven, 5, {}});
        if (!made) return made.error();
        draft.oven = *made;
    }
    draft.set_c = line.number("set", Quantity::temperature, 100, 1400);
    draft.min_minutes = line.optionalPlain("soak_least", 0, 600);
    draft.max_minutes = line.optionalPlain("soak_most", 0, 600);
    if (draft.max_minutes == 0.0) line.doubt("a soak of 0 minutes", "left out");
    draft.medium = line.text("medium");
    draft.medium_c = line.optional("medium_temperature", Quantity::temperature, -200, 400);
    draft.surface = line.word<HeatSurface>("surface", HeatSurface::scaled);
    draft.edge_mm = line.optional("edge", Quantity::length, 0.1, 50);
    draft.as_entered = line.entered();
    const auto run = startHeat(line.logbook(), draft);
    if (!run) return run.error();
    line.context().heats[line.text("as", "")] = *run;
    if (!line.has("trace")) return Done{};
    TraceDraft trace;
    trace.run = *run;
    trace.name = "typed";
    if (line.value("trace").isArray()) {
        std::vector<TraceSample> samples;
        for (const QJsonValue one : line.value("trace").toArray()) {
            const QJsonArray pair = one.toArray();
            if (pair.size() != 2 || !pair[0].isDouble() || !pair[1].isDouble())
                throw BadField{"trace", "each sample is [seconds, degrees]"};
            samples.push_back({pair[0].toDouble(), pair[1].toDouble()});
        }
        Result<Trace> made = Trace::of(std::move(samples));
        if (!made) throw BadField{"trace", made.error().text};
        trace.trace = std::move(made).value();
        return addTrace(line.logbook(), trace);
    }
    QFile file(line.context().beside.filePath(QString::fromStdString(line.text("trace"))));
    if (!file.open(QIODevice::ReadOnly)) throw BadField{"trace", "this file cannot be read"};
    const QByteArray bytes = file.readAll();
    auto read = readTrace(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!read) throw BadField{"trace", read.error().text};
    trace.name = QFileInfo(file).fileName();
    trace.file = bytes;
    trace.trace = std::move(read->trace);
    return addTrace(line.logbook(), trace);
}

Result<Done> inHeat(const LogLine& line) {
    const std::string name = line.text("heat");
    const auto run = line.context().heats.find(name);
    if (run == line.context().heats.end())
        throw BadField{"heat", fmt::format("no line before has begun a heat {}", name)};
    const auto batches = line.logbook().batches();
    if (!batches) return batches.error();
    for (const BatchSummary& summary : *batches) {
        const auto batch = line.logbook().batchAlone(summary.id);
        if (!batch) return batch.error();
        const bool its = std::any_of(batch->heat_runs.begin(), batch->heat_runs.end(),
                                     [&](const HeatRun& heat) { return heat.id == run->second; });
        if (!its) continue;
        double before_s = -86400;
        for (const char* field : {"in", "out", "quenched"}) {
            if (!line.has(field)) continue;
            const double at_s = line.plain(field, -86400, 864000);
            if (at_s < before_s) throw BadField{field, "it lies before what came first"};
            before_s = at_s;
        }
        for (const Blade* blade : line.blades(*batch)) {
            for (const auto& [field, moment] : {std::pair("in", HeatMoment::in), std::pair("out", HeatMoment::out),
                                                std::pair("quenched", HeatMoment::quenched)}) {
                if (!line.has(field)) continue;
                auto marked = markHeat(line.logbook(), run->second, blade->id, blade->round, moment,
                                       line.plain(field, -86400, 864000));
                if (!marked) return marked;
            }
            HeatNoteDraft note;
            note.run = run->second;
            note.blade = blade->id;
            note.round = blade->round;
            note.transfer_s = line.optionalPlain("transfer", 0, 3600);
            note.quenchant_c = line.optional("quenchant", Quantity::temperature, -200, 400);
            note.noted_c = line.optional("noted_temperature", Quantity::temperature, 100, 1400);
            note.noted_minutes = line.optionalPlain("noted_soak", 0, 600);
            note.note = line.text("note", "");
            note.as_entered = line.entered();
            const bool says =
                note.transfer_s || note.quenchant_c || note.noted_c || note.noted_minutes || !note.note.empty();
            if (says) {
                if (auto noted = noteHeat(line.logbook(), note); !noted) return noted;
            }
        }
        return Done{};
    }
    return Error{ErrorKind::refused, "heat", "its batch is gone"};
}

namespace {

// A colour of the chart, by its name.
std::string knownColour(const LogLine& line, const char* field) {
    const std::string colour = line.text(field);
    std::set<std::string> names;
    for (const OxideColour& one : line.context().tables.oxideColours()) names.insert(one.name);
    if (!names.contains(colour)) throw BadField{field, fmt::format("known are {}", fmt::join(names, ", "))};
    return colour;
}

} // namespace

Result<Done> temperBlades(const LogLine& line) {
    const Batch batch = line.batch();
    const std::vector<const Blade*> blades = line.blades(batch);
    TemperDraft draft;
    draft.batch = batch.id;
    for (const Blade* blade : blades) draft.blades.push_back(blade->id);
    draft.temperature_c = line.optional("temperature", Quantity::temperature, 80, 750);
    draft.hours = line.optional("hours", Quantity::duration, 0.01, 48);
    draft.as_entered = line.entered();
    draft.time = line.logbook().now();
    const auto temper = logTemper(line.logbook(), draft);
    if (!temper) return temper.error();
    const char* named = line.has("color") ? "color" : "colour";
    for (const Blade* blade : blades) {
        const BladeClaim claim = batch.claimOf(*blade);
        const bool unlikely =
            draft.temperature_c &&
            perhapsFahrenheit(*draft.temperature_c, line.context().tables.grade(claim.grade), *claim.window);
        if (unlikely && line.sure()) {
            if (auto meant = meanTemper(line.logbook(), *temper); !meant) return meant;
            break;
        }
        if (unlikely && blade == blades.front())
            line.doubt(
                fmt::format("{:g} °C for {}", *draft.temperature_c, claim.grade),
                fmt::format("{:g} °F = {:.0f} °C", *draft.temperature_c, fahrenheitToCelsius(*draft.temperature_c)));
        if (!line.has(named)) continue;
        ColourNote note;
        note.round = blade->round;
        note.after_temper = lastTemper(*blade) + 1;
        note.zone = "edge";
        note.colour = knownColour(line, named);
        if (auto noted = logColour(line.logbook(), blade->id, note); !noted) return noted;
    }
    return Done{};
}

Result<Done> noteColour(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    ColourNote note;
    note.round = blade.round;
    note.after_temper = lastTemper(blade);
    note.zone = line.text("zone");
    note.colour = knownColour(line, line.has("color") ? "color" : "colour");
    note.surface = line.word<OxideSurface>("surface", OxideSurface::bare);
    note.torch = line.yes("torch", false);
    return logColour(line.logbook(), blade.id, note);
}

Result<Done> noteWarp(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    const std::string high = line.text("high");
    if (high != "L" && high != "R") throw BadField{"high", "known are L and R"};
    const Warp warp{blade.mark, line.number("mm", Quantity::length, 0, 100),
                    high == "L" ? WarpSide::left : WarpSide::right};
    return logWarp(line.logbook(), blade.id, blade.round, lastTemper(blade), warp, line.entered());
}

Result<Done> measure(const LogLine& line) {
    const Batch batch = line.batch();
    EdgeGeometry edge;
    edge.behind_edge_mm = line.number("behind_edge", Quantity::length, 0.01, 10);
    edge.angle_per_side_deg = line.plain("angle", 1, 45);
    edge.grind = line.word<EdgeGrind>("grind", EdgeGrind::flat);
    edge.finish = line.text("finish", "");
    return measureEdge(line.logbook(), line.blade(batch).id, edge, line.entered());
}

Result<Done> rungOnRod(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    EdgeRung rung;
    rung.round = blade.round;
    rung.after_temper = lastTemper(blade);
    rung.force_n = line.optional("force", Quantity::force, 0.1, 1000);
    rung.raise_deg = line.optionalPlain("raise", 0.1, 90);
    rung.contact_mm = line.optional("contact", Quantity::length, 0.1, 100);
    const std::string outcome = line.text("outcome");
    rung.outcome = outcome == "true" ? EdgeOutcome::held : line.word<EdgeOutcome>("outcome");
    rung.size_mm = line.optional("size", Quantity::length, 0, 20);
    rung.place_mm = line.optional("place", Quantity::length, 0, 2000);
    return only(logRung(line.logbook(), blade.id, rung, line.entered()));
}

Result<Done> burnt(const LogLine& line) {
    const Batch batch = line.batch();
    GrindingNote note;
    note.cleared = line.yes("cleared", false);
    note.colour = !note.cleared;
    note.text = line.text("text", "");
    return noteGrinding(line.logbook(), line.blade(batch).id, note);
}

Result<Done> damaged(const LogLine& line) {
    const Batch batch = line.batch();
    if (line.yes("cleared", false)) {
        const Blade& blade = line.blade(batch);
        if (openCrack(blade)) return clearCrack(line.logbook(), blade, line.text("reason"));
        if (const DamageMark* open = openDamage(blade))
            return clearDamage(line.logbook(), open->id, line.text("reason"));
        throw BadField{"cleared", "no damage of it is open"};
    }
    DamageMark mark;
    mark.kind = line.text("kind");
    mark.place_mm = line.optional("place", Quantity::length, 0, 2000);
    mark.size_mm = line.optional("size", Quantity::length, 0, 500);
    mark.note = line.text("note", "");
    return markDamage(line.logbook(), line.blade(batch).id, mark);
}

namespace {

// E32. What failed, in the word that a trial keeps.
std::string failureOf(const QJsonObject& failed) {
    const QString how = failed["how"].toString();
    if (std::find(failures.begin(), failures.end(), how.toStdString()) != failures.end()) return how.toStdString();
    static const std::map<QString, const char*> words{
        {"edge", "chipped"},         {"blade", "broke"},      {"tip", "tip chipped or bent"},  {"tang", "tang broke"},
        {"handle", "handle failed"}, {"jaw", "jaws slipped"}, {"operator", "operator slipped"}};
    const auto known = words.find(failed["what"].toString());
    if (known == words.end()) throw BadField{"steps", "what failed is edge, blade, tip, tang, handle, jaw or operator"};
    return known->second;
}

// The entries of a trial that was begun by a line.
struct TrialLog {
    const LogLine& line;
    std::string trial;

    Result<Done> operator()(TrialAct act, double value, const std::string& text) const {
        TrialEvent event;
        event.act = act;
        event.value = value;
        event.text = text;
        return trialEvent(line.logbook(), trial, event, {});
    }
};

Protocol protocolNamed(const LogLine& line, const std::string& name) {
    const Result<Shop> shop = line.logbook().shop();
    std::vector<Protocol> known = line.context().tables.protocols();
    if (shop) known.insert(known.begin(), shop->own_protocols.begin(), shop->own_protocols.end());
    for (const Protocol& protocol : known) {
        if (lowered(protocol.name) == lowered(name)) return protocol;
    }
    throw BadField{"protocol", "there is no such protocol"};
}

} // namespace

Result<Done> tryPiece(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    const Protocol protocol = protocolNamed(line, line.text("protocol"));
    if (!line.value("steps").isArray()) throw BadField{"steps", "an array of {step, ok, value or failed}"};
    const QJsonArray steps = line.value("steps").toArray();
    const auto trial = beginTrial(line.logbook(), blade.id, blade.round, lastTemper(blade), protocol);
    if (!trial) return trial.error();
    const TrialLog log{line, *trial};
    // A step whose failure is not the steel's is typed again; so the lines may be more than the steps.
    std::size_t at = 0;
    for (const QJsonValue one : steps) {
        const QJsonObject done = one.toObject();
        if (at >= protocol.steps.size()) throw BadField{"steps", "there are more than the protocol has"};
        const ProtocolStep& step = protocol.steps[at];
        if (done.contains("step") && lowered(done["step"].toString().toStdString()) != lowered(step.name))
            throw BadField{"steps", fmt::format("step {} is called {}", at + 1, step.name)};
        Result<Done> logged = Done{};
        if (done.contains("failed")) {
            const std::string how = failureOf(done["failed"].toObject());
            logged = log(TrialAct::fail, 0, how);
            if (failsSteel(how)) ++at;
        } else {
            const double value = done["value"].toDouble(step.least.value_or(1));
            if (step.kind == StepKind::count || step.kind == StepKind::cuts)
                logged = log(step.kind == StepKind::count ? TrialAct::count : TrialAct::cuts, value, {});
            const bool answers = step.kind != StepKind::count || !step.least;
            if (logged && answers) logged = log(TrialAct::answer, value, {});
            ++at;
        }
        if (!logged) return logged;
    }
    return Done{};
}

Result<Done> cutRope(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    if (!line.value("looks").isArray()) throw BadField{"looks", "an array of [cuts, pass, hesitates or fails]"};
    const Protocol protocol = protocolNamed(line, "Cut to dull");
    const auto trial = beginTrial(line.logbook(), blade.id, blade.round, lastTemper(blade), protocol);
    if (!trial) return trial.error();
    const TrialLog log{line, *trial};
    Result<Done> logged =
        log(TrialAct::note, 0, fmt::format("{}; asked: {}", line.text("medium", ""), line.text("criterion", "")));
    double before = 0;
    for (const QJsonValue one : line.value("looks").toArray()) {
        const QJsonArray look = one.toArray();
        const QString result = look.at(1).toString();
        if (look.size() != 2 || !look[0].isDouble() || look[0].toDouble() <= before ||
            (result != QLatin1String("pass") && result != QLatin1String("hesitates") &&
             result != QLatin1String("fails")))
            throw BadField{"looks", "each is [cuts in all, pass, hesitates or fails], rising"};
        const TrialAct act = result == QLatin1String("pass")        ? TrialAct::cuts
                             : result == QLatin1String("hesitates") ? TrialAct::hesitates
                                                                    : TrialAct::fail;
        if (logged) logged = log(act, look[0].toDouble() - before, act == TrialAct::fail ? "dull" : "");
        before = look[0].toDouble();
    }
    return logged;
}

namespace {

// What was counted at a microscope, or rated by eye, has no photo: its lines are kept on a blank plate whose scale
// leaves 20 pixels to a grain, so that a plate never limits what is seen.
struct Plate {
    double px_per_mm = 1000;
    int width = 400;
    int height = 300;
};
constexpr double pixelsToAGrain = 20;
constexpr int apart_px = 40; // one line from the next

struct SeenLine {
    double mm = 0;
    double crossings = 0;
};

std::vector<SeenLine> linesIn(const LogLine& line) {
    std::vector<SeenLine> lines;
    if (!line.has("lines")) return lines;
    if (!line.value("lines").isArray()) throw BadField{"lines", "an array of [mm, crossings]"};
    for (const QJsonValue one : line.value("lines").toArray()) {
        const QJsonArray pair = one.toArray();
        const SeenLine seen{pair.at(0).toDouble(), pair.at(1).toDouble()};
        const double halves = seen.crossings * 2;
        if (pair.size() != 2 || !(seen.mm >= 0.01 && seen.mm <= 100) || !(seen.crossings >= 1 && halves <= 2000) ||
            halves != std::round(halves))
            throw BadField{"lines", "each is [0.01 to 100 mm, 1 to 1000 crossings in halves]"};
        lines.push_back(seen);
    }
    if (lines.empty() || lines.size() > 50) throw BadField{"lines", "1 to 50 of them"};
    return lines;
}

Plate plateFor(const std::vector<SeenLine>& lines) {
    Plate plate;
    if (lines.empty()) return plate;
    double densest = 0;
    double longest = 0;
    for (const SeenLine& seen : lines) {
        densest = std::max(densest, seen.crossings / seen.mm);
        longest = std::max(longest, seen.mm);
    }
    plate.px_per_mm = std::clamp(densest * pixelsToAGrain, 1.0, 10000.0);
    plate.width = static_cast<int>(std::ceil(longest * plate.px_per_mm)) + 2 * apart_px;
    plate.height = apart_px * (static_cast<int>(lines.size()) + 1);
    if (plate.width > 40000) throw BadField{"lines", "one line is too much longer than the grain: count it in parts"};
    return plate;
}

} // namespace

Result<Done> countFracture(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    const std::vector<SeenLine> lines = linesIn(line);
    std::optional<FractureRating> rating;
    if (line.has("rating")) {
        const QJsonArray looks = line.value("rating").toArray();
        if (looks.size() != 2) throw BadField{"rating", "two looks, like [6, 7]"};
        rating = FractureRating{looks[0].toDouble(), looks[1].toDouble(), {}};
    }
    if (lines.empty() && !rating) throw BadField{"lines", "lines that were counted, or a rating, is needed"};
    const Plate plate = plateFor(lines);
    FractureDraft draft;
    draft.blade = blade.id;
    draft.round = blade.round;
    draft.after_temper = line.yes("untempered", false) ? 0 : lastTemper(blade);
    draft.photo = {lines.empty() ? QStringLiteral("rated, no photo.png") : QStringLiteral("counted, no photo.png"),
                   blankPlate(plate.width, plate.height)};
    draft.width = plate.width;
    draft.height = plate.height;
    const auto fracture = addFracture(line.logbook(), draft);
    if (!fracture) return fracture.error();
    Result<Done> logged = Done{};
    if (!lines.empty()) logged = scaleFracture(line.logbook(), *fracture, plate.px_per_mm, line.entered());
    double y = apart_px;
    for (const SeenLine& seen : lines) {
        if (!logged) return logged;
        CountedLine counted;
        counted.zone = line.word<FractureZone>("zone", FractureZone::middle);
        counted.line = {false, {apart_px, y}, {apart_px + seen.mm * plate.px_per_mm, y}};
        y += apart_px;
        // Where each boundary lies was not noted: they stand evenly, a half one at the end.
        const int whole = static_cast<int>(seen.crossings);
        for (int i = 0; i < whole; ++i) counted.crossings.push_back({(i + 0.5) / seen.crossings, 1});
        if (seen.crossings > whole) counted.crossings.push_back({1, 0.5});
        logged = only(countLine(line.logbook(), *fracture, counted));
    }
    if (logged && rating) logged = rateFracture(line.logbook(), *fracture, *rating);
    return logged;
}

} // namespace rollcall::cli
