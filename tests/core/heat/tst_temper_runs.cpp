// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/temper_runs.h"

#include <QtTest>

using namespace rollcall;

// E42. One wrong run teaches nothing, however few stand against it; two heats that agree may overrule the library.
class tst_TemperRuns : public QObject {
    Q_OBJECT

    static TemperRun run(const char* heat, int day, double residual) {
        TemperRun one;
        one.heat = heat;
        one.day = day;
        one.parameter = 9800;
        one.residual = residual;
        one.u = 0.3;
        one.spread = 1.5;
        return one;
    }
    static QList<bool> believed(const std::vector<TemperRun>& runs) {
        const std::vector<bool> all = believedRuns(runs, RunScatter());
        return {all.begin(), all.end()};
    }

private slots:
    void runsThatAgreeAllTeach() {
        QCOMPARE(believed({run("a", 1, 0.3), run("b", 2, -0.4), run("c", 3, 0.6)}), (QList<bool>{true, true, true}));
    }
    void oneAmongGoodOnesIsLeftOut() {
        QCOMPARE(believed({run("a", 1, 0.3), run("b", 2, 0.0), run("c", 3, 0.2), run("d", 4, 9.0)}),
                 (QList<bool>{true, true, true, false}));
    }
    // Nine points from the library are six of its standard deviations.
    void aloneItStandsAgainstTheLibrary() {
        QCOMPARE(believed({run("a", 1, -9.0)}), QList<bool>{false});
        QCOMPARE(believed({run("a", 1, -2.0)}), QList<bool>{true});
    }
    void thatItStandsIsSaid() {
        TemperRun one = run("a", 1, -9.0);
        one.stands = true;
        QCOMPARE(believed({one}), QList<bool>{true});
    }
    void aDoubtedRowTeachesNothing() {
        TemperRun one = run("a", 1, 0.1);
        one.doubted = true;
        QCOMPARE(believed({one, run("b", 2, 0.2)}), (QList<bool>{false, true}));
    }
    // An oven that is off, or a bar unlike its sheet: two heats on two days say the same.
    void twoHeatsThatAgreeOverruleTheLibrary() {
        QCOMPARE(believed({run("a", 1, -6.0), run("b", 2, -6.3)}), (QList<bool>{true, true}));
        // The same hand on the same day can slip twice in the same way.
        QCOMPARE(believed({run("a", 1, -6.0), run("b", 1, -6.3)}), (QList<bool>{false, false}));
        QCOMPARE(believed({run("a", 1, -6.0), run("a", 2, -6.3)}), (QList<bool>{false, false}));
        // And as many that go by the library keep it.
        QCOMPARE(
            believed({run("a", 1, -6.0), run("b", 2, -6.3), run("c", 3, 0.1), run("d", 4, -0.2), run("e", 5, 0.3)}),
            (QList<bool>{false, false, true, true, true}));
    }
};

QTEST_APPLESS_MAIN(tst_TemperRuns)
#include "tst_temper_runs.moc"
