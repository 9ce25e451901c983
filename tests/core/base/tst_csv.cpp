// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/csv.h"

#include <QtTest>

using namespace rollcall;

class tst_Csv : public QObject {
    Q_OBJECT

private slots:
    // What parts the fields is counted outside of quotation marks.
    void aQuotedHeadIsOneField() {
        const auto table = readCsv("\"hardness; HRC; mean\",\"blade\"\n61.5,GK-1\n");
        QVERIFY(table.ok());
        QCOMPARE(table->separator, ',');
        QCOMPARE(table->header, (std::vector<std::string>{"hardness; HRC; mean", "blade"}));
        QCOMPARE(table->rows.front().fields, (std::vector<std::string>{"61.5", "GK-1"}));
    }

    void readsTheThreeSeparators_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::newRow("comma") << QByteArray("a,b,c\n1,2,3\n");
        QTest::newRow("semicolon, CRLF") << QByteArray("a;b;c\r\n1;2;3\r\n");
        QTest::newRow("tab, no last line end") << QByteArray("a\tb\tc\n1\t2\t3");
        QTest::newRow("byte order mark") << QByteArray("\xEF\xBB\xBF"
                                                       "a,b,c\n1,2,3\n");
        QTest::newRow("quotes and blanks") << QByteArray("\"a\", b ,c\n \"1\" ,2, 3\n");
    }
    void readsTheThreeSeparators() {
        QFETCH(QByteArray, text);
        const auto csv = readCsv(text.toStdString());
        QVERIFY(csv.ok());
        QCOMPARE(csv->header, (std::vector<std::string>{"a", "b", "c"}));
        QCOMPARE(csv->rows.size(), std::size_t(1));
        QCOMPARE(csv->rows[0].fields, (std::vector<std::string>{"1", "2", "3"}));
        QCOMPARE(csv->rows[0].line, 2);
    }

    void keepsLineNumbersAcrossEmptyAndQuotedLines() {
        const auto csv = readCsv("a,b\n\n1,\"two\nlines\"\n,\n3,4\n");
        QVERIFY(csv.ok());
        QCOMPARE(csv->rows.size(), std::size_t(2));
        QCOMPARE(csv->rows[0].line, 3);
        QCOMPARE(csv->rows[0].fields[1], std::string("two\nlines"));
        QCOMPARE(csv->rows[1].line, 6);
    }

    void anInchMarkInsideAFieldOpensNoQuote() {
        const auto csv = readCsv("a,b\n1,from 1/2\" bar\n2,x\n");
        QVERIFY(csv.ok());
        QCOMPARE(csv->rows.size(), std::size_t(2));
        QCOMPARE(csv->rows[1].line, 3);
    }

    void keepsADoubledQuote() {
        QCOMPARE(readCsv("a\n\"say \"\"ah\"\"\"\n")->rows[0].fields[0], std::string("say \"ah\""));
    }

    void findsColumnsWithoutRegardToCase() {
        const auto csv = readCsv("Batch, VALUE \nx,1\n");
        QCOMPARE(csv->column("value").value(), std::size_t(1));
        QVERIFY(!csv->column("blade").has_value());
    }

    void refusesWhatIsNoText() {
        QVERIFY(!readCsv("").ok());
        QVERIFY(!readCsv("  \n ").ok());
        QCOMPARE(readCsv("a,b\n\xFF\xFE,2\n").error().kind, ErrorKind::input);
        const auto open = readCsv("a,b\n1,2\n\"never closed,3\n4,5\n");
        QVERIFY(!open.ok());
        QCOMPARE(open.error().place, std::string("line 3"));
    }
};

QTEST_APPLESS_MAIN(tst_Csv)
#include "tst_csv.moc"
