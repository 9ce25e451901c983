// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/paged_bench.h"
#include "app/shared/seams.h"

namespace rollcall {

class DayClock;
class OvenLink;
class ShopActions;
class SoakPage;

/// The Heat gate: soak clock, temper ladder, recipe, the day's ovens, warp and temper colours, a page each.
class HeatBench : public PagedBench {
    Q_OBJECT

public:
    enum class Page { soak, ladder, recipe, day, warp, colour };

    HeatBench(Document& document, OvenLink& oven, DayClock& day, ShopActions& actions, const Seams& seams,
              const Look& look, QWidget* parent = nullptr);

    /// It serves batches that do not ask the gate too: their tempers are foretold here.
    std::optional<Gate> gate() const override { return Gate::heat; }
    Commands doors() override;
    void openPage(Page page) { openPageAt(static_cast<int>(page)); }
    /// A trace dropped on the window or chosen.
    bool takeFile(const QString& path) override;

private:
    SoakPage* m_soak;
};

} // namespace rollcall
