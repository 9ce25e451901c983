// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/steel.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_SteelRecord : public QObject {
    Q_OBJECT

private slots:
    void theSteelComesBackWhole() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(changeLot(*log, batch.id, "bar C", "river market", "H 1").ok());
        QVERIFY(addCertificate(*log, batch.id, typedShot("C 1.1; Cr 0.6").value().elements, "mill.txt", "C 1.1").ok());
        QVERIFY(addCertificate(*log, batch.id, typedShot("C 1.2").value().elements, {}, {}).ok()); // a later value
        ShotDraft shot;
        shot.batch = batch.id;
        shot.blade = batch.blades[1].id;
        shot.piece = "tang";
        shot.composition = typedShot("Cr 0.62 0.02; V <0.03").value();
        shot.file_name = "shot.csv";
        shot.file = "element,percent\n";
        const std::string id = addShot(*log, shot).value();
        SteelNote note;
        note.kind = SteelNoteKind::changed;
        note.text = "carburised";
        note.marks = {"A-1", "A-2"};
        QVERIFY(addSteelNote(*log, batch.id, note).ok());
        note = {};
        note.agrees = false;
        QVERIFY(addSteelNote(*log, batch.id, note).ok());
        QVERIFY(assignGrade(*log, batch.id, "O1", "composition").ok());
        QVERIFY(keepOwnGrade(*log, {{"name", "ours"}, {"based_on", "O1"}}).ok());
        QVERIFY(keepOwnGrade(*log, {{"name", "ours"}, {"based_on", "O2"}}).ok());

        QVERIFY(log.reopen().ok());
        const Batch back = log->batch(batch.id).value();
        QCOMPARE(back.grade, std::string("O1"));
        QCOMPARE(back.claimed, std::string("115CrV3"));
        QVERIFY(back.lot == "bar C" && back.supplier == "river market" && back.heat_number == "H 1");
        QCOMPARE(back.certificate.size(), std::size_t(2));
        double carbon = 0;
        for (const ElementReading& value : back.certificate) carbon = value.element == "C" ? *value.percent : carbon;
        QCOMPARE(carbon, 1.2);
        const SteelShot& stored = back.shots.at(0);
        QVERIFY(stored.blade == batch.blades[1].id && stored.piece == "tang" && !stored.struck);
        QCOMPARE(stored.composition.elements[0].sigma.value(), 0.02);
        QVERIFY(!stored.composition.elements[1].percent && *stored.composition.elements[1].lod == 0.03);
        QCOMPARE(back.steel_notes[0].marks, (std::vector<std::string>{"A-1", "A-2"}));
        QCOMPARE(back.steel_notes[1].agrees, std::optional<bool>(false));
        QCOMPARE(log->batches().value()[0].grade, std::string("O1"));
        const auto own = log->shop().value().own_grades;
        QCOMPARE(own.size(), std::size_t(1));
        QCOMPARE(own[0].at("based_on"), std::string("O2"));
        QVERIFY(strikeShot(*log, id, "wrong piece").ok());
        QVERIFY(log->batch(batch.id).value().shots[0].struck);
        QVERIFY(log->check().value().empty());
    }
    void whatCannotBeIsRefused() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(!addShot(*log, {batch.id, "", AnalysisMethod::xrf, "", {}, {}, {}}));
        QVERIFY(!assignGrade(*log, batch.id, "O1", ""));
        QVERIFY(!keepOwnGrade(*log, {{"based_on", "O1"}}));
        QVERIFY(!addCertificate(*log, batch.id, {}, {}, {}));
        BatchDraft draft;
        draft.name = "no grade";
        draft.blades = {{"X", BladeShape::knife(58, 16, 2), "2"}};
        draft.window = {60, 62};
        const std::string id = addBatch(*log, draft).value();
        QVERIFY(!changeLot(*log, id, "a", "b", "c"));
    }
};

QTEST_GUILESS_MAIN(tst_SteelRecord)
#include "tst_steel_record.moc"
