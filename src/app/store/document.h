// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/store.h"

#include <functional>
#include <memory>
#include <QObject>
#include <QString>
#include <QThreadPool>

namespace rollcall {

/// The open logbook as the window knows it: the last snapshot, and what of it is selected. Batch, blade and gate change
/// only together with the snapshot that they are of, so that a number always lands on the blade in sight.
class Document : public QObject {
    Q_OBJECT

public:
    using Work = Store::Act;
    using Then = std::function<void(const Result<Done>&)>;

    Document(Tables tables, LogbookSeams seams, QObject* parent = nullptr);

    /// Opens or makes a logbook; `opened` tells whether it worked. Any logbook open before is closed first.
    void open(const QString& path, bool create);
    bool isOpen() const { return m_open; }
    const QString& path() const { return m_path; }
    /// Why nothing can be logged, each reason a sentence; empty when it can.
    const QStringList& readOnlyReasons() const { return m_readOnlyReasons; }
    /// The whole of it was looked through since it was opened, and all is well.
    bool isChecked() const { return m_checked; }
    /// Why what is shown is older than what is stored; empty when it is not.
    const QString& trouble() const { return m_trouble; }

    /// Why the last act was not stored where the disk or the file is to blame, until one is stored again; empty when
    /// all is well.
    const QString& unstored() const { return m_unstored; }

    /// Does the work on the storage thread in one transaction, takes the snapshot after it, then calls back here.
    void perform(Work work, Then then = {});
    /// Reads on the storage thread and calls back here; nothing is judged and nothing changes.
    template<class T>
    void query(std::function<Result<T>(Logbook&)> read, std::function<void(const Result<T>&)> then) {
        m_store.query<T>(std::move(read), std::move(then));
    }
    /// Looks for what somebody wishes, at most so many; calls back here.
    void find(const Wanted& wanted, int most, std::function<void(const Result<Found>&)> then) {
        m_store.find(wanted, most, std::move(then));
    }
    /// The ledger as far as it is gathered; calls back here.
    void ledger(std::function<void(LedgerNow)> then) { m_store.ledger(std::move(then)); }
    /// Works something out on another thread, then does here what that gave: also when whoever asked is gone by then,
    /// as places are when the window is laid out anew, so that nobody has to wait for it.
    void aside(std::function<std::function<void()>()> work);
    /// Number of acts and reads that are not answered yet.
    int pending() const { return m_store.pending(); }
    /// True when nothing is asked and what is next in the other batches is known too.
    bool quiet() const { return m_store.quiet(); }

    /// The library, with the shop's own grades in front of it; state() holds it alive.
    const Tables& tables() const { return *m_state.tables(); }
    const Snapshot& state() const { return m_state; }
    bool hasBatch() const { return m_state.inHand() != nullptr; }
    const Batch& batch() const { return m_state.inHand()->batch; }
    /// Everything found out about the batch in hand.
    const Judged& judged() const { return m_state.inHand()->judged; }
    /// The verdicts of the gates that it asks.
    const BatchVerdicts& verdicts() const { return judged().verdicts(); }
    /// What is left to do in the batch in hand.
    const std::vector<Task>& tasks() const { return m_state.inHand()->tasks; }

    /// Counts up with every snapshot and every other selection, for those who keep what they worked out of them.
    int revision() const { return m_revision; }

    int bladeIndex() const { return m_blade; }
    const Blade* blade() const;
    Gate gate() const { return m_gate; }
    /// The verdict of a blade at a gate; null where there is none.
    const Verdict* verdict(int blade, Gate gate) const;
    const Verdict* verdict() const { return verdict(m_blade, m_gate); }
    /// What any gate says of the blade in hand, asked or not.
    const Verdict& verdictAt(Gate gate) const { return judged().verdict(static_cast<std::size_t>(m_blade), gate); }
    /// What holds for the blade in hand: its own claim, else the batch's.
    BladeClaim claim() const;
    int indexOfMark(const std::string& mark) const;

    /// Takes a batch in hand as soon as it is read and judged, its first blade selected; then calls back. Until then
    /// the one before stays in hand.
    void selectBatch(const std::string& id, Then then = {});
    void selectBlade(int index);
    void selectGate(Gate gate);

    /// The tester in use: the chosen one, else the shop's first that gives numbers; null when there is none.
    const Tester* tester() const;
    void chooseTester(const std::string& id);
    const QString& person() const { return m_person; }
    void choosePerson(const QString& initials);

    /// Tells those who show something that they must look again; while an answer is taken in, once at its end.
    void tell();

    /// The clock that everything in the window goes by.
    Instant now() const { return m_store.now(); }

signals:
    void opened(const Result<Done>& done);
    void changed(); ///< another snapshot, or another selection
    void learnt();  ///< what is next in other batches
    void unsound(); ///< the whole of it was looked through and does not pass; nothing is logged any more
    void failed(const QString& message);

private:
    void take(Snapshot snapshot, bool anotherBatch);
    void answered();
    QString clockTrouble(const Instant& last) const;

    Store m_store;
    Snapshot m_state;
    QString m_path;
    QStringList m_readOnlyReasons;
    QString m_trouble;
    QString m_unstored;
    QString m_person;
    std::string m_tester;
    int m_blade = 0;
    int m_revision = 0;
    Gate m_gate = Gate::temper;
    bool m_open = false;
    bool m_checked = false;
    bool m_answering = false;
    bool m_untold = false;
    QThreadPool m_aside; ///< last: what is being worked out is waited for before all else goes
};

} // namespace rollcall
