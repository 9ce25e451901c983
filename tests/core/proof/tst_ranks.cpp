// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/ranks.h"

#include <cmath>
#include <limits>
#include <QtTest>

using namespace rollcall;

// E33. Places at one property, with ties where the intervals meet.
class tst_Ranks : public QObject {
    Q_OBJECT

    static QString text(const std::vector<std::optional<Places>>& places) {
        QStringList all;
        for (const auto& one : places)
            all << (one ? QStringLiteral("%1-%2").arg(one->best).arg(one->worst) : QStringLiteral("none"));
        return all.join(' ');
    }

private slots:
    // 40 to 50 cuts, 60 to 70, 45 to 65 and a piece that was not tried: the third may be better or worse than both.
    void intervalsThatMeetAreTies() {
        QCOMPARE(text(placesOf({Performed{40, 50}, Performed{60, 70}, Performed{45, 65}, std::nullopt}, true)),
                 QStringLiteral("2-3 1-2 1-3 none"));
    }
    void lessMayBeBetter() {
        QCOMPARE(text(placesOf({Performed{4, 4}, Performed{9, 9}, Performed{4, 4}}, false)),
                 QStringLiteral("1-2 3-3 1-2"));
    }
    void notTriedToTheEnd() {
        constexpr double endless = std::numeric_limits<double>::infinity();
        QCOMPARE(text(placesOf({Performed{80, endless}, Performed{60, 70}}, true)), QStringLiteral("1-1 2-2"));
        QCOMPARE(text(placesOf({std::nullopt, std::nullopt}, true)), QStringLiteral("none none"));
    }
    // Printed tables of chi-squared: 0.0506 and 7.378 of 2 degrees of freedom, 1.237 and 14.449 of 6.
    void aCountIsKnownBetween() {
        const auto one = knownCount(42, 1);
        QVERIFY(one && std::abs(one->low - 84 / 7.378) < 0.01 && std::abs(one->high - 84 / 0.0506) < 2);
        const auto three = knownCount(126, 3);
        QVERIFY(three && std::abs(three->low - 252 / 14.449) < 0.01 && std::abs(three->high - 252 / 1.237) < 0.1);
        QVERIFY(!knownCount(42, 0) && !knownCount(0, 1));
        // 3 strokes against 60, once each: chance may have done it; 3 against 200 not.
        const auto places = [](double a, double b) {
            return text(placesOf({knownCount(a, 1), knownCount(b, 1)}, true));
        };
        QCOMPARE(places(3, 60), QStringLiteral("1-2 1-2"));
        QCOMPARE(places(1, 200), QStringLiteral("2-2 1-1"));
    }
    // Closed forms where all or none pass: the n-th root of 0.025; the printed value of 3 in 4.
    void aShareIsKnownBetween() {
        const auto all = knownShare(5, 5);
        QVERIFY(all && std::abs(all->low - std::pow(0.025, 1 / 5.0)) < 1e-9 && all->high == 1);
        const auto none = knownShare(0, 5);
        QVERIFY(none && none->low == 0 && std::abs(none->high - (1 - std::pow(0.025, 1 / 5.0))) < 1e-9);
        const auto some = knownShare(3, 4);
        QVERIFY(some && std::abs(some->low - 0.1941) < 1e-4 && std::abs(some->high - 0.9937) < 1e-4);
        QVERIFY(!knownShare(0, 0) && !knownShare(2, 1));
    }
};

QTEST_APPLESS_MAIN(tst_Ranks)
#include "tst_ranks.moc"
