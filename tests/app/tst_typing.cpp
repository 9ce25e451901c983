// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/batch/batch_form.h"
#include "app/shared/typed_reading.h"
#include "logbook/actions/blades.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

// What is typed into the reading field and the new-batch form.
class tst_Typing : public QObject {
    Q_OBJECT

    static FormValues form() {
        return {{"name", "Orchard 13"}, {"profile", "Quench and Temper"},
                {"count", "3"},         {"marks", "GK-#"},
                {"grade", "115crv3"},   {"purpose", "grafting knife"},
                {"window", "61 to 63"}, {"minimum", ""},
                {"thickness", "2,4"},   {"size", "58 x 16"},
                {"planned", "3"}};
    }

private slots:
    void readings_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<double>("value");
        QTest::newRow("point") << "62.1" << 62.1;
        QTest::newRow("comma") << "62,1" << 62.1;
        QTest::newRow("point left out") << "621" << 62.1;
        QTest::newRow("whole") << "62" << 62.0;
        QTest::newRow("lowest") << "200" << 20.0;
    }
    void readings() {
        QFETCH(QString, typed);
        QTEST(typedReading(typed.toStdString(), tables().scale("HRC").value()).value(), "value");
    }
    void readingsThatCannotBe() {
        const RockwellScale hrc = tables().scale("HRC").value();
        for (const char* typed : {"", "6", "921", "92.1", "705", "62.1.2", "6210"})
            QVERIFY2(!typedReading(typed, hrc).ok(), typed);
        QCOMPARE(typedReading("921", hrc).error().text, std::string("HRC reads 20 to 70. Type it again."));
    }

    void windows_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<double>("low");
        QTest::addColumn<double>("high");
        for (const char* text : {"61 to 63", "61:63", "61-63", "61 63", "61,0 to 63,0", "61.0–63"})
            QTest::newRow(text) << QString::fromUtf8(text) << 61.0 << 63.0;
        QTest::newRow("a minimum") << "64.5" << 64.5 << -1.0;
    }
    void windows() {
        QFETCH(QString, text);
        QFETCH(double, low);
        QFETCH(double, high);
        const WindowAnswer answer = windowFromText(text);
        QCOMPARE(answer.fault, QString());
        QCOMPARE(answer.window.low.value(), low);
        QCOMPARE(answer.window.high.value_or(-1), high);
    }
    void windowsThatCannotBe() {
        for (const char* text : {"hard", "63 to 61", "6 to 8", "61 to", "61 to 63 to 65"})
            QVERIFY2(!windowFromText(text).fault.isEmpty(), text);
    }

    void makesABatchFromTheForm() {
        const BatchAnswer answer = batchFromForm(form(), tables(), {});
        QCOMPARE(answer.fault.sentence, QString());
        const BatchDraft& draft = answer.draft;
        QCOMPARE(draft.blades.size(), std::size_t(3));
        QCOMPARE(draft.blades[2].mark, std::string("GK-3"));
        QCOMPARE(draft.grade, std::string("115CrV3"));
        QCOMPARE(draft.blades[0].shape.thickness_mm, 2.4);
        QCOMPARE(draft.blades[0].shape.length(), 58.0);
        QVERIFY(draft.plan[indexOf(Gate::quench)].required && draft.plan[indexOf(Gate::temper)].required);
        QVERIFY(!draft.minimum_tempers.has_value());
    }

    void finishedKnivesNeedNoLoggedTemper() {
        FormValues values = form();
        values["profile"] = "Finished knives: hardness only";
        QCOMPARE(batchFromForm(values, tables(), {}).draft.minimum_tempers.value(), 0);
        QVERIFY(!batchFromForm(values, tables(), {}).draft.plan[indexOf(Gate::quench)].required);
    }

    void saysWhatIsWrongAndWhere_data() {
        QTest::addColumn<QString>("field");
        QTest::addColumn<QString>("value");
        QTest::newRow("no name") << "name"
                                 << "";
        QTest::newRow("name in use") << "name"
                                     << "Orchard 12";
        QTest::newRow("no number of blades") << "count"
                                             << "nine";
        QTest::newRow("too many") << "count"
                                  << "1000";
        QTest::newRow("no marks") << "marks"
                                  << "";
        QTest::newRow("no window") << "window"
                                   << "";
        QTest::newRow("odd window") << "window"
                                    << "soft";
        QTest::newRow("odd minimum") << "minimum"
                                     << "99";
        QTest::newRow("odd thickness") << "thickness"
                                       << "thin";
        QTest::newRow("thickness in the wrong unit") << "thickness"
                                                     << "2.4 kg";
        QTest::newRow("odd size") << "size"
                                  << "long";
        QTest::newRow("no readings") << "planned"
                                     << "0";
    }
    void saysWhatIsWrongAndWhere() {
        QFETCH(QString, field);
        QFETCH(QString, value);
        FormValues values = form();
        values[field] = value;
        BatchSummary known;
        known.name = "Orchard 12";
        const FormFault fault = batchFromForm(values, tables(), {known}).fault;
        QCOMPARE(fault.field, field);
        QVERIFY(!fault.sentence.isEmpty());
    }

    void sameAgainFillsTheForm() {
        Batch like = fixtures::batch("115CrV3", {61, 63}, {"GK-1", "GK-2"});
        like.name = "Orchard 12";
        BatchSummary taken;
        taken.name = "Orchard 13";
        FormValues values;
        for (const FormField& field : batchFields(tables(), &like, {taken})) values[field.id] = field.value;
        QCOMPARE(values["name"], QStringLiteral("Orchard 14"));
        const BatchAnswer answer = batchFromForm(values, tables(), {taken});
        QCOMPARE(answer.fault.sentence, QString());
        QCOMPARE(answer.draft.blades.size(), std::size_t(2));
        QCOMPARE(answer.draft.blades[1].mark, std::string("GK-2"));
        QCOMPARE(answer.draft.window, like.window);
    }
};

QTEST_APPLESS_MAIN(tst_Typing)
#include "tst_typing.moc"
