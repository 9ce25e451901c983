// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/ranks.h"

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
};

QTEST_APPLESS_MAIN(tst_Ranks)
#include "tst_ranks.moc"
