// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/ranges.h"
#include "logbook/rows.h"
#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <QDate>

// The measuring chain in the record: testers, blocks, runs on blocks, files.
namespace rollcall {

namespace {

// A list of which one cannot be is set aside: the check names its row.
std::vector<double> filesIn(const char* table, const char* column, const QVariant& text) {
    return numbersIn(*rangeOf(table, column), s(text)).value_or(std::vector<double>());
}

} // namespace

FileTest fileTestOf(const RawRow& row) {
    FileTest test;
    test.id = s(row[1]);
    test.gate = gateNamed(s(row[2])).value_or(Gate::quench);
    test.round = row[3].toInt();
    test.after_temper = row[4].toInt();
    struct Column {
        std::size_t place;
        const char* name;
        FileTouch touch;
    };
    for (const Column& column : {Column{5, "skates", FileTouch::skates}, Column{6, "bites", FileTouch::bites},
                                 Column{7, "touches", FileTouch::touches}}) {
        for (const double file : filesIn("file_test", column.name, row.value(column.place)))
            test.trials.push_back({file, column.touch});
    }
    test.surface = storedAs<Surface>(row[8]);
    test.person = s(row[9]);
    test.at = instantOf(row[10], row[11]);
    return test;
}

Result<std::vector<Tester>> Logbook::testers() {
    if (auto learned = learnScatter(); !learned) return learned.error();
    const auto rows = m_database->select(
        QStringLiteral("SELECT id, name, kind, resolution, indenter, anvil, files FROM tester ORDER BY rowid"));
    if (!rows) return rows.error();
    std::vector<Tester> testers;
    for (const Row& row : *rows) {
        Tester tester;
        tester.id = s(row[0]);
        tester.name = s(row[1]);
        tester.kind = storedAs<TesterKind>(row[2]);
        tester.resolution = row[3].toDouble();
        tester.indenter = s(row[4]);
        tester.anvil = s(row[5]);
        tester.files = filesIn("tester", "files", row[6]);
        if (const auto learned = m_learned.find(tester.id); learned != m_learned.end()) {
            tester.learned_by_day = learned->second;
            if (!learned->second->empty()) tester.learned = learned->second->back().known;
        }
        testers.push_back(std::move(tester));
    }
    return testers;
}

Result<std::vector<Block>> Logbook::blocks() {
    const auto rows = m_database->select(QStringLiteral(
        "SELECT k.id, k.name, k.scale, k.certified, k.uncertainty, k.diameter_mm, k.spacing_mm, k.used_before, (SELECT "
        "COUNT(*) FROM reading r JOIN verification v ON v.id=r.verification WHERE v.block=k.id), c.certified_by, "
        "c.certified_on, c.valid_until, c.other_face FROM block k LEFT JOIN block_certificate c ON c.rowid=(SELECT "
        "MAX(rowid) FROM block_certificate WHERE block=k.id) ORDER BY k.rowid"));
    if (!rows) return rows.error();
    std::vector<Block> blocks;
    for (const Row& row : *rows) {
        blocks.push_back({s(row[0]),
                          s(row[1]),
                          s(row[2]),
                          row[3].toDouble(),
                          row[4].toDouble(),
                          row[5].toDouble(),
                          row[6].toDouble(),
                          row[7].toInt(),
                          row[8].toInt(),
                          {s(row[9]), s(row[10]), s(row[11]), s(row[12])}});
    }
    return blocks;
}

std::vector<BlockUse> usesOf(const std::vector<Block>& blocks) {
    std::vector<BlockUse> uses;
    for (const Block& block : blocks)
        uses.push_back({block.name, block.scale, block.certified, block.diameter_mm, block.spacing_mm,
                        block.used_before + block.used});
    return uses;
}

Result<std::vector<Verification>> Logbook::verifications() {
    const auto rows = m_database->select(QStringLiteral(
        "SELECT v.id, v.tester, v.indenter, v.anvil, v.scale, k.name, k.certified, k.uncertainty, "
        "r.value, r.at_ms, r.at_offset, r.id, c.certified_by, c.valid_until FROM verification v"
        " JOIN block k ON k.id=v.block LEFT JOIN block_certificate c ON c.rowid=(SELECT MAX(rowid) FROM "
        "block_certificate WHERE block=k.id) JOIN reading r ON r.verification=v.id WHERE r.id NOT IN (SELECT "
        "reading FROM reading_mark WHERE kind='struck' AND id NOT IN taken_back) ORDER BY v.rowid, r.rowid"));
    if (!rows) return rows.error();
    std::vector<Verification> runs;
    for (const Row& row : *rows) {
        if (runs.empty() || runs.back().id != s(row[0])) {
            Verification run;
            run.id = s(row[0]);
            run.tester = s(row[1]);
            run.indenter = s(row[2]);
            run.anvil = s(row[3]);
            run.scale = s(row[4]);
            run.block = s(row[5]);
            run.certified = row[6].toDouble();
            run.block_uncertainty = row[7].toDouble();
            run.certified_by = s(row[12]);
            if (const QDate until = QDate::fromString(row[13].toString(), Qt::ISODate); until.isValid())
                run.valid_until = static_cast<int>(QDate(1970, 1, 1).daysTo(until));
            runs.push_back(std::move(run));
        }
        runs.back().readings.push_back(row[8].toDouble());
        runs.back().reading_ids.push_back(s(row[11]));
        runs.back().time = instantOrNone(row[9], row[10]);
    }
    // Two logbooks made one hold their runs one behind the other; a chart wants them as they were made.
    std::stable_sort(runs.begin(), runs.end(), [](const Verification& a, const Verification& b) {
        return a.time.value_or(Instant{}).utc_ms < b.time.value_or(Instant{}).utc_ms;
    });
    return runs;
}

Result<std::vector<PlacedReading>> Logbook::readingsSince(const std::string& tester, const Instant& since) {
    const auto rows = m_database->select(
        QStringLiteral(
            "SELECT b.name, l.mark, r.gate, r.scale, r.value, r.at_ms, r.at_offset FROM reading r JOIN blade l "
            "ON l.id=r.blade JOIN batch b ON b.id=l.batch WHERE r.tester=? AND r.at_ms>? AND r.id NOT IN "
            "(SELECT reading FROM reading_mark WHERE kind<>'accepted' AND id NOT IN taken_back) ORDER BY r.at_ms, "
            "r.rowid"),
        {q(tester), QVariant::fromValue<qint64>(since.utc_ms)});
    if (!rows) return rows.error();
    std::vector<PlacedReading> readings;
    for (const Row& row : *rows)
        readings.push_back({s(row[0]), s(row[1]), gateNamed(s(row[2])).value_or(Gate::temper), s(row[3]),
                            row[4].toDouble(), instantOrNone(row[5], row[6])});
    return readings;
}

} // namespace rollcall
