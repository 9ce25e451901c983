// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/grade_sheet.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_GradeSheet : public QObject {
    Q_OBJECT

    static GradeSheet whole() {
        return {{"name", "Hedge steel"},
                {"composition", "C 0.75-0.85; Cr 0.4-0.6; V 0.15-"},
                {"austenitise", "1500F-830"},
                {"soak", "5-10"},
                {"as_quenched", "62 64 66"},
                {"quench", "fast oil"},
                {"curve", "150:2=63 200:2=61 250:2=58.5 300:2=56"}};
    }

private slots:
    void aGradeOfItsOwn() {
        const Grade grade = gradeFromSheet(whole(), tables()).value();
        QVERIFY(grade.own);
        QCOMPARE(grade.composition.size(), std::size_t(3));
        QVERIFY(!grade.composition[2].high);
        QVERIFY(std::abs(*grade.austenitise_c.low - 815.56) < 0.01);
        QVERIFY(std::abs(grade.hj_c - (21.3 - 5.8 * 0.8)) < 1e-9); // M19 by its carbon
        QVERIFY(std::abs(grade.alloy_percent - 0.65) < 1e-9);
        QCOMPARE(grade.temper_curve.size(), std::size_t(4));
    }
    void basedOnAnother() {
        const Grade grade =
            gradeFromSheet({{"name", "Our 1084"}, {"based_on", "1084"}, {"soak", "4-6"}}, tables()).value();
        QCOMPARE(*grade.soak_minutes.high, 6.0);
        QCOMPARE(grade.as_quenched_min, tables().grade("1084")->as_quenched_min);
    }
    void writtenDownAndReadBack_data() {
        QTest::addColumn<QString>("name");
        for (const Grade& grade : tables().grades())
            QTest::newRow(grade.name.c_str()) << QString::fromStdString(grade.name);
    }
    void writtenDownAndReadBack() {
        QFETCH(QString, name);
        const Grade& grade = *tables().grade(name.toStdString());
        GradeSheet sheet = sheetOf(grade);
        sheet["based_on"] = grade.name;
        const Grade back = gradeFromSheet(sheet, tables()).value();
        QCOMPARE(back.composition.size(), grade.composition.size());
        QCOMPARE(back.as_quenched_typical, grade.as_quenched_typical);
        QCOMPARE(back.temper_curve.size(), grade.temper_curve.size());
        QVERIFY(std::abs(back.alloy_percent - grade.alloy_percent) < 1e-9);
    }
    void wrongFieldsAreNamed_data() {
        QTest::addColumn<QString>("field");
        QTest::addColumn<QString>("text");
        QTest::newRow("no name") << "name"
                                 << "";
        QTest::newRow("unknown base") << "based_on"
                                      << "moon steel";
        QTest::newRow("no range") << "composition"
                                  << "C much";
        QTest::newRow("ends swapped") << "composition"
                                      << "C 1.0-0.9";
        QTest::newRow("no dash") << "austenitise"
                                 << "800";
        QTest::newRow("too hot") << "austenitise"
                                 << "800-1500";
        QTest::newRow("falling") << "as_quenched"
                                 << "66 64 62";
        QTest::newRow("short curve") << "curve"
                                     << "150:2=63 200:2=61";
        QTest::newRow("curve runs back") << "curve"
                                         << "150:2=63 140:2=61 250:2=58 300:2=56";
        QTest::newRow("missing") << "quench"
                                 << "";
        QTest::newRow("confidence") << "confidence"
                                    << "sure";
    }
    void wrongFieldsAreNamed() {
        QFETCH(QString, field);
        QFETCH(QString, text);
        GradeSheet sheet = whole();
        sheet[field.toStdString()] = text.toStdString();
        const auto grade = gradeFromSheet(sheet, tables());
        QVERIFY(!grade);
        QCOMPARE(QString::fromStdString(grade.error().place), field);
    }
    void ownOnesComeFirstShippedOnesStay() {
        const Tables merged = withSheets(tables(), {{{"name", "1084"}, {"based_on", "1084"}, {"soak", "4-6"}},
                                                    {{"name", "ours"}, {"based_on", "1084"}},
                                                    {{"name", "broken"}}});
        QCOMPARE(merged.grades().size(), tables().grades().size() + 2);
        QVERIFY(merged.grade("1084")->own);
        QCOMPARE(*merged.grade("ours")->soak_minutes.high, 6.0); // based on the own one before it
        QVERIFY(!tables().grade("1084")->own);
    }
    void foundByAlias() {
        const auto names = [](const char* text) {
            QStringList found;
            for (const Grade* grade : searchGrades(tables().grades(), text))
                found << QString::fromStdString(grade->name);
            return found;
        };
        QCOMPARE(names("skd11"), QStringList{"D2"});
        QCOMPARE(names("1.2210"), QStringList{"115CrV3"});
        QVERIFY(names("100cr6").contains("52100"));
        QCOMPARE(names("O1").first(), QStringLiteral("O1"));
        QVERIFY(names("").size() == int(tables().grades().size()));
    }
};

QTEST_APPLESS_MAIN(tst_GradeSheet)
#include "tst_grade_sheet.moc"
