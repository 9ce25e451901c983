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
    // Chromium makes it stainless, cobalt asks for a third temper: what follows from the composition follows here too.
    void whatFollowsFromTheComposition() {
        GradeSheet sheet = whole();
        sheet["composition"] = "C 0.9-1.1; Cr 13-15; Co 4-6; ;";
        sheet["embrittle"] = "400-550";
        sheet["note"] = "from the box behind the forge";
        sheet["aliases"] = "Box 9, the shiny one";
        sheet["curve"] = "150:2=63  200:2=61 250:2=58.5 300:2=56";
        const Grade grade = gradeFromSheet(sheet, tables()).value();
        QCOMPARE(grade.chromium_percent, 14.0);
        QCOMPARE(grade.cobalt_max, 6.0);
        QCOMPARE(grade.alloy_percent, 19.0);
        QCOMPARE(grade.hj_c, Grade().hj_c); // M19: not by carbon where there is this much alloy
        QVERIFY(grade.embrittle_c.holds(475) && !grade.embrittle_c.holds(375));
        QCOMPARE(grade.aliases, (std::vector<std::string>{"Box 9", "the shiny one"}));
        QCOMPARE(grade.note, sheet["note"]);
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
    // Parts so small that they are written with an exponent, and a minus before nothing, as it is shown on screen.
    void smallPartsAreReadBack() {
        GradeSheet sheet = whole();
        sheet["composition"] = "C 0.00005-0.85; Cr 5e-05-0.6; V \xE2\x88\x92"
                               "0-0.2";
        const Grade grade = gradeFromSheet(sheet, tables()).value();
        const auto back = gradeFromSheet(sheetOf(grade), tables());
        QVERIFY2(back.ok(), back.ok() ? "" : back.error().message().c_str());
        for (const std::size_t element : {std::size_t(0), std::size_t(1)}) {
            QCOMPARE(*back->composition[element].low, 0.00005);
            QCOMPARE(*back->composition[element].high, element == 0 ? 0.85 : 0.6);
        }
        QCOMPARE(*back->composition[2].low, 0.0);
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
        QTest::newRow("an end that is no number") << "austenitise"
                                                  << "eight-830";
        QTest::newRow("one end only") << "soak"
                                      << "5-";
        QTest::newRow("an element alone") << "composition"
                                          << "C0.9-1.0";
        QTest::newRow("more than all of it") << "composition"
                                             << "C 0.9-101";
        QTest::newRow("a range without ends") << "composition"
                                              << "C -";
        QTest::newRow("nothing in it") << "composition"
                                       << ";";
        QTest::newRow("a point without its hours") << "curve"
                                                   << "150=63 200:2=61 250:2=58.5 300:2=56";
        QTest::newRow("a point hotter than any oven") << "curve"
                                                      << "150:2=63 200:2=61 250:2=58.5 800:2=56";
        QTest::newRow("softer than Rockwell C reads") << "curve"
                                                      << "150:2=63 200:2=61 250:2=58.5 300:2=9";
        QTest::newRow("brittle where no temper is") << "embrittle"
                                                    << "100-300";
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

    // A grade made of a shot: the ranges hold what was read, three errors wide where that is more than a tenth; with a
    // nearest grade it is a grade at once, without one it says what is missing.
    void aSheetOfAShot() {
        const auto shot = typedShot("Cr 13.2 0.1; Mo 0.55; V <0.05; C 0.9 0.1").value();
        const Grade* nearest = tables().grade("440C");
        const GradeSheet sheet = sheetOfShot(shot.elements, nearest, "Box 7");
        QCOMPARE(sheet.at("name"), std::string("Box 7"));
        QCOMPARE(sheet.at("confidence"), std::string("low"));
        QVERIFY2(sheet.at("composition").find("Cr 11.9-14.5") != std::string::npos, sheet.at("composition").c_str());
        QVERIFY2(sheet.at("composition").find("C 0.6-1.2") != std::string::npos, sheet.at("composition").c_str());
        QVERIFY2(sheet.at("composition").find("V -0.05") != std::string::npos, sheet.at("composition").c_str());
        QVERIFY(sheet.at("note").find("440C by guess") != std::string::npos);
        const auto grade = gradeFromSheet(sheet, tables());
        QVERIFY2(grade.ok(), grade.ok() ? "" : grade.error().text.c_str());
        QCOMPARE(grade->confidence, Confidence::low);
        QCOMPARE(grade->austenitise_c.low, nearest->austenitise_c.low);
        // The piece it was shot at answers to it.
        const Tables with = tables().withOwnGrades({*grade});
        const auto match = matchGrade({{shot.elements, AnalysisMethod::xrf}}, *with.grade("Box 7"), with);
        QVERIFY(match.ok() && match->claim != Claim::notConsistent);
        const auto bare = gradeFromSheet(sheetOfShot(shot.elements, nullptr, "Box 8"), tables());
        QVERIFY(!bare.ok() && !bare.error().place.empty());
    }
};

QTEST_APPLESS_MAIN(tst_GradeSheet)
#include "tst_grade_sheet.moc"
