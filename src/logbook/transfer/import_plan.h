// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/transfer/import.h"
#include "logbook/transfer/readings_csv.h"

#include <map>
#include <unordered_map>

/// What the lines of a table of readings say of batches, blades, tempers, testers and blocks, and which of them are
/// taken: worked out line by line before anything is written.
namespace rollcall {

using Mark = std::string;

/// What is told of a temper that ran.
struct ToldTemper {
    std::optional<double> temperature_c;
    std::optional<double> hours;
    std::string text = "not noted";
};

struct PlannedBlade {
    Mark mark;
    std::string id; ///< empty while it is not made
    int round = 1;
    int tempers = 0; ///< that were logged before
    std::optional<double> thickness_mm;
    std::string thickness_text;
    std::map<std::pair<Gate, int>, int> readings; ///< by gate and temper
};

struct PlannedBatch {
    std::string id;    ///< empty while it is not made
    BladeWishes known; ///< of one that is there
    std::vector<PlannedBlade> blades;
    std::unordered_map<Mark, std::size_t> places;
    std::map<int, std::map<Mark, ToldTemper>> tempers; ///< that ran and are not logged, by number
    std::size_t before = 0;                            ///< blades that were there
    bool there = false;                                ///< in the logbook
    bool taken = false;                                ///< a line of it is
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
    std::unordered_map<std::string, BladeWishes> wishes;   ///< of a known batch, or of a knife of one that is made
    std::vector<std::pair<std::string, int>> testers;      ///< names, and decimals of their readings
    std::map<std::string, PlannedBlock> blocks;            ///< by name

    /// In a batch that this file makes each knife may have its own claim; it must not contradict itself.
    BladeWishes& wishesOf(const std::string& name, const Mark& mark, const PlannedBatch& batch);
};

/// The tester of a line by name, also where none is named.
std::string testerName(const ReadingLine& line);

/// Works the plan out; lives no longer than that takes.
class ImportPlanner {
public:
    ImportPlanner(Logbook& logbook, ImportPlan& plan) : m_logbook(logbook), m_plan(plan) {}

    Result<Done> learnLogbook();
    /// Whether a line is taken, and what it says about what it belongs to.
    Result<Done> look(const ReadingLine& line);
    void reject(int line, const std::string& reason) { m_plan.report.rejected.push_back({line, reason}); }

private:
    Result<PlannedBatch*> batchOf(const std::string& name);
    void plan(const ReadingLine& line, PlannedBatch& batch);
    std::string contradictionOnBlock(const ReadingLine& line);
    std::string contradiction(const ReadingLine& line, const PlannedBatch& batch);
    Result<bool> isThere(const ReadingLine& line);

    Logbook& m_logbook;
    ImportPlan& m_plan;
    std::unordered_map<std::string, std::string> m_there; ///< batches: name -> id
    bool m_nothingImported = true;
    std::unordered_map<std::string, std::pair<std::optional<double>, std::optional<double>>> m_said; ///< of tempers
    std::unordered_map<std::string, int> m_ordinal;
};

} // namespace rollcall
