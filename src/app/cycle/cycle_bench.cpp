// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cycle/cycle_bench.h"

#include "app/cycle/colour_page.h"
#include "app/cycle/day_page.h"
#include "app/cycle/ladder_page.h"
#include "app/cycle/recipe_page.h"
#include "app/cycle/soak_page.h"
#include "app/cycle/warp_page.h"

namespace rollcall {

CycleBench::CycleBench(Document& document, OvenLink& oven, DayClock& day, const Seams& seams, const Look& look,
                       QWidget* parent)
    : PagedBench(document, look, parent), m_soak(new SoakPage(document, oven, seams, look)) {
    setObjectName(QStringLiteral("cycle-bench"));
    auto* ladder = new LadderPage(document, look);
    auto* dayPage = new DayPage(document, day, look);
    for (Bench* page :
         std::initializer_list<Bench*>{m_soak, ladder, new RecipePage(document, look), dayPage,
                                       new WarpPage(document, seams, look), new ColourPage(document, look)})
        addPage(page);
    connect(ladder, &LadderPage::temperWanted, this, &CycleBench::temperWanted);
    connect(dayPage, &DayPage::temperWanted, this, &CycleBench::temperWanted);
    connect(ladder, &LadderPage::planWanted, this, [this, dayPage](double temperature_c, double hours) {
        openPage(Page::day);
        dayPage->plan(temperature_c, hours);
    });
}

bool CycleBench::takeFile(const QString& path) {
    if (!isTable(path)) return false;
    openPage(Page::soak);
    m_soak->importTrace(path);
    return true;
}

} // namespace rollcall
