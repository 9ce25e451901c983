// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/ledger_book.h"

#include <algorithm>
#include <QElapsedTimer>
#include <utility>

namespace rollcall {

namespace {

constexpr int stepMs = 15;
constexpr std::size_t many = 100; // batches: fewer are read as fast as it is found out what they have

} // namespace

LedgerBook::LedgerBook(ShopKnowledge& knowledge) : m_knowledge(knowledge), m_tables(knowledge.snapshot().tables()) {
    list();
}

void LedgerBook::list() {
    const std::vector<BatchSummary>& batches = m_knowledge.snapshot().batches();
    std::set<std::string> there;
    for (auto batch = batches.rbegin(); batch != batches.rend(); ++batch) {
        there.insert(batch->id);
        if (m_known.insert(batch->id).second) m_left.push_back(batch->id);
    }
    for (const LedgerBatch* batch : std::vector<const LedgerBatch*>(m_ledger.batches())) {
        if (there.contains(batch->id)) continue;
        m_known.erase(batch->id);
        m_ledger.drop(batch->id);
        m_shown.reset();
    }
}

void LedgerBook::touched(const Touched& touched) {
    const bool otherTables = m_tables != m_knowledge.snapshot().tables();
    m_tables = m_knowledge.snapshot().tables();
    if (touched.everything || touched.runs || otherTables) {
        // A run on a block or a grade of the shop's own may change what any batch says. What was known stays meanwhile.
        m_left.clear();
        m_known.clear();
        m_failed.clear();
        m_manyExpected = false;
    }
    list();
    for (const std::string& id : touched.batches) {
        m_failed.erase(id);
        if (m_known.contains(id) && std::find(m_left.begin(), m_left.end(), id) == m_left.end()) m_left.push_front(id);
    }
}

Result<bool> LedgerBook::step() {
    QElapsedTimer clock;
    clock.start();
    m_shown.reset();
    // Where that cannot be found out the batches are read without it.
    if (m_left.size() >= many && !std::exchange(m_manyExpected, true)) (void)m_knowledge.expectMany();
    while (!m_left.empty() && clock.elapsed() < stepMs) {
        const std::string id = m_left.front();
        m_left.pop_front();
        auto batch = m_knowledge.readWithoutRuns(id);
        // Memory may have run out: it is tried once more, after the others.
        if (!batch && m_failed.insert(id).second) m_left.push_back(id);
        if (!batch) return batch.error();
        m_judge.take(std::move(batch).value(), m_knowledge.snapshot().sharedRuns(), m_tables, m_knowledge.now());
    }
    m_judge.finish();
    return !m_left.empty();
}

LedgerNow LedgerBook::now() {
    if (!m_shown) m_shown = std::make_shared<const Ledger>(m_ledger);
    return {m_shown, m_knowledge.snapshot().tables(), m_left.size()};
}

} // namespace rollcall
