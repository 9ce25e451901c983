// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/ledger_book.h"
#include "app/store/shop_knowledge.h"
#include "core/base/result.h"
#include "logbook/logbook.h"
#include "logbook/read/finder.h"

#include <atomic>
#include <deque>
#include <exception>
#include <functional>
#include <memory>
#include <mutex>
#include <QObject>
#include <QString>
#include <QThread>
#include <QTimer>

namespace rollcall {

class LogbookCheck;

/// What was found, and how much of the logbook was looked through for it.
struct Found {
    std::vector<Hit> hits;
    std::size_t left = 0; ///< batches that are still to be looked through
    std::size_t batches = 0;
    bool more = false; ///< there is more than was asked for, or than was judged
};

/// Work on its way from one thread to another, in order. The lock is where the two meet.
class HandOver {
public:
    void put(std::function<void()> work);
    /// The oldest that was put; empty when there is none.
    std::function<void()> take();

private:
    std::mutex m_mutex;
    std::deque<std::function<void()>> m_works;
};

/// The storage thread. It owns the only connection to the logbook; acts and reads go there as functions, in the order
/// they are asked, and their answers come back to the thread that asked. No exception leaves it: one is told as an
/// error.
class Store : public QObject {
    Q_OBJECT

public:
    using Act = std::function<Result<Done>(Logbook&)>;

    /// What came of an act: whether it was stored, and what is known after it. read is an error where it was stored
    /// but could not be read again; the snapshot is then the one before.
    struct Answer {
        Result<Done> done = Done{};
        Result<Done> read = Done{};
        Snapshot snapshot;
        bool changed = false;              ///< the snapshot is another than before
        std::optional<Instant> ahead = {}; ///< the entry before, where the clock stood before it
    };
    struct Opened {
        Result<Done> done = Done{};
        Snapshot snapshot;
        QString read_only_reason;
        std::optional<Instant> ahead = {}; ///< the last entry, where the clock stands before it
    };

    Store(Tables shipped, LogbookSeams seams, QObject* parent = nullptr);
    /// Everything asked before is done first, then the logbook is closed.
    ~Store() override;

    /// Opens or makes a logbook; any open before is closed first. The batch in hand is the one it was left with.
    void open(const QString& path, bool create, const QString& person, std::function<void(Opened)> then);
    /// Does the act in the name of a person, then takes the batch in hand when one is named.
    void perform(Act act, const QString& person, const std::optional<std::string>& batch,
                 std::function<void(Answer)> then);
    /// Reads without judging and without another snapshot.
    template<class T>
    void query(std::function<Result<T>(Logbook&)> read, std::function<void(const Result<T>&)> then) {
        ++m_pending;
        post([this, read = std::move(read), then = std::move(then)] {
            auto answer = std::make_shared<Result<T>>(guarded<T>([&]() -> Result<T> {
                if (!m_logbook) return Error{ErrorKind::refused, "", "no logbook is open"};
                return read(*m_logbook);
            }));
            reply([this, then, answer] {
                --m_pending;
                then(*answer);
            });
        });
    }
    /// Looks for what somebody wishes, at most so many. The first time the words of the logbook are gathered, between
    /// acts; until then what is found is not all.
    void find(const Wanted& wanted, int most, std::function<void(const Result<Found>&)> then);
    /// The ledger as far as it is gathered. The first time it is begun, between acts; until nothing is left it is not
    /// all.
    void ledger(std::function<void(LedgerNow)> then);
    /// Acts and reads not answered yet.
    int pending() const { return m_pending; }
    /// True when nothing is asked and what is next in every batch in work is known.
    bool quiet() const { return m_pending == 0 && !m_around; }

    const std::shared_ptr<const Tables>& shipped() const { return m_shipped; }
    /// Whether a logbook is looked through whole between acts; a larger one is by `rollcallctl check`.
    static bool looksThrough(const QString& path);
    Instant now() const { return m_seams.now(); }
    const LogbookSeams& seams() const { return m_seams; }

signals:
    /// What is next in other batches has become known meanwhile.
    void learnt(const rollcall::Snapshot& snapshot);
    /// The whole logbook was looked through, between acts: sentences about what is wrong with it. It is not written to
    /// any more where there is something.
    void checked(const QStringList& problems);

private:
    template<class T>
    static Result<T> guarded(const std::function<Result<T>()>& work) {
        try {
            return work();
        } catch (const std::exception& trouble) {
            return Error{ErrorKind::damaged, "",
                         std::string("the logbook holds something that cannot be read (") + trouble.what() + ")"};
        }
    }
    void post(std::function<void()> work);
    void reply(std::function<void()> answer);
    void close();
    void lookAround();
    void checkOneMore();
    void gatherOneMore();
    void gatherLedger();
    std::optional<Instant> entryBeyondTheClock();
    Result<Found> lookFor(const Wanted& wanted, int most);

    std::shared_ptr<const Tables> m_shipped;
    LogbookSeams m_seams;
    QThread m_thread;
    QObject* m_worker;                          ///< lives on the storage thread
    HandOver m_works;                           ///< to the storage thread
    HandOver m_answers;                         ///< and back
    std::unique_ptr<Logbook> m_logbook;         ///< storage thread only
    std::unique_ptr<ShopKnowledge> m_knowledge; ///< likewise
    std::unique_ptr<LogbookCheck> m_check;      ///< likewise
    std::unique_ptr<Finder> m_finder;           ///< likewise; none before anything was looked for
    std::unique_ptr<LedgerBook> m_ledger;       ///< likewise; none before anybody asked
    bool m_gathering = false;                   ///< likewise
    bool m_booking = false;                     ///< likewise
    bool m_looking = false;                     ///< likewise
    std::atomic<int> m_pending = 0;             ///< also looked at by what is done between acts
    QTimer m_checkSoon;
    QTimer m_idle;         ///< after a while without acts what was stored goes into the file itself
    bool m_around = false; ///< the other batches in work are being looked at
};

} // namespace rollcall
