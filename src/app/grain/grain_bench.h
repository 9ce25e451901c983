// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/grain/photo_store.h"
#include "app/links/watched_folder.h"
#include "app/shared/paged_bench.h"
#include "app/shared/seams.h"

namespace rollcall {

class CountPage;
class RatePage;

/// Fractures: counted on their photo, rated by comparison, coupons in order of their soak.
class GrainBench : public PagedBench {
    Q_OBJECT

public:
    enum class Page { count, rate, coupons };

    GrainBench(Document& document, WatchedFolder& folder, const Seams& seams, const Look& look,
               QWidget* parent = nullptr);

    /// What a fracture says is said at Proof.
    std::optional<Gate> gate() const override { return Gate::proof; }
    bool serves(Gate) const override { return false; }
    Commands doors() override;
    std::vector<ReportTable> tables() const override;
    void openPage(Page page) { openPageAt(static_cast<int>(page)); }
    CountPage& count() { return *m_count; }
    RatePage& rate() { return *m_rate; }
    PhotoStore& photos() { return m_photos; }
    bool takeFile(const QString& path) override;

private:
    PhotoStore m_photos;
    CountPage* m_count;
    RatePage* m_rate;
};

} // namespace rollcall
