// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/blind_rating.h"
#include "core/proof/fracture.h"
#include "core/proof/fracture_texture.h"

#include <cmath>
#include <QtTest>
#include <random>

using namespace rollcall;

namespace {

// The picture turned by 17 degrees about its middle, lit from 0.6 to 1.2 across, with noise of 8 grey levels.
GreyImage worse(const GreyImage& in, unsigned seed) {
    GreyImage out = in;
    std::mt19937 random(seed);
    std::normal_distribution<double> noise(0, 8);
    for (int y = 0; y < out.height; ++y) {
        for (int x = 0; x < out.width; ++x) {
            const double dx = x - out.width / 2.0;
            const double dy = y - out.height / 2.0;
            double grey = in.at(out.width / 2.0 + std::cos(0.3) * dx - std::sin(0.3) * dy,
                                out.height / 2.0 + std::sin(0.3) * dx + std::cos(0.3) * dy);
            grey = grey * (0.6 + 0.6 * x / out.width) + noise(random);
            out.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(out.width) +
                       static_cast<std::size_t>(x)] = static_cast<std::uint8_t>(std::clamp(grey, 0.0, 255.0));
        }
    }
    return out;
}

// Five level lines over the middle, about 300 crossings in all, all suggestions confirmed.
FracturePhoto confirmed(const GreyImage& picture, double px_per_mm) {
    FracturePhoto photo;
    photo.px_per_mm = px_per_mm;
    for (int i = 0; i < 5; ++i) {
        CountedLine line;
        const double y = picture.height * (0.3 + 0.1 * i);
        line.line = {false, {picture.width * 0.16, y}, {picture.width * 0.84, y}};
        for (const double part : suggestCrossings(picture, line.line)) line.crossings.push_back({part, 1});
        photo.lines.push_back(std::move(line));
    }
    return photo;
}

FracturePhoto counted(std::initializer_list<int> crossings, FractureZone zone = FractureZone::middle) {
    FracturePhoto photo;
    photo.px_per_mm = 1000;
    for (const int count : crossings) {
        CountedLine line;
        line.zone = zone;
        line.line = {false, {0, 0}, {1000, 0}}; // 1 mm
        line.crossings.resize(static_cast<std::size_t>(count));
        photo.lines.push_back(std::move(line));
    }
    return photo;
}

} // namespace

class tst_Fracture : public QObject {
    Q_OBJECT

private slots:
    // The drawn fractures keep their number: the mean intercept by their own facets is the nominal one within 5 %.
    void drawnFracturesKeepTheirNumber() {
        for (int rating = 1; rating <= 10; ++rating) {
            const double facet_px = 14;
            constexpr int size = 560;
            double crossings = 0;
            double length = 0;
            for (const std::uint64_t seed : {1U, 2U, 3U}) {
                const auto drawn = fractureTexture(rating, facet_px / interceptOf(rating), size, size, seed).value();
                for (int i = 2; i < size; i += 5) {
                    for (int j = 1; j < size; ++j) {
                        crossings += drawn.facets[static_cast<std::size_t>(i * size + j)] !=
                                     drawn.facets[static_cast<std::size_t>(i * size + j - 1)];
                        crossings += drawn.facets[static_cast<std::size_t>(j * size + i)] !=
                                     drawn.facets[static_cast<std::size_t>((j - 1) * size + i)];
                    }
                    length += 2 * (size - 1);
                }
            }
            const double intercept = length / crossings / facet_px;
            QVERIFY2(std::abs(intercept - 1) < 0.05, qPrintable(QString("%1: %2").arg(rating).arg(intercept)));
        }
        QVERIFY(!fractureTexture(8, 10, 100, 100, 1).ok()); // facets under 2 pixels
        QVERIFY(!fractureTexture(1, 10000, 100, 100, 1).ok());
        QVERIFY(!fractureTexture(14, 600, 100, 100, 1).ok());
    }
    // G from confirmed suggestions: within 0.3 of the known one for clean pictures, within 0.5 for turned, unevenly lit
    // and noisy ones, from 11 to 35 pixels an intercept.
    void suggestedCrossingsGiveTheGrain_data() {
        QTest::addColumn<double>("g");
        QTest::addColumn<double>("facet_px");
        for (int g = 3; g <= 9; ++g) {
            const double facet = 11 + 5 * (g % 4) + (g == 6 ? 14 : 0);
            QTest::addRow("G %d at %g px", g, facet) << double(g) << facet;
        }
    }
    void suggestedCrossingsGiveTheGrain() {
        QFETCH(double, g);
        QFETCH(double, facet_px);
        const int wide = static_cast<int>(facet_px * 80);
        const int high = static_cast<int>(facet_px * 30);
        const double scale = facet_px / interceptOf(g);
        const auto drawn = fractureTexture(g, scale, wide, high, static_cast<std::uint64_t>(10 * g)).value();
        const FractureReading clean = readFractures({confirmed(drawn.picture, scale)});
        QCOMPARE(clean.says, FractureReading::Says::counted);
        QVERIFY2(clean.crossings >= 250, qPrintable(QString::number(clean.crossings)));
        QVERIFY2(std::abs(clean.g - g) <= 0.3, qPrintable(QString::number(clean.g)));
        const FractureReading poor = readFractures({confirmed(worse(drawn.picture, 7), scale)});
        QVERIFY2(std::abs(poor.g - g) <= 0.5, qPrintable(QString::number(poor.g)));
    }
    void underTenPixelsItRefuses() {
        FracturePhoto photo = counted({90, 92, 91, 90, 93}); // 11 px an intercept
        QCOMPARE(readFractures({photo}).says, FractureReading::Says::counted);
        photo = counted({120, 118, 121, 119, 120}); // 8 px
        QCOMPARE(readFractures({photo}).says, FractureReading::Says::tooCoarseAPhoto);
        QCOMPARE(standsTo(readFractures({photo}), 8), GrainStands::open);
        // 5 µm a pixel: nothing finer than G 5.4.
        QVERIFY(std::abs(finestSeen(200) - 5.4) < 0.05);
        QVERIFY(suggestCrossings({4, 4, std::vector<std::uint8_t>(16)}, {false, {0, 0}, {3, 0}}).empty());
    }
    // What a count is worth, at the two ends that are known and between them.
    void worthOfACount() {
        QVERIFY(!countWorth(2, 200) && !countWorth(5, 49));
        QCOMPARE(*countWorth(5, 50), 0.9);
        QCOMPARE(*countWorth(3, 400), 0.9);
        QVERIFY(std::abs(*countWorth(5, 250) - 0.3) < 1e-9 && std::abs(*countWorth(9, 900) - 0.3) < 1e-9);
        QVERIFY(*countWorth(5, 100) < 0.9 && *countWorth(5, 100) > 0.3);
        QCOMPARE(linesWanted(3, 100).lines, 2);
        QCOMPARE(linesWanted(6, 300).crossings, 0.0);
    }
    // 50 crossings per mm are 0.020 mm, G 8.0.
    void againstWhatIsAsked() {
        const FractureReading fine = readFractures({counted({80, 81, 80, 79, 80})}); // 12.5 µm: G 9.36
        QVERIFY(std::abs(fine.g - 9.355) < 0.01);
        QCOMPARE(standsTo(fine, 8), GrainStands::fine);
        QCOMPARE(standsTo(readFractures({counted({50, 51, 50, 49, 50})}), 8), GrainStands::between);
        QCOMPARE(standsTo(readFractures({counted({35, 36, 35, 34, 35})}), 8), GrainStands::coarse);
        QCOMPARE(standsTo(readFractures({counted({80, 81})}), 8), GrainStands::open);
        // Lines that scatter widen what is known beyond what the number of crossings is worth.
        const FractureReading wide = readFractures({counted({120, 40, 90, 60, 90})});
        QVERIFY(wide.low_high.first < fine.low_high.first - 0.5);
        // Struck lines and photos without a scale count nowhere.
        FracturePhoto photo = counted({80, 81, 80, 79, 80});
        for (CountedLine& line : photo.lines) line.struck = true;
        QCOMPARE(readFractures({photo}).says, FractureReading::Says::nothing);
        photo = counted({80, 81, 80, 79, 80});
        photo.px_per_mm.reset();
        QCOMPARE(readFractures({photo}).says, FractureReading::Says::nothing);
    }
    void zonesAreCompared() {
        const FracturePhoto edge = counted({35, 36, 34}, FractureZone::edge);
        const FracturePhoto spine = counted({80, 82, 79}, FractureZone::spine);
        const FractureReading reading = readFractures({edge, spine});
        QVERIFY(reading.uneven.has_value());
        QCOMPARE(reading.uneven->first.zone, FractureZone::edge);
        QVERIFY(!readFractures({edge, counted({38, 40, 36}, FractureZone::spine)}).uneven);
        QCOMPARE(*named<FractureZone>("skin"), FractureZone::skin);
        QVERIFY(!named<FractureZone>("tip"));
    }
    void ratings() {
        FracturePhoto photo;
        photo.ratings = {{5, 9, {100, 0}}};
        QVERIFY(readFractures({photo}).rating_repeats_badly);
        QCOMPARE(standsTo(readFractures({photo}), 8), GrainStands::open);
        photo.ratings.push_back({8.5, 9, {200, 0}}); // the later one counts
        const FractureReading rated = readFractures({photo});
        QCOMPARE(rated.says, FractureReading::Says::rated);
        QCOMPARE(rated.g, 8.75);
        QCOMPARE(rated.low_high.first, 8.0);
        // Against a count of G 7.0 it disagrees.
        FracturePhoto both = counted({35, 36, 35, 34, 35});
        both.ratings = photo.ratings;
        QVERIFY(readFractures({both}).count_and_rating_differ);
        both.after_temper = 1;
        QVERIFY(readFractures({both}).tempered);
    }
    // Whoever always picks the side nearer to the truth ends at it, or beside it.
    void blindComparisonFindsTheRating() {
        for (int truth = 2; truth <= 20; ++truth) {
            const double rating = truth / 2.0;
            BlindRating look;
            while (!look.rating()) {
                const double middle = look.coarser() + 0.5;
                QVERIFY(look.coarser() >= 1 && look.finer() <= 10);
                look.answer(rating == middle  ? BlindRating::Nearer::between
                            : rating < middle ? BlindRating::Nearer::coarser
                                              : BlindRating::Nearer::finer);
            }
            QVERIFY2(std::abs(*look.rating() - rating) <= 0.5, qPrintable(QString::number(rating)));
            QVERIFY(look.answered() <= 4);
        }
    }
    void circlesAndLines() {
        const TestLine circle{true, {100, 100}, {150, 100}};
        QVERIFY(std::abs(circle.length() - 314.159) < 0.01);
        QVERIFY(std::abs(circle.at(0.25).y - 150) < 1e-9 && std::abs(circle.at(0.5).x - 50) < 1e-9);
        const TestLine straight{false, {0, 0}, {30, 40}};
        QCOMPARE(straight.length(), 50.0);
        QCOMPARE(straight.at(0.5).y, 20.0);
    }
};

QTEST_APPLESS_MAIN(tst_Fracture)
#include "tst_fracture.moc"
