// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/import.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/database.h"
#include "logbook/logbook.h"
#include "logbook/rows.h"
#include "logbook/transfer/readings_csv.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <QCryptographicHash>
#include <set>
#include <unordered_map>
#include <unordered_set>

namespace rollcall {

// Takes the good lines of a readings.csv into a logbook, as one transaction.
class ReadingsImport {
public:
    ReadingsImport(Logbook& logbook, ReadingsCsv csv) : m_logbook(logbook), m_lines(std::move(csv.lines)) {
        for (const auto& bad : csv.rejected) m_report.rejected.push_back({bad.line, bad.reason});
    }

    /// A trial tells what would be done and does nothing.
    Result<ImportReport> run(const QString& fileName, const QByteArray& bytes, bool trial) {
        if (auto done = learnLogbook(); !done) return done.error();
        rejectContradictions();
        if (auto done = dropKnown(); !done) return done.error();
        std::sort(m_report.rejected.begin(), m_report.rejected.end(),
                  [](const auto& a, const auto& b) { return a.line < b.line; });
        if (m_lines.empty()) {
            if (m_report.already_there > 0) return m_report;
            std::string why = "the file has no readings";
            if (trial) return m_report;
            if (!m_report.rejected.empty())
                why = fmt::format("no line could be taken; line {}: {}", m_report.rejected.front().line,
                                  m_report.rejected.front().reason);
            return Error{ErrorKind::refused, fileName.toStdString(), why};
        }
        m_report.readings = static_cast<int>(m_lines.size());
        for (const ReadingLine& line : m_lines) {
            if (!line.block) m_ofBatch[line.batch].push_back(&line);
        }
        const auto work = [&]() -> Result<Done> {
            for (auto step : {&ReadingsImport::addTesters, &ReadingsImport::addBatches, &ReadingsImport::addBlades,
                              &ReadingsImport::addTempers}) {
                if (auto stepped = (this->*step)(); !stepped) return stepped;
            }
            if (auto kept = keepFile(fileName, bytes); !kept) return kept;
            if (auto read = addBladeReadings(); !read) return read;
            return addBlockReadings();
        };
        if (trial) {
            // Everything is written, so that what the file's lines would meet is met; then nothing is kept.
            Result<Done> met = Done{};
            const Error tried{ErrorKind::refused, "", "tried only"};
            (void)m_logbook.inOneTransaction([&]() -> Result<Done> {
                met = work();
                return tried;
            });
            (void)m_logbook.database().takeNotes();
            if (!met) return met.error();
            return m_report;
        }
        if (const auto done = m_logbook.transact("readings imported", work); !done) return done.error();
        m_report.id = m_import;
        return m_report;
    }

private:
    struct KnownBatch {
        std::string id;
        Window window;
        std::string grade;
        std::optional<double> minimum;
        std::map<std::string, std::string> blades; ///< mark -> id
        std::map<std::string, int> rounds;         ///< mark -> hardening round
        std::map<std::string, int> tempers;        ///< mark -> number of the last temper
    };

    void reject(const ReadingLine& line, const std::string& reason) {
        m_report.rejected.push_back({line.line, reason});
    }

    Result<Done> learnLogbook() {
        const auto shop = m_logbook.shop();
        if (!shop) return shop.error();
        m_shop = *shop;
        const auto batches = m_logbook.batches();
        if (!batches) return batches.error();
        std::unordered_set<std::string> asked;
        for (const ReadingLine& line : m_lines) {
            if (!line.block) asked.insert(line.batch);
        }
        for (const BatchSummary& summary : *batches) {
            if (asked.count(summary.name) == 0) continue;
            const auto batch = m_logbook.batch(summary.id);
            if (!batch) return batch.error();
            KnownBatch known{batch->id, batch->window, batch->grade, batch->quench_minimum, {}, {}, {}};
            for (const Blade& blade : batch->blades) {
                known.blades[blade.mark] = blade.id;
                known.rounds[blade.mark] = blade.round;
                for (const Temper& temper : blade.tempers) {
                    if (temper.round == blade.round)
                        known.tempers[blade.mark] = std::max(known.tempers[blade.mark], temper.number);
                }
            }
            m_known[summary.name] = std::move(known);
        }
        return Done{};
    }

    // What one line says must not contradict the batch, its block or the lines before.
    void rejectContradictions() {
        std::map<std::string, ReadingLine> first; // merged wishes of the lines seen for a batch
        std::map<std::string, double> certified;
        std::map<std::string, std::pair<std::optional<double>, std::optional<double>>> tempers;
        for (const Block& block : m_shop.blocks) certified[block.name] = block.certified;
        std::erase_if(m_lines, [&](const ReadingLine& line) {
            if (line.block) {
                if (!certified.count(line.blade)) {
                    if (!line.certified)
                        return reject(line, fmt::format("the certified value of block {} is missing", line.blade)),
                               true;
                    certified[line.blade] = *line.certified;
                }
                if (line.certified && *line.certified != certified[line.blade]) {
                    return reject(line, fmt::format("block {} is certified {}, this line says {}", line.blade,
                                                    certified[line.blade], *line.certified)),
                           true;
                }
                return false;
            }
            const auto known = m_known.find(line.batch);
            // In a batch that this file makes each knife may have its own claim; it must not contradict itself.
            const std::string who = known != m_known.end() ? line.batch : line.batch + "\x1f" + line.blade;
            const auto [entry, isNew] = first.try_emplace(who);
            ReadingLine& wishes = entry->second;
            if (isNew && known != m_known.end()) {
                wishes.window_low = known->second.window.low;
                wishes.window_high = known->second.window.high;
                wishes.grade = known->second.grade;
                wishes.minimum = known->second.minimum;
            }
            const auto differs = [](const std::optional<double>& said, const std::optional<double>& before) {
                constexpr double sameQuantity = 1e-6; // 404.6F and 207C are one temperature
                return said && before && std::abs(*said - *before) > sameQuantity;
            };
            if ((line.window_low || line.window_high) && (wishes.window_low || wishes.window_high) &&
                (line.window_low != wishes.window_low || line.window_high != wishes.window_high)) {
                return reject(line, fmt::format("another window than batch {} has", line.batch)), true;
            }
            if (differs(line.minimum, wishes.minimum))
                return reject(line, fmt::format("another minimum than batch {} has", line.batch)), true;
            if (!line.grade.empty() && !wishes.grade.empty() && !sameName(line.grade, wishes.grade)) {
                return reject(line,
                              fmt::format("batch {} is {}, this line says {}", line.batch, wishes.grade, line.grade)),
                       true;
            }
            if (line.temper) {
                auto& said = tempers[line.batch + "\x1f" + line.blade + "\x1f" + std::to_string(*line.temper)];
                if (differs(line.temperature_c, said.first) || differs(line.hours, said.second)) {
                    return reject(line,
                                  fmt::format("another temperature or time for temper {} of {} than a line before",
                                              *line.temper, line.blade)),
                           true;
                }
                if (line.temperature_c) said.first = line.temperature_c;
                if (line.hours) said.second = line.hours;
            }
            if (line.window_low || line.window_high) {
                wishes.window_low = line.window_low;
                wishes.window_high = line.window_high;
                wishes.window_text = line.window_text;
            }
            if (line.minimum) wishes.minimum = line.minimum;
            if (wishes.grade.empty()) wishes.grade = line.grade;
            if (wishes.purpose.empty()) wishes.purpose = line.purpose;
            if (line.finished) wishes.finished = line.finished;
            return false;
        });
        m_wishes = std::move(first);
    }

    // A line is there already when the logbook holds at least as many equal readings as the file up to it.
    Result<Done> dropKnown() {
        std::map<std::string, int> ordinal;
        std::vector<ReadingLine> fresh;
        for (ReadingLine& line : m_lines) {
            const std::string identity = line.identity();
            const Result<QVariant> count = m_logbook.database().single(
                QStringLiteral("SELECT COUNT(*) FROM reading r WHERE r.identity=? AND r.identity<>'' AND NOT EXISTS "
                               "(SELECT 1 FROM import_mark m WHERE m.import=r.import)"),
                {q(identity)});
            if (!count) return count.error();
            if (++ordinal[identity] <= count->toInt())
                ++m_report.already_there;
            else
                fresh.push_back(std::move(line));
        }
        m_lines = std::move(fresh);
        return Done{};
    }

    static std::string testerName(const ReadingLine& line) {
        return line.tester.empty() ? "tester not named" : line.tester;
    }

    Result<Done> addTesters() {
        for (const ReadingLine& line : m_lines) {
            const std::string name = testerName(line);
            const bool known = std::any_of(m_shop.testers.begin(), m_shop.testers.end(),
                                           [&](const Tester& t) { return t.name == name; });
            if (known) continue;
            int decimals = 0;
            for (const ReadingLine& other : m_lines) {
                if (testerName(other) == name) decimals = std::max(decimals, other.decimals);
            }
            Tester tester;
            tester.id = m_logbook.newId();
            tester.name = name;
            tester.resolution = std::pow(10.0, -decimals);
            if (auto done = m_logbook.database().insert("tester", fieldsOf(tester)); !done) return done;
            m_shop.testers.push_back(tester);
        }
        return Done{};
    }

    const Tester& testerOf(const ReadingLine& line) const {
        return *std::find_if(m_shop.testers.begin(), m_shop.testers.end(),
                             [&](const Tester& t) { return t.name == testerName(line); });
    }

    // Readings planned at a gate of a new batch: as many as every blade that was read there has.
    int plannedAt(const std::string& batch, Gate gate) const {
        std::map<std::string, std::map<int, int>> counts; // mark -> temper -> readings
        for (const ReadingLine* line : m_ofBatch.at(batch)) {
            if (line->gate == gate) ++counts[line->blade][gate == Gate::temper ? line->temper.value_or(0) : 0];
        }
        int planned = 0;
        for (const auto& [mark, byTemper] : counts) {
            const int last = byTemper.rbegin()->second;
            planned = planned == 0 ? last : std::min(planned, last);
        }
        return planned;
    }

    const ReadingLine& wishesOf(const ReadingLine& line) const { return m_wishes.at(line.batch + "\x1f" + line.blade); }

    // What a knife's lines say that its batch's do not.
    static std::optional<BladeClaim> ownClaim(const ReadingLine& wishes, const ReadingLine& batch) {
        BladeClaim own;
        if (!sameName(wishes.grade, batch.grade)) own.claimed = own.grade = wishes.grade;
        if (wishes.purpose != batch.purpose) own.purpose = wishes.purpose;
        if ((wishes.window_low || wishes.window_high) &&
            (wishes.window_low != batch.window_low || wishes.window_high != batch.window_high))
            own.window = Window{wishes.window_low, wishes.window_high};
        if (wishes.minimum != batch.minimum) own.quench_minimum = wishes.minimum;
        if (wishes.finished.value_or(false) && !batch.finished.value_or(false)) own.minimum_tempers = 0;
        return own == BladeClaim{} ? std::nullopt : std::optional(own);
    }

    // The batch is what its first knife is; the others say where they are not.
    Result<Done> addBatches() {
        for (const ReadingLine& line : m_lines) {
            if (line.block || m_known.count(line.batch)) continue;
            const ReadingLine& wishes = wishesOf(line);
            m_made[line.batch] = wishes;
            KnownBatch known;
            known.id = m_logbook.newId();
            known.window = {wishes.window_low, wishes.window_high};
            Database& database = m_logbook.database();
            QVariant lot;
            if (!wishes.grade.empty()) {
                const Result<std::string> grade = gradeId(m_logbook, wishes.grade);
                if (!grade) return grade.error();
                lot = q(m_logbook.newId());
                auto done = database.insert(
                    "lot", {{"id", lot}, {"grade", q(*grade)}, {"name", ""}, {"supplier", ""}, {"heat_number", ""}});
                if (!done) return done;
            }
            const std::string purpose = m_logbook.newId();
            auto done = database.insert("purpose", {{"id", q(purpose)},
                                                    {"name", q(wishes.purpose)},
                                                    {"window_low", orNull(wishes.window_low)},
                                                    {"window_high", orNull(wishes.window_high)},
                                                    {"window_text", q(wishes.window_text)}});
            if (!done) return done;
            const Instant now = m_logbook.now();
            done = database.insert("batch",
                                   {{"id", q(known.id)},
                                    {"name", q(line.batch)},
                                    {"lot", lot},
                                    {"purpose", q(purpose)},
                                    {"rule", "guarded"},
                                    {"allowance", QVariant()},
                                    {"uncorrected", 0},
                                    {"quench_minimum", orNull(wishes.minimum)},
                                    {"minimum_tempers", wishes.finished.value_or(false) ? QVariant(0) : QVariant()},
                                    {"created_ms", QVariant::fromValue<qint64>(now.utc_ms)},
                                    {"created_offset", now.offset_minutes}});
            for (const Gate gate : allGates) {
                const int planned = plannedAt(line.batch, gate);
                if (!done) return done;
                done = database.insert("gate_plan", {{"id", q(m_logbook.newId())},
                                                     {"batch", q(known.id)},
                                                     {"gate", storedName(gate)},
                                                     {"required", planned > 0 ? 1 : 0},
                                                     {"extent", "all"},
                                                     {"planned", std::max(1, planned)}});
            }
            if (!done) return done;
            m_known[line.batch] = std::move(known);
            ++m_report.batches;
        }
        return Done{};
    }

    Result<Done> addBlades() {
        for (const ReadingLine& line : m_lines) {
            if (line.block) continue;
            KnownBatch& batch = m_known.at(line.batch);
            if (batch.blades.count(line.blade)) continue;
            BladeDraft draft;
            draft.mark = line.blade;
            for (const ReadingLine* other : m_ofBatch.at(line.batch)) {
                if (other->blade != line.blade || !other->thickness_mm) continue;
                draft.shape.thickness_mm = *other->thickness_mm;
                draft.thickness_text = other->thickness_text;
                break;
            }
            if (const auto made = m_made.find(line.batch); made != m_made.end())
                draft.own = ownClaim(wishesOf(line), made->second);
            const std::string id = m_logbook.newId();
            if (auto done = insertBlade(m_logbook, batch.id, id, draft, static_cast<int>(batch.blades.size())); !done)
                return done;
            batch.blades[line.blade] = id;
            batch.rounds[line.blade] = 1;
            ++m_report.blades;
        }
        return Done{};
    }

    // A reading after temper 2 says that two tempers ran; one that no line describes is logged as not noted.
    Result<Done> addTempers() {
        struct Wanted {
            std::optional<double> temperature_c;
            std::optional<double> hours;
            std::string text = "not noted";
        };
        for (auto& [name, batch] : m_known) {
            std::map<int, std::map<std::string, Wanted>> byNumber; // temper -> mark -> what ran
            const auto lines = m_ofBatch.find(name);
            if (lines == m_ofBatch.end()) continue;
            for (const ReadingLine* line : lines->second) {
                if (line->gate != Gate::temper || !line->temper) continue;
                for (int number = batch.tempers[line->blade] + 1; number <= *line->temper; ++number)
                    byNumber[number][line->blade];
                const auto described = byNumber.find(*line->temper);
                if (described == byNumber.end() || !(line->temperature_c || line->hours)) continue;
                if (const auto mark = described->second.find(line->blade); mark != described->second.end())
                    mark->second = {line->temperature_c, line->hours, line->temper_text};
            }
            for (const auto& [number, marks] : byNumber) {
                std::map<std::pair<std::optional<double>, std::optional<double>>, TemperDraft> runs;
                for (const auto& [mark, wanted] : marks) {
                    TemperDraft& run = runs[{wanted.temperature_c, wanted.hours}];
                    run.batch = batch.id;
                    run.temperature_c = wanted.temperature_c;
                    run.hours = wanted.hours;
                    run.as_entered = wanted.text;
                    run.blades.push_back(batch.blades.at(mark));
                }
                for (const auto& [key, run] : runs) {
                    if (auto done = insertTemper(m_logbook, m_logbook.newId(), run); !done) return done;
                }
            }
        }
        return Done{};
    }

    Result<Done> keepFile(const QString& fileName, const QByteArray& bytes) {
        const QString sha = QString::fromLatin1(QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex());
        const Result<std::string> attachment = insertAttachment(m_logbook, fileName, "text/csv", bytes);
        if (!attachment) return attachment.error();
        m_import = m_logbook.newId();
        const Instant now = m_logbook.now();
        return m_logbook.database().insert("import", {{"id", q(m_import)},
                                                      {"attachment", q(*attachment)},
                                                      {"sha256", sha},
                                                      {"taken", m_report.readings},
                                                      {"already_there", m_report.already_there},
                                                      {"rejected", static_cast<int>(m_report.rejected.size())},
                                                      {"person", q(m_logbook.person())},
                                                      {"at_ms", QVariant::fromValue<qint64>(now.utc_ms)},
                                                      {"at_offset", now.offset_minutes}});
    }

    Result<Done> add(const ReadingLine& line, const std::string& blade, int round, const std::string& verification) {
        ReadingDraft draft;
        draft.blade = blade;
        draft.gate = line.gate;
        draft.round = round;
        if (!line.block) draft.after_temper = line.gate == Gate::quench ? std::optional<int>(0) : line.temper;
        draft.scale = line.scale;
        draft.value = line.value;
        draft.as_entered = line.value_text;
        draft.resolution = testerOf(line).resolution;
        draft.spot = line.spot;
        draft.note = line.note;
        return insertReading(m_logbook, m_logbook.newId(), draft, testerOf(line), line.time, verification, m_import,
                             line.identity());
    }

    Result<Done> addBladeReadings() {
        for (const ReadingLine& line : m_lines) {
            if (line.block) continue;
            const KnownBatch& batch = m_known.at(line.batch);
            if (auto done = add(line, batch.blades.at(line.blade), batch.rounds.at(line.blade), {}); !done) return done;
        }
        return Done{};
    }

    // Block readings that follow each other on one tester, block, scale and day within half an hour are one run.
    Result<Done> addBlockReadings() {
        const ReadingLine* before = nullptr;
        std::string run;
        for (const ReadingLine& line : m_lines) {
            if (!line.block) continue;
            constexpr std::int64_t longestPause_ms = std::int64_t{30} * 60 * 1000;
            const bool sameRun =
                before != nullptr && before->blade == line.blade && before->tester == line.tester &&
                before->scale == line.scale && before->time.has_value() == line.time.has_value() &&
                (!line.time || (before->time->localDay() == line.time->localDay() &&
                                std::abs(line.time->utc_ms - before->time->utc_ms) <= longestPause_ms));
            if (!sameRun) {
                const Result<std::string> block = blockId(line);
                if (!block) return block.error();
                run = m_logbook.newId();
                auto done = m_logbook.database().insert("verification", {{"id", q(run)},
                                                                         {"tester", q(testerOf(line).id)},
                                                                         {"indenter", q(testerOf(line).indenter)},
                                                                         {"anvil", q(testerOf(line).anvil)},
                                                                         {"scale", q(line.scale)},
                                                                         {"block", q(*block)},
                                                                         {"person", q(m_logbook.person())}});
                if (!done) return done;
            }
            if (auto done = add(line, {}, 1, run); !done) return done;
            before = &line;
        }
        return Done{};
    }

    Result<std::string> blockId(const ReadingLine& line) {
        for (const Block& block : m_shop.blocks) {
            if (block.name == line.blade) return block.id;
        }
        Block block;
        block.id = m_logbook.newId();
        block.name = line.blade;
        block.scale = line.scale;
        block.certified = *line.certified;
        block.uncertainty = line.block_uncertainty.value_or(block.uncertainty);
        if (const auto done = m_logbook.database().insert("block", fieldsOf(block)); !done) return done.error();
        m_shop.blocks.push_back(block);
        return block.id;
    }

    Logbook& m_logbook;
    std::vector<ReadingLine> m_lines;
    std::unordered_map<std::string, std::vector<const ReadingLine*>> m_ofBatch; ///< those that are taken
    ImportReport m_report;
    Shop m_shop;
    std::map<std::string, KnownBatch> m_known;
    std::map<std::string, ReadingLine> m_wishes; ///< of a known batch, or of a knife of one that is made
    std::map<std::string, ReadingLine> m_made;   ///< what a batch that is made is, as its first knife
    std::string m_import;
};

Result<ImportReport> importReadings(Logbook& logbook, const Tables& tables, const QString& fileName,
                                    const QByteArray& bytes, const std::optional<ColumnMap>& map, bool trial) {
    const auto readings = [&]() -> Result<ReadingsCsv> {
        if (map) {
            const auto table = tableOfFile(bytes);
            if (!table) return table.error();
            if (map->columns.size() != table->header.size())
                return Error{ErrorKind::argument, "line 1", "the columns are not those that were looked at"};
            return readReadingsCsv(tables, arranged(*table, *map));
        }
        const auto table = readCsvByLines({bytes.constData(), static_cast<std::size_t>(bytes.size())});
        if (!table) return table.error();
        return readReadingsCsv(tables, *table);
    }();
    if (!readings) {
        const Error& error = readings.error();
        return Error{error.kind, fileName.toStdString() + (error.place.empty() ? "" : " " + error.place), error.text};
    }
    return ReadingsImport(logbook, *readings).run(fileName, bytes, trial);
}

} // namespace rollcall
