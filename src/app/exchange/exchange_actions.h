// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/exchange/copy_keeper.h"
#include "app/shared/seams.h"
#include "app/store/document.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/merge.h"
#include "plot/look.h"
#include "report/batch_table.h"

#include <functional>
#include <QObject>
#include <QTemporaryDir>

namespace rollcall {

/// How data comes into the logbook and leaves it, other than by a maker's keys: tables, cards, other logbooks,
/// packages, copies, pictures.
class ExchangeActions : public QObject {
    Q_OBJECT

public:
    /// What is in view, asked when it is needed.
    struct View {
        std::function<std::vector<ReportTable>()> tables; ///< the one in view first, then those it belongs with
        std::function<QWidget*()> bench;
    };

    ExchangeActions(Document& document, CopyKeeper& keeper, const Look& look, Seams seams, View view, QWidget* window);

    /// Asks which of all that follows.
    void choose();
    void importFromFile();
    /// A file of readings: taken at once when it is a readings.csv, else by way of the wizard.
    void importFile(const QString& path);
    void paste();
    void takeBack();
    /// Takes another logbook, or a package of one, into this one, after telling what that would do.
    void mergeFromFile();
    void openPackage();
    void writePackage();
    void copyWithoutNames();
    void backUp();
    /// What is kept against loss, where, and the way back to it.
    void keptCopies();
    void copyTable();
    void writeTables();
    void savePicture();
    /// The picture of what is in view, drawn out of the window with the mouse, as an image and as a file.
    void dragPicture();
    /// Readings from a card that was filled by hand: one line of numbers a blade.
    void enterCard();

signals:
    void said(const QString& message, bool trouble);
    void logbookWanted(const QString& path);

private:
    void notice(const QString& title, const QStringList& lines);
    void importText(const QString& name, const QByteArray& bytes);
    void take(const QString& name, const QByteArray& bytes);
    void tellImport(const ImportReport& report);
    void merge(const QString& path);
    void tellMerge(const QString& path, const std::shared_ptr<MergeReport>& report);
    void enterCardAt(Gate gate);
    /// Work that takes a file away or brings one; told when it is done.
    void performAndSay(Document::Work work, const QString& done);
    void lookInto(const KeptCopy& copy);
    void goOnFrom(const KeptCopy& copy);

    Document& m_document;
    CopyKeeper& m_keeper;
    const Look& m_look;
    Seams m_seams;
    View m_view;
    QWidget* m_window;
    QTemporaryDir m_dragged; ///< files that were drawn out; another program may read them later
};

} // namespace rollcall
