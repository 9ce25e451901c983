// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "app/links/device_link.h"
#include "app/shared/bench.h"
#include "plot/rule.h"

namespace rollcall {

class BladeView;
class ReadingRow;
struct Seams;
class KeyRow;
class RuleView;
class ShopActions;

/// The Call bench of the Quench and Temper gates: the reading station with blade, readings, rule and tester.
class CallBench : public Bench {
    Q_OBJECT

public:
    CallBench(Document& document, ReadingStation& station, DeviceLink& link, ShopActions& actions, const Seams& seams,
              const Look& look, QWidget* parent = nullptr);
    QString title() const override { return tr("Call"); }
    HelpText help() const override;
    std::optional<Gate> gate() const override;
    bool serves(Gate g) const override { return g == Gate::quench || g == Gate::temper; }
    QString whyNotAt(Gate gate) const override;
    bool needsBlade() const override { return m_station.mode() != ReadingStation::Mode::block; }
    void setInFront(bool inFront) override;
    /// The gate that was read last, where a reading from the wire belongs while another place is open.
    int pageIndex() const override { return static_cast<int>(indexOf(m_gate)); }
    void openPageAt(int gate) override { m_gate = allGates[static_cast<std::size_t>(gate)]; }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    Commands commandsAt(const QPoint& at) override;
    QStringList offers() const override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    bool escape() override;
    QString unsaved() const override;

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void paintHead(QPainter& painter) const;
    void paintTester(QPainter& painter) const;
    ColumnContent bladeContent() const;
    ColumnContent blockContent() const;
    void nameAct(ColumnContent& content) const;
    void turnKeys();
    void makeRoom();
    void chooseZone();
    /// The next blade to be read at this gate; none when all are.
    std::optional<std::size_t> nextToRead() const;
    bool onlyFilesAnswer() const; ///< the gate is asked by files, and no number was read
    void callNext();
    void followStation();

    ReadingStation& m_station;
    const DeviceLink& m_link;
    ShopActions& m_actions;
    Gate m_gate = Gate::temper;
    bool m_onBlock = false;
    bool m_cameForBlock = false; ///< a run was begun elsewhere: it leads back there
    BladeView* m_blade;
    ReadingRow* m_row;
    RuleView* m_rule;
    KeyRow* m_keys;
};

} // namespace rollcall
