// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/files.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_Files : public QObject {
    Q_OBJECT

    static std::vector<FileTrial> trials(const QString& text) {
        std::vector<FileTrial> list;
        for (const QString& word : text.split(' ', Qt::SkipEmptyParts)) {
            const FileTouch touch = word[0] == 's'   ? FileTouch::skates
                                    : word[0] == 'b' ? FileTouch::bites
                                                     : FileTouch::touches;
            list.push_back({word.mid(1).toDouble(), touch});
        }
        return list;
    }

private slots:
    void brackets_data() {
        QTest::addColumn<QString>("files"); // s skates, b bites, t barely catches
        QTest::addColumn<double>("lower");  // 0: open
        QTest::addColumn<double>("upper");
        QTest::newRow("the worked example") << "s55 s60 b65 t60" << 60.0 << 61.5;
        QTest::newRow("hard to soft, the same") << "b65 t60 s60 s55" << 60.0 << 61.5;
        QTest::newRow("no touch") << "s55 s60 b65" << 60.0 << 65.0;
        QTest::newRow("all skate") << "s50 s65" << 65.0 << 0.0;
        QTest::newRow("all bite") << "b50 b65" << 0.0 << 50.0;
        QTest::newRow("one touches only") << "t58" << 56.5 << 59.5;
        QTest::newRow("nothing tried") << "" << 0.0 << 0.0;
        QTest::newRow("touch above the skate") << "s60 t62 b65" << 60.5 << 63.5;
    }
    void brackets() {
        QFETCH(QString, files);
        const FileBracket bracket = fileBracket(trials(files));
        QCOMPARE(bracket.conflict, FileConflict::none);
        QTEST(bracket.lower.value_or(0), "lower");
        QTEST(bracket.upper.value_or(0), "upper");
    }

    void contradictions_data() {
        QTest::addColumn<QString>("files");
        QTest::addColumn<int>("conflict");
        QTest::newRow("one file did both") << "s55 s60 b60" << int(FileConflict::oneFileDidBoth);
        QTest::newRow("softer bit") << "s62 b58" << int(FileConflict::softerBit);
        QTest::newRow("touch too soft") << "s62 b65 t58" << int(FileConflict::touchDoesNotMatch);
        QTest::newRow("two touches far apart") << "t55 t60" << int(FileConflict::touchDoesNotMatch);
    }
    void contradictions() {
        QFETCH(QString, files);
        const FileBracket bracket = fileBracket(trials(files));
        QTEST(int(bracket.conflict), "conflict");
        QVERIFY(!bracket.lower && !bracket.upper); // what contradicts itself brackets nothing
    }

    // Whatever the blade is, the files are tried in the order that leaves the least: six files say all in three tries.
    void theNextFileHalvesTheBracket() {
        const std::vector<double> set{40, 45, 50, 55, 60, 65};
        for (double blade = 37; blade < 70; blade += 1) {
            std::vector<FileTrial> done;
            while (const auto next = nextFile(set, done)) {
                done.push_back({*next, blade > *next ? FileTouch::skates : FileTouch::bites});
                QVERIFY2(done.size() <= 3, qPrintable(QString::number(blade)));
            }
            const FileBracket bracket = fileBracket(done);
            QVERIFY(bracket.conflict == FileConflict::none);
            QVERIFY(!bracket.lower || *bracket.lower < blade);
            QVERIFY(!bracket.upper || *bracket.upper >= blade);
            // No file of the set could tell more.
            for (const double file : set)
                QVERIFY(!(file > bracket.lower.value_or(0) && file < bracket.upper.value_or(100)));
        }
    }
    void theNextFile() {
        QVERIFY(!nextFile({}, {}));
        QCOMPARE(nextFile({62}, {}).value(), 62.0);
        QVERIFY(!nextFile({62}, trials("s62")));
        QCOMPARE(nextFile({50, 55, 60, 65}, trials("b60")).value(), 55.0);
        QVERIFY(!nextFile({50, 55, 60, 65}, trials("s60 b55"))); // contradict each other: repeat first
    }

    // E37, by hand: a file is known to 1.5, so two files 5 apart need 8 of width; 65 confirms 63.5 at most.
    void whatASetCanConfirm() {
        const std::vector<double> set{40, 45, 50, 55, 60, 65};
        QCOMPARE(filesReach(set).narrowest, 8.0);
        QCOMPARE(filesReach(set).highest, 63.5);
        QVERIFY(std::isinf(filesReach({62}).narrowest));
        QCOMPARE(filesReach({62}).highest, 60.5);
        QVERIFY(filesConfirm(set, 53.5, 61.5));  // 55 skates, 60 bites
        QVERIFY(!filesConfirm(set, 54.0, 61.5)); // half a point too narrow below
        QVERIFY(!filesConfirm(set, 58.0, 60.0)); // no file lies that well
        QVERIFY(filesConfirm(set, 63.5, {}) && !filesConfirm(set, 64.0, {}));
        QVERIFY(filesConfirm(set, {}, 50.0));     // only an upper limit
        QVERIFY(!filesConfirm({62}, 58.0, 66.0)); // one file never brackets
        QVERIFY(!filesConfirm({}, 50.0, {}));
    }
};

QTEST_APPLESS_MAIN(tst_Files)
#include "tst_files.moc"
