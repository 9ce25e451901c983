// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/exchange_actions.h"

#include "app/exchange/import_wizard.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/local_time.h"
#include "app/shared/waiting.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/merge.h"
#include "logbook/transfer/package.h"
#include "logbook/transfer/readings_csv.h"
#include "report/export_picture.h"
#include "words/words.h"

#include <array>
#include <QClipboard>
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QGuiApplication>
#include <QMimeData>
#include <QPointer>
#include <QTemporaryDir>
#include <QUrl>

namespace rollcall {

namespace {

// A table as spreadsheets take it from the clipboard.
QString tabbed(const ReportTable& table) {
    QStringList lines{table.head.join(QLatin1Char('\t'))};
    for (const QVariantList& row : table.rows) {
        QStringList fields;
        for (const QVariant& value : row)
            fields << value.toString()
                          .replace(QLatin1Char('\t'), QLatin1Char(' '))
                          .replace(QLatin1Char('\n'), QLatin1Char(' '));
        lines << fields.join(QLatin1Char('\t'));
    }
    return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

bool isPackage(const QString& path) {
    return path.endsWith(QLatin1String(".zip"), Qt::CaseInsensitive) ||
           QFileInfo(path).fileName() == QLatin1String("datapackage.json");
}

// What importPackage() takes: the zip file, or the folder of the descriptor.
QString packageAt(const QString& path) {
    return path.endsWith(QLatin1String(".zip"), Qt::CaseInsensitive) ? path : QFileInfo(path).absolutePath();
}

// Another logbook as it is, or made anew of its package for as long as it is needed.
Result<MergeReport> mergeWith(Logbook& logbook, const QString& path, bool trial) {
    if (!isPackage(path)) return mergeLogbook(logbook, path, trial);
    const QTemporaryDir folder;
    const QString unpacked =
        folder.filePath(QFileInfo(packageAt(path)).completeBaseName() + QStringLiteral(".rollcall"));
    if (const auto made = importPackage(unpacked, packageAt(path)); !made) return made.error();
    return mergeLogbook(logbook, unpacked, trial);
}

QStringList linesOf(const MergeReport& report) {
    const auto count = [&](const char* table) {
        const auto found = report.added.find(table);
        return found == report.added.end() ? 0 : found->second;
    };
    int rows = 0;
    for (const auto& [table, added] : report.added) rows += added;
    QStringList lines{ExchangeActions::tr("%1 batches, %2 blades, %3 readings; %4 rows in all; %5 changed there only.")
                          .arg(count("batch"))
                          .arg(count("blade"))
                          .arg(count("reading"))
                          .arg(rows)
                          .arg(report.changed)};
    for (const std::string& conflict : report.conflicts)
        lines << ExchangeActions::tr("Conflict: %1.").arg(QString::fromStdString(conflict));
    for (const std::string& renamed : report.renamed)
        lines << ExchangeActions::tr("Renamed: %1.").arg(QString::fromStdString(renamed));
    return lines;
}

} // namespace

ExchangeActions::ExchangeActions(Document& document, CopyKeeper& keeper, const Look& look, Seams seams, View view,
                                 QWidget* window)
    : QObject(window), m_document(document), m_keeper(keeper), m_look(look), m_seams(std::move(seams)),
      m_view(std::move(view)), m_window(window) {
    connect(&m_keeper, &CopyKeeper::failed, this, [this](const QString& message) { emit said(message, true); });
}

void ExchangeActions::notice(const QString& title, const QStringList& lines) {
    (new ChoiceDialog(title, lines, {}, m_look, m_window))->ask({});
}

void ExchangeActions::choose() {
    if (!m_document.isOpen()) return emit said(tr("No logbook is open."), true);
    const std::vector<std::pair<Choice, void (ExchangeActions::*)()>> all{
        {{QStringLiteral("1"), tr("Import readings"), tr("a table with any header")}, &ExchangeActions::importFromFile},
        {{QStringLiteral("2"), tr("Enter a filled card"), tr("readings written by hand")}, &ExchangeActions::enterCard},
        {{QStringLiteral("3"), tr("Paste a table"), tr("Ctrl+V does the same")}, &ExchangeActions::paste},
        {{QStringLiteral("4"), tr("Take back the last import"), tr("Ctrl+Z does the same")},
         &ExchangeActions::takeBack},
        {{QStringLiteral("5"), tr("Take in another logbook"), tr("two benches become one; conflicts are told")},
         &ExchangeActions::mergeFromFile},
        {{QStringLiteral("6"), tr("Table in view as a file"), tr("CSV or workbook; Ctrl+C copies it")},
         &ExchangeActions::writeTables},
        {{QStringLiteral("7"), tr("Picture of what is in view"), tr("PNG or SVG")}, &ExchangeActions::savePicture},
        {{QStringLiteral("8"), tr("Whole logbook as a package"), tr("zip, or a folder of tables")},
         &ExchangeActions::writePackage},
        {{QStringLiteral("9"), tr("Copy to share"), tr("numbers only: no names, notes, photos")},
         &ExchangeActions::copyWithoutNames},
        {{QStringLiteral("B"), tr("Back up"), tr("a copy of this logbook, looked through")}, &ExchangeActions::backUp},
        {{QStringLiteral("K"), tr("Kept copies"), tr("what is kept against loss; look into one, go back to it")},
         &ExchangeActions::keptCopies},
        {{QStringLiteral("0"), tr("Logbook from a package"), tr("a new file, equal to the one it was")},
         &ExchangeActions::openPackage}};
    std::vector<Choice> choices;
    for (const auto& one : all) choices.push_back(one.first);
    (new ChoiceDialog(tr("In and out"), {}, choices, m_look, m_window))->ask([this, all](int i) {
        (this->*all[static_cast<std::size_t>(i)].second)();
    });
}

void ExchangeActions::importFromFile() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Import readings"), tr("Tables (*.csv *.txt *.tsv);;All files (*)"), false);
    if (!path.isEmpty()) importFile(path);
}

void ExchangeActions::importFile(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return notice(tr("Nothing imported"), {tr("%1 cannot be read.").arg(path)});
    importText(QFileInfo(path).fileName(), file.readAll());
}

void ExchangeActions::paste() {
    const QString text = QGuiApplication::clipboard()->text();
    if (text.trimmed().isEmpty()) return emit said(tr("There is no text to paste."), true);
    importText(tr("pasted table"), text.toUtf8());
}

void ExchangeActions::importText(const QString& name, const QByteArray& bytes) {
    // Of a readings file, which may have a million lines, only the head is read here.
    const auto head = headOfFile(bytes);
    if (!head) return notice(tr("Nothing imported"), {name, words::errorText(head.error())});
    if (head->rows.empty()) return notice(tr("Nothing imported"), {tr("%1 has a header and no lines.").arg(name)});
    if (isReadingsCsv(*head)) return take(name, bytes);
    const auto table = tableOfFile(bytes);
    if (!table) return notice(tr("Nothing imported"), {name, words::errorText(table.error())});
    (new ImportWizard(m_document, name, bytes, *table, m_look, m_window))->ask([this](const ImportReport& report) {
        tellImport(report);
    });
}

void ExchangeActions::take(const QString& name, const QByteArray& bytes) {
    auto report = std::make_shared<ImportReport>();
    auto progress = std::make_shared<Progress>();
    const QPointer waiting = new Waiting(tr("Taking in %1").arg(name), progress, m_look, m_window);
    m_document.perform(
        [tables = m_document.state().tables(), bytes, report, name, progress](Logbook& logbook) -> Result<Done> {
            auto imported = importReadings(logbook, *tables, name, bytes, {}, false, progress.get());
            if (!imported) return imported.error();
            *report = std::move(imported).value();
            return Done{};
        },
        [this, report, waiting](const Result<Done>& done) {
            if (waiting) waiting->finish();
            if (!done) return notice(tr("Nothing imported"), {words::errorText(done.error())});
            tellImport(*report);
        });
}

void ExchangeActions::tellImport(const ImportReport& report) {
    QStringList lines{tr("Readings taken: %1. New blades: %2. New batches: %3.")
                          .arg(report.readings)
                          .arg(report.blades)
                          .arg(report.batches)};
    if (report.already_there > 0) lines << tr("There already and not taken again: %1.").arg(report.already_there);
    for (const auto& bad : report.rejected)
        lines << tr("Line %1 left out: %2").arg(bad.line).arg(QString::fromStdString(bad.reason));
    if (report.id.empty()) return notice(tr("Nothing imported"), lines);
    const auto ask = [this, lines](const Result<Done>&) {
        (new ChoiceDialog(tr("Readings imported"), lines,
                          {{QStringLiteral("1"), tr("Good"), {}},
                           {QStringLiteral("2"), tr("Take it back"), tr("Ctrl+Z does the same")}},
                          m_look, m_window))
            ->ask([this](int i) {
                if (i == 1) takeBack();
            });
    };
    // Asked when the new batch is in hand: a question is left when something else comes in hand.
    if (report.batches > 0 && !m_document.state().batches().empty())
        m_document.selectBatch(m_document.state().batches().back().id, ask);
    else
        ask(Done{});
}

void ExchangeActions::takeBack() {
    m_document.query<std::optional<PastImport>>(
        [](Logbook& logbook) { return lastImport(logbook); },
        [this](const Result<std::optional<PastImport>>& last) {
            if (!last) return emit said(words::errorText(last.error()), true);
            if (!*last) return emit said(tr("There is no import to take back."), true);
            const PastImport& import = **last;
            (new ChoiceDialog(
                 tr("Take back %1?").arg(QString::fromStdString(import.file)),
                 {tr("Readings that are struck out: %1, tempers it brought too; blades and batches it made are "
                     "out and give their names free. Nothing is erased.")
                      .arg(import.readings)},
                 {{QStringLiteral("1"), tr("Take it back"), {}}, {QStringLiteral("2"), tr("Leave it"), {}}}, m_look,
                 m_window))
                ->ask([this, id = import.id](int i) {
                    if (i == 0)
                        performAndSay([id](Logbook& logbook) { return takeBackImport(logbook, id); },
                                      tr("The import is taken back."));
                });
        });
}

void ExchangeActions::performAndSay(Document::Work work, const QString& done) {
    m_document.perform(std::move(work), [this, done](const Result<Done>& result) {
        if (result) emit said(done, false);
    });
}

void ExchangeActions::mergeFromFile() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Take in another logbook"),
                           tr("Logbooks and packages (*.rollcall *.zip datapackage.json);;All files (*)"), false);
    if (!path.isEmpty()) merge(path);
}

void ExchangeActions::merge(const QString& path) {
    if (QFileInfo(path) == QFileInfo(m_document.path()))
        return emit said(tr("This is the logbook that is open."), true);
    m_document.query<MergeReport>([path](Logbook& logbook) { return mergeWith(logbook, path, true); },
                                  [this, path](const Result<MergeReport>& tried) {
                                      const QString name = QFileInfo(path).fileName();
                                      if (!tried)
                                          return notice(tr("Nothing taken in"), {words::errorText(tried.error())});
                                      const auto report = std::make_shared<MergeReport>(*tried);
                                      if (report->nothing() && report->conflicts.empty())
                                          return notice(tr("All of it is here already"),
                                                        {tr("%1 holds nothing that is not here.").arg(name)});
                                      tellMerge(path, report);
                                  });
}

void ExchangeActions::tellMerge(const QString& path, const std::shared_ptr<MergeReport>& report) {
    constexpr qsizetype shown = 12; // so that the choices stay in sight
    const QStringList all = linesOf(*report);
    QStringList lines = all.mid(0, shown);
    if (all.size() > shown) lines << tr("and %1 more: copy the list").arg(all.size() - shown);
    const std::array<Choice, 3> choices{
        Choice{QStringLiteral("1"), tr("Take it in"), tr("one entry in the change log")},
        Choice{QStringLiteral("2"), tr("Leave it"), {}},
        Choice{QStringLiteral("3"), tr("Copy the list"), tr("to go through it later")}};
    const std::size_t first = report->nothing() ? 1 : 0; // nothing to take in
    (new ChoiceDialog(tr("%1 would bring").arg(QFileInfo(path).fileName()), lines,
                      {choices.begin() + static_cast<std::ptrdiff_t>(first), choices.end()}, m_look, m_window))
        ->ask([this, path, report, all, first](int i) {
            const std::size_t choice = first + static_cast<std::size_t>(i);
            if (choice == 2) {
                QGuiApplication::clipboard()->setText(all.join(QLatin1Char('\n')));
                emit said(tr("%1 lines copied.").arg(all.size()), false);
                return tellMerge(path, report);
            }
            if (choice != 0) return;
            m_document.perform(
                [path](Logbook& logbook) -> Result<Done> {
                    const auto merged = mergeWith(logbook, path, false);
                    if (!merged) return merged.error();
                    return Done{};
                },
                [this](const Result<Done>& merged) {
                    // Every batch may have changed: all is read anew.
                    if (merged) emit logbookWanted(m_document.path());
                    if (merged) emit said(tr("The other logbook is taken in."), false);
                });
        });
}

void ExchangeActions::openPackage() {
    const QString package = m_seams.chooseFile(m_window, tr("Logbook from a package"),
                                               tr("Packages (*.zip datapackage.json);;All files (*)"), false);
    if (package.isEmpty()) return;
    const QString path =
        m_seams.chooseFile(m_window, tr("The new logbook"), tr("Rollcall logbooks (*.rollcall)"), true);
    if (path.isEmpty()) return;
    m_document.perform(
        [package, path](Logbook&) -> Result<Done> {
            const auto made = importPackage(path, packageAt(package));
            if (!made) return made.error();
            return Done{};
        },
        [this, path](const Result<Done>& done) {
            if (!done) return notice(tr("No logbook was made"), {words::errorText(done.error())});
            emit logbookWanted(path);
        });
}

void ExchangeActions::writePackage() {
    const QString path = m_seams.chooseFile(m_window, tr("The whole logbook as a package"),
                                            tr("Zip file (*.zip);;A new folder (*)"), true);
    if (path.isEmpty()) return;
    performAndSay(
        [path](Logbook& logbook) -> Result<Done> {
            const auto counts = exportTo(logbook, path);
            if (!counts) return counts.error();
            return Done{};
        },
        tr("The package is %1.").arg(QFileInfo(path).fileName()));
}

void ExchangeActions::copyWithoutNames() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Copy to share"), tr("Rollcall logbook (*.rollcall);;Package (*.zip)"), true);
    if (path.isEmpty()) return;
    performAndSay(
        [path](Logbook& logbook) -> Result<Done> {
            if (!isPackage(path)) return rollcall::copyWithoutNames(logbook, path);
            const QTemporaryDir folder;
            const QString copy = folder.filePath(QStringLiteral("copy.rollcall"));
            if (auto made = rollcall::copyWithoutNames(logbook, copy); !made) return made;
            const auto counts = exportPackage(copy, path);
            if (!counts) return counts.error();
            return Done{};
        },
        tr("%1 holds the numbers; names, notes, photos and files are left out.").arg(QFileInfo(path).fileName()));
}

void ExchangeActions::backUp() {
    const QString path = m_seams.chooseFile(m_window, tr("Back up"), tr("Rollcall logbook (*.rollcall)"), true);
    if (path.isEmpty()) return;
    performAndSay([path](Logbook& logbook) { return logbook.backup(path); },
                  tr("Backed up: %1 holds all that is stored until now.").arg(QFileInfo(path).fileName()));
}

void ExchangeActions::copyTable() {
    const std::vector<ReportTable> tables = m_view.tables();
    if (tables.empty() || tables.front().rows.empty()) return emit said(tr("No table is in view."), true);
    auto* mime = new QMimeData;
    mime->setText(tabbed(tables.front()));
    mime->setData(QStringLiteral("text/csv"), csvOf(tables.front()));
    QGuiApplication::clipboard()->setMimeData(mime);
    emit said(tr("%1: %2 lines copied.").arg(tables.front().title).arg(tables.front().rows.size()), false);
}

void ExchangeActions::writeTables() {
    const std::vector<ReportTable> tables = m_view.tables();
    if (tables.empty()) return emit said(tr("No table is in view."), true);
    const QString path =
        m_seams.chooseFile(m_window, tr("Write the table"), tr("Table (*.csv);;Workbook, all tables (*.xlsx)"), true);
    if (path.isEmpty()) return;
    const auto done = writeTablesTo(path, tables);
    emit said(done ? tr("%1 is written.").arg(QFileInfo(path).fileName())
                   : QString::fromStdString(done.error().message()),
              !done);
}

void ExchangeActions::dragPicture() {
    const QImage picture = m_view.bench()->grab().toImage();
    const QString file = m_dragged.filePath(
        QStringLiteral("rollcall-%1.png").arg(localTime(m_document.now()).toString(QStringLiteral("yyyyMMdd-HHmmss"))));
    if (!picture.save(file)) return emit said(tr("The picture could not be written."), true);
    auto* mime = new QMimeData;
    mime->setImageData(picture);
    mime->setUrls({QUrl::fromLocalFile(file)});
    m_seams.drag(m_window, mime);
}

void ExchangeActions::savePicture() {
    QWidget* bench = m_view.bench();
    const QString path = m_seams.chooseFile(m_window, tr("Save the picture"), tr("Pictures (*.png *.svg)"), true);
    if (path.isEmpty()) return;
    const auto saved = rollcall::savePicture(path, bench->size(), m_window->windowTitle(), m_look.palette.panel,
                                             [bench](QPainter& painter, const QRect&) { bench->render(&painter); });
    emit said(saved ? tr("%1 is written.").arg(QFileInfo(path).fileName())
                    : QString::fromStdString(saved.error().message()),
              !saved);
}

} // namespace rollcall
