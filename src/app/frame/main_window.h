// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/caller.h"
#include "app/acts/shop_actions.h"
#include "app/exchange/copy_keeper.h"
#include "app/links/links.h"
#include "app/shared/bench.h"
#include "app/shared/command.h"
#include "app/shared/day_clock.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <map>
#include <optional>
#include <QWidget>
#include <vector>

class QMenu;
class QMenuBar;
class QStackedWidget;

namespace rollcall {

class CommandBar;
class ExchangeActions;
struct KeyLines;
class Footer;
class GateTrack;
class Roll;
class VerdictColumn;

/// The window: gates along the top, the roll, one place in the middle, what its verdict is and what to do beside it,
/// the row of what else can be done there, the Now line. It wires its places together and knows them only as benches.
class MainWindow : public QWidget {
    Q_OBJECT

public:
    MainWindow(Document& document, Look look, Seams seams);
    ~MainWindow() override;

    /// The place of a gate; said where it cannot be opened.
    void openGate(Gate gate);
    /// A place by its object name; at a page of it, or as it was left. Said where it cannot be opened.
    void open(const QString& place, int page = -1);
    /// The batch at a glance.
    void openOverview() { open(m_benches.front()); }
    /// Other colours or another text size: the window is laid out anew, as soon as nothing is being stored.
    void setLook(const Look& look);
    const Look& look() const { return m_look; }
    /// What can be done now: here first, then everywhere.
    Commands commands() const;
    /// What can be done anywhere in the window, each place's own under its object name; everywhere's under none.
    std::map<QString, Commands> everyCommand() const;
    /// Does it, or says why it cannot be done now; false when there is none of that name here.
    bool run(const QString& id);
    /// In the Now line.
    void say(const QString& message, bool trouble);
    ReadingStation& station() { return m_station; }
    Links& links() { return m_links; }
    CopyKeeper& keeper() { return m_keeper; }
    /// Object name of the place in front.
    QString place() const { return m_current->objectName(); }
    /// As it was left; the first time as large as was designed for, or as the screen has room for with its frame.
    void fitScreen();
    bool overviewOpen() const { return m_current == m_benches.front(); }

protected:
    void closeEvent(QCloseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void narrow();
    void arrange();
    Look fitted() const;
    void takeLook();
    Look nextLook() const { return m_nextLook.value_or(m_look); }
    /// Tab goes as the eye does, whatever was made last.
    void orderTabs();
    void build();
    void connectBench(Bench* bench);
    void refresh();
    void makeCommands();
    /// Brings a place to the front; what was before it is forgotten unless it is kept.
    bool open(Bench* bench, bool keepTrail = false, std::optional<Gate> gate = {});
    void goBack();
    Bench* benchNamed(const QString& place) const;
    bool handleKey(QKeyEvent* event);
    bool handleCommand(const Commands& commands, const QKeyEvent& event);
    void perform(const Command& command);
    /// Whether the place in front gives the command's letter an object of its own.
    bool isNearer(const Command& command) const;
    /// The code of a piece's card, as a reader of codes types it: from # to Enter.
    bool handleCode(QKeyEvent* event);
    void goToPiece(const QString& code);
    /// The tables of what is in view, the one it shows first.
    std::vector<ReportTable> tablesInView() const;
    void stepBlade(int by);
    /// What is next, here and in the batches that are not in hand; one of them is gone to.
    void chooseTask();
    void showMenu();
    void showFind();
    void makeMenuBar();
    void addTo(QMenu& menu, const Command& command);
    /// What can be done with what lies there.
    void showContext(QWidget* widget, const QPoint& onScreen);
    void showHelp();
    void showKeys();
    KeyLines keysHere() const;

    Document& m_document;
    Look m_look;
    std::optional<Look> m_nextLook; ///< wished for, while something hangs on the benches as they are
    Look m_chartLook;
    ReadingStation m_station;
    Links m_links;
    DayClock m_day;
    CopyKeeper m_keeper;
    Seams m_seams;
    Caller m_caller;
    ShopActions* m_actions;
    ExchangeActions* m_exchange;
    Commands m_everywhere;
    std::vector<Bench*> m_benches;
    Bench* m_current = nullptr;
    std::vector<Bench*> m_trail; ///< where Esc leads back to, the last one first
    QString m_lost;              ///< what closing would lose, once that was said
    QString m_code;              ///< of a card, while it comes in
    QWidget* m_content = nullptr;
    GateTrack* m_track = nullptr;
    QStackedWidget* m_left = nullptr;
    Roll* m_roll = nullptr;
    QStackedWidget* m_stack = nullptr;
    VerdictColumn* m_column = nullptr;
    QMenuBar* m_menuBar = nullptr; ///< null where it is not wished
    CommandBar* m_bar = nullptr;
    Footer* m_footer = nullptr;
};

} // namespace rollcall
