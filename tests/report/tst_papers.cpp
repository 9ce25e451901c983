// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/release_judge.h"
#include "plot/look.h"
#include "report/batch_card.h"
#include "report/certificate.h"
#include "report/gate_table.h"
#include "report/page_picture.h"
#include "report/piece_card.h"
#include "report/pile.h"
#include "tests/support/paper_words.h"
#include "tests/support/read_batch.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;
using fixtures::wordsOf;

class tst_Papers : public QObject {
    Q_OBJECT

    static Batch read(int blades) { return fixtures::readBatch(blades); }
    static QString certificateOf(const Batch& batch) {
        return wordsOf([&](Paper& paper) {
            return drawCertificate(paper, batch, judgeBatch(batch, tables(), fixtures::at(12)), tables(),
                                   {QStringLiteral("Orchard tools"), {}, false, fixtures::at(15), false});
        });
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // E35: another school than the usual one is said on the certificate.
    void theRulesAreSaid() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"GK-1"});
        QVERIFY(!certificateOf(batch).contains("allowance"));
        batch.rule = DecisionRule::allowance;
        batch.allowance = 0.5;
        batch.verify_every = VerifyEvery::month;
        const QString paper = certificateOf(batch);
        QVERIFY2(paper.simplified().contains("or outside by at most 0.5 HRC."), qPrintable(paper));
        QVERIFY2(paper.contains("verified every month"), qPrintable(paper));
    }
    // What was done by heat, those treated alike in one line; and what lies beside the edge.
    void whatWasDoneByHeat() {
        Batch batch = read(3);
        for (Blade& blade : batch.blades)
            blade.tempers = {{"t1", 1, 1, 205, 2, "", {}}, {"t2", 1, 2, 207, 1.5, "", {}}};
        batch.blades[2].tempers.pop_back();
        batch.blades[2].colds.push_back({1, 0, -75, 1, {}});
        batch.blades[1].round = 2;
        for (Temper& temper : batch.blades[1].tempers) temper.round = 2;
        const auto plain = [](QString text) { return text.replace(QChar(0x202F), ' ').replace(QChar::Nbsp, ' '); };
        const QString paper = plain(certificateOf(batch));
        QVERIFY2(paper.contains("GK-1: tempered at 205 °C for 2 h, tempered at 207 °C for 1.5 h."), qPrintable(paper));
        QVERIFY2(paper.contains("GK-2: hardened 2 times, tempered at 205"), qPrintable(paper));
        QVERIFY2(paper.contains("GK-3: cold −75 °C for 1 h, tempered at 205 °C for 2 h.") ||
                     paper.contains("GK-3: cold -75 °C for 1 h, tempered at 205 °C for 2 h."),
                 qPrintable(paper));
        batch.blades[2] = batch.blades[0];
        batch.blades[2].mark = "GK-3";
        QVERIFY2(plain(certificateOf(batch)).contains("GK-1, GK-3: tempered at"), qPrintable(certificateOf(batch)));
    }
    // Only what goes out: the others, and what became of them, are not on it.
    void onlyReleasedPieces() {
        Batch batch = read(3);
        const BatchVerdicts then = judgeBatch(batch, tables(), fixtures::at(12));
        batch.blades[1].signatures = {
            {Disposition::release, 1, releaseBasis(then.blades[1]), "", "HB", fixtures::at(11)}};
        batch.blades[2].signatures = {
            {Disposition::scrap, 1, releaseBasis(then.blades[2]), "cracked in grinding", "HB", fixtures::at(11)}};
        const auto paper = [&](bool only) {
            return wordsOf([&](Paper& page) {
                return drawCertificate(page, batch, judgeBatch(batch, tables(), fixtures::at(12)), tables(),
                                       {{}, {}, false, fixtures::at(15), only});
            });
        };
        QVERIFY(paper(false).contains("GK-1") && paper(false).contains("cracked in grinding"));
        const QString own = paper(true);
        QVERIFY2(own.contains("GK-2") && own.contains("one piece"), qPrintable(own));
        QVERIFY2(!own.contains("GK-1") && !own.contains("GK-3") && !own.contains("cracked"), qPrintable(own));
    }
    // Readings superseded after the signature: it is stale, and the certificate says both.
    void aSignatureGoesStaleByASupersede() {
        Batch batch = read(2);
        const BatchVerdicts then = judgeBatch(batch, tables(), fixtures::at(12));
        batch.blades[0].signatures = {
            {Disposition::release, 1, releaseBasis(then.blades[0]), "", "HB", fixtures::at(11)}};
        QVERIFY(certificateOf(batch).contains("GK-1: Release, signed by HB"));
        QVERIFY(!certificateOf(batch).contains("stale"));
        for (Reading& reading : batch.blades[0].readings) {
            if (reading.gate == Gate::temper)
                reading.struck = Strike{StrikeReason::superseded, "read on another tester", "MK", fixtures::at(13)};
        }
        fixtures::read(batch.blades[0], Gate::temper, {61.3, 61.2, 61.4});
        const QString now = certificateOf(batch);
        QVERIFY2(now.contains("This signature is stale: temper was pass 62.10 then and is pass 61.10 now."),
                 qPrintable(now));
        QVERIFY(now.contains("signature stale")); // in the table
        QVERIFY(now.contains("61.1 ± ") && !now.contains("62.1 ± 0.5\n3\n65.0\nRelease"));
        QVERIFY2(now.contains("3 readings were superseded by other sets"), qPrintable(now));
        QVERIFY(now.contains("No accreditation is claimed"));
    }
    void thePile() {
        Batch batch = read(3);
        batch.claimed = "X50CrMoV15";
        batch.blades[2].readings.clear();
        const auto draw = [&](Paper& paper) {
            return drawPile(paper, pileRows(batch, judgeBatch(batch, tables(), fixtures::at(12))), "Pile",
                            "Orchard tools", fixtures::at(15));
        };
        const QString words = wordsOf(draw);
        QVERIFY2(words.contains("GK-1\nX50CrMoV15\nnot looked at\n62.1 ± "), qPrintable(words));
        QVERIFY2(words.contains("\ninside"), qPrintable(words));
        QVERIFY2(words.contains("GK-3\nX50CrMoV15\nnot looked at"), qPrintable(words));
        QVERIFY(words.contains("not read"));
        const Batch many = read(40);
        QCOMPARE(picturesOf(false, 40,
                            [&](Paper& paper) {
                                return drawPile(paper, pileRows(many, judgeBatch(many, tables(), fixtures::at(12))),
                                                "Pile", {}, fixtures::at(15));
                            })
                     .size(),
                 std::size_t(2));
    }
    // Eight a page; none for a piece that is out; the code is what a reader of codes types.
    void smallCards() {
        Batch batch = read(9);
        const auto draw = [&](Paper& paper) {
            return drawPieceCards(paper, batch, judgeBatch(batch, tables(), fixtures::at(12)), tables(),
                                  "Orchard tools");
        };
        const auto pages = picturesOf(true, 60, draw);
        QCOMPARE(pages.size(), std::size_t(2));
        QVERIFY(pages[1] != pages[0] && pages[1].pixelColor(5, 5) == Qt::white);
        QVERIFY(wordsOf(draw).contains("GK-9"));
        batch.blades[8].fate = BladeFate{};
        QCOMPARE(picturesOf(true, 60, draw).size(), std::size_t(1));
        QVERIFY(!wordsOf(draw).contains("GK-9"));

        batch.blades[0].mark = "a@b";
        const QString code = pieceCode(batch.blades[0], batch);
        QCOMPARE(code, QStringLiteral("#a@b@Orchard 12"));
        QCOMPARE(pieceNamed(code)->mark, QStringLiteral("a@b"));
        QCOMPARE(pieceNamed(code)->batch, QStringLiteral("Orchard 12"));
        QCOMPARE(pieceNamed("#GK-4")->batch, QString());
        QVERIFY(!pieceNamed("#") && !pieceNamed("#@Orchard 12") && !pieceNamed("GK-4"));
    }
    // The card numbers its spots through quench and temper: no two readings share one, and each is far enough from the
    // next for marks ten points softer than the window.
    void spotsOfTheBlankCard() {
        Batch batch = read(1);
        const std::vector<Spot> spots = cardSpots(batch, batch.blades[0], tables());
        QCOMPARE(cardReadings(batch, Gate::quench), 3);
        QCOMPARE(spots.size(), std::size_t(6));
        for (std::size_t i = 1; i < spots.size(); ++i) QVERIFY(distance(spots[i - 1], spots[i]) >= 3 * 0.60);
        QVERIFY(wordsOf([&](Paper& paper) {
                    return drawBatchCard(paper, batch, tables(), fixtures::at(15));
                }).contains("temper 4–6"));
        batch.blades[0].shape.outline.clear();
        QVERIFY(cardSpots(batch, batch.blades[0], tables()).empty());
    }
    void tablesOfTheGates() {
        const Batch batch = read(2);
        const BatchVerdicts verdicts = judgeBatch(batch, tables(), fixtures::at(12));
        const auto rows = [&](Gate gate) { return gateTable(batch, verdicts, tables(), gate).rows.size(); };
        QCOMPARE(rows(Gate::quench), std::size_t(6));
        QCOMPARE(rows(Gate::temper), std::size_t(6));
        QCOMPARE(rows(Gate::heat), std::size_t(2));
        QCOMPARE(rows(Gate::release), std::size_t(2));
        QCOMPARE(rows(Gate::edge), std::size_t(0));
        QCOMPARE(gateTable(batch, verdicts, tables(), Gate::heat).rows[0][3].toDouble(), 205.0);
        const ReportTable runs = runTable(batch.verifications, batch.testers);
        QCOMPARE(runs.rows[0][5].toDouble(), 0.2); // 62.8 on a block of 62.6
        QCOMPARE(runs.rows[0][6].toDouble(), 0.2); // 62.7 to 62.9
        QCOMPARE(runs.rows[0][0].toString(), QStringLiteral("Bench 1"));
        for (const ReportTable& table : allTables(batch, verdicts, tables())) {
            QVERIFY(!table.rows.empty());
            for (const QVariantList& row : table.rows) QCOMPARE(row.size(), table.head.size());
        }
    }
};

QTEST_MAIN(tst_Papers)
#include "tst_papers.moc"
