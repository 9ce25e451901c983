// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/tables.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;

class tst_Tables : public QObject {
    Q_OBJECT

    // A copy of the tables in which one file's text is changed.
    QString damaged(const QString& file, const QByteArray& from, const QByteArray& to) {
        const QString folder = m_dir.filePath(QString::number(++m_count));
        QDir().mkpath(folder);
        for (const QString& name : QDir(QStringLiteral(ROLLCALL_DATA_DIR "/tables")).entryList(QDir::Files)) {
            QFile source(QStringLiteral(ROLLCALL_DATA_DIR "/tables/") + name);
            if (!source.open(QIODevice::ReadOnly)) qFatal("no table");
            QByteArray text = source.readAll();
            if (name == file) {
                if (!text.contains(from)) qFatal("nothing to damage");
                text.replace(text.indexOf(from), from.size(), to);
            }
            QFile copy(folder + QLatin1Char('/') + name);
            if (!copy.open(QIODevice::WriteOnly)) qFatal("no copy");
            copy.write(text);
        }
        return folder;
    }

    QTemporaryDir m_dir;
    int m_count = 0;

private slots:
    void loadsWhatShips() {
        const Tables& tables = fixtures::tables();
        QCOMPARE(tables.scales().size(), std::size_t(30));
        QCOMPARE(tables.conversions().size(), std::size_t(49));
        QCOMPARE(tables.conversions().front().hrc, 20.0);
        QVERIFY(tables.grades().size() >= 45);
        QCOMPARE(tables.scale("hr15n")->symbol, std::string("HR15N"));
        QCOMPARE(tables.scale("C")->symbol, std::string("HRC"));
        QVERIFY(!tables.scale("HRZ").ok());
    }

    void knowsGrades() {
        const Tables& tables = fixtures::tables();
        QCOMPARE(tables.grade("115crv3")->as_quenched_min, 63.0);
        QVERIFY(tables.grade("unobtainium") == nullptr);
        QVERIFY(tables.grade("51CrV4")->may_normalise);
        for (const char* name : {"A2", "S7", "D2", "D3", "M2", "X50CrMoV15"})
            QVERIFY2(!tables.grade(name)->may_normalise, name);
        for (const char* name : {"A2", "D2", "M42", "440C"}) QVERIFY2(tables.grade(name)->needsFullAnneal(), name);
    }

    // Judgement, temper gate: 1 for plain and low alloy, 2 for air-hardening, stainless and from 450 degrees, 3 for
    // cobalt high speed steels.
    void knowsHowManyTempersAreNeeded() {
        const Tables& tables = fixtures::tables();
        QCOMPARE(tables.grade("1095")->minimumTempers(200), 1);
        QCOMPARE(tables.grade("51CrV4")->minimumTempers(450), 2);
        QCOMPARE(tables.grade("51CrV4")->minimumTempers(449), 1);
        QCOMPARE(tables.grade("A2")->minimumTempers({}), 2);
        QCOMPARE(tables.grade("X50CrMoV15")->minimumTempers(180), 2);
        QCOMPARE(tables.grade("M35")->minimumTempers(550), 3);
        QCOMPARE(tables.grade("M42")->minimumTempers(550), 3);
        QCOMPARE(tables.grade("T15")->minimumTempers(550), 3);
    }

    void namesFileLineAndColumnOfDamage_data() {
        QTest::addColumn<QString>("file");
        QTest::addColumn<QByteArray>("from");
        QTest::addColumn<QByteArray>("to");
        QTest::addColumn<QString>("place");
        QTest::newRow("a letter in a number")
            << "e140_hrc.csv" << QByteArray("66,865") << QByteArray("66,8b5") << "e140_hrc.csv line 4 column hv";
        QTest::newRow("rows out of order")
            << "e140_hrc.csv" << QByteArray("\n67,900") << QByteArray("\n69,900") << "e140_hrc.csv line 3 column hrc";
        QTest::newRow("a column that rises")
            << "e140_hrc.csv" << QByteArray("66,865") << QByteArray("66,965") << "e140_hrc.csv line 4 column hv";
        QTest::newRow("a gap between bands")
            << "e18_machine_tolerance.csv" << QByteArray("HRC,32.5,57.5") << QByteArray("HRC,33,57.5")
            << "e18_machine_tolerance.csv line 9 column block_min_incl";
        QTest::newRow("a limit that cannot be")
            << "e18_machine_tolerance.csv" << QByteArray("HRC,57.5,,1.0,0.5") << QByteArray("HRC,57.5,,1.0,-0.5")
            << "e18_machine_tolerance.csv line 10 column max_error_plus_minus";
        QTest::newRow("thickness out of order")
            << "e18_min_thickness.csv" << QByteArray("HRC,0.024") << QByteArray("HRC,0.020")
            << "e18_min_thickness.csv line 3 column thickness_in";
        QTest::newRow("an unknown confidence")
            << "rockwell_scales.csv" << QByteArray("older ISO editions: 20-88,high")
            << QByteArray("older ISO editions: 20-88,sure") << "rockwell_scales.csv line 2 column confidence";
        QTest::newRow("a missing column")
            << "grades.csv" << QByteArray("family") << QByteArray("kin") << "grades.csv line 1";
        QTest::newRow("a grade without its heat")
            << "heat_treat.csv" << QByteArray("\n1095,") << QByteArray("\n1096,") << "grades.csv line 7 column grade";
        QTest::newRow("a hole in the convex corrections")
            << "convex_correction_hrc.csv" << QByteArray("\nHRC;HRA;HRD,25,5,3/8")
            << QByteArray("\nHRC;HRA;HRD,25,5.5,3/8") << "convex_correction_hrc.csv line 12 column radius_mm";
        QTest::newRow("a correction that is no number")
            << "convex_correction_15n_30n_45n.csv" << QByteArray("20,1.6,1/8,6.0") << QByteArray("20,1.6,1/8,six")
            << "convex_correction_15n_30n_45n.csv line 2 column correction_add";
        QTest::newRow("a dwell that cannot be")
            << "e18_test_cycle.csv" << QByteArray("total force dwell t_TF,2.0,6.0")
            << QByteArray("total force dwell t_TF,7.0,6.0") << "e18_test_cycle.csv line 5 column max";
        QTest::newRow("a scale of another kind")
            << "rockwell_scales.csv" << QByteArray("\nA,HRA,") << QByteArray("\nA,HBA,")
            << "rockwell_scales.csv line 2 column symbol";
        QTest::newRow("a scale's range with one end")
            << "rockwell_scales.csv" << QByteArray("malleable iron,40,77,") << QByteArray("malleable iron,40,,")
            << "rockwell_scales.csv line 5 column iso_range_min";
        QTest::newRow("a band whose ends are swapped")
            << "e18_machine_tolerance.csv" << QByteArray("HRA,70,80,") << QByteArray("HRA,70,60,")
            << "e18_machine_tolerance.csv line 3 column block_min_incl";
        QTest::newRow("a range of a heat with one end")
            << "heat_treat.csv" << QByteArray("870,925,790,845,full,815,845,825")
            << QByteArray("870,,790,845,full,815,845,825") << "heat_treat.csv line 2 column normalize_min_C";
        QTest::newRow("a content whose ends are swapped")
            << "grades.csv" << QByteArray("0.55,0.65,0.15,0.35") << QByteArray("0.75,0.65,0.15,0.35")
            << "grades.csv line 2 column C_min";
        QTest::newRow("a curve of no grade") << "temper_curves.csv" << QByteArray("\n1060,150,")
                                             << QByteArray("\n1061,150,") << "temper_curves.csv line 2 column grade";
        QTest::newRow("a curve that runs back")
            << "temper_curves.csv" << QByteArray("\n1060,175,") << QByteArray("\n1060,145,")
            << "temper_curves.csv line 3 column temper_C";
        QTest::newRow("a colour without its hour")
            << "temper_colors.csv" << QByteArray(",205,180,#EFE6BE") << QByteArray(",205,,#EFE6BE")
            << "temper_colors.csv line 2 column one_hour_C";
        QTest::newRow("a colour that no screen shows")
            << "temper_colors.csv" << QByteArray("#EFE6BE") << QByteArray("#EFE6BG")
            << "temper_colors.csv line 2 column srgb_hex";
        QTest::newRow("colours out of order")
            << "temper_colors.csv" << QByteArray(",215,190,#") << QByteArray(",204,190,#")
            << "temper_colors.csv line 3 column minutes_heating_C";
        QTest::newRow("a purpose without its window")
            << "purposes.csv" << QByteArray("hard and thin,62,66") << QByteArray("hard and thin,,66")
            << "purposes.csv line 2 column window_low";
        QTest::newRow("convex readings out of order")
            << "convex_correction_hrc.csv" << QByteArray("\nHRC;HRA;HRD,25,3,") << QByteArray("\nHRC;HRA;HRD,15,3,")
            << "convex_correction_hrc.csv line 11 column reading";
        QTest::newRow("a step of a protocol that is none")
            << "protocols.csv" << QByteArray("Performance trial,Overall length,number")
            << QByteArray("Performance trial,Overall length,feeling") << "protocols.csv line 2";
        QTest::newRow("expectations out of order")
            << "heat_treat.csv" << QByteArray("60,63,65,no") << QByteArray("60,59,65,no")
            << "heat_treat.csv line 2 column as_quenched_hrc_typ";
    }
    void namesFileLineAndColumnOfDamage() {
        QFETCH(QString, file);
        QFETCH(QByteArray, from);
        QFETCH(QByteArray, to);
        const auto tables = Tables::load(damaged(file, from, to).toStdString());
        QVERIFY(!tables.ok());
        QCOMPARE(tables.error().kind, ErrorKind::table);
        QTEST(QString::fromStdString(tables.error().place), "place");
        QVERIFY(!tables.error().text.empty());
    }

    // A purpose is asked for in the words of the table, whatever their letters.
    void knowsPurposes() {
        const PurposeProfile* slicer = fixtures::tables().purpose("thin SLICER", "hard and thin");
        QVERIFY(slicer != nullptr);
        QCOMPARE(slicer->window_low, 62.0);
        QVERIFY(fixtures::tables().purpose("Thin slicer", "no school") == nullptr);
    }

    void saysWhichTableIsMissing() {
        const auto tables = Tables::load("/nowhere");
        QVERIFY(!tables.ok());
        QCOMPARE(tables.error().place, std::string("rockwell_scales.csv"));
        const QString without = damaged("protocols.csv", "Rope", "Rope");
        QVERIFY(QFile::remove(without + "/protocols.csv"));
        QCOMPARE(Tables::load(without.toStdString()).error().place, std::string("protocols.csv"));
    }

    // A curve is no curve with three points, a shop without HRC no shop of ours.
    void saysWhatIsTooLittle() {
        QFile file(QStringLiteral(ROLLCALL_DATA_DIR "/tables/temper_curves.csv"));
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray all = file.readAll();
        const int from = all.indexOf("\n1060,150,");
        const int to = all.indexOf("\n1060,540,");
        QVERIFY(from > 0 && to > from);
        const auto few = Tables::load(damaged("temper_curves.csv", all.mid(from, to - from), "").toStdString());
        QVERIFY(!few.ok());
        QCOMPARE(few.error().place, std::string("temper_curves.csv"));
        QVERIFY(few.error().text.find("1060") != std::string::npos);
        const auto none = Tables::load(damaged("rockwell_scales.csv", "\nC,HRC,", "\nC,HRCX,").toStdString());
        QVERIFY(!none.ok());
        QCOMPARE(none.error().place, std::string("rockwell_scales.csv"));
    }
};

QTEST_APPLESS_MAIN(tst_Tables)
#include "tst_tables.moc"
