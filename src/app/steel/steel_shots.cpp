// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/choice_dialog.h"
#include "app/steel/steel_bench.h"
#include "core/steel/shot_table.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/steel.h"
#include "words/words.h"

#include <QFile>
#include <QFileInfo>
#include <QSettings>

// The part of the Steel bench that takes in shots: of the bar, of a blade, of a whole pile.
namespace rollcall {

// A knife of its own claim is of no bar with others: its shots are its own unless it is said otherwise.
bool SteelBench::forBlade() const {
    const Blade* blade = m_document.blade();
    return m_forBlade.value_or(blade != nullptr && !m_document.batch().ofOneBar(*blade));
}

void SteelBench::keepShot(ShotDraft draft, const QString& what) {
    draft.batch = m_document.batch().id;
    draft.method = m_method;
    if (forBlade()) draft.blade = m_document.blade()->id;
    keepShots({std::move(draft)}, what);
}

void SteelBench::keepShots(std::vector<ShotDraft> drafts, const QString& what) {
    const GatePlan plan = m_document.batch().planOf(Gate::steel);
    m_document.perform(
        [drafts = std::move(drafts), plan](Logbook& logbook) {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                // Whoever takes in a shot asks the Steel gate.
                if (!plan.required) {
                    const auto done = changePlan(logbook, drafts.front().batch, Gate::steel, {true, 1});
                    if (!done) return done;
                }
                for (const ShotDraft& draft : drafts) {
                    const auto id = addShot(logbook, draft);
                    if (!id) return id.error();
                }
                return Done{};
            });
        },
        [this, what](const Result<Done>& done) {
            if (done) emit said(what, false);
        });
}

void SteelBench::askShotFile() {
    const QString path =
        m_seams.chooseFile(window(), tr("A shot of the analyser"), tr("CSV files (*.csv *.txt)"), false);
    if (!path.isEmpty()) importShot(path);
}

void SteelBench::importShot(const QString& path) {
    if (!m_document.hasBatch()) return emit said(tr("Make a batch first: a shot belongs to one."), true);
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(path), true);
    const QByteArray bytes = file.readAll();
    const QString name = QFileInfo(path).fileName();
    const std::string_view text(bytes.constData(), static_cast<std::size_t>(bytes.size()));
    const QSettings settings;
    const double sigmas = settings.value(QStringLiteral("xrf/sigmas"), 1).toDouble();
    const auto table = readShotTable(text, sigmas);
    if (!table) return emit said(tr("%1: %2").arg(name, words::errorText(table.error())), true);
    if (!table->has_errors || settings.contains(QStringLiteral("xrf/sigmas"))) return takeShots(name, bytes, *table);
    // Asked once: what stands beside a value is not said by the file.
    (new ChoiceDialog(tr("What does the analyser print beside a value?"),
                      {tr("Its error, as so many sigma. Asked once.")},
                      {{QStringLiteral("1"), tr("1 sigma"), {}},
                       {QStringLiteral("2"), tr("2 sigma"), tr("as most handheld ones do")},
                       {QStringLiteral("3"), tr("3 sigma"), {}}},
                      m_look, window()))
        ->ask([this, name, bytes](int i) {
            QSettings().setValue(QStringLiteral("xrf/sigmas"), i + 1);
            const auto again =
                readShotTable(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())), i + 1);
            if (again) takeShots(name, bytes, *again);
        });
}

// A table that names its pieces gives each blade its own; one that does not is of what is in hand.
void SteelBench::takeShots(const QString& name, const QByteArray& bytes, const ShotTable& table) {
    std::vector<ShotDraft> drafts;
    QStringList unknown;
    for (const ShotTable::Row& row : table.rows) {
        ShotDraft draft;
        draft.batch = m_document.batch().id;
        draft.method = m_method;
        draft.file = bytes;
        draft.file_name = name;
        draft.piece = row.piece.empty() ? name.toStdString() : row.piece;
        draft.composition = row.shot;
        const int index = row.piece.empty() ? -1 : m_document.indexOfMark(row.piece);
        if (table.names_pieces && table.rows.size() > 1 && index < 0) {
            unknown << QString::fromStdString(row.piece);
            continue;
        }
        if (index >= 0)
            draft.blade = m_document.batch().blades[static_cast<std::size_t>(index)].id;
        else if (forBlade())
            draft.blade = m_document.blade()->id;
        drafts.push_back(std::move(draft));
    }
    if (drafts.empty())
        return emit said(tr("%1 names no blade of this batch: %2.").arg(name, unknown.join(QStringLiteral(", "))),
                         true);
    QString what = drafts.size() == 1 ? tr("%1: %2 elements").arg(name).arg(drafts.front().composition.elements.size())
                                      : tr("%1: %2 shots").arg(name).arg(drafts.size());
    if (!unknown.isEmpty()) what += tr("; no blade is marked %1").arg(unknown.join(QStringLiteral(", ")));
    if (!table.skipped.empty()) {
        const QString first =
            tr("line %1: %2").arg(table.skipped.front().line).arg(QString::fromStdString(table.skipped.front().reason));
        what += table.skipped.size() == 1 ? tr("; one line skipped (%1)").arg(first)
                                          : tr("; %1 lines skipped (%2)").arg(table.skipped.size()).arg(first);
    }
    keepShots(std::move(drafts), what);
}

} // namespace rollcall
