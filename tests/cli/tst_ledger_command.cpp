// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "tests/support/demo.h"
#include "tests/support/fixtures.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QtTest>

using namespace rollcall;

// The ledger from the command line: the same questions as on its pages, of the demo's shop.
class tst_LedgerCommand : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    QString m_demo;

    cli::Answer run(const QStringList& words) {
        return cli::run(QStringList{"ledger", m_demo} + words, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
    }
    QJsonObject answer(const QStringList& words) {
        const cli::Answer answer = run(words);
        if (answer.exit_code != 0) qWarning() << answer.error;
        return QJsonDocument::fromJson(answer.output).object();
    }
    static QStringList column(const QJsonObject& answer, int column) {
        QStringList texts;
        for (const QJsonValue row : answer["rows"].toArray()) texts << row.toArray()[column].toVariant().toString();
        return texts;
    }
    static QString lines(const QJsonObject& answer) {
        QStringList texts;
        for (const QJsonValue line : answer["lines"].toArray()) texts << line.toObject()["text"].toString();
        return texts.join('\n');
    }
    QByteArray bytes(const QString& path) {
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
    }

private slots:
    void initTestCase() {
        m_demo = m_dir.filePath("demo.rollcall");
        fixtures::putDemo(m_demo);
    }

    // Each row of the table is as wide as its head, and each answer says something in words.
    void everyQuestion_data() {
        QTest::addColumn<QStringList>("words");
        QTest::addColumn<QString>("head");
        QTest::newRow("week") << QStringList{"week"} << "What changed";
        QTest::newRow("tempers") << QStringList{"tempers"} << "Batch";
        QTest::newRow("against") << QStringList{"against", "--factor", "tester"} << "Tester";
        QTest::newRow("drift") << QStringList{"drift"} << "Day";
        QTest::newRow("yield") << QStringList{"yield"} << "Gate or month";
        QTest::newRow("tried") << QStringList{"tried", "--by", "hardness"} << "Group";
        QTest::newRow("what if") << QStringList{"what-if", "--low-by", "0.5"} << "Batch";
    }
    void everyQuestion() {
        QFETCH(QStringList, words);
        QFETCH(QString, head);
        const QJsonObject said = answer(words);
        QVERIFY(!said["answer"].toString().isEmpty() && !said["sentence"].toString().isEmpty());
        QCOMPARE(said["head"].toArray()[0].toString(), head);
        QVERIFY(!said["rows"].toArray().isEmpty());
        for (const QJsonValue row : said["rows"].toArray())
            QCOMPARE(row.toArray().size(), said["head"].toArray().size());
    }
    // The demo's finished batches read 0.2 harder by the tester's error, which is corrected: about 62.0 at the end.
    void tempersOfAGrade() {
        const QJsonObject said = answer({"tempers", "--grade", "115CrV3"});
        int groves = 0;
        for (const QJsonValue row : said["rows"].toArray()) {
            if (!row.toArray()[0].toString().startsWith("Grove")) continue;
            ++groves;
            QVERIFY(std::abs(row.toArray()[3].toDouble() - 62.0) < 0.7);
            QCOMPARE(row.toArray()[7].toInt(), 6); // blades
        }
        QCOMPARE(groves, 12);
        QVERIFY2(lines(said).contains("95 %"), qPrintable(lines(said)));
    }
    void driftOfATester() {
        const QJsonObject said = answer({"drift", "--series", "Bench 1 on block 62.6"});
        QCOMPARE(said["answer"].toString(), QString("Something changed"));
        QVERIFY2(lines(said).contains("+0.02 HRC a week"), qPrintable(lines(said))); // as the demo has it
        QVERIFY(column(said, 3).contains("beyond the limits"));
        const cli::Answer wrong = run({"drift", "--series", "Bench 9"});
        QCOMPARE(wrong.exit_code, 2);
        QVERIFY2(wrong.error.contains("Bench 1 on block 62.6"), wrong.error.constData());
    }
    void whatIfOfARule() {
        const QJsonObject now = answer({"what-if"});
        QCOMPARE(now["answer"].toString(), QString("As it is"));
        QVERIFY(now["rows"].toArray().isEmpty());
        const QJsonObject plain = answer({"what-if", "--rule", "plain", "--grade", "115CrV3"});
        for (const QJsonValue row : plain["rows"].toArray()) {
            QCOMPARE(row.toArray()[2].toString(), QString("115CrV3"));
            QVERIFY(row.toArray()[6].toString() != row.toArray()[7].toString());
        }
        QVERIFY2(lines(plain).contains("A next batch in 61.0 to 63.0"), qPrintable(lines(plain)));
    }
    void itIsWritten() {
        const QString csv = m_dir.filePath("yield.csv");
        const QString svg = m_dir.filePath("yield.svg");
        const QString pdf = m_dir.filePath("yield.pdf");
        const QJsonObject said =
            answer({"yield", "--csv", csv, "--svg", svg, "--pdf", pdf, "--letter", "--shop", "Orchard tools"});
        QCOMPARE(QString::fromUtf8(bytes(csv)).trimmed().split('\n').size(), said["rows"].toArray().size() + 1);
        QVERIFY(bytes(svg).contains("<svg"));
        QVERIFY(bytes(pdf).startsWith("%PDF"));
    }
    void whatIsRefused_data() {
        QTest::addColumn<QStringList>("words");
        QTest::addColumn<QByteArray>("says");
        QTest::newRow("no question") << QStringList{"weather"} << QByteArray("week, tempers, against");
        QTest::newRow("factor") << QStringList{"against", "--factor", "moon"} << QByteArray("recipe, oven, medium");
        QTest::newRow("by") << QStringList{"tried", "--by", "colour"} << QByteArray("grade, purpose, hardness");
        QTest::newRow("rule") << QStringList{"what-if", "--rule", "luck"} << QByteArray("guarded, plain, allowance");
        QTest::newRow("number") << QStringList{"what-if", "--low-by", "much"} << QByteArray("low-by");
        QTest::newRow("far") << QStringList{"what-if", "--low-by", "1000"} << QByteArray("-100 to 100");
        QTest::newRow("grade") << QStringList{"tempers", "--grade", "Unobtainium"} << QByteArray("not in the library");
        QTest::newRow("study") << QStringList{"study", "--study", "Soak"} << QByteArray("no study of this name");
        QTest::newRow("no study") << QStringList{"study"} << QByteArray("study");
    }
    void whatIsRefused() {
        QFETCH(QStringList, words);
        QFETCH(QByteArray, says);
        const cli::Answer answer = run(words);
        QCOMPARE(answer.exit_code, 2);
        QVERIFY2(answer.error.contains(says), answer.error.constData());
        QVERIFY(answer.output.isEmpty());
    }
};

QTEST_MAIN(tst_LedgerCommand)
#include "tst_ledger_command.moc"
