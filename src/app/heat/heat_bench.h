// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/paged_bench.h"
#include "app/shared/seams.h"

namespace rollcall {

class DayClock;
class OvenLink;
class SoakPage;

/// The Heat gate: soak clock, temper ladder, recipe, the day's ovens, warp and temper colours, a page each.
class HeatBench : public PagedBench {
    Q_OBJECT

public:
    enum class Page { soak, ladder, recipe, day, warp, colour };

    HeatBench(Document& document, OvenLink& oven, DayClock& day, const Seams& seams, const Look& look,
              QWidget* parent = nullptr);

    void openPage(Page page) { openPageAt(static_cast<int>(page)); }
    Page page() const { return static_cast<Page>(pageIndex()); }
    /// A trace dropped on the window or chosen.
    bool takeFile(const QString& path) override;

signals:
    void temperWanted(double temperature_c, double hours);

private:
    SoakPage* m_soak;
};

} // namespace rollcall
