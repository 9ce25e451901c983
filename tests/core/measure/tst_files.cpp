// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/files.h"

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
};

QTEST_APPLESS_MAIN(tst_Files)
#include "tst_files.moc"
