// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_shop.h"

#include "core/proof/fracture_texture.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/grain.h"
#include "logbook/actions/heat.h"

#include <QBuffer>
#include <QImage>

namespace rollcall {

namespace {

constexpr double pixelsPerMm = 900;
constexpr int photoWidth = 640;
constexpr int photoHeight = 440;

QByteArray photoOf(const GreyImage& picture) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    const QImage image(picture.pixels.data(), picture.width, picture.height, picture.width, QImage::Format_Grayscale8);
    image.save(&buffer, "PNG");
    return bytes;
}

// Where the facets under a level line change: what a careful eye would mark.
CountedLine countedAt(const FractureTexture& fracture, double y, FractureZone zone) {
    CountedLine counted;
    counted.zone = zone;
    counted.line = {false, {0.04 * photoWidth, y}, {0.96 * photoWidth, y}};
    constexpr int looks = 4 * photoWidth;
    int before = -1;
    for (int i = 0; i <= looks; ++i) {
        const double part = static_cast<double>(i) / looks;
        const PicturePoint at = counted.line.at(part);
        const int facet = fracture.facets[static_cast<std::size_t>(at.y) * photoWidth + static_cast<std::size_t>(at.x)];
        if (before >= 0 && facet != before) counted.crossings.push_back({part, 1});
        before = facet;
    }
    return counted;
}

} // namespace

void DemoShop::sickle4() {
    at(1, 200);
    BatchDraft draft;
    draft.name = "Sickle 4";
    draft.grade = "1095";
    draft.lot = "strip F";
    draft.purpose = "sickle";
    draft.window = {59.0, 61.5};
    draft.window_text = "59:61.5";
    draft.plan[indexOf(Gate::heat)] = {true, 1};
    draft.plan[indexOf(Gate::proof)] = {true, 1};
    BladeShape blade = BladeShape::knife(240, 34, 3);
    blade.reading_line_mm = 5;
    const BladeShape coupon = BladeShape::rectangle(60, 20, 3);
    for (int i = 1; i <= 4; ++i) draft.blades.push_back({fmt::format("SK-{}", i), blade, "3"});
    for (int i = 1; i <= 5; ++i) draft.blades.push_back({fmt::format("C-{}", i), coupon, "3"});
    const std::vector<Piece> pieces = addBatch(std::move(draft), {}, 0, blade, "3");

    Recipe recipe;
    recipe.name = "Sickles";
    recipe.grade = "1095";
    recipe.stages = {{StageKind::normalise, 870, 10, std::nullopt, 10, "still air", "870 10 min"},
                     {StageKind::normalise, 800, 10, std::nullopt, 10, "still air", "800 10 min"},
                     {StageKind::austenitise, 800, 6, 12, 10, "", "800 6 min"},
                     {StageKind::quench, 55, 0, std::nullopt, 15, "fast oil", "55"},
                     {StageKind::temper, 205, 120, std::nullopt, 5, "still air", "205 2 h"},
                     {StageKind::temper, 205, 120, std::nullopt, 5, "still air", "205 2 h"}};
    must(useRecipe(*m_logbook, m_batch, must(addRecipe(*m_logbook, recipe))));
    HeatDraft heat;
    heat.batch = m_batch;
    heat.oven = m_oven;
    heat.set_c = 800;
    heat.min_minutes = 6;
    heat.max_minutes = 12;
    heat.medium = "fast oil";
    heat.medium_c = 55;
    heat.edge_mm = 1.0;
    heat.as_entered = "800";
    const std::string run = must(startHeat(*m_logbook, heat));
    constexpr double in_s = 120;
    TraceDraft trace;
    trace.run = run;
    trace.name = QStringLiteral("sickle-4-oven.csv");
    trace.trace = ovenTrace(800, in_s, 2100, 50);
    must(addTrace(*m_logbook, trace));
    // The sickles came out between the coupons.
    const std::array<double, 9> minutesIn{16.0, 17.5, 19.0, 20.5, 13.5, 15.5, 17.0, 18.5, 21.5};
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const double out = in_s + 60 * minutesIn[i];
        must(markHeat(*m_logbook, run, pieces[i].id, 1, HeatMoment::in, in_s));
        must(markHeat(*m_logbook, run, pieces[i].id, 1, HeatMoment::out, out));
        must(markHeat(*m_logbook, run, pieces[i].id, 1, HeatMoment::quenched, out + 1.2));
    }
    at(1, 120);
    // Five coupons broken; the fourth is counted in part, the edge of the last is coarser than its middle.
    const std::array<double, 5> g{9.1, 8.8, 8.5, 8.1, 7.4};
    for (std::size_t c = 0; c < g.size(); ++c) {
        const Piece& piece = pieces[4 + c];
        must(takeOut(*m_logbook, piece.id, Fate::coupon, Gate::quench, "broken for its grain"));
        const auto fracture = must(fractureTexture(g[c], pixelsPerMm, photoWidth, photoHeight, 40 + c));
        FractureDraft photo;
        photo.blade = piece.id;
        photo.photo = {QString::fromStdString(piece.mark) + QStringLiteral(".png"), photoOf(fracture.picture)};
        photo.width = photoWidth;
        photo.height = photoHeight;
        const std::string id = must(addFracture(*m_logbook, photo));
        must(scaleFracture(*m_logbook, id, pixelsPerMm, "900"));
        const int lines = c == 3 ? 4 : 6;
        for (int line = 0; line < lines; ++line)
            must(countLine(*m_logbook, id,
                           countedAt(fracture, photoHeight * (0.12 + 0.15 * line), FractureZone::middle)));
        if (c == 4) must(rateFracture(*m_logbook, id, {7, 7.5, m_now}));
    }
}

} // namespace rollcall
