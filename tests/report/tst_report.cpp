// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/csv.h"
#include "core/judge/release_judge.h"
#include "plot/look.h"
#include "report/batch_card.h"
#include "report/batch_table.h"
#include "report/certificate.h"
#include "tests/support/read_batch.h"

#include <QTemporaryDir>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

Batch read(int blades) {
    Batch batch = fixtures::readBatch(blades);
    for (Blade& blade : batch.blades) {
        double x = 8;
        for (Reading& reading : blade.readings) reading.spot = Spot{x += 6, 2.6};
    }
    return batch;
}

// What a PDF draws, with its streams unpacked as far as a reader of the file's own text needs: page count and fonts.
QByteArray bytesOf(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

} // namespace

class tst_Report : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // 62.3 read, error 0.2: 62.1 corrected, as text and as number.
    void theTableOfBlades() {
        Batch batch = read(2);
        batch.blades[0].mark = "GK \"1\", long";
        const BatchVerdicts verdicts = judgeBatch(batch, tables(), fixtures::at(12));
        batch.blades[1].signatures = {
            {Disposition::release, 1, releaseBasis(verdicts.blades[1]), "", "HB", fixtures::at(11)}};
        const ReportTable table = bladeTable(batch, verdicts, tables());
        const auto csv = readCsv(csvOf(table).toStdString()).value();
        QCOMPARE(csv.rows.size(), std::size_t(2));
        QCOMPARE(csv.rows[0].fields[0], batch.blades[0].mark);
        QCOMPARE(csv.rows[0].fields[*csv.column("HRC")], std::string("62.1"));
        QCOMPARE(csv.rows[0].fields[*csv.column("inside")], std::string("Pass"));
        QCOMPARE(csv.rows[0].fields[*csv.column("decision")], std::string());
        QCOMPARE(csv.rows[1].fields[*csv.column("decision")], std::string("Release"));
        QCOMPARE(csv.rows[1].fields[*csv.column("signed by")], std::string("HB"));
        QCOMPARE(table.rows[0][3].typeId(), int(QMetaType::Double));
    }
    // A mark that a spreadsheet would run stands as text there; a negative number stays one.
    void aTableRunsNothing() {
        ReportTable table{"t", {"mark"}, {}};
        const std::vector<std::pair<QVariant, std::string>> cells{
            {QStringLiteral("=1+1"), "'=1+1"}, {QStringLiteral("+SUM(A1)"), "'+SUM(A1)"}, {QStringLiteral("@x"), "'@x"},
            {QStringLiteral("-2+3"), "'-2+3"}, {QStringLiteral("-0.4"), "-0.4"},          {-0.4, "-0.4"},
            {QStringLiteral("GK-1"), "GK-1"}};
        for (const auto& [cell, expected] : cells) table.rows.push_back({cell});
        const auto csv = readCsv(csvOf(table).toStdString()).value();
        for (std::size_t i = 0; i < cells.size(); ++i) QCOMPARE(csv.rows[i].fields[0], cells[i].second);
    }
    void theWorkbook() {
        const Batch batch = read(3);
        const BatchVerdicts verdicts = judgeBatch(batch, tables(), fixtures::at(12));
        const QString path = m_dir.filePath("book.xlsx");
        QVERIFY(writeWorkbook(path, {bladeTable(batch, verdicts, tables()), readingTable(batch)}).ok());
        QVERIFY(bytesOf(path).startsWith("PK")); // a zip, as every workbook is
        QCOMPARE(readingTable(batch).rows.size(), std::size_t(18));
        QVERIFY(!writeWorkbook(m_dir.filePath("none/book.xlsx"), {readingTable(batch)}).ok());
    }
    // More blades than a page holds go on on the next ones; the typefaces are in the file.
    void theCertificate() {
        const QString path = m_dir.filePath("c.pdf");
        CertificateOptions options;
        options.shop = QStringLiteral("Orchard and hedgerow tools");
        options.now = fixtures::at(15);
        const Batch few = read(3);
        const BatchVerdicts verdicts = judgeBatch(few, tables(), fixtures::at(12));
        const int pages = writeCertificate(path, few, verdicts, tables(), options).value();
        QVERIFY(pages >= 1 && pages <= 2);
        const QByteArray pdf = bytesOf(path);
        QVERIFY(pdf.startsWith("%PDF-"));
        QVERIFY(pdf.contains("/FontFile2")); // embedded TrueType
        QVERIFY(pdf.contains("/ToUnicode")); // text can be selected
        const Batch many = read(80);
        const int more =
            writeCertificate(path, many, judgeBatch(many, tables(), fixtures::at(12)), tables(), options).value();
        QVERIFY2(more >= 4, qPrintable(QString::number(more)));
        QCOMPARE(bytesOf(path).count("/Type /Page\n"), more);
        QVERIFY(!writeCertificate(m_dir.filePath("none/c.pdf"), few, verdicts, tables(), options).ok());
    }
    // A blank card has room for every blade that is in the batch; eighty need several pages.
    void theBlankCard() {
        const QString path = m_dir.filePath("card.pdf");
        Batch batch = read(4);
        QCOMPARE(writeBatchCard(path, batch, tables(), true, fixtures::at(15)).value(), 1);
        const qsizetype four = bytesOf(path).size();
        batch.blades[0].fate = BladeFate{Fate::scrapped, Gate::quench, "cracked", "HB", fixtures::at(9)};
        QCOMPARE(writeBatchCard(path, batch, tables(), true, fixtures::at(15)).value(), 1);
        QVERIFY(bytesOf(path).size() < four); // one row less
        QVERIFY(writeBatchCard(path, read(80), tables(), false, fixtures::at(15)).value() > 4);
        QVERIFY(!writeBatchCard(m_dir.filePath("none/c.pdf"), batch, tables(), false, fixtures::at(15)).ok());
    }
    void theRuleOfMeans() {
        const Batch batch = read(3);
        const RuleData rule = meansRule(batch, judgeBatch(batch, tables(), fixtures::at(12)));
        QCOMPARE(rule.readings.size(), std::size_t(3));
        QCOMPARE(rule.readings[1].label, QStringLiteral("2"));
        QVERIFY(std::abs(rule.readings[0].value - 62.1) < 0.01);
    }
};

QTEST_MAIN(tst_Report)
#include "tst_report.moc"
