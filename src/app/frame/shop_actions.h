// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/call/reading_station.h"
#include "app/shared/document.h"
#include "plot/rule.h"

#include <functional>
#include <QObject>

namespace rollcall {

/// Questions to the desktop that a test answers itself.
struct Seams {
    /// A file to open, or to make when making is true; empty when the question was given up.
    std::function<QString(QWidget* parent, const QString& title, const QString& filter, bool making)> chooseFile;

    static Seams real();
};

/// What the maker can do that needs asking: each asks by a short dialog and hands the answer to the document.
class ShopActions : public QObject {
    Q_OBJECT

public:
    ShopActions(Document& document, ReadingStation& station, const Look& look, Seams seams, QWidget* window);

    void newBatch(bool sameAgain);
    void chooseBatch();
    void importFromFile();
    void importFile(const QString& path);
    void openLogbook();
    void newLogbook();
    void openPath(const QString& path, bool create);
    void choosePerson();
    void addTester(std::function<void()> then = {});
    void verify();
    void strikeLast();
    void excuse();
    void logTemper();
    void strikeTemper();
    void reharden();
    void takeOut();
    void renameBlade();
    void changeLimits();
    void changePlanned();
    void acceptLeftOut();
    void why();
    /// Scale and surface of the readings to come (M4, M5, M8).
    void chooseScale();
    /// M11: a series of rebound strikes with the instrument's own average.
    void logSeries();
    /// M14: two testers on the blades of this gate, and which set stands.
    void secondOpinions();
    /// Files tried on the blade in hand, with the rule of its readings beside them.
    void tryFiles(const RuleData& rule);

signals:
    void said(const QString& message, bool trouble);
    void gateWanted(rollcall::Gate gate);

private:
    void notice(const QString& title, const QStringList& lines);
    void askReason(const QString& title, const QString& act, const QStringList& usual,
                   std::function<void(const std::string&)> then);
    bool needsBlade(const Blade*& blade);
    void afterWork(const QString& what, const Result<Done>& done);

    Document& m_document;
    ReadingStation& m_station;
    const Look& m_look;
    Seams m_seams;
    QWidget* m_window;
};

} // namespace rollcall
