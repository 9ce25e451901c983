// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/grain_bench.h"

#include "app/grain/count_page.h"
#include "app/grain/coupon_page.h"
#include "app/grain/rate_page.h"
#include "report/gate_table.h"

namespace rollcall {

GrainBench::GrainBench(Document& document, WatchedFolder& folder, const Seams& seams, const Look& look, QWidget* parent)
    : PagedBench(document, look, parent), m_photos(document),
      m_count(new CountPage(document, m_photos, folder, seams, look)),
      m_rate(new RatePage(document, m_photos, *m_count, look)) {
    setObjectName(QStringLiteral("grain-bench"));
    for (Bench* page : std::initializer_list<Bench*>{m_count, m_rate, new CouponPage(document, look)}) addPage(page);
    connect(&folder, &WatchedFolder::arrived, this, [this](const QString& file) {
        if (m_document.blade() == nullptr) return;
        if (!m_inFront) emit placeWanted(objectName(), -1);
        takeFile(file);
    });
}

Commands GrainBench::doors() {
    return {{QStringLiteral("grain"),
             tr("Grain"),
             tr("fractures counted, rated, compared"),
             Verb::none,
             [this] { emit placeWanted(objectName(), -1); },
             {},
             Qt::Key_F12,
             Qt::NoModifier,
             Group::batch}};
}

std::vector<ReportTable> GrainBench::tables() const {
    return m_document.hasBatch() ? std::vector{fractureTable(m_document.batch())} : std::vector<ReportTable>();
}

bool GrainBench::takeFile(const QString& path) {
    if (!m_count->takeFile(path)) return false;
    openPage(Page::count);
    return true;
}

} // namespace rollcall
