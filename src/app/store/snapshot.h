// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/agenda.h"
#include "core/judge/judged.h"
#include "logbook/logbook.h"

#include <memory>
#include <string>
#include <vector>

namespace rollcall {

/// One batch as it was read, judged, and what is left to do in it.
struct BatchView {
    Batch batch;
    std::shared_ptr<const Tables> tables; ///< that it is judged by, held while it is shown
    Judged judged;                        ///< points into both
    std::vector<Task> tasks;

    /// The view that this one takes the place of, if there was one, spares what no act has touched.
    BatchView(Batch read, std::shared_ptr<const Tables> by, const Instant& now, const BatchView* before = nullptr)
        : batch(std::move(read)), tables(std::move(by)),
          judged(batch, *tables, now, before != nullptr ? &before->judged : nullptr),
          tasks(agenda(batch, judged.verdicts())) {}
    BatchView(const BatchView&) = delete;
    BatchView& operator=(const BatchView&) = delete;
};

/// What is next in a batch that is in work and not in hand.
struct Elsewhere {
    std::string batch; ///< name
    std::string mark;
    Task task;
    std::string batch_id;
};

/// What the window shows: parts that are read anew only where an act has touched them, and shared otherwise. A value:
/// it never changes, the next one takes its place.
class Snapshot {
public:
    const Shop& shop() const { return *m_shop; }
    const std::vector<BatchSummary>& batches() const { return *m_batches; }
    /// All runs on blocks, in the order they were made.
    const std::vector<Verification>& runs() const { return *m_runs; }
    const std::shared_ptr<const std::vector<Verification>>& sharedRuns() const { return m_runs; }
    /// The library with the shop's own grades in front of it.
    const std::shared_ptr<const Tables>& tables() const { return m_tables; }
    /// The batch in hand; null when there is none.
    const BatchView* inHand() const { return m_inHand.get(); }
    /// By name of the batch.
    const std::vector<Elsewhere>& elsewhere() const { return *m_elsewhere; }

    /// What is next elsewhere as another snapshot knows it; all else stays.
    void takeElsewhere(const Snapshot& newer) { m_elsewhere = newer.m_elsewhere; }

private:
    friend class ShopKnowledge;
    std::shared_ptr<const Shop> m_shop = std::make_shared<Shop>();
    std::shared_ptr<const std::vector<BatchSummary>> m_batches = std::make_shared<std::vector<BatchSummary>>();
    std::shared_ptr<const std::vector<Verification>> m_runs = std::make_shared<std::vector<Verification>>();
    std::shared_ptr<const Tables> m_tables;
    std::shared_ptr<const BatchView> m_inHand;
    std::shared_ptr<const std::vector<Elsewhere>> m_elsewhere = std::make_shared<std::vector<Elsewhere>>();
};

} // namespace rollcall
