// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/present_rows.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace rollcall {

namespace {

struct Table {
    std::string_view name;
    enum class Of { batch, blade, reading } of;
};

using Of = Table::Of;

// Those that most batches have no row in, with what their rows belong to.
constexpr std::array tables{
    Table{"gate_means", Of::batch},    Table{"steel_part", Of::batch},       Table{"zone_window", Of::batch},
    Table{"batch_rules", Of::batch},   Table{"batch_rule", Of::batch},       Table{"note", Of::batch},
    Table{"heat_run", Of::batch},      Table{"batch_recipe", Of::batch},     Table{"steel_shot", Of::batch},
    Table{"steel_note", Of::batch},    Table{"grade_assignment", Of::batch}, Table{"edge_ask", Of::batch},
    Table{"grain_ask", Of::batch},     Table{"sample_ask", Of::batch},       Table{"blade_claim", Of::blade},
    Table{"cold", Of::blade},          Table{"surprise_look", Of::blade},    Table{"excuse", Of::blade},
    Table{"blade_fate", Of::blade},    Table{"strike_series", Of::blade},    Table{"file_test", Of::blade},
    Table{"heat_mark", Of::blade},     Table{"heat_note", Of::blade},        Table{"warp", Of::blade},
    Table{"temper_colour", Of::blade}, Table{"edge_geometry", Of::blade},    Table{"edge_rung", Of::blade},
    Table{"grinding_note", Of::blade}, Table{"damage", Of::blade},           Table{"trial", Of::blade},
    Table{"fracture", Of::blade},      Table{"disposition", Of::blade},      Table{"reading_mark", Of::reading},
    Table{"ground_off", Of::reading},  Table{"reading_zone", Of::reading}};
static_assert(tables.size() <= 64);

constexpr auto lastEntry = "SELECT COALESCE(MAX(seq), 0) FROM change";

} // namespace

Result<Done> PresentRows::learn(Database& database) {
    Database::Transaction moment(database, Database::Transaction::Writes::temporary);
    if (!moment.begun()) return moment.begun().error();
    const auto entry = database.single(QLatin1String(lastEntry));
    if (!entry) return entry.error();
    std::unordered_map<std::string, std::uint64_t> found;
    for (std::size_t i = 0; i < tables.size(); ++i) {
        const QString name = QString::fromLatin1(tables[i].name.data());
        QString from = name + QStringLiteral(" t"); // CROSS: from its few rows to their blades, not the other way
        if (tables[i].of == Of::reading) from += QStringLiteral(" CROSS JOIN reading r ON r.id=t.reading");
        if (tables[i].of != Of::batch)
            from += QStringLiteral(" CROSS JOIN blade b ON b.id=%1.blade")
                        .arg(tables[i].of == Of::reading ? QStringLiteral("r") : QStringLiteral("t"));
        const auto done =
            database.eachRaw(QStringLiteral("SELECT DISTINCT %1.batch FROM %2")
                                 .arg(tables[i].of == Of::batch ? QStringLiteral("t") : QStringLiteral("b"), from),
                             {}, [&](const RawRow& row) { found[std::string(row.text(0))] |= std::uint64_t{1} << i; });
        if (!done) return done.error();
    }
    if (auto done = moment.commit(); !done) return done;
    m_tables = std::move(found);
    m_entry = entry->toLongLong();
    return Done{};
}

void PresentRows::follow(qint64 entry, const Touched& touched) {
    if (!known()) return;
    if (touched.everything || entry != m_entry + 1) { // an entry before this one was not stored after all
        m_entry = -1;
        return;
    }
    for (const std::string& batch : touched.batches) m_tables[batch] = ~std::uint64_t{0};
    m_entry = entry;
}

Result<bool> PresentRows::holds(Database& database) const {
    if (!known()) return false;
    const auto entry = database.single(QLatin1String(lastEntry));
    if (!entry) return entry.error();
    return entry->toLongLong() == m_entry;
}

bool PresentRows::has(const char* table, const std::string& batch) const {
    const auto place = std::find_if(tables.begin(), tables.end(), [&](const Table& one) { return one.name == table; });
    if (place == tables.end()) return true;
    const auto its = m_tables.find(batch);
    return its != m_tables.end() && (its->second >> (place - tables.begin()) & 1) != 0;
}

} // namespace rollcall
