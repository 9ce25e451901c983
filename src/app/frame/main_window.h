// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/edge/force_link.h"
#include "app/frame/shop_actions.h"
#include "app/heat/day_clock.h"
#include "app/heat/heat_bench.h"
#include "app/heat/oven_link.h"
#include "app/shared/command.h"
#include "app/shared/device_link.h"
#include "app/shared/watched_folder.h"
#include "app/store/document.h"
#include "plot/look.h"
#include "report/batch_table.h"

#include <map>
#include <QWidget>

class QStackedWidget;

namespace rollcall {

class CallBench;
class Footer;
class GateTrack;
class GrainBench;
class OverviewBench;
class Roll;
class ProofBench;
class ExchangeActions;
class TesterActions;
class TesterList;
class TestersBench;
class VerdictColumn;

/// The one window: gate track, roll, bench, verdict column and Now line. Wires them; computes nothing.
class MainWindow : public QWidget {
    Q_OBJECT

public:
    MainWindow(Document& document, Look look, Seams seams);
    ~MainWindow() override;

    void openGate(Gate gate);
    void openOverview();
    void openTesters();
    void openGrain();
    void openHeat(HeatBench::Page page);
    /// Other colours or another text size: the window is laid out anew, as soon as nothing is being stored.
    void setLook(const Look& look);
    const Look& look() const { return m_look; }
    const Commands& commands() const { return m_commands; }
    ReadingStation& station() { return m_station; }
    const DeviceLink& link() const { return m_link; }
    OvenLink& oven() { return m_oven; }
    ForceLink& force() { return m_force; }
    ProofBench& proof() { return *m_proof; }
    GrainBench& grain() { return *m_grain; }
    ShopActions& actions() { return *m_actions; }
    enum class Place { overview, call, testers, steel, heat, edge, proof, grain, release };
    Place place() const { return m_place; }
    bool overviewOpen() const { return m_place == Place::overview; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void build();
    void refresh();
    void makeCommands();
    bool handleKey(QKeyEvent* event);
    bool handleStationKey(QKeyEvent* event);
    bool handleTestersKey(QKeyEvent* event);
    /// The code of a piece's card, as a reader of codes types it: from # to Enter.
    bool handleCode(QKeyEvent* event);
    void goToPiece(const QString& code);
    /// The tables of what is in view, the one it shows first.
    std::vector<ReportTable> tablesInView() const;
    /// The bench of a gate that has one of its own; null elsewhere.
    Bench* gateBench() const;
    void addBench(Place place, Bench* bench);
    void leftAct();
    void rightAct();
    void verifyHere();
    void act();
    void callNext();
    void stepBlade(int by);
    void showMenu();
    void showHelp();

    Document& m_document;
    Look m_look;
    ReadingStation m_station;
    DeviceLink m_link;
    OvenLink m_oven;
    ForceLink m_force;
    DayClock m_day;
    WatchedFolder m_shots;
    WatchedFolder m_fractures;
    Seams m_seams;
    ShopActions* m_actions;
    ExchangeActions* m_exchange;
    Commands m_commands;
    Place m_place = Place::overview;
    Place m_cameFrom = Place::overview; ///< where Esc leads from the Testers bench
    Gate m_readingGate = Gate::temper;  ///< where a reading from the wire belongs while another bench is open
    bool m_verifyingFromTesters = false;
    bool m_wasOnBlock = false;
    QString m_code; ///< of a card, while it comes in
    QWidget* m_content = nullptr;
    GateTrack* m_track = nullptr;
    QStackedWidget* m_left = nullptr;
    Roll* m_roll = nullptr;
    TesterList* m_testerList = nullptr;
    QStackedWidget* m_stack = nullptr;
    OverviewBench* m_overview = nullptr;
    CallBench* m_call = nullptr;
    TestersBench* m_testers = nullptr;
    std::map<Place, Bench*> m_benches; ///< of the gates that are not read on the tester
    HeatBench* m_heat = nullptr;
    ProofBench* m_proof = nullptr;
    HeatBench::Page m_heatPage = HeatBench::Page::soak;
    GrainBench* m_grain = nullptr;
    int m_proofPage = 0;
    int m_grainPage = 0;
    TesterActions* m_testerActions = nullptr;
    VerdictColumn* m_column = nullptr;
    Footer* m_footer = nullptr;
};

} // namespace rollcall
