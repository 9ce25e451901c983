// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/exchange_actions.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/local_time.h"

#include <QFileInfo>
#include <QLocale>
#include <QPointer>

// The copies that are kept of a logbook: the list, a look into one, the way back.
namespace rollcall {

namespace {

QString madeAt(const KeptCopy& copy) {
    return QLocale().toString(copy.made, QStringLiteral("ddd d MMM yyyy, HH:mm"));
}

// What a logbook holds, in few words.
struct Holds {
    int batches = 0;
    int blades = 0;
    int readings = 0;
    int entries = 0;
    QString problem; ///< the first that its check found

    QString text() const {
        return ExchangeActions::tr("batches %1, blades %2, readings %3").arg(batches).arg(blades).arg(readings);
    }
};

Result<Holds> heldBy(Logbook& logbook) {
    auto counts = logbook.counts();
    if (!counts) return counts.error();
    const auto of = [&](const char* table) { return counts.value()[table]; };
    return Holds{of("batch"), of("blade"), of("reading"), of("change"), {}};
}

Result<Holds> heldByFile(const QString& path) {
    auto opened = Logbook::open(path, Logbook::Access::read);
    if (!opened) return opened.error();
    auto holds = heldBy(**opened);
    if (!holds) return holds;
    const auto problems = (*opened)->check();
    if (!problems) return problems.error();
    if (!problems->empty()) holds.value().problem = QString::fromStdString(problems->front());
    return holds;
}

} // namespace

void ExchangeActions::keptCopies() {
    std::vector<KeptCopy> copies = m_keeper.copies();
    const std::vector<KeptCopy> merges = copiesBeforeMerges(m_document.path());
    copies.insert(copies.begin(), merges.begin(), merges.end());
    const QString own = m_keeper.folder();
    const QString second = CopyKeeper::second();
    QStringList lines{own.isEmpty()
                          ? tr("Nothing is kept of this logbook by itself: it is a demo, or larger than 60 MB.")
                          : tr("Kept in %1: each hour in which something is new, and at the end; fewer the "
                               "older they are.")
                                .arg(own),
                      second.isEmpty() ? tr("There is no second place. A stick, or another disk, outlives this one.")
                                       : tr("And in %1.").arg(second)};
    if (copies.empty()) lines << tr("No copy is there yet.");
    std::vector<Choice> choices;
    if (m_keeper.keeps())
        choices = {{QStringLiteral("n"), tr("Keep one now"), {}},
                   {QStringLiteral("s"), tr("Second place…"), tr("a folder on a stick or another disk")}};
    if (m_keeper.keeps() && !second.isEmpty())
        choices.push_back({QStringLiteral("x"), tr("No second place any more"), tr("what is there stays")});
    const std::size_t acts = choices.size();
    constexpr std::size_t digits = 9;
    for (std::size_t i = 0; i < copies.size(); ++i)
        choices.push_back({i < digits ? QString::number(i + 1) : QString(), madeAt(copies[i]),
                           i < merges.size()                            ? tr("before another logbook was taken in")
                           : QFileInfo(copies[i].path).path() == second ? tr("second place")
                                                                        : QString()});
    (new ChoiceDialog(tr("Kept copies"), lines, choices, m_look, m_window))->ask([this, copies, acts](int i) {
        const auto chosen = static_cast<std::size_t>(i);
        if (chosen >= acts) return lookInto(copies[chosen - acts]);
        if (chosen == 2) {
            CopyKeeper::setSecond({});
            return emit said(tr("Copies are kept in one place only."), false);
        }
        if (chosen == 1) {
            const QString file = m_seams.chooseFile(m_window, tr("Second place: a file in the folder"),
                                                    tr("Rollcall logbooks (*.rollcall)"), true);
            if (file.isEmpty()) return;
            CopyKeeper::setSecond(QFileInfo(file).absolutePath());
        }
        connect(
            &m_keeper, &CopyKeeper::kept, this,
            [this] {
                if (!m_keeper.copies().empty())
                    emit said(tr("Kept: %1.").arg(madeAt(m_keeper.copies().front())), false);
            },
            Qt::SingleShotConnection);
        m_keeper.keepNow();
    });
}

void ExchangeActions::lookInto(const KeptCopy& copy) {
    m_document.query<Holds>(
        [](Logbook& logbook) { return heldBy(logbook); },
        [this, copy](const Result<Holds>& now) {
            m_document.aside([here = QPointer(this), this, copy, now]() -> std::function<void()> {
                const auto then = heldByFile(copy.path);
                return [here, this, copy, now, then] {
                    if (!here) return; // the window was closed
                    if (!then)
                        return notice(tr("This copy cannot be read"), {QString::fromStdString(then.error().message())});
                    QStringList lines{tr("It holds: %1.").arg(then->text())};
                    if (now) lines << tr("The logbook that is open: %1.").arg(now->text());
                    if (now && now->entries > then->entries)
                        lines << tr("Later entries that it does not hold: %1.").arg(now->entries - then->entries);
                    lines << (then->problem.isEmpty() ? tr("It was looked through whole: all is well.")
                                                      : tr("Its check found: %1.").arg(then->problem));
                    lines << tr("To go on from it makes a new file of it. The logbook that is open stays as it is.");
                    (new ChoiceDialog(tr("Copy of %1").arg(madeAt(copy)), lines,
                                      {{QStringLiteral("g"), tr("Go on from this copy"), tr("as a file of its own")}},
                                      m_look, m_window))
                        ->ask([this, copy](int) { goOnFrom(copy); });
                };
            });
        });
}

void ExchangeActions::goOnFrom(const KeptCopy& copy) {
    const QString path =
        m_seams.chooseFile(m_window, tr("Go on from this copy, as"), tr("Rollcall logbook (*.rollcall)"), true);
    if (path.isEmpty()) return;
    m_document.aside([here = QPointer(this), this, copy, path]() -> std::function<void()> {
        const auto made = [&]() -> Result<Done> {
            auto opened = Logbook::open(copy.path, Logbook::Access::read);
            if (!opened) return opened.error();
            return (*opened)->backup(path);
        }();
        return [here, this, path, made] {
            if (!here) return;
            if (!made) return notice(tr("Nothing was made"), {QString::fromStdString(made.error().message())});
            emit logbookWanted(path);
        };
    });
}

} // namespace rollcall
