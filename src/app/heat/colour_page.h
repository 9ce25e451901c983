// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "core/heat/colour.h"
#include "plot/heat_chart.h"

namespace rollcall {

/// Temper colours: picked from bands drawn as on steel, by zone along the blade, against what the oven said.
class ColourPage : public Bench {
    Q_OBJECT

public:
    ColourPage(Document& document, const Look& look);

    QString title() const override { return tr("Colour"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    std::vector<const OxideColour*> colours() const;
    const Temper* temper() const;
    Result<ColourRange> range(const std::string& colour) const;
    QRect stripArea() const;

    int m_colour = 2;
    int m_zone = 1;
    OxideSurface m_surface = OxideSurface::bare;
    bool m_torch = false;
};

} // namespace rollcall
