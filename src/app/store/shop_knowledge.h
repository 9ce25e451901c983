// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/snapshot.h"
#include "core/judge/record.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace rollcall {

/// What is known of an open logbook, kept up with what acts touch: the shop, the list of batches, runs on blocks, what
/// other batches read after their tempers, what is next in the batches in work, and the batch in hand, judged. Lives
/// on the thread that owns the logbook.
class ShopKnowledge {
public:
    ShopKnowledge(Logbook& logbook, std::shared_ptr<const Tables> shipped);

    /// Reads everything that is not read batch by batch. Errors: as the reads; nothing is known then.
    Result<Done> begin();
    /// Takes a batch in hand, reads and judges it; an empty id puts it away. Errors: as Logbook::batch(); the one
    /// before stays in hand.
    Result<Done> takeInHand(const std::string& batch);
    /// Reads and judges anew what was touched, and nothing else. Errors: as the reads; what was known stays, and is
    /// read with the next act.
    Result<Done> keepUp(const Touched& touched);
    /// Whether something was touched that could not be read yet.
    bool behind() const { return !m_missed.nothing(); }
    /// Looks at one batch in work of which it is not known what is next. False when there was none left.
    Result<bool> lookAtOneMore();

    /// The verdicts of each blade of a batch at the gates that it asks, by the blade's id. Nothing of it is kept.
    Result<std::map<std::string, std::vector<State>>> statesOf(const std::string& batch);

    /// Said before many batches are read: Logbook::expectMany.
    Result<Done> expectMany();
    /// A batch as it is judged here, with the shop's testers, oven and the runs on blocks in its reach.
    Result<Batch> read(const std::string& batch);
    /// The same but for the runs, which somebody else finds among those of the snapshot.
    Result<Batch> readWithoutRuns(const std::string& batch);
    Instant now() const { return m_logbook.now(); }

    /// What is known before a logbook is open: the library alone.
    static Snapshot nothing(std::shared_ptr<const Tables> shipped);

    const Snapshot& snapshot() const { return m_snapshot; }
    /// Batches read and judged since the beginning, for tests and measurements.
    int judged() const { return m_judged; }

private:
    Result<Done> readShop();
    Result<Done> readRuns();
    Result<Done> readList();
    Result<Done> readInHand(const std::string& batch);
    /// M20. What the shop's other batches of this grade have read after their tempers, the latest batches first.
    Result<std::vector<TemperObservation>> history(const Batch& batch);
    void forgetTask(const std::string& batch);
    void showTasks();

    Logbook& m_logbook;
    std::shared_ptr<const Tables> m_shipped;
    std::vector<std::shared_ptr<const Tables>> m_editions;                ///< kept, since grades are pointed at
    std::vector<GradeSheet> m_sheets;                                     ///< of the last edition
    std::map<std::string, std::vector<TemperObservation>> m_observations; ///< by batch
    std::map<std::string, std::optional<Elsewhere>> m_tasks;              ///< by batch in work; none: nothing is left
    std::set<std::string> m_inWork;
    std::set<std::string> m_unseen; ///< batches in work not looked at
    std::string m_inHand;
    Touched m_missed; ///< touched by acts after which reading failed
    Snapshot m_snapshot;
    int m_judged = 0;
};

} // namespace rollcall
