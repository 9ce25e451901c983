// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_SteelRecord : public QObject {
    Q_OBJECT

private slots:
    void theSteelComesBackWhole() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(log->changeLot(batch.id, "bar C", "river market", "H 1").ok());
        QVERIFY(log->addCertificate(batch.id, typedShot("C 1.1; Cr 0.6").value().elements, "mill.txt", "C 1.1").ok());
        QVERIFY(log->addCertificate(batch.id, typedShot("C 1.2").value().elements, {}, {}).ok()); // a later value
        ShotDraft shot;
        shot.batch = batch.id;
        shot.blade = batch.blades[1].id;
        shot.piece = "tang";
        shot.composition = typedShot("Cr 0.62 0.02; V <0.03").value();
        shot.file_name = "shot.csv";
        shot.file = "element,percent\n";
        const std::string id = log->addShot(shot).value();
        SteelNote note;
        note.kind = SteelNoteKind::changed;
        note.text = "carburised";
        note.marks = {"A-1", "A-2"};
        QVERIFY(log->addSteelNote(batch.id, note).ok());
        note = {};
        note.agrees = false;
        QVERIFY(log->addSteelNote(batch.id, note).ok());
        QVERIFY(log->assignGrade(batch.id, "O1", "composition").ok());
        QVERIFY(log->keepOwnGrade({{"name", "ours"}, {"based_on", "O1"}}).ok());
        QVERIFY(log->keepOwnGrade({{"name", "ours"}, {"based_on", "O2"}}).ok());

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
        QVERIFY(log->strikeShot(id, "wrong piece").ok());
        QVERIFY(log->batch(batch.id).value().shots[0].struck);
        QVERIFY(log->check().value().empty());
    }
    void whatCannotBeIsRefused() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(!log->addShot({batch.id, "", AnalysisMethod::xrf, "", {}, {}, {}}));
        QVERIFY(!log->assignGrade(batch.id, "O1", ""));
        QVERIFY(!log->keepOwnGrade({{"based_on", "O1"}}));
        QVERIFY(!log->addCertificate(batch.id, {}, {}, {}));
        BatchDraft draft;
        draft.name = "no grade";
        draft.blades = {{"X", BladeShape::knife(58, 16, 2), "2"}};
        draft.window = {60, 62};
        const std::string id = log->addBatch(draft).value();
        QVERIFY(!log->changeLot(id, "a", "b", "c"));
    }
};

QTEST_GUILESS_MAIN(tst_SteelRecord)
#include "tst_steel_record.moc"
