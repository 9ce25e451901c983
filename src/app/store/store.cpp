// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/store.h"

#include "logbook/logbook_check.h"
#include "logbook/read/finder.h"

#include <algorithm>
#include <map>
#include <QFileInfo>
#include <tuple>

namespace rollcall {

Store::Store(Tables shipped, LogbookSeams seams, QObject* parent)
    : QObject(parent), m_shipped(std::make_shared<const Tables>(std::move(shipped))), m_seams(std::move(seams)),
      m_worker(new QObject) {
    m_worker->moveToThread(&m_thread);
    connect(&m_thread, &QThread::finished, m_worker, &QObject::deleteLater);
    m_thread.start();
    constexpr int soon_ms = 1500; // what was opened is shown and usable first
    m_checkSoon.setSingleShot(true);
    m_checkSoon.setInterval(soon_ms);
    connect(&m_checkSoon, &QTimer::timeout, this, [this] {
        post([this] {
            if (m_logbook) m_check = std::make_unique<LogbookCheck>(*m_logbook, [this] { return m_pending > 0; });
            checkOneMore();
        });
    });
    constexpr int idle_ms = 2000;
    m_idle.setSingleShot(true);
    m_idle.setInterval(idle_ms);
    connect(&m_idle, &QTimer::timeout, this, [this] {
        post([this] {
            if (m_logbook) m_logbook->settle();
        });
    });
}

bool Store::looksThrough(const QString& path) {
    // The check holds a digest of every row that was not imported in memory.
    constexpr qint64 largest_bytes = qint64{300} << 20;
    return QFileInfo(path).size() < largest_bytes;
}

Store::~Store() {
    // The logbook is closed on the thread that owns its connection, after everything sent there is done.
    QMetaObject::invokeMethod(
        m_worker, [this] { close(); }, Qt::BlockingQueuedConnection);
    m_thread.quit();
    m_thread.wait();
}

// What gathers between acts holds on to what is known of the logbook, and that to the logbook.
void Store::close() {
    m_check.reset();
    m_finder.reset();
    m_ledger.reset();
    m_knowledge.reset();
    m_logbook.reset();
}

void HandOver::put(std::function<void()> work) {
    const std::lock_guard lock(m_mutex);
    m_works.push_back(std::move(work));
}

std::function<void()> HandOver::take() {
    const std::lock_guard lock(m_mutex);
    if (m_works.empty()) return {};
    std::function<void()> work = std::move(m_works.front());
    m_works.pop_front();
    return work;
}

void Store::post(std::function<void()> work) {
    m_works.put(std::move(work));
    QMetaObject::invokeMethod(
        m_worker,
        [this] {
            if (const auto next = m_works.take()) next();
        },
        Qt::QueuedConnection);
}

void Store::reply(std::function<void()> answer) {
    m_answers.put(std::move(answer));
    QMetaObject::invokeMethod(
        this,
        [this] {
            if (const auto next = m_answers.take()) next();
        },
        Qt::QueuedConnection);
}

void Store::open(const QString& path, bool create, const QString& person, std::function<void(Opened)> then) {
    ++m_pending;
    post([this, path, create, person, then = std::move(then)] {
        close();
        auto answer = std::make_shared<Opened>();
        answer->done = guarded<Done>([&]() -> Result<Done> {
            auto opened =
                create ? Logbook::create(path, m_seams) : Logbook::open(path, Logbook::Access::write, m_seams);
            if (!opened) return opened.error();
            auto logbook = std::move(opened).value();
            logbook->setPerson(person.toStdString());
            auto knowledge = std::make_unique<ShopKnowledge>(*logbook, m_shipped);
            if (auto begun = knowledge->begin(); !begun) return begun;
            const Snapshot& known = knowledge->snapshot();
            const auto& settings = known.shop().settings;
            const auto wish = settings.find("open_batch");
            const auto wished =
                std::find_if(known.batches().begin(), known.batches().end(), [&](const BatchSummary& batch) {
                    return wish != settings.end() && batch.id == wish->second;
                });
            if (!known.batches().empty()) {
                const std::string id = wished != known.batches().end() ? wished->id : known.batches().back().id;
                if (auto taken = knowledge->takeInHand(id); !taken) return taken;
            }
            m_logbook = std::move(logbook);
            m_knowledge = std::move(knowledge);
            return Done{};
        });
        if (answer->done) {
            answer->snapshot = m_knowledge->snapshot();
            answer->read_only_reason = QString::fromStdString(m_logbook->readOnlyReason());
            answer->ahead = entryBeyondTheClock();
        }
        reply([this, path, then, answer] {
            --m_pending;
            m_around = true;
            if (answer->done && looksThrough(path)) m_checkSoon.start();
            then(std::move(*answer));
        });
        lookAround();
    });
}

void Store::perform(Act act, const QString& person, const std::optional<std::string>& batch,
                    std::function<void(Answer)> then) {
    m_idle.start();
    ++m_pending;
    post([this, act = std::move(act), person, batch, then = std::move(then)] {
        auto answer = std::make_shared<Answer>();
        if (!m_logbook) {
            answer->done = Error{ErrorKind::refused, "", "no logbook is open"};
        } else {
            m_logbook->setPerson(person.toStdString());
            if (act) answer->ahead = entryBeyondTheClock();
            if (act) answer->done = guarded<Done>([&] { return act(*m_logbook); });
            // What was touched is touched even where the act says that it failed: an import may have begun.
            const Touched touched = m_logbook->takeTouched();
            if (m_finder) m_finder->touched(touched);
            answer->changed = !touched.nothing() || batch.has_value() || m_knowledge->behind();
            answer->read = guarded<Done>([&]() -> Result<Done> {
                auto kept = m_knowledge->keepUp(touched);
                return kept && batch ? m_knowledge->takeInHand(*batch) : kept;
            });
            answer->snapshot = m_knowledge->snapshot();
            if (m_ledger) m_ledger->touched(touched);
        }
        reply([this, then, answer] {
            --m_pending;
            m_around = true;
            then(std::move(*answer));
        });
        lookAround();
        if (m_finder) gatherOneMore();
        if (m_ledger) gatherLedger();
    });
}

void Store::find(const Wanted& wanted, int most, std::function<void(const Result<Found>&)> then) {
    ++m_pending;
    post([this, wanted, most, then = std::move(then)] {
        auto answer =
            std::make_shared<Result<Found>>(guarded<Found>([&]() -> Result<Found> { return lookFor(wanted, most); }));
        reply([this, then, answer] {
            --m_pending;
            then(*answer);
        });
        if (m_finder) gatherOneMore();
    });
}

Result<Found> Store::lookFor(const Wanted& wanted, int most) {
    if (!m_logbook) return Error{ErrorKind::refused, "", "no logbook is open"};
    if (!m_finder) m_finder = std::make_unique<Finder>(*m_logbook);
    Found found;
    constexpr int perBatch = 50; // blades that may stand before one with the verdict
    auto answer = m_finder->find(wanted, wanted.state ? most * perBatch : most + 1);
    if (!answer) return answer.error();
    std::vector<Hit> hits = std::move(answer).value();
    std::tie(found.left, found.batches) = m_finder->left();
    if (!wanted.state) {
        found.more = static_cast<int>(hits.size()) > most;
        if (found.more) hits.pop_back();
        found.hits = std::move(hits);
        return found;
    }
    // Verdicts are computed, not stored: of the batches that fit otherwise so many are judged, the newest first.
    constexpr std::size_t judgedAtOnce = 40;
    std::map<std::string, std::map<std::string, std::vector<State>>> states; // by batch and blade
    for (Hit& hit : hits) {
        if (static_cast<int>(found.hits.size()) == most ||
            (states.size() == judgedAtOnce && states.count(hit.batch_id) == 0)) {
            found.more = true;
            break;
        }
        if (states.count(hit.batch_id) == 0) {
            auto judged = m_knowledge->statesOf(hit.batch_id);
            if (!judged) return judged.error();
            states.emplace(hit.batch_id, std::move(judged).value());
        }
        if (hasVerdict(states[hit.batch_id][hit.blade], *wanted.state)) found.hits.push_back(std::move(hit));
    }
    return found;
}

void Store::gatherOneMore() {
    if (std::exchange(m_gathering, true)) return;
    post([this] {
        m_gathering = false;
        if (!m_finder) return;
        const Result<bool> more = guarded<bool>([&] { return m_finder->step(); });
        if (more && *more) gatherOneMore();
    });
}

void Store::ledger(std::function<void(LedgerNow)> then) {
    ++m_pending;
    post([this, then = std::move(then)] {
        auto answer = std::make_shared<LedgerNow>();
        if (m_knowledge) {
            if (!m_ledger) m_ledger = std::make_unique<LedgerBook>(*m_knowledge);
            *answer = m_ledger->now();
        }
        reply([this, then, answer] {
            --m_pending;
            then(std::move(*answer));
        });
        if (m_ledger) gatherLedger();
    });
}

void Store::gatherLedger() {
    if (std::exchange(m_booking, true)) return;
    post([this] {
        m_booking = false;
        if (!m_ledger) return;
        // A batch that cannot be read is left out; the check names what is wrong with it.
        const Result<bool> more = guarded<bool>([&] { return m_ledger->step(); });
        if (!more || *more) gatherLedger();
    });
}

std::optional<Instant> Store::entryBeyondTheClock() {
    const auto ahead = guarded<std::optional<Instant>>([&] { return m_logbook->entryAhead(); });
    return ahead ? *ahead : std::nullopt;
}

// Step by step, so that no act waits for more than one of them.
void Store::checkOneMore() {
    post([this] {
        if (!m_check) return;
        const Result<bool> more = guarded<bool>([&] { return m_check->step(); });
        if (more && *more) return checkOneMore();
        QStringList problems;
        for (const std::string& problem : m_check->problems()) problems << QString::fromStdString(problem);
        if (!more) problems << QString::fromStdString(more.error().text);
        m_check.reset();
        if (!problems.isEmpty())
            m_logbook->stopWriting("it does not pass its check: " + problems.front().toStdString());
        reply([this, problems] { emit checked(problems); });
    });
}

// One batch at a time, so that no act waits for more than one of them.
void Store::lookAround() {
    if (std::exchange(m_looking, true)) return;
    post([this] {
        m_looking = false;
        const Result<bool> more =
            m_knowledge ? guarded<bool>([&] { return m_knowledge->lookAtOneMore(); }) : Result<bool>(false);
        if (more && !*more) return reply([this] { m_around = false; });
        reply([this, snapshot = m_knowledge->snapshot()] { emit learnt(snapshot); });
        lookAround();
    });
}

} // namespace rollcall
