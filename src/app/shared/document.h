// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/agenda.h"
#include "core/judge/gates.h"
#include "logbook/logbook.h"

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <QObject>
#include <QString>
#include <QThread>

namespace rollcall {

/// What the window shows, read from the logbook and judged after every action.
struct Snapshot {
    Shop shop;
    std::vector<BatchSummary> batches;
    std::vector<Verification> verifications; ///< all runs on blocks, in the order they were made
    std::optional<Batch> batch;              ///< the one in hand
    BatchVerdicts verdicts;                  ///< of that batch
    /// What is next in the other batches in work, by batch name; for the Now line.
    std::map<std::string, Task> elsewhere;
    std::map<std::string, std::string> elsewhere_marks;
    std::shared_ptr<const Tables> tables; ///< with the shop's own grades; stays alive as long as the document
};

/// One open logbook and what is selected in it. The logbook itself lives on a storage thread of its own;
/// actions go there as functions, and a fresh snapshot comes back when they are on disk.
class Document : public QObject {
    Q_OBJECT

public:
    using Work = std::function<Result<Done>(Logbook&)>;
    using Then = std::function<void(const Result<Done>&)>;

    explicit Document(Tables tables, QObject* parent = nullptr);
    ~Document() override;

    /// Opens or makes a logbook; then tells whether it worked. Any logbook open before is closed first.
    void open(const QString& path, bool create, Then then);
    bool isOpen() const { return m_open; }
    const QString& path() const { return m_path; }
    const QString& readOnlyReason() const { return m_readOnlyReason; }

    /// Does the work on the storage thread in one transaction, takes a fresh snapshot, then calls back here.
    void perform(Work work, Then then = {});
    /// Number of actions that are not answered yet.
    int pending() const { return m_pending; }

    /// The library, with the shop's own grades in front of it.
    const Tables& tables() const { return m_state.tables ? *m_state.tables : m_tables; }
    const Snapshot& state() const { return m_state; }
    bool hasBatch() const { return m_state.batch.has_value(); }
    const Batch& batch() const { return *m_state.batch; }

    int bladeIndex() const { return m_blade; }
    const Blade* blade() const;
    Gate gate() const { return m_gate; }
    /// The verdict of a blade at a gate; null where there is none.
    const Verdict* verdict(int blade, Gate gate) const;
    const Verdict* verdict() const { return verdict(m_blade, m_gate); }
    int indexOfMark(const std::string& mark) const;

    /// Takes a batch in hand; then calls back when it is read and judged.
    void selectBatch(const std::string& id, Then then = {});
    void selectBlade(int index);
    void selectGate(Gate gate);

    /// The tester in use: the chosen one, else the shop's first that gives numbers; null when there is none.
    const Tester* tester() const;
    void chooseTester(const std::string& id);
    const QString& person() const { return m_person; }
    void choosePerson(const QString& initials);

signals:
    void changed(); ///< a fresh snapshot, or another selection
    void failed(const QString& message);

private:
    Snapshot takeSnapshot(const std::string& batch);
    void receive(Snapshot snapshot);

    Tables m_tables;                                       ///< as shipped
    std::vector<std::shared_ptr<const Tables>> m_editions; ///< storage thread only; kept, since grades are pointed at
    std::vector<GradeSheet> m_sheets;                      ///< of the last edition
    QThread m_thread;
    QObject* m_worker;                                                    ///< lives on the storage thread
    std::unique_ptr<Logbook> m_logbook;                                   ///< touched by the storage thread only
    std::map<std::string, std::pair<Task, std::string>> m_elsewhere;      ///< storage thread only
    std::map<std::string, std::vector<TemperObservation>> m_observations; ///< by batch; storage thread only
    Snapshot m_state;
    QString m_path;
    QString m_readOnlyReason;
    QString m_person;
    std::string m_batch;
    std::string m_tester;
    int m_blade = 0;
    int m_pending = 0;
    Gate m_gate = Gate::temper;
    bool m_open = false;
};

} // namespace rollcall
