// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/shop_knowledge.h"

#include "core/judge/expectation.h"
#include "core/judge/standing.h"
#include "logbook/read/history.h"

#include <algorithm>

namespace rollcall {

namespace {

// Batches made longer ago than this are not asked for what is next.
constexpr std::int64_t inWork_ms = std::int64_t{21} * 86400000;

} // namespace

ShopKnowledge::ShopKnowledge(Logbook& logbook, std::shared_ptr<const Tables> shipped)
    : m_logbook(logbook), m_shipped(std::move(shipped)) {
    m_snapshot = nothing(m_shipped);
}

Snapshot ShopKnowledge::nothing(std::shared_ptr<const Tables> shipped) {
    Snapshot snapshot;
    snapshot.m_tables = std::move(shipped);
    return snapshot;
}

Result<Done> ShopKnowledge::begin() {
    auto done = readShop();
    if (done) done = readRuns();
    if (done) done = readList();
    return done;
}

Result<Done> ShopKnowledge::readShop() {
    Result<Shop> shop = m_logbook.shop();
    if (!shop) return shop.error();
    if (shop->own_grades.empty()) {
        m_snapshot.m_tables = m_shipped;
    } else if (m_editions.empty() || m_sheets != shop->own_grades) {
        m_sheets = shop->own_grades;
        m_editions.push_back(std::make_shared<const Tables>(withSheets(*m_shipped, m_sheets)));
        m_observations.clear(); // a grade may have another curve now
    }
    if (!shop->own_grades.empty()) m_snapshot.m_tables = m_editions.back();
    m_snapshot.m_shop = std::make_shared<const Shop>(std::move(shop).value());
    return Done{};
}

Result<Done> ShopKnowledge::readRuns() {
    Result<std::vector<Verification>> runs = m_logbook.verifications();
    if (!runs) return runs.error();
    m_snapshot.m_runs = std::make_shared<const std::vector<Verification>>(std::move(runs).value());
    return Done{};
}

Result<Done> ShopKnowledge::readList() {
    Result<std::vector<BatchSummary>> batches = m_logbook.batches();
    if (!batches) return batches.error();
    const std::int64_t now = m_logbook.now().utc_ms;
    m_inWork.clear();
    for (const BatchSummary& batch : *batches) {
        if (now - batch.created.utc_ms < inWork_ms) m_inWork.insert(batch.id);
    }
    std::erase_if(m_tasks, [&](const auto& task) { return m_inWork.count(task.first) == 0; });
    std::erase_if(m_unseen, [&](const std::string& id) { return m_inWork.count(id) == 0; });
    for (const std::string& id : m_inWork) {
        if (m_tasks.count(id) == 0) m_unseen.insert(id);
    }
    m_snapshot.m_batches = std::make_shared<const std::vector<BatchSummary>>(std::move(batches).value());
    return Done{};
}

Result<Done> ShopKnowledge::expectMany() {
    return m_logbook.expectMany();
}

Result<Batch> ShopKnowledge::read(const std::string& id) {
    Result<Batch> batch = readWithoutRuns(id);
    if (batch) batch.value().verifications = runsInReach(*batch, m_snapshot.runs());
    return batch;
}

Result<Batch> ShopKnowledge::readWithoutRuns(const std::string& id) {
    Result<Batch> batch = m_logbook.batchAlone(id);
    if (!batch) return batch;
    batch.value().testers = m_snapshot.shop().testers;
    batch.value().oven = m_snapshot.shop().ovenSteps();
    return batch;
}

Result<std::vector<TemperObservation>> ShopKnowledge::history(const Batch& batch) {
    std::vector<TemperObservation> history;
    for (const BatchSummary* summary : teachersOf(batch, m_snapshot.batches())) {
        auto seen = m_observations.find(summary->id);
        if (seen == m_observations.end()) {
            const Result<Batch> other = read(summary->id);
            if (!other) return other.error();
            seen = m_observations.emplace(other->id, temperObservations(*other, *m_snapshot.tables())).first;
        }
        history.insert(history.end(), seen->second.begin(), seen->second.end());
    }
    return history;
}

Result<Done> ShopKnowledge::readInHand(const std::string& id) {
    if (id.empty()) {
        m_inHand.clear();
        m_snapshot.m_inHand.reset();
        return Done{};
    }
    Result<Batch> batch = read(id);
    if (!batch) return batch.error();
    Result<std::vector<TemperObservation>> learned = history(*batch);
    if (!learned) return learned.error();
    batch.value().temper_history = std::move(learned).value();
    auto view = std::make_shared<const BatchView>(std::move(batch).value(), m_snapshot.tables(), m_logbook.now(),
                                                  m_snapshot.inHand());
    ++m_judged;
    if (m_inHand != id) forgetTask(m_inHand); // it is one of the others from now on
    m_inHand = id;
    m_snapshot.m_inHand = std::move(view);
    showTasks();
    return Done{};
}

Result<Done> ShopKnowledge::takeInHand(const std::string& batch) {
    return readInHand(batch);
}

Result<Done> ShopKnowledge::keepUp(const Touched& touched) {
    m_missed.add(touched);
    if (m_missed.nothing()) return Done{};
    const Touched& missed = m_missed;
    const bool all = missed.everything;
    for (const std::string& id : missed.batches) m_observations.erase(id);
    if (all) m_observations.clear();
    auto done = Result<Done>(Done{});
    if (all || missed.shop || missed.runs) done = readShop();
    if (done && (all || missed.runs)) done = readRuns();
    if (all || missed.shop || missed.runs) {
        m_tasks.clear();
        m_unseen = m_inWork;
    }
    for (const std::string& id : missed.batches) forgetTask(id);
    if (done && (all || missed.list)) done = readList();
    const bool judge = all || missed.shop || missed.runs || missed.batches.count(m_inHand) != 0;
    if (done && judge) done = readInHand(m_inHand);
    if (!done) return done;
    m_missed = {};
    showTasks();
    return done;
}

void ShopKnowledge::forgetTask(const std::string& batch) {
    m_tasks.erase(batch);
    if (m_inWork.count(batch) != 0) m_unseen.insert(batch);
}

Result<std::map<std::string, std::vector<State>>> ShopKnowledge::statesOf(const std::string& id) {
    Result<Batch> batch = read(id);
    if (!batch) return batch.error();
    const BatchView view(std::move(batch).value(), m_snapshot.tables(), m_logbook.now());
    return rollcall::statesOf(view.batch, view.judged.verdicts());
}

Result<bool> ShopKnowledge::lookAtOneMore() {
    m_unseen.erase(m_inHand); // what is next in it is known with its verdicts
    if (m_unseen.empty()) return false;
    const std::string id = *m_unseen.begin();
    m_unseen.erase(m_unseen.begin());
    Result<Batch> batch = read(id);
    if (!batch) return batch.error();
    const BatchView view(std::move(batch).value(), m_snapshot.tables(), m_logbook.now());
    ++m_judged;
    const std::vector<Task>& tasks = view.tasks;
    m_tasks[id] = tasks.empty()
                      ? std::nullopt
                      : std::optional<Elsewhere>({view.batch.name, view.batch.blades[tasks.front().blade].mark,
                                                  tasks.front(), view.batch.id});
    showTasks();
    return true;
}

void ShopKnowledge::showTasks() {
    std::vector<Elsewhere> shown;
    for (const auto& [id, task] : m_tasks) {
        if (task && id != m_inHand) shown.push_back(*task);
    }
    std::sort(shown.begin(), shown.end(), [](const Elsewhere& a, const Elsewhere& b) { return a.batch < b.batch; });
    m_snapshot.m_elsewhere = std::make_shared<const std::vector<Elsewhere>>(std::move(shown));
}

} // namespace rollcall
