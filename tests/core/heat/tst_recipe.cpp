// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/recipe.h"
#include "core/heat/temper.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Recipe : public QObject {
    Q_OBJECT

    static bool warns(const char* grade, const std::vector<RecipeStage>& stages, RecipeWarning warning) {
        Recipe recipe;
        recipe.stages = stages;
        const auto found = checkRecipe(recipe, tables().grade(grade));
        return std::any_of(found.begin(), found.end(), [&](const RecipeFinding& f) { return f.warning == warning; });
    }
    static RecipeStage stage(StageKind kind, double c, double minutes, std::optional<double> most = {},
                             const char* cooling = "") {
        return {kind, c, minutes, most, 10, cooling, ""};
    }

private slots:
    void findings_data() {
        QTest::addColumn<QString>("grade");
        QTest::addColumn<int>("kind");
        QTest::addColumn<double>("c");
        QTest::addColumn<double>("minutes");
        QTest::addColumn<QString>("cooling");
        QTest::addColumn<int>("warning");
        const auto row = [](const char* name, const char* grade, StageKind kind, double c, double minutes,
                            const char* cooling, RecipeWarning warning) {
            QTest::newRow(name) << grade << int(kind) << c << minutes << cooling << int(warning);
        };
        row("soak too cool", "115CrV3", StageKind::austenitise, 770, 8, "", RecipeWarning::soakBelowWindow);
        row("soak too hot", "115CrV3", StageKind::austenitise, 840, 8, "", RecipeWarning::soakAboveWindow);
        row("over Accm for long", "1095", StageKind::austenitise, 800, 20, "", RecipeWarning::aboveCarbideLine);
        row("too long", "1084", StageKind::austenitise, 815, 20, "", RecipeWarning::soakTooLong);
        row("too short", "O1", StageKind::austenitise, 800, 3, "", RecipeWarning::soakTooShort);
        row("embrittles", "1084", StageKind::temper, 260, 120, "", RecipeWarning::embrittles);
        row("embrittles between the branches", "D2", StageKind::temper, 400, 120, "", RecipeWarning::embrittles);
        row("not known", "S7", StageKind::temper, 300, 120, "", RecipeWarning::embrittlementUnknown);
        row("never normalise", "A2", StageKind::normalise, 900, 10, "", RecipeWarning::neverNormalise);
        row("normalised too cool", "1084", StageKind::normalise, 800, 10, "", RecipeWarning::normaliseOutside);
        row("plates for an oil steel", "1084", StageKind::quench, 20, 0, "plates", RecipeWarning::quenchMedium);
        row("one temper for stainless", "440C", StageKind::temper, 200, 120, "", RecipeWarning::tempersMissing);
    }
    void findings() {
        QFETCH(QString, grade);
        QFETCH(int, kind);
        QFETCH(double, c);
        QFETCH(double, minutes);
        QFETCH(QString, cooling);
        QFETCH(int, warning);
        QVERIFY(warns(grade.toUtf8().constData(),
                      {stage(StageKind(kind), c, minutes, {}, cooling.toUtf8().constData())}, RecipeWarning(warning)));
    }
    void orderIsLookedAt() {
        QVERIFY(warns("1084", {stage(StageKind::temper, 200, 120), stage(StageKind::quench, 50, 0, {}, "oil")},
                      RecipeWarning::orderOdd));
        Recipe recipe;
        QCOMPARE(checkRecipe(recipe, nullptr)[0].warning, RecipeWarning::gradeUnknown);
    }
    // A template of every grade passes its own check, and its tempers reach the middle of a sensible window.
    void templatesAreSound() {
        for (const Grade& grade : tables().grades()) {
            const double middle = grade.temper_curve[2].hrc;
            const Recipe recipe = templateFor(grade, true, middle);
            const RecipeStage* soak = recipe.stage(StageKind::austenitise);
            QVERIFY2(soak && soak->temperature_c == grade.austenitise_typical_c, grade.name.c_str());
            for (const RecipeFinding& finding : checkRecipe(recipe, &grade)) {
                const bool known = finding.warning == RecipeWarning::embrittlementUnknown ||
                                   (finding.warning == RecipeWarning::tempersMissing && recipe.tempers() == 0);
                QVERIFY2(known,
                         qPrintable(QString::fromStdString(grade.name) + QString(" %1").arg(int(finding.warning))));
            }
            QVERIFY2(grade.needsFullAnneal() == (recipe.stage(StageKind::normalise) == nullptr) || !grade.may_normalise,
                     grade.name.c_str());
        }
    }
};

QTEST_APPLESS_MAIN(tst_Recipe)
#include "tst_recipe.moc"
