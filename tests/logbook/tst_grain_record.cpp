// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/grain.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_GrainRecord : public QObject {
    Q_OBJECT

    static CountedLine line() {
        CountedLine made;
        made.zone = FractureZone::edge;
        made.line = {true, {100, 80}, {150, 80}};
        made.crossings = {{0.125, 1}, {0.5, 0.5}, {0.75, 1.5}};
        return made;
    }

private slots:
    // What was put in comes back, after the file was closed; what was struck is marked, not gone.
    void photosScalesLinesAndRatings() {
        TempLogbook log;
        const Batch before = log.withBatch();
        const QByteArray bytes("not really a picture, kept as it is");
        FractureDraft draft;
        draft.blade = before.blades[0].id;
        draft.photo = {QStringLiteral("c-1.png"), bytes};
        draft.width = 640;
        draft.height = 440;
        const std::string id = addFracture(*log, draft).value();
        QVERIFY(scaleFracture(*log, id, 500, "500").ok());
        QVERIFY(scaleFracture(*log, id, 900, "450 px are 0.5 mm").ok());
        const std::string counted = countLine(*log, id, line()).value();
        QVERIFY(countLine(*log, id, line()).ok());
        QVERIFY(strikeLine(*log, counted, "miscounted").ok());
        QVERIFY(rateFracture(*log, id, {8, 8.5, {}}).ok());
        QVERIFY(askGrain(*log, before.id, 9).ok());
        QVERIFY(log.reopen().ok());
        const Batch batch = log->batch(before.id).value();
        QCOMPARE(*batch.grain_least, 9.0);
        const FracturePhoto& photo = batch.blades[0].fractures.at(0);
        QCOMPARE(photo.name, std::string("c-1.png"));
        QCOMPARE(*photo.px_per_mm, 900.0);
        QCOMPARE(photo.lines.size(), std::size_t(2));
        QVERIFY(photo.lines[0].struck && !photo.lines[1].struck);
        QCOMPARE(photo.lines[1].count(), 3.0);
        QCOMPARE(photo.lines[1].crossings[2].part, 0.75);
        QVERIFY(photo.lines[1].line.circle);
        QCOMPARE(photo.lines[1].zone, FractureZone::edge);
        QCOMPARE(photo.ratings.at(0).second, 8.5);
        QCOMPARE(log->fileOf(photo.sha256).value(), bytes);
        QVERIFY(strikeFracture(*log, id, "another piece").ok());
        QVERIFY(log->batch(before.id).value().blades[0].fractures.empty());
        QVERIFY(log->check().value().empty());
    }
    void whatCannotBeIsRefused() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        FractureDraft draft;
        draft.blade = batch.blades[0].id;
        draft.width = draft.height = 10;
        QVERIFY(!addFracture(*log, draft).ok()); // no file
        draft.photo = {QStringLiteral("a.png"), "x"};
        const std::string id = addFracture(*log, draft).value();
        QVERIFY(!scaleFracture(*log, id, 0, "0").ok());
        QVERIFY(!scaleFracture(*log, id, 1e6, "").ok());
        CountedLine bad = line();
        bad.crossings.push_back({1.2, 1});
        QVERIFY(!countLine(*log, id, bad).ok());
        bad = line();
        bad.crossings[0].weight = 2;
        QVERIFY(!countLine(*log, id, bad).ok());
        bad = line();
        bad.line.b = bad.line.a;
        QVERIFY(!countLine(*log, id, bad).ok());
        QVERIFY(!strikeFracture(*log, id, " ").ok());
        QVERIFY(!rateFracture(*log, id, {0, 8, {}}).ok());
        QVERIFY(!askGrain(*log, batch.id, 40).ok());
        QVERIFY(!log->fileOf("0000").ok());
        QVERIFY(log->batch(batch.id).value().blades[0].fractures[0].lines.empty());
    }
    // A photo that was changed in the file is not shown as what was taken.
    void aChangedPhotoIsFound() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        FractureDraft draft;
        draft.blade = batch.blades[0].id;
        draft.photo = {QStringLiteral("a.png"), "the photo"};
        draft.width = draft.height = 10;
        QVERIFY(addFracture(*log, draft).ok());
        log.close();
        QVERIFY(!TempLogbook::meddle(log.path(), "UPDATE attachment_blob SET bytes='other'").isEmpty());
        TempLogbook::meddle(log.path(),
                            "DROP TRIGGER attachment_blob_no_update;;UPDATE attachment_blob SET bytes='other'");
        QVERIFY(log.reopen().ok());
        const std::string sha = log->batch(batch.id).value().blades[0].fractures[0].sha256;
        QCOMPARE(log->fileOf(sha).error().kind, ErrorKind::damaged);
    }
};

QTEST_GUILESS_MAIN(tst_GrainRecord)
#include "tst_grain_record.moc"
