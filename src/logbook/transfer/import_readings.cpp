// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/import.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/database.h"
#include "logbook/handover.h"
#include "logbook/logbook.h"
#include "logbook/rows.h"
#include "logbook/transfer/gzip.h"
#include "logbook/transfer/import_plan.h"
#include "logbook/transfer/readings_csv.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <future>
#include <map>
#include <QCryptographicHash>
#include <unordered_map>

namespace rollcall {

namespace {

struct PackedFile {
    Result<QByteArray> packed;
    QByteArray sha256; // of the file as it came, in hexadecimals
};

// A line as it is planned with.
struct LineRead {
    Result<ReadingLine> line;
    int number;
    std::string identity; // short
};

// A line as it is stored: the row of a reading on a blade, or a line on a block, or nothing where it is not taken.
struct LineMade {
    int number;
    std::optional<Result<ReadyRow>> row;
    std::optional<ReadingLine> on_block;
    std::string identity; // short
};

} // namespace

// Takes the good lines of a table of readings into a logbook, as one transaction. The lines are gone through twice and
// none is kept: first for what they say of batches, blades, tempers and testers, then for the readings themselves.
class ReadingsImport {
public:
    /// False ends it.
    using Take = std::function<bool(Result<ReadingLine>&& line, int number)>;
    /// Goes through all lines, the same each time, on any thread.
    using Lines = std::function<Result<Done>(const Take& take)>;

    /// count: how many lines there are, about.
    ReadingsImport(Logbook& logbook, Lines lines, qsizetype count, Progress* progress)
        : m_logbook(logbook), m_lines(std::move(lines)), m_count(count), m_progress(progress) {}

    /// A trial tells what would be done and does nothing.
    Result<ImportReport> run(const QString& fileName, const QByteArray& bytes, bool trial) {
        auto packing = std::async(std::launch::async, [&bytes] {
            return PackedFile{gzip(bytes), QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex()};
        });
        if (auto planned = makePlan(); !planned) return planned.error();
        std::sort(m_plan.report.rejected.begin(), m_plan.report.rejected.end(),
                  [](const auto& a, const auto& b) { return a.line < b.line; });
        if (m_plan.report.readings == 0) {
            if (m_plan.report.already_there > 0 || trial) return m_plan.report;
            std::string why = "the file has no readings";
            if (!m_plan.report.rejected.empty())
                why = fmt::format("no line could be taken; line {}: {}", m_plan.report.rejected.front().line,
                                  m_plan.report.rejected.front().reason);
            return Error{ErrorKind::refused, fileName.toStdString(), why};
        }
        const std::string own = m_logbook.newId();
        m_import = QString::fromLatin1(
            QCryptographicHash::hash(QByteArray::fromStdString(own), QCryptographicHash::Sha256).toHex().left(12));
        const auto work = [&]() -> Result<Done> {
            // Its rows are told of together: one by one they would take more room in the change log than in their
            // tables.
            Database::Series series(m_logbook.database(), m_import);
            for (auto step : {&ReadingsImport::addTesters, &ReadingsImport::addBatches, &ReadingsImport::addBlades,
                              &ReadingsImport::addTempers}) {
                if (auto stepped = (this->*step)(); !stepped) return stepped;
            }
            if (auto kept = keepFile(fileName, packing.get()); !kept) return kept;
            if (auto read = addReadings(); !read) return read;
            return series.end();
        };
        if (trial) {
            // Everything is written, so that what the file's lines would meet is met; then nothing is kept.
            const Error tried{ErrorKind::refused, "", "tried only"};
            Result<Done> met = Done{};
            (void)m_logbook.inOneTransaction([&]() -> Result<Done> {
                met = work();
                return tried;
            });
            (void)m_logbook.database().takeNotes();
            if (!met) return met.error();
            return m_plan.report;
        }
        if (const auto done = m_logbook.transact("readings imported", work); !done) return done.error();
        m_plan.report.id = m_import.toStdString();
        return m_plan.report;
    }

private:
    // What it works with is let go before anything is written.
    Result<Done> makePlan() {
        ImportPlanner planner(m_logbook, m_plan);
        if (auto done = planner.learnLogbook(); !done) return done;
        Result<Done> met = Done{};
        const bool identified = planner.asksIdentity();
        const auto make = [&](const auto& give) {
            return m_lines([&](Result<ReadingLine>&& line, int number) {
                std::string identity = identified && line ? line->shortIdentity() : std::string();
                return give({std::move(line), number, std::move(identity)});
            });
        };
        auto gone = takeAhead<LineRead>(make, [&](const LineRead& read) {
            if (!read.line)
                planner.reject(read.number, read.line.error().text);
            else
                met = planner.look(*read.line, read.identity);
            if (met) met = reached(0, afterPlan, read.number);
            return met.ok();
        });
        return met ? gone : met;
    }

    // Parts of the whole, as they were measured: the lines are planned, then written, then proved.
    static constexpr double afterPlan = 0.2;
    static constexpr double afterRows = 0.9;
    Result<Done> reached(double from, double to, int line) {
        constexpr int between = 256;
        if (m_progress == nullptr || line % between != 0) return Done{};
        return m_progress->reached(from + (to - from) * std::min(1.0, line / double(m_count)));
    }

    Result<Done> addTesters() {
        for (const auto& [name, decimals] : m_plan.testers) {
            const bool known = std::any_of(m_plan.shop.testers.begin(), m_plan.shop.testers.end(),
                                           [&, &wanted = name](const Tester& t) { return t.name == wanted; });
            if (known) continue;
            Tester tester;
            tester.id = m_logbook.newId();
            tester.name = name;
            tester.resolution = std::pow(10.0, -decimals);
            if (auto done = m_logbook.database().insert("tester", fieldsOf(tester)); !done) return done;
            m_plan.shop.testers.push_back(tester);
        }
        return Done{};
    }

    const Tester& testerOf(const ReadingLine& line) const {
        return *std::find_if(m_plan.shop.testers.begin(), m_plan.shop.testers.end(),
                             [&](const Tester& t) { return t.name == testerName(line); });
    }

    // Readings planned at a gate of a new batch: as many as every blade that was read there has after its last temper.
    static int plannedAt(const PlannedBatch& batch, Gate gate) {
        int planned = 0;
        for (const PlannedBlade& blade : batch.blades) {
            const int last = gate == Gate::quench ? blade.at_quench : gate == Gate::temper ? blade.after_last : 0;
            if (last > 0) planned = planned == 0 ? last : std::min(planned, last);
        }
        return planned;
    }

    // What a knife's lines say that its batch's do not.
    static std::optional<BladeClaim> ownClaim(const BladeWishes& wishes, const BladeWishes& batch) {
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
        Database& database = m_logbook.database();
        for (const std::string& name : m_plan.order) {
            PlannedBatch& batch = m_plan.batches.at(name);
            if (!batch.taken || batch.there) continue;
            const BladeWishes& wishes = *batch.blades.front().wishes;
            const QString id = q(m_logbook.newId());
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
                                   {{"id", id},
                                    {"name", q(name)},
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
                const int planned = plannedAt(batch, gate);
                if (!done) return done;
                done = database.insert("gate_plan", {{"id", q(m_logbook.newId())},
                                                     {"batch", id},
                                                     {"gate", storedName(gate)},
                                                     {"required", planned > 0 ? 1 : 0},
                                                     {"extent", "all"},
                                                     {"planned", std::max(1, planned)}});
            }
            if (!done) return done;
            batch.id = s(id);
            ++m_plan.report.batches;
        }
        return Done{};
    }

    Result<Done> addBlades() {
        for (const std::string& name : m_plan.order) {
            PlannedBatch& batch = m_plan.batches.at(name);
            for (std::size_t i = batch.before; i < batch.blades.size(); ++i) {
                PlannedBlade& blade = batch.blades[i];
                BladeDraft draft;
                draft.mark = blade.mark;
                if (blade.thickness_mm) {
                    draft.shape.thickness_mm = *blade.thickness_mm;
                    draft.thickness_text = blade.thickness_text;
                }
                if (!batch.there) draft.own = ownClaim(*blade.wishes, *batch.blades.front().wishes);
                blade.id = m_logbook.newId();
                if (auto done = insertBlade(m_logbook, batch.id, blade.id, draft, static_cast<int>(i)); !done)
                    return done;
                ++m_plan.report.blades;
            }
        }
        return Done{};
    }

    // Blades of which the same is told ran together.
    Result<Done> addTempers() {
        static const ToldTemper notTold{{}, {}, "not noted"};
        const auto toldOf = [](const PlannedBlade& blade, int number) -> const ToldTemper& {
            const auto at = static_cast<std::size_t>(number) - 1;
            return at < blade.tempers_told.size() && blade.tempers_told[at] ? *blade.tempers_told[at] : notTold;
        };
        for (const std::string& name : m_plan.order) {
            const PlannedBatch& batch = m_plan.batches.at(name);
            int last = 0;
            for (const PlannedBlade& blade : batch.blades) last = std::max(last, blade.ran);
            for (int number = 1; number <= last; ++number) {
                std::map<std::pair<std::optional<double>, std::optional<double>>, TemperDraft> runs;
                std::map<std::pair<std::optional<double>, std::optional<double>>, std::vector<TemperedBlade>> blades;
                for (const PlannedBlade& blade : batch.blades) {
                    if (number <= blade.tempers || number > blade.ran) continue;
                    const ToldTemper& told = toldOf(blade, number);
                    const std::pair key(told.temperature_c, told.hours);
                    TemperDraft& run = runs[key];
                    run.batch = batch.id;
                    run.temperature_c = told.temperature_c;
                    run.hours = told.hours;
                    run.as_entered = told.text;
                    blades[key].push_back({blade.id, blade.round, number});
                }
                for (const auto& [key, run] : runs) {
                    if (auto done = insertTemper(m_logbook, m_logbook.newId(), run, blades[key]); !done) return done;
                }
            }
        }
        return Done{};
    }

    // The file stays, packed: its lines stand in the readings already.
    Result<Done> keepFile(const QString& fileName, const PackedFile& file) {
        if (!file.packed) return file.packed.error();
        const Result<std::string> attachment =
            insertAttachment(m_logbook, fileName + QLatin1String(packedEnding), "application/gzip", *file.packed);
        if (!attachment) return attachment.error();
        const Instant now = m_logbook.now();
        return m_logbook.database().insert("import", {{"id", m_import},
                                                      {"attachment", q(*attachment)},
                                                      {"sha256", QString::fromLatin1(file.sha256)},
                                                      {"taken", m_plan.report.readings},
                                                      {"already_there", m_plan.report.already_there},
                                                      {"rejected", static_cast<int>(m_plan.report.rejected.size())},
                                                      {"person", q(m_logbook.person())},
                                                      {"at_ms", QVariant::fromValue<qint64>(now.utc_ms)},
                                                      {"at_offset", now.offset_minutes}});
    }

    Fields rowOf(const ReadingLine& line, const std::string& id, const std::string& identity, const std::string& blade,
                 int round, const std::string& verification) const {
        const Tester& tester = testerOf(line);
        ReadingDraft draft;
        draft.blade = blade;
        draft.gate = line.gate;
        draft.round = round;
        if (!line.block) draft.after_temper = line.gate == Gate::quench ? std::optional<int>(0) : line.temper;
        draft.scale = line.scale;
        draft.value = line.value;
        draft.as_entered = line.value_text;
        draft.resolution = tester.resolution;
        draft.spot = line.spot;
        draft.note = line.note;
        return readingFields(id, draft, tester, line.time, verification, m_import.toStdString(), identity,
                             m_logbook.person());
    }

    Result<Done> addReadings() {
        Result<Done> done = Done{};
        // The rows are made of the lines where these are read, so that only SQLite is left to do here.
        const auto make = [&](const auto& give) {
            std::size_t next = 0;
            std::shared_ptr<const RowShape> shape;
            return m_lines([&](Result<ReadingLine>&& line, int number) {
                LineMade made{number, {}, {}, {}};
                if (!line || !m_plan.taken[next++]) return give(std::move(made));
                made.identity = line->shortIdentity();
                if (line->block) {
                    made.on_block = std::move(line).value();
                } else {
                    const PlannedBatch& batch = m_plan.batches.at(line->batch);
                    const PlannedBlade& blade = batch.blades[batch.places.at(line->blade)];
                    const Fields fields = rowOf(*line, {}, made.identity, blade.id, blade.round, {});
                    if (shape == nullptr) shape = shapeOf("reading", fields);
                    made.row = ReadyRow::of(shape, fields);
                }
                return give(std::move(made));
            });
        };
        auto gone = takeAhead<LineMade>(make, [&](LineMade&& made) {
            if (made.on_block)
                done = addBlockReading(*made.on_block, made.identity);
            else if (made.row && !*made.row)
                done = made.row->error();
            else if (made.row)
                done = m_logbook.database().insertInSeries(std::move(*made.row).value());
            if (done) done = reached(afterPlan, afterRows, made.number);
            return done.ok();
        });
        return done ? gone : done;
    }

    // Block readings that follow each other on one tester, block, scale and day within half an hour are one run.
    Result<Done> addBlockReading(const ReadingLine& line, const std::string& identity) {
        constexpr std::int64_t longestPause_ms = std::int64_t{30} * 60 * 1000;
        const auto& before = m_lastOnBlock;
        const bool sameRun = before && before->blade == line.blade && before->tester == line.tester &&
                             before->scale == line.scale && before->time.has_value() == line.time.has_value() &&
                             (!line.time || (before->time->localDay() == line.time->localDay() &&
                                             std::abs(line.time->utc_ms - before->time->utc_ms) <= longestPause_ms));
        if (!sameRun) {
            const Result<std::string> block = blockId(line);
            if (!block) return block.error();
            m_run = m_logbook.newId();
            const Tester& tester = testerOf(line);
            auto done = m_logbook.database().insert("verification", {{"id", q(m_run)},
                                                                     {"tester", q(tester.id)},
                                                                     {"indenter", q(tester.indenter)},
                                                                     {"anvil", q(tester.anvil)},
                                                                     {"scale", q(line.scale)},
                                                                     {"block", q(*block)},
                                                                     {"person", q(m_logbook.person())}});
            if (!done) return done;
        }
        m_lastOnBlock = line;
        return m_logbook.database().insert("reading", rowOf(line, m_logbook.newId(), identity, {}, 1, m_run));
    }

    Result<std::string> blockId(const ReadingLine& line) {
        PlannedBlock& planned = m_plan.blocks.at(line.blade);
        if (!planned.id.empty()) return planned.id;
        Block block;
        block.id = planned.id = m_logbook.newId();
        block.name = line.blade;
        block.scale = line.scale;
        block.certified = planned.certified;
        block.uncertainty = planned.uncertainty.value_or(block.uncertainty);
        if (const auto done = m_logbook.database().insert("block", fieldsOf(block)); !done) return done.error();
        return block.id;
    }

    Logbook& m_logbook;
    Lines m_lines;
    qsizetype m_count;
    Progress* m_progress;
    ImportPlan m_plan;
    std::optional<ReadingLine> m_lastOnBlock;
    std::string m_run; ///< on a block
    QString m_import;
};

Result<ImportReport> importReadings(Logbook& logbook, const Tables& tables, const QString& fileName,
                                    const QByteArray& bytes, const std::optional<ColumnMap>& map, bool trial,
                                    Progress* progress) {
    const auto named = [&](const Error& error) {
        return Error{error.kind, fileName.toStdString() + (error.place.empty() ? "" : " " + error.place), error.text};
    };
    ReadingsImport::Lines lines;
    CsvText table;
    const QByteArray text = textOfFile(bytes);
    if (map) {
        auto read = tableOfFile(bytes);
        if (!read) return named(read.error());
        if (map->columns.size() != read->header.size())
            return named(Error{ErrorKind::argument, "line 1", "the columns are not those that were looked at"});
        table = arranged(*read, *map);
        lines = [&](const ReadingsImport::Take& take) -> Result<Done> {
            const auto reader = ReadingsReader::under(tables, table.header);
            if (!reader) return named(reader.error());
            for (const CsvRow& row : table.rows) {
                if (!take(reader->read(row), row.line)) return Done{};
            }
            for (const int line : table.torn) {
                if (!take(Error{ErrorKind::input, "", tornLine}, line)) return Done{};
            }
            return Done{};
        };
    } else {
        lines = [&](const ReadingsImport::Take& take) -> Result<Done> {
            std::optional<Result<ReadingsReader>> reader;
            bool more = true;
            const auto torn = eachCsvRow({text.constData(), static_cast<std::size_t>(text.size())}, [&](CsvRow&& row) {
                if (reader) return more = take((*reader)->read(row), row.line);
                reader.emplace(ReadingsReader::under(tables, std::move(row.fields)));
                return reader->ok();
            });
            if (!torn) return named(torn.error());
            if (!*reader) return named(reader->error());
            for (auto line = torn->begin(); line != torn->end() && more; ++line)
                more = take(Error{ErrorKind::input, "", tornLine}, *line);
            return Done{};
        };
    }
    return ReadingsImport(logbook, std::move(lines), bytes.count('\n') + 1, progress).run(fileName, bytes, trial);
}

} // namespace rollcall
