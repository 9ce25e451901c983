// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/transfer/import.h"
#include "logbook/transfer/readings_csv.h"

#include <map>
#include <set>
#include <unordered_map>

/// What the lines of a table of readings say of batches, blades, tempers, testers and blocks, and which of them are
/// taken: worked out line by line before anything is written.
namespace rollcall {

using Mark = std::string;

/// What is told of a temper.
struct ToldTemper {
    std::optional<double> temperature_c;
    std::optional<double> hours;
    std::string text; ///< as typed

    auto operator<=>(const ToldTemper&) const = default;
};

/// Keeps each value once: of a hundred thousand blades most say the same.
template<class T>
class KeptOnce {
public:
    const T* operator()(T value) { return &*m_values.insert(std::move(value)).first; }

private:
    std::set<T> m_values; // where they are they stay
};

struct PlannedBlade {
    Mark mark;
    std::string id; ///< empty while it is not made
    int round = 1;
    int tempers = 0;    ///< that were logged before
    int ran = 0;        ///< the last temper that ran, as its readings say
    int at_quench = 0;  ///< readings
    int last_read = 0;  ///< the last temper after which it was read
    int after_last = 0; ///< readings after that
    std::optional<double> thickness_mm;
    std::string thickness_text;
    const BladeWishes* wishes = nullptr;         ///< null where its batch is in the logbook
    std::vector<const ToldTemper*> tempers_told; ///< the first and on; null: nothing is told of it
};

struct PlannedBatch {
    std::string id;    ///< empty while it is not made
    BladeWishes known; ///< of one that is there, with what lines add to it
    std::vector<PlannedBlade> blades;
    std::unordered_map<Mark, std::size_t> places;
    std::size_t before = 0; ///< blades that were there
    bool there = false;     ///< in the logbook
    bool taken = false;     ///< a line of it is
};

struct PlannedBlock {
    std::string id;
    double certified = 0;
    std::optional<double> uncertainty;
};

struct ImportPlan {
    ImportReport report;
    Shop shop;
    std::vector<bool> taken;                               ///< of the lines that could be read, in their order
    std::vector<std::string> order;                        ///< of the batches, as they come first
    std::unordered_map<std::string, PlannedBatch> batches; ///< by name
    std::vector<std::pair<std::string, int>> testers;      ///< names, and decimals of their readings
    std::map<std::string, PlannedBlock> blocks;            ///< by name
    KeptOnce<ToldTemper> told;
    /// In a batch that this file makes each knife may have its own claim; it must not contradict itself.
    KeptOnce<BladeWishes> wishes;
};

/// The tester of a line by name, also where none is named.
std::string testerName(const ReadingLine& line);

/// Works the plan out; lives no longer than that takes.
class ImportPlanner {
public:
    ImportPlanner(Logbook& logbook, ImportPlan& plan) : m_logbook(logbook), m_plan(plan) {}

    Result<Done> learnLogbook();
    /// Whether the logbook holds readings that lines may be; where not, no identity is asked for.
    bool asksIdentity() const { return !m_nothingImported; }
    /// Whether a line of this short identity is taken, and what it says about what it belongs to.
    Result<Done> look(const ReadingLine& line, const std::string& identity);
    void reject(int line, const std::string& reason) { m_plan.report.rejected.push_back({line, reason}); }

private:
    Result<PlannedBatch*> batchOf(const std::string& name);
    void plan(const ReadingLine& line, PlannedBatch& batch);
    std::string contradictionOnBlock(const ReadingLine& line);
    std::string contradiction(const ReadingLine& line, const PlannedBatch& batch, const PlannedBlade* blade) const;
    void learn(const ReadingLine& line, PlannedBatch& batch, PlannedBlade& blade);
    Result<bool> isThere(const ReadingLine& line, const std::string& identity);

    Logbook& m_logbook;
    ImportPlan& m_plan;
    std::unordered_map<std::string, std::string> m_there; ///< batches: name -> id
    bool m_nothingImported = true;
    std::unordered_map<std::string, int> m_ordinal;
};

} // namespace rollcall
