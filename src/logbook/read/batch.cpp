// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/standing.h"
#include "logbook/change_log.h"
#include "logbook/database.h"
#include "logbook/kinds.h"
#include "logbook/logbook.h"
#include "logbook/logbook_check.h"
#include "logbook/rows.h"
#include "logbook/shape_text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <QRegularExpression>
#include <unordered_map>

// What is in a logbook, as the plain values that judgement works on.
namespace rollcall {

namespace {

std::optional<Instant> orNone(const RawRow& row, std::size_t ms) {
    return instantOrNone(row[ms], row[ms + 1]);
}

} // namespace

OvenSteps Shop::ovenSteps() const {
    const bool inch = units() == Units::inch;
    const double usual = inch ? 10 / differenceInUnits(1, Quantity::temperature, Units::inch) : 5;
    return {ovens.empty() ? usual : ovens.front().step_c, inch ? outOfUnits(0, Quantity::temperature, Units::inch) : 0};
}

Result<Shop> Logbook::shop() {
    Shop shop;
    const auto people = m_database->select(QStringLiteral("SELECT id, initials, name FROM person ORDER BY rowid"));
    if (!people) return people.error();
    for (const Row& row : *people) shop.people.push_back({s(row[0]), s(row[1]), s(row[2])});
    Result<std::vector<Tester>> testers = this->testers();
    if (!testers) return testers.error();
    shop.testers = std::move(testers).value();
    Result<std::vector<Block>> blocks = this->blocks();
    if (!blocks) return blocks.error();
    shop.blocks = std::move(blocks).value();
    Result<std::vector<Oven>> ovens = this->ovens();
    if (!ovens) return ovens.error();
    shop.ovens = std::move(ovens).value();
    Result<std::vector<GradeSheet>> own = ownGrades();
    if (!own) return own.error();
    shop.own_grades = std::move(own).value();
    Result<std::vector<Protocol>> protocols = ownProtocols();
    if (!protocols) return protocols.error();
    shop.own_protocols = std::move(protocols).value();
    Result<std::vector<Study>> studied = studies();
    if (!studied) return studied.error();
    shop.studies = std::move(studied).value();
    Result<std::vector<StudyPlan>> plans = plannedStudies();
    if (!plans) return plans.error();
    shop.plans = std::move(plans).value();
    Result<std::vector<PlannedRun>> day = plannedRuns();
    if (!day) return day.error();
    shop.day = std::move(day).value();
    const auto settings = m_database->select(QStringLiteral("SELECT id, value FROM setting"));
    if (!settings) return settings.error();
    for (const Row& row : *settings) shop.settings[s(row[0])] = s(row[1]);
    return shop;
}

Result<std::vector<BatchSummary>> Logbook::batches() {
    // Each table is gone through once, in the order it stands on the disk: with many thousand batches, looking up the
    // lot and the blades of each takes three times as long.
    const auto textOf = [](const RawRow& row, std::size_t column) { return std::string(row.text(column)); };
    std::unordered_map<std::string, std::pair<std::string, std::string>> lots; // name and grade
    std::vector<BatchSummary> summaries;
    auto done = m_database->eachRaw(
        QStringLiteral("SELECT l.id, l.name, COALESCE(g.designation, '') FROM lot l LEFT JOIN grade g ON g.id=l.grade"),
        {}, [&](const RawRow& row) { lots.try_emplace(textOf(row, 0), textOf(row, 1), textOf(row, 2)); });
    if (done)
        done = m_database->eachRaw(
            QStringLiteral("SELECT id, name, lot, created_ms, created_offset FROM batch WHERE id NOT IN taken_back "
                           "ORDER BY rowid"),
            {}, [&](const RawRow& row) {
                const auto& [lot, grade] = lots[textOf(row, 2)];
                summaries.push_back({textOf(row, 0), textOf(row, 1), grade, 0,
                                     Instant{row.whole(3), static_cast<int>(row.whole(4))}, lot});
            });
    const auto earlier = [](const BatchSummary& a, const BatchSummary& b) {
        return a.created.utc_ms < b.created.utc_ms;
    };
    if (!std::is_sorted(summaries.begin(), summaries.end(), earlier))
        std::stable_sort(summaries.begin(), summaries.end(), earlier);
    std::unordered_map<std::string_view, BatchSummary*> place;
    place.reserve(summaries.size());
    for (BatchSummary& summary : summaries) place[summary.id] = &summary;
    const auto ofEach = [&](const char* sql, const std::function<void(BatchSummary&, const RawRow&)>& take) {
        if (!done) return;
        done = m_database->eachRaw(QLatin1String(sql), {}, [&](const RawRow& row) {
            if (const auto at = place.find(row.text(0)); at != place.end()) take(*at->second, row);
        });
    };
    ofEach("SELECT a.batch, g.designation FROM grade_assignment a JOIN grade g ON g.id=a.grade WHERE a.id NOT IN "
           "taken_back ORDER BY a.at_ms, a.rowid",
           [&](BatchSummary& batch, const RawRow& row) { batch.grade = textOf(row, 1); });
    ofEach("SELECT batch, COUNT(*) FROM blade GROUP BY batch",
           [](BatchSummary& batch, const RawRow& row) { batch.blades = static_cast<int>(row.whole(1)); });
    ofEach("SELECT batch, COUNT(*) FROM blade WHERE id IN taken_back GROUP BY batch",
           [](BatchSummary& batch, const RawRow& row) { batch.blades -= static_cast<int>(row.whole(1)); });
    if (!done) return done.error();
    return summaries;
}

Result<std::map<std::string, std::vector<Gate>>> Logbook::gatesAsked() {
    const auto rows = m_database->select(QStringLiteral("SELECT batch, gate FROM gate_plan WHERE required=1"));
    if (!rows) return rows.error();
    std::map<std::string, std::vector<Gate>> asked;
    for (const Row& row : *rows) {
        if (const auto gate = gateNamed(s(row[1]))) asked[s(row[0])].push_back(*gate);
    }
    for (auto& [batch, gates] : asked) std::sort(gates.begin(), gates.end());
    return asked;
}

Result<Batch> Logbook::batch(const std::string& id) {
    Result<Batch> batch = batchAlone(id);
    if (!batch) return batch;
    const Result<std::vector<Verification>> runs = verifications();
    if (!runs) return runs.error();
    batch.value().verifications = runsInReach(*batch, *runs);
    const Result<Shop> shop = this->shop();
    if (!shop) return shop.error();
    batch.value().testers = shop->testers;
    batch.value().oven = shop->ovenSteps();
    return batch;
}

Result<std::vector<Row>> Logbook::rowsOf(const char* table, const std::string& batch, const char* sql) {
    if (!mayHave(table, batch)) return std::vector<Row>();
    return m_database->select(QLatin1String(sql), {q(batch)});
}

Result<Batch> Logbook::batchAlone(const std::string& id) {
    // All of it as it was at one moment, with the file locked once.
    std::optional<Database::Transaction> moment;
    if (!m_database->inTransaction()) moment.emplace(*m_database, Database::Transaction::Writes::temporary);
    if (moment && !moment->begun()) return moment->begun().error();
    m_presentHolds = false; // within an act its own rows may stand already, without an entry
    if (moment) {
        const auto holds = m_present.holds(*m_database);
        if (!holds) return holds.error();
        m_presentHolds = *holds;
    }
    const auto found =
        m_database->select(QStringLiteral("SELECT b.name, COALESCE(g.designation, ''), p.name, p.window_low, "
                                          "p.window_high, b.quench_minimum, b.minimum_tempers, b.rule, b.allowance,"
                                          " b.uncorrected, b.created_ms, b.created_offset FROM batch b JOIN purpose p "
                                          "ON p.id=b.purpose LEFT JOIN lot l ON l.id=b.lot"
                                          " LEFT JOIN grade g ON g.id=l.grade WHERE b.id=?"),
                           {q(id)});
    if (!found) return found.error();
    if (found->empty()) return Error{ErrorKind::argument, "", "there is no such batch"};
    const Row& head = found->front();
    Batch batch;
    batch.id = id;
    batch.name = s(head[0]);
    batch.grade = s(head[1]);
    batch.purpose = s(head[2]);
    batch.window = {numberOrNone(head[3]), numberOrNone(head[4])};
    batch.quench_minimum = numberOrNone(head[5]);
    batch.minimum_tempers = wholeOrNone(head[6]);
    batch.rule = storedAs<DecisionRule>(head[7]);
    batch.allowance = numberOrNone(head[8]);
    batch.uncorrected = head[9].toBool();
    batch.created = instantOf(head[10], head[11]);

    const auto plans =
        m_database->select(QStringLiteral("SELECT gate, required, planned FROM gate_plan WHERE batch=?"), {q(id)});
    if (!plans) return plans.error();
    for (const Row& row : *plans) {
        if (const auto gate = gateNamed(s(row[0])))
            batch.plan[indexOf(*gate)] = {row[1].toBool(), row[2].toInt(), false};
    }
    const auto means =
        rowsOf("gate_means", id,
               "SELECT gate, by_files FROM gate_means WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms, rowid");
    if (!means) return means.error();
    for (const Row& row : *means) {
        if (const auto gate = gateNamed(s(row[0]))) batch.plan[indexOf(*gate)].by_files = row[1].toBool();
    }
    const auto parts =
        rowsOf("steel_part", id,
               "SELECT grade, place FROM steel_part WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms, rowid");
    if (!parts) return parts.error();
    for (const Row& row : *parts) {
        // The latest word on a place counts; no grade takes it back.
        std::erase_if(batch.other_steels, [&](const SteelPart& part) { return part.place == s(row[1]); });
        if (!s(row[0]).empty()) batch.other_steels.push_back({s(row[0]), s(row[1])});
    }
    const auto zones =
        rowsOf("zone_window", id,
               "SELECT zone, low, high FROM zone_window WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms, rowid");
    if (!zones) return zones.error();
    for (const Row& row : *zones) {
        const ZoneWindow one{storedAs<Zone>(row[0]), {numberOrNone(row[1]), numberOrNone(row[2])}};
        std::erase_if(batch.zone_windows, [&](const ZoneWindow& other) { return other.zone == one.zone; });
        if (one.window.low || one.window.high) batch.zone_windows.push_back(one);
    }
    const auto rules = rowsOf("batch_rules", id,
                              "SELECT rule, allowance, uncorrected, verify_every, rehardening_limit, "
                              "spacing_mm, edge_mm FROM batch_rules WHERE "
                              "batch=? AND id NOT IN taken_back ORDER BY at_ms DESC, rowid DESC LIMIT 1");
    if (!rules) return rules.error();
    if (!rules->empty()) {
        const Row& row = rules->front();
        setRules(batch, {storedAs<DecisionRule>(row[0]),
                         numberOrNone(row[1]),
                         row[2].toBool(),
                         storedAs<VerifyEvery>(row[3]),
                         row[4].toInt(),
                         {row[5].toDouble(), row[6].toDouble()}});
    }
    const auto rule = rowsOf(
        "batch_rule", id,
        "SELECT rule FROM batch_rule WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms DESC, rowid DESC LIMIT 1");
    if (!rule) return rule.error();
    if (!rule->empty()) batch.rule = storedAs<DecisionRule>(rule->front()[0]);

    std::map<std::string, std::size_t> index;
    const auto blades =
        m_database->select(QStringLiteral("SELECT id, mark, outline, thickness_mm, reading_line_mm "
                                          "FROM blade WHERE batch=? AND id NOT IN taken_back ORDER BY position, rowid"),
                           {q(id)});
    if (!blades) return blades.error();
    QString drawn; // blades of one batch are mostly of one outline
    std::vector<Spot> outline;
    for (const Row& row : *blades) {
        if (row[2].toString() != drawn) outline = outlineFromText(drawn = row[2].toString());
        Blade blade;
        blade.id = s(row[0]);
        blade.mark = s(row[1]);
        blade.shape = {outline, row[3].toDouble(), row[4].toDouble()};
        index[blade.id] = batch.blades.size();
        batch.blades.push_back(std::move(blade));
    }
    const auto each = [&](const char* table, const char* sql,
                          const std::function<void(Blade&, const RawRow&)>& take) -> Result<Done> {
        if (!mayHave(table, id)) return Done{};
        return m_database->eachRaw(QString::fromLatin1(sql), {q(id)}, [&](const RawRow& row) {
            if (const auto place = index.find(s(row[0])); place != index.end()) take(batch.blades[place->second], row);
        });
    };
    auto done = each("hardening_round",
                     "SELECT r.blade, r.number, r.quenched_ms, r.quenched_offset FROM hardening_round r JOIN blade b "
                     "ON b.id=r.blade WHERE b.batch=? ORDER BY r.number",
                     [](Blade& blade, const RawRow& row) {
                         blade.round = row[1].toInt();
                         blade.quenched_at = orNone(row, 2);
                     });
    if (done) {
        done = each(
            "cycle_blade",
            "SELECT cb.blade, c.id, cb.round, cb.number, c.temperature_c, c.hours, c.as_entered, c.at_ms, "
            "c.at_offset, EXISTS (SELECT 1 FROM temper_meant m WHERE m.cycle=c.id AND m.id NOT IN taken_back) FROM "
            "cycle_blade cb"
            " JOIN cycle c ON c.id=cb.cycle WHERE c.batch=? AND c.id NOT IN (SELECT cycle FROM cycle_mark WHERE id "
            "NOT IN taken_back) AND c.id NOT IN taken_back "
            "ORDER BY cb.round, cb.number",
            [](Blade& blade, const RawRow& row) {
                blade.tempers.push_back({s(row[1]), row[2].toInt(), row[3].toInt(), numberOrNone(row[4]),
                                         numberOrNone(row[5]), s(row[6]), orNone(row, 7), row[9].toBool()});
            });
    }
    if (done) {
        done =
            each("blade_claim",
                 "SELECT c.blade, c.claimed, c.grade, c.purpose, c.own_window, c.window_low, c.window_high, "
                 "c.quench_minimum, c.minimum_tempers FROM blade_claim c JOIN blade b ON b.id=c.blade WHERE b.batch=? "
                 "AND c.id NOT IN taken_back ORDER BY c.at_ms, c.rowid",
                 [](Blade& blade, const RawRow& row) {
                     BladeClaim own{s(row[1]),          s(row[2]), s(row[3]), std::nullopt, numberOrNone(row[7]),
                                    wholeOrNone(row[8])};
                     if (row[4].toBool()) own.window = Window{numberOrNone(row[5]), numberOrNone(row[6])};
                     blade.own = own == BladeClaim{} ? std::nullopt : std::optional(own);
                 });
    }
    if (done) {
        done =
            each("cold",
                 "SELECT c.blade, c.round, c.after_cycle, c.temperature_c, c.hours, c.at_ms, c.at_offset FROM cold c "
                 "JOIN blade b ON b.id=c.blade WHERE b.batch=? AND c.id NOT IN taken_back ORDER BY c.at_ms, c.rowid",
                 [](Blade& blade, const RawRow& row) {
                     blade.colds.push_back({row[1].toInt(), row[2].toInt(), row[3].toDouble(), row[4].toDouble(),
                                            instantOf(row[5], row[6])});
                 });
    }
    if (done) {
        done = each("reading",
                    "SELECT r.blade, r.id, r.gate, r.round, r.after_cycle, r.scale, r.value, r.resolution, r.at_ms, "
                    "r.at_offset, r.tester, r.indenter, r.anvil, r.x_mm, r.y_mm, r.person, r.note, COALESCE(r.series, "
                    "''), r.convex_radius_mm FROM reading r JOIN blade b ON b.id=r.blade WHERE b.batch=? ORDER BY "
                    "b.rowid, r.rowid", // as they lie: nothing is sorted
                    [](Blade& blade, const RawRow& row) {
                        Reading reading;
                        reading.id = s(row[1]);
                        reading.gate = gateNamed(s(row[2])).value_or(Gate::temper);
                        reading.round = row[3].toInt();
                        reading.after_temper = wholeOrNone(row[4]);
                        reading.scale = s(row[5]);
                        reading.value = row[6].toDouble();
                        reading.resolution = row[7].toDouble();
                        reading.time = orNone(row, 8);
                        reading.tester = s(row[10]);
                        reading.indenter = s(row[11]);
                        reading.anvil = s(row[12]);
                        if (!row[13].isNull() && !row[14].isNull())
                            reading.spot = Spot{row[13].toDouble(), row[14].toDouble()};
                        reading.person = s(row[15]);
                        reading.note = s(row[16]);
                        reading.series = s(row[17]);
                        reading.convex_radius_mm = numberOrNone(row[18]);
                        blade.readings.push_back(std::move(reading));
                    });
    }
    // Most readings carry no mark: one is looked for only where there is something to say of it.
    const auto placeOf = [](const Blade& blade, const std::string& reading) {
        return static_cast<std::size_t>(std::find_if(blade.readings.begin(), blade.readings.end(),
                                                     [&](const Reading& one) { return one.id == reading; }) -
                                        blade.readings.begin());
    };
    if (done) {
        done = each("reading_zone",
                    "SELECT r.blade, z.reading, z.zone FROM reading_zone z JOIN reading r ON r.id=z.reading JOIN blade "
                    "b ON b.id=r.blade WHERE b.batch=?",
                    [&](Blade& blade, const RawRow& row) {
                        blade.readings.at(placeOf(blade, s(row[1]))).zone = storedAs<Zone>(row[2]);
                    });
    }
    if (done) {
        done = each(
            "reading_mark",
            "SELECT r.blade, m.reading, m.kind, m.reason, m.note, m.person, m.at_ms, m.at_offset FROM reading_mark m "
            "JOIN reading r ON r.id=m.reading"
            " JOIN blade b ON b.id=r.blade WHERE b.batch=? AND m.id NOT IN taken_back",
            [&](Blade& blade, const RawRow& row) {
                Reading& reading = blade.readings.at(placeOf(blade, s(row[1])));
                if (row[2].toString() == QLatin1String("accepted"))
                    reading.accepted_because = s(row[3]);
                else
                    reading.struck = Strike{named<StrikeReason>(s(row[3])).value_or(StrikeReason::other), s(row[4]),
                                            s(row[5]), instantOf(row[6], row[7])};
            });
    }
    if (done) {
        std::map<Blade*, std::vector<std::size_t>> gone; // readings whose mark is gone
        std::string grinding;
        done = each(
            "ground_off",
            "SELECT r.blade, g.reading, g.grinding FROM ground_off g JOIN reading r ON r.id=g.reading JOIN blade b "
            "ON b.id=r.blade WHERE b.batch=? ORDER BY r.blade, g.at_ms, g.grinding",
            [&](Blade& blade, const RawRow& row) {
                if (grinding != s(row[2])) ++blade.surface;
                grinding = s(row[2]);
                const std::size_t place = placeOf(blade, s(row[1]));
                blade.readings.at(place).surface = blade.surface - 1;
                gone[&blade].push_back(place);
            });
        for (const auto& [blade, earlier] : gone) {
            for (std::size_t i = 0; i < blade->readings.size(); ++i) {
                if (std::find(earlier.begin(), earlier.end(), i) == earlier.end())
                    blade->readings[i].surface = blade->surface;
            }
        }
    }
    if (done) {
        done = each(
            "surprise_look",
            "SELECT l.blade, l.round, l.after_temper, l.reason, l.person, l.at_ms, l.at_offset FROM "
            "surprise_look l JOIN blade b ON b.id=l.blade WHERE b.batch=? AND l.id NOT IN taken_back ORDER BY l.rowid",
            [](Blade& blade, const RawRow& row) {
                blade.looks.push_back(
                    {row[1].toInt(), row[2].toInt(), s(row[3]), s(row[4]), instantOf(row[5], row[6])});
            });
    }
    if (done) {
        done = each("excuse",
                    "SELECT e.blade, e.gate, e.reason, e.person, e.at_ms, e.at_offset FROM excuse e JOIN blade b ON "
                    "b.id=e.blade WHERE b.batch=? AND e.id NOT IN taken_back",
                    [](Blade& blade, const RawRow& row) {
                        blade.excuses.push_back({gateNamed(s(row[1])).value_or(Gate::temper), s(row[2]), s(row[3]),
                                                 instantOf(row[4], row[5])});
                    });
    }
    if (done) {
        done = each("blade_fate",
                    "SELECT f.blade, f.fate, f.gate, f.reason, f.person, f.at_ms, f.at_offset FROM blade_fate f JOIN "
                    "blade b ON b.id=f.blade WHERE b.batch=? AND f.id NOT IN taken_back",
                    [](Blade& blade, const RawRow& row) {
                        blade.fate = BladeFate{named<Fate>(s(row[1])).value_or(Fate::scrapped),
                                               gateNamed(s(row[2])).value_or(Gate::quench), s(row[3]), s(row[4]),
                                               instantOf(row[5], row[6])};
                    });
    }
    if (done) {
        done =
            each("strike_series",
                 "SELECT s.blade, s.id, s.instrument_mean, s.support FROM strike_series s JOIN blade b ON b.id=s.blade "
                 "WHERE b.batch=? ORDER BY s.rowid",
                 [](Blade& blade, const RawRow& row) {
                     blade.series.push_back({s(row[1]), numberOrNone(row[2]), s(row[3])});
                 });
    }
    if (done) {
        done =
            each("file_test",
                 "SELECT t.blade, t.id, t.gate, t.round, t.after_cycle, t.skates, t.bites, t.touches, t.surface, "
                 "t.person, t.at_ms, t.at_offset FROM file_test t JOIN blade b ON b.id=t.blade WHERE b.batch=? ORDER "
                 "BY t.rowid",
                 [](Blade& blade, const RawRow& row) { blade.file_tests.push_back(fileTestOf(row)); });
    }
    if (done) {
        const auto notes =
            rowsOf("note", id,
                   "SELECT id, text, COALESCE(blade, ''), COALESCE(reading, ''), on_card, person, at_ms, "
                   "at_offset FROM note WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms, rowid");
        if (!notes) return notes.error();
        for (const Row& row : *notes)
            batch.notes.push_back(
                {s(row[0]), s(row[1]), s(row[2]), s(row[3]), row[4].toBool(), s(row[5]), instantOf(row[6], row[7])});
    }
    if (done) done = loadHeats(batch, index);
    if (done) done = loadSteel(batch);
    if (done) done = loadProof(batch, index);
    if (done) done = loadGrain(batch, index);
    if (done) done = loadRelease(batch, index);
    if (done && moment) done = moment->commit();
    if (!done) return done.error();
    return batch;
}

Result<std::map<std::string, int>> Logbook::counts() {
    std::map<std::string, int> counts;
    for (const Kind& kind : kinds()) {
        const char* table = kind.table;
        const auto count = m_database->single(QStringLiteral("SELECT COUNT(*) FROM %1").arg(QLatin1String(table)));
        if (!count) return count.error();
        counts[table] = count->toInt();
    }
    const auto changes = m_database->single(QStringLiteral("SELECT COUNT(*) FROM change"));
    if (!changes) return changes.error();
    counts["change"] = changes->toInt();
    return counts;
}

Result<std::string> Logbook::head() {
    const auto last = m_database->select(QStringLiteral("SELECT seq, hash FROM change ORDER BY seq DESC LIMIT 1"));
    if (!last) return last.error();
    if (last->empty()) return std::string();
    return shortHead(last->front()[0].toLongLong(), last->front()[1].toString());
}

Result<std::string> Logbook::notHeld(const std::string& head) {
    static const QRegularExpression code(QStringLiteral("^\\s*(\\d{1,15})-([0-9a-fA-F]{%1})\\s*$").arg(headDigits));
    const auto parts = code.match(q(head));
    if (!parts.hasMatch())
        return Error{ErrorKind::argument, head, "this is no code of a record; one looks like 1184-3fa9c25b71d0a4ee"};
    const auto stored =
        m_database->single(QStringLiteral("SELECT hash FROM change WHERE seq=?"), {parts.captured(1).toLongLong()});
    if (!stored) return stored.error();
    if (stored->isNull())
        return "entry " + parts.captured(1).toStdString() +
               " of the paper is not in this record: it is an earlier copy, or another record";
    if (!stored->toString().startsWith(parts.captured(2), Qt::CaseInsensitive))
        return "entry " + parts.captured(1).toStdString() +
               " is not the one of the paper: the record was changed since, or is another one";
    return std::string();
}

Result<std::vector<std::string>> Logbook::check() {
    LogbookCheck check(*this);
    // A file that is so damaged that it cannot be read to the end has that as its last problem.
    for (Result<bool> more = true; !more || *more;) {
        more = check.step();
        if (more) continue;
        std::vector<std::string> problems = check.problems();
        problems.push_back(more.error().text);
        return problems;
    }
    return check.problems();
}

} // namespace rollcall
