// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/document.h"

#include <algorithm>
#include <QDateTime>
#include <QLocale>
#include <QScopedValueRollback>
#include <QThread>

namespace rollcall {

Document::Document(Tables tables, LogbookSeams seams, QObject* parent)
    : QObject(parent), m_store(std::move(tables), std::move(seams)) {
    m_state = ShopKnowledge::nothing(m_store.shipped());
    m_aside.setMaxThreadCount(std::max(2, QThread::idealThreadCount() - 1));
    connect(&m_store, &Store::learnt, this, [this](const Snapshot& snapshot) {
        m_state.takeElsewhere(snapshot);
        emit learnt();
    });
    connect(&m_store, &Store::checked, this, [this](const QStringList& problems) {
        m_checked = problems.isEmpty();
        if (!m_checked) m_readOnlyReasons = QStringList(tr("it does not pass its check")) + problems;
        tell();
        if (!m_checked) emit unsound();
    });
}

void Document::open(const QString& path, bool create) {
    m_open = false;
    m_checked = false;
    m_store.open(path, create, m_person, [this, path](Store::Opened answer) {
        m_open = answer.done.ok();
        m_path = path;
        m_readOnlyReasons.clear();
        if (!answer.read_only_reason.isEmpty()) m_readOnlyReasons << answer.read_only_reason;
        m_trouble.clear();
        m_unstored.clear();
        if (answer.done) {
            {
                const QScopedValueRollback<bool> answering(m_answering, true);
                m_tester.clear();
                take(std::move(answer.snapshot), true);
                if (m_person.isEmpty() && !m_state.shop().people.empty())
                    m_person = QString::fromStdString(m_state.shop().people.front().initials);
            }
            m_untold = true;
            answered();
        }
        emit opened(answer.done);
        if (answer.ahead) emit failed(clockTrouble(*answer.ahead));
    });
}

void Document::aside(std::function<std::function<void()>()> work) {
    m_aside.start([this, work = std::move(work)] { QMetaObject::invokeMethod(this, work(), Qt::QueuedConnection); });
}

void Document::perform(Work work, Then then) {
    m_store.perform(std::move(work), m_person, {}, [this, then = std::move(then)](Store::Answer answer) {
        {
            const QScopedValueRollback<bool> answering(m_answering, true);
            if (answer.changed) take(std::move(answer.snapshot), false);
            m_trouble = answer.read ? QString() : QString::fromStdString(answer.read.error().message());
            if (then) then(answer.done);
        }
        const auto blames = [](ErrorKind kind) { return kind == ErrorKind::disk || kind == ErrorKind::damaged; };
        if (!answer.done && blames(answer.done.error().kind)) {
            m_unstored = QString::fromStdString(answer.done.error().message());
            m_untold = true;
        } else if (answer.done && answer.changed) {
            m_unstored.clear();
        }
        if (answer.changed || !answer.read) m_untold = true;
        answered();
        if (!answer.done)
            emit failed(QString::fromStdString(answer.done.error().message()));
        else if (answer.ahead)
            emit failed(clockTrouble(*answer.ahead));
    });
}

// What is dated wrong is judged wrong: no verification stands before it, tempers change their order.
QString Document::clockTrouble(const Instant& last) const {
    const auto text = [](const Instant& at) {
        return QLocale().toString(QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60),
                                  QStringLiteral("d MMM HH:mm"));
    };
    return tr("The clock says %1, the last entry is of %2: set the clock, or what you log is dated wrong.")
        .arg(text(now()), text(last));
}

void Document::selectBatch(const std::string& id, Then then) {
    m_store.perform({}, m_person, id, [this, then = std::move(then)](Store::Answer answer) {
        const Result<Done> done = answer.done ? answer.read : answer.done;
        {
            const QScopedValueRollback<bool> answering(m_answering, true);
            if (answer.done) take(std::move(answer.snapshot), done.ok()); // without a logbook there is none
            if (then) then(done);
        }
        m_untold = true;
        answered();
        if (!done) emit failed(QString::fromStdString(done.error().message()));
    });
}

// What an answer and those who waited for it have changed is told once, at its end.
void Document::tell() {
    m_untold = true;
    if (!m_answering) answered();
}

void Document::answered() {
    if (std::exchange(m_untold, false)) emit changed();
}

void Document::take(Snapshot snapshot, bool anotherBatch) {
    const std::string mark = !anotherBatch && blade() != nullptr ? blade()->id : std::string();
    m_state = std::move(snapshot);
    ++m_revision;
    if (anotherBatch) m_blade = 0;
    if (!hasBatch()) return;
    // Where a gate that is read is not asked in this batch, the other one is.
    const bool read = m_gate == Gate::quench || m_gate == Gate::temper;
    const Gate other = m_gate == Gate::quench ? Gate::temper : Gate::quench;
    if (anotherBatch && read && !batch().planOf(m_gate).required && batch().planOf(other).required) m_gate = other;
    // The blade in hand stays in hand wherever it stands now.
    for (std::size_t i = 0; i < batch().blades.size(); ++i) {
        if (batch().blades[i].id == mark) m_blade = static_cast<int>(i);
    }
    m_blade = std::clamp(m_blade, 0, std::max(0, static_cast<int>(batch().blades.size()) - 1));
}

const Blade* Document::blade() const {
    return hasBatch() && m_blade < static_cast<int>(batch().blades.size())
               ? &batch().blades[static_cast<std::size_t>(m_blade)]
               : nullptr;
}

const Verdict* Document::verdict(int blade, Gate gate) const {
    if (!hasBatch() || blade < 0 || blade >= static_cast<int>(verdicts().blades.size())) return nullptr;
    const std::optional<Verdict>& verdict = verdicts().at(static_cast<std::size_t>(blade), gate);
    return verdict ? &*verdict : nullptr;
}

BladeClaim Document::claim() const {
    if (!hasBatch()) return {};
    return batch().claimOf(blade() != nullptr ? *blade() : Blade{});
}

int Document::indexOfMark(const std::string& mark) const {
    if (!hasBatch()) return -1;
    for (std::size_t i = 0; i < batch().blades.size(); ++i) {
        if (batch().blades[i].mark == mark) return static_cast<int>(i);
    }
    return -1;
}

void Document::selectBlade(int index) {
    if (!hasBatch() || index < 0 || index >= static_cast<int>(batch().blades.size()) || index == m_blade) return;
    m_blade = index;
    ++m_revision;
    tell();
}

void Document::selectGate(Gate gate) {
    m_gate = gate;
    ++m_revision;
    tell();
}

const Tester* Document::tester() const {
    for (const Tester& tester : m_state.shop().testers) {
        if (tester.id == m_tester) return &tester;
    }
    const auto reads =
        std::find_if(m_state.shop().testers.begin(), m_state.shop().testers.end(), [](const Tester& tester) {
            return tester.kind == TesterKind::bench || tester.kind == TesterKind::rebound;
        });
    return reads == m_state.shop().testers.end() ? nullptr : &*reads;
}

void Document::chooseTester(const std::string& id) {
    m_tester = id;
    ++m_revision;
    tell();
}

void Document::choosePerson(const QString& initials) {
    m_person = initials;
    tell();
}

} // namespace rollcall
