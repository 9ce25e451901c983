// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_bench.h"

#include "app/acts/shop_actions.h"
#include "app/heat/colour_page.h"
#include "app/heat/day_page.h"
#include "app/heat/ladder_page.h"
#include "app/heat/recipe_page.h"
#include "app/heat/soak_page.h"
#include "app/heat/warp_page.h"

namespace rollcall {

HeatBench::HeatBench(Document& document, OvenLink& oven, DayClock& day, ShopActions& actions, const Seams& seams,
                     const Look& look, QWidget* parent)
    : PagedBench(document, look, parent), m_soak(new SoakPage(document, oven, seams, look)) {
    setObjectName(QStringLiteral("heat-bench"));
    auto* ladder = new LadderPage(document, look);
    auto* dayPage = new DayPage(document, day, look);
    for (Bench* page :
         std::initializer_list<Bench*>{m_soak, ladder, new RecipePage(document, look), dayPage,
                                       new WarpPage(document, seams, look), new ColourPage(document, look)})
        addPage(page);
    const auto logTemper = [&actions](double temperature_c, double hours) {
        actions.logTemper(TemperHeat{temperature_c, hours});
    };
    connect(ladder, &LadderPage::temperWanted, this, logTemper);
    connect(dayPage, &DayPage::temperWanted, this, logTemper);
    connect(ladder, &LadderPage::planWanted, this, [this, dayPage](double temperature_c, double hours) {
        openPage(Page::day);
        dayPage->plan(temperature_c, hours);
    });
}

Commands HeatBench::doors() {
    return {{QStringLiteral("day"),
             tr("Ovens today"),
             tr("what runs, what is next, plan an oven run"),
             Verb::ovens,
             [this] { emit placeWanted(objectName(), static_cast<int>(Page::day)); },
             {},
             Qt::Key_unknown,
             Qt::NoModifier,
             Group::shop}};
}

bool HeatBench::takeFile(const QString& path) {
    if (!isTable(path)) return false;
    openPage(Page::soak);
    m_soak->importTrace(path);
    return true;
}

} // namespace rollcall
