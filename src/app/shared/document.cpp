// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/document.h"

#include "logbook/history.h"

#include <algorithm>

namespace rollcall {

namespace {

// Batches made longer ago than this are not asked for what is next.
constexpr std::int64_t inWork_ms = std::int64_t{21} * 86400000;

} // namespace

Document::Document(Tables tables, QObject* parent)
    : QObject(parent), m_tables(std::move(tables)), m_worker(new QObject) {
    m_worker->moveToThread(&m_thread);
    connect(&m_thread, &QThread::finished, m_worker, &QObject::deleteLater);
    m_thread.start();
}

Document::~Document() {
    // The logbook is closed on the thread that owns its connection, after everything sent there is done.
    QMetaObject::invokeMethod(
        m_worker, [this] { m_logbook.reset(); }, Qt::BlockingQueuedConnection);
    m_thread.quit();
    m_thread.wait();
}

void Document::open(const QString& path, bool create, Then then) {
    ++m_pending;
    m_open = false;
    QMetaObject::invokeMethod(m_worker, [this, path, create, person = m_person, then] {
        m_logbook.reset();
        m_elsewhere.clear();
        m_observations.clear();
        auto opened = create ? Logbook::create(path) : Logbook::open(path, Logbook::Access::write);
        Result<Done> done = Done{};
        Snapshot snapshot;
        QString reason;
        std::string batch;
        if (opened) {
            m_logbook = std::move(opened).value();
            m_logbook->setPerson(person.toStdString());
            reason = QString::fromStdString(m_logbook->readOnlyReason());
            const auto shop = m_logbook->shop();
            const auto batches = m_logbook->batches();
            if (!shop)
                done = shop.error();
            else if (!batches)
                done = batches.error();
            else {
                if (const auto wish = shop->settings.find("open_batch"); wish != shop->settings.end())
                    batch = wish->second;
                const bool known =
                    std::any_of(batches->begin(), batches->end(), [&](const auto& b) { return b.id == batch; });
                if (!known) batch = batches->empty() ? std::string() : batches->back().id;
                snapshot = takeSnapshot(batch);
            }
        } else {
            done = opened.error();
        }
        QMetaObject::invokeMethod(
            this, [this, done, snapshot = std::move(snapshot), path, reason, batch, then]() mutable {
                --m_pending;
                m_open = done.ok();
                m_path = path;
                m_readOnlyReason = reason;
                m_blade = 0;
                m_batch = batch;
                if (done) {
                    if (m_person.isEmpty() && !snapshot.shop.people.empty())
                        choosePerson(QString::fromStdString(snapshot.shop.people.front().initials));
                    m_tester.clear();
                    receive(std::move(snapshot));
                }
                if (then) then(done);
            });
    });
}

void Document::perform(Work work, Then then) {
    ++m_pending;
    QMetaObject::invokeMethod(
        m_worker, [this, work = std::move(work), then = std::move(then), batch = m_batch, person = m_person] {
            Result<Done> done = Error{ErrorKind::refused, "", "no logbook is open"};
            Snapshot snapshot;
            if (m_logbook) {
                m_logbook->setPerson(person.toStdString());
                done = work(*m_logbook);
                snapshot = takeSnapshot(batch);
            }
            QMetaObject::invokeMethod(this, [this, done, then, snapshot = std::move(snapshot), batch]() mutable {
                --m_pending;
                if (batch == m_batch)
                    receive(std::move(snapshot)); // another batch was chosen meanwhile: its own snapshot follows
                if (!done) emit failed(QString::fromStdString(done.error().message()));
                if (then) then(done);
            });
        });
}

Snapshot Document::takeSnapshot(const std::string& batchId) {
    Snapshot snapshot;
    const auto shop = m_logbook->shop();
    if (shop) snapshot.shop = *shop;
    if (!snapshot.shop.own_grades.empty() && (m_editions.empty() || m_sheets != snapshot.shop.own_grades)) {
        m_sheets = snapshot.shop.own_grades;
        m_editions.push_back(std::make_shared<const Tables>(withSheets(m_tables, m_sheets)));
    }
    if (!snapshot.shop.own_grades.empty()) snapshot.tables = m_editions.back();
    const Tables& tables = snapshot.tables ? *snapshot.tables : m_tables;
    const auto batches = m_logbook->batches();
    if (batches) snapshot.batches = *batches;
    auto runs = m_logbook->verifications();
    if (runs) snapshot.verifications = std::move(runs).value();
    const Instant now = m_logbook->now();
    for (const BatchSummary& summary : snapshot.batches) {
        const bool inHand = summary.id == batchId;
        const bool inWork = now.utc_ms - summary.created.utc_ms < inWork_ms;
        if (!inHand && (!inWork || m_elsewhere.count(summary.name) != 0)) continue;
        Result<Batch> batch = m_logbook->batch(summary.id);
        if (!batch) continue;
        if (inHand) {
            m_observations.erase(summary.id); // it is changing
            auto history = temperHistory(*m_logbook, tables, *batch, m_observations);
            if (history) batch.value().temper_history = std::move(history).value();
        }
        BatchVerdicts verdicts = judgeBatch(*batch, tables, now);
        const std::vector<Task> tasks = agenda(*batch, verdicts);
        m_elsewhere[summary.name] = tasks.empty() ? std::pair(Task{}, std::string())
                                                  : std::pair(tasks.front(), batch->blades[tasks.front().blade].mark);
        if (inHand) {
            snapshot.batch = std::move(batch).value();
            snapshot.verdicts = std::move(verdicts);
        }
    }
    for (const auto& [name, task] : m_elsewhere) {
        if ((snapshot.batch && snapshot.batch->name == name) || task.second.empty()) continue;
        snapshot.elsewhere[name] = task.first;
        snapshot.elsewhere_marks[name] = task.second;
    }
    return snapshot;
}

void Document::receive(Snapshot snapshot) {
    m_state = std::move(snapshot);
    if (hasBatch()) m_blade = std::clamp(m_blade, 0, std::max(0, static_cast<int>(batch().blades.size()) - 1));
    emit changed();
}

const Blade* Document::blade() const {
    return hasBatch() && m_blade < static_cast<int>(batch().blades.size())
               ? &batch().blades[static_cast<std::size_t>(m_blade)]
               : nullptr;
}

const Verdict* Document::verdict(int blade, Gate gate) const {
    if (!hasBatch() || blade < 0 || blade >= static_cast<int>(m_state.verdicts.blades.size())) return nullptr;
    const std::optional<Verdict>& verdict = m_state.verdicts.at(static_cast<std::size_t>(blade), gate);
    return verdict ? &*verdict : nullptr;
}

int Document::indexOfMark(const std::string& mark) const {
    if (!hasBatch()) return -1;
    for (std::size_t i = 0; i < batch().blades.size(); ++i) {
        if (batch().blades[i].mark == mark) return static_cast<int>(i);
    }
    return -1;
}

void Document::selectBatch(const std::string& id, Then then) {
    m_batch = id;
    m_blade = 0;
    perform([](Logbook&) { return Result<Done>(Done{}); }, std::move(then));
}

void Document::selectBlade(int index) {
    if (!hasBatch() || index < 0 || index >= static_cast<int>(batch().blades.size()) || index == m_blade) return;
    m_blade = index;
    emit changed();
}

void Document::selectGate(Gate gate) {
    m_gate = gate;
    emit changed();
}

const Tester* Document::tester() const {
    for (const Tester& tester : m_state.shop.testers) {
        if (tester.id == m_tester) return &tester;
    }
    const auto reads = std::find_if(m_state.shop.testers.begin(), m_state.shop.testers.end(), [](const Tester& tester) {
        return tester.kind == TesterKind::bench || tester.kind == TesterKind::rebound;
    });
    return reads == m_state.shop.testers.end() ? nullptr : &*reads;
}

void Document::chooseTester(const std::string& id) {
    m_tester = id;
    emit changed();
}

void Document::choosePerson(const QString& initials) {
    m_person = initials;
    emit changed();
}

} // namespace rollcall
