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

namespace {

const QString sigmasKey = QStringLiteral("xrf/sigmas");
const QString lodKey = QStringLiteral("xrf/beside-lod");

PrintedError printedError() {
    const QSettings settings;
    return {settings.value(sigmasKey, 1).toDouble(),
            named<BesideLod>(settings.value(lodKey).toString().toStdString()).value_or(BesideLod::error)};
}

} // namespace

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
    const auto table = readShotTable(text, printedError());
    if (!table) return emit said(tr("%1: %2").arg(name, words::errorText(table.error())), true);
    // What stands beside a value is not said by the file: each question is asked once.
    if (table->has_errors && !QSettings().contains(sigmasKey)) return askSigmas([this, path] { importShot(path); });
    if (table->numbers_lod && !QSettings().contains(lodKey)) return askBesideLod([this, path] { importShot(path); });
    takeShots(name, bytes, *table);
}

void SteelBench::askSigmas(const std::function<void()>& then) {
    (new ChoiceDialog(tr("What does the analyser print beside a value?"),
                      {tr("Its error, as so many sigma. Asked once.")},
                      {{QStringLiteral("1"), tr("1 sigma"), {}},
                       {QStringLiteral("2"), tr("2 sigma"), tr("as most handheld ones do")},
                       {QStringLiteral("3"), tr("3 sigma"), {}}},
                      m_look, window()))
        ->ask([then](int i) {
            QSettings().setValue(sigmasKey, i + 1);
            then();
        });
}

void SteelBench::askBesideLod(const std::function<void()>& then) {
    (new ChoiceDialog(tr("What stands beside <LOD?"), {tr("An element that was not found, with a number. Asked once.")},
                      {{QStringLiteral("1"), tr("The error, as beside a value"), tr("the limit is three sigma of it")},
                       {QStringLiteral("2"), tr("The limit of detection itself"), {}},
                       {QStringLiteral("3"), tr("Nothing of use"), tr("the analyser's usual limit is taken")}},
                      m_look, window()))
        ->ask([then](int i) {
            QSettings().setValue(lodKey, QLatin1String(namesOf<BesideLod>[static_cast<std::size_t>(i)]));
            then();
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
