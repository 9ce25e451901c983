// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "app/shared/command.h"
#include "app/shared/form_dialog.h"
#include "app/shared/seams.h"
#include "app/store/document.h"
#include "plot/rule.h"

#include <functional>
#include <map>
#include <optional>
#include <QObject>

namespace rollcall {

/// What the maker can do that needs asking: each asks by a short dialog and hands the answer to the document.
class ShopActions : public QObject {
    Q_OBJECT

public:
    ShopActions(Document& document, ReadingStation& station, const Look& look, Seams seams, QWidget* window);

    /// What of all this can be done from anywhere.
    Commands commands();
    void newBatch(bool sameAgain);
    void chooseBatch();
    void openLogbook();
    void newLogbook();
    void choosePerson();
    void addTester(std::function<void()> then = {});
    void verify();
    void strikeLast();
    void excuse();
    /// Asks for a temper that was done; begins with this one, else with the advised one, else with the one before.
    void logTemper(const std::optional<TemperHeat>& start);
    void strikeTemper();
    void reharden();
    /// The marks on the blade in hand are ground off.
    void grindOff();
    void takeOut();
    void renameBlade();
    void changeLimits();
    /// What becomes of the blade in hand: asked, with a reason, and signed.
    void decide();
    /// Signs for blades by their places in the batch, with what their record says at that moment.
    void signFor(std::vector<std::size_t> blades, Disposition disposition, const QString& reason);
    void changeClaim();
    void addForgotten();
    void renameBatch();
    void moveReading();
    void logCold();
    /// Takes back what was done last where it was only written; asks before a reading is struck out; what was imported
    /// is taken back by the caller.
    void undo(const std::function<void()>& takeBackImport);
    void redo();
    void changePlanned();
    /// E35: decision rule, allowance, verification, of the batch and where wished of those to come.
    void changeRules();
    void acceptLeftOut();
    /// The crack that stops the blade in hand is ground out or inspected.
    void clearCrack();
    /// E27: what was found on looking into a hardness far from what was expected.
    void lookInto();
    /// E7: of several testers' readings of the blade in hand whose stand; the others stay beside them.
    void chooseSet();
    void why();
    /// Scale and surface of the readings to come (M4, M5, M8).
    void chooseScale();
    /// M11: a series of rebound strikes with the instrument's own average.
    void logSeries();
    /// M14: two testers on the blades of this gate, and which set stands.
    void secondOpinions();
    /// Files tried on the blade in hand, with the rule of its readings beside them.
    void tryFiles(const RuleData& rule);
    /// Strikes out a reading of the batch in hand, called by this text, once a reason is chosen.
    void askStrike(const std::string& reading, const QString& text);

signals:
    void said(const QString& message, bool trouble);
    void temperLogged();
    void gateWanted(rollcall::Gate gate);

private:
    /// The field for when something happened, which timeFault looks at.
    FormField whenField() const;
    static FormFault timeFault(const FormValues& v, const Instant& now);
    /// Ids of the blades whose marks are typed, separated by commas; unknown: one that no blade has.
    std::vector<std::string> bladesTyped(const QString& marks, QString* unknown) const;
    void askWhy(std::size_t blade, Disposition disposition);
    void setUp(std::function<void()> then);
    void setUpFiles(bool one, std::function<void()> then);
    void keepKit(const QString& initials, std::optional<Tester> tester, std::function<void()> then);
    std::map<std::string, std::vector<std::string>> setsOn(const Blade& blade, Gate gate) const;
    void askHowFar(const std::string& tester);
    void tellForReadingOnly();
    void notice(const QString& title, const QStringList& lines);
    void askReason(const QString& title, const QString& act, const std::vector<FormChoice>& usual,
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
