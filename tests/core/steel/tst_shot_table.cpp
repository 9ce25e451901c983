// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/shot_table.h"

#include <algorithm>
#include <cmath>
#include <QtTest>

using namespace rollcall;

// Tables of shots as programs of analysers and spreadsheets write them, whatever their headers.
class tst_ShotTable : public QObject {
    Q_OBJECT

    static const ElementReading* of(const ShotTable::Row& row, const char* element) {
        const auto found = std::find_if(row.shot.elements.begin(), row.shot.elements.end(),
                                        [&](const ElementReading& one) { return one.element == element; });
        return found == row.shot.elements.end() ? nullptr : &*found;
    }

private slots:
    void aColumnAnElement_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::newRow("plain") << QByteArray("Blade,Cr,Mo,V\nK-1,13.2,0.55,<LOD\nK-2,0.3,<0.02,ND\n");
        QTest::newRow("units in brackets")
            << QByteArray("Sample,Cr [%],Mo [%],V [%]\nK-1,13.2,0.55,-\nK-2,0.3,<0.02,\n");
        QTest::newRow("per cent behind") << QByteArray(
            "knife;Cr %;Mo %;V %\nK-1;13,2;0,55;n.d.\nK-2;0,3;<0,02;< LOD\n");
        QTest::newRow("by weight") << QByteArray(
            "ID\tCr wt%\tMo wt%\tV wt%\nK-1\t13.2\t0.55\tBDL\nK-2\t0.3\t<0.02\tnd\n");
        QTest::newRow("other columns between")
            << QByteArray("No,Specimen,Date,Cr,Alloy,Mo,V\n1,K-1,2026-11-24,13.2,none,0.55,ND\n2,K-2,2026-11-24,0.3,x,"
                          "<0.02,ND\n");
    }
    void aColumnAnElement() {
        QFETCH(QByteArray, text);
        const auto table = readShotTable(text.toStdString());
        QVERIFY2(table.ok(), table.ok() ? "" : table.error().text.c_str());
        QVERIFY(table->names_pieces);
        QVERIFY(!table->has_errors);
        QCOMPARE(table->rows.size(), std::size_t(2));
        QCOMPARE(table->rows[0].piece, std::string("K-1"));
        QCOMPARE(table->rows[1].piece, std::string("K-2"));
        QCOMPARE(of(table->rows[0], "Cr")->percent.value(), 13.2);
        QCOMPARE(of(table->rows[0], "Mo")->percent.value(), 0.55);
        QVERIFY(of(table->rows[0], "V") != nullptr && !of(table->rows[0], "V")->percent);
        QCOMPARE(of(table->rows[1], "Mo")->lod.value(), 0.02);
    }
    // Errors stand beside their element, of as many sigma as the analyser prints.
    void errorsBesideTheirElement_data() {
        QTest::addColumn<QByteArray>("head");
        QTest::newRow("+/-") << QByteArray("Piece,Cr,Cr +/-,Mo,Mo +/-");
        QTest::newRow("sign") << QByteArray("Piece,Cr,Cr \xC2\xB1,Mo,Mo \xC2\xB1");
        QTest::newRow("word") << QByteArray("Piece,Cr,Cr error,Mo,Mo Err");
        QTest::newRow("in any order") << QByteArray("Piece,Cr,Cr sigma,Mo,Mo uncertainty");
    }
    void errorsBesideTheirElement() {
        QFETCH(QByteArray, head);
        for (const double sigmas : {1.0, 2.0, 3.0}) {
            const auto table = readShotTable((head + "\nA,13.2,0.12,0.55,0.03\n").toStdString(), sigmas);
            QVERIFY(table.ok() && table->has_errors);
            QVERIFY(std::abs(*of(table->rows[0], "Cr")->sigma - 0.12 / sigmas) < 1e-12);
            QVERIFY(std::abs(*of(table->rows[0], "Mo")->sigma - 0.03 / sigmas) < 1e-12);
        }
        QVERIFY(!readShotTable((head + "\nA,13.2,0.12,0.55,0.03\n").toStdString(), 4).ok());
    }
    // One row an element, a piece after the other.
    void aRowAnElement() {
        const auto table = readShotTable("Blade,Element,Concentration,Error\nK-1,Cr,13.2,0.1\nK-1,Mo,0.55,0.02\n"
                                         "K-2,Cr,0.3,0.02\nK-2,V,<LOD,0.01\n");
        QVERIFY2(table.ok(), table.ok() ? "" : table.error().text.c_str());
        QCOMPARE(table->rows.size(), std::size_t(2));
        QCOMPARE(table->rows[0].shot.elements.size(), std::size_t(2));
        QCOMPARE(table->rows[1].line, 4);
        QVERIFY(std::abs(*of(table->rows[1], "V")->lod - 0.03) < 1e-12); // three sigma of what is printed
    }
    // What stands beside a bare <LOD: 0.02 as the error of two sigma, as the limit itself, or as nothing of use.
    void besideLod() {
        const char* csv = "Blade,Cr,Cr +/-,V,V +/-\nK-1,13.2,0.2,<LOD,0.02\nK-2,13.1,0.2,< 0.05,0.02\n";
        const auto limit = [&](BesideLod beside, std::size_t row) {
            return of(readShotTable(csv, {2, beside})->rows[row], "V")->lod;
        };
        QVERIFY(readShotTable(csv)->numbers_lod);
        QVERIFY(std::abs(limit(BesideLod::error, 0).value() - 0.03) < 1e-12);
        QVERIFY(std::abs(limit(BesideLod::limit, 0).value() - 0.02) < 1e-12);
        QVERIFY(!limit(BesideLod::nothing, 0));
        for (const BesideLod beside : {BesideLod::error, BesideLod::limit, BesideLod::nothing})
            QVERIFY(std::abs(limit(beside, 1).value() - 0.05) < 1e-12); // it says itself what it is
        QVERIFY(!readShotTable("Blade,Cr,Mo\nK-1,13.2,<LOD\n")->numbers_lod);
    }
    // The shop's own steel.csv is such a table, of no named piece.
    void theShopsOwnFile() {
        const auto table = readShotTable("element,percent,error\nCr,13.5,0.1\nMo,0.05,0.01\n");
        QVERIFY(table.ok() && !table->names_pieces && table->has_errors);
        QCOMPARE(table->rows.size(), std::size_t(1));
        const auto shot = readShot("element,percent,error\nCr,13.5,0.1\nMo,0.05,0.01\n");
        QCOMPARE(table->rows[0].shot.elements.size(), shot->elements.size());
    }
    // Tungsten is W, and a weight is not tungsten.
    void tungstenAndWeights() {
        const auto table = readShotTable("Piece,Cr w%,W,C\nA,4.1,6.2,0.9\n");
        QVERIFY(table.ok());
        QCOMPARE(of(table->rows[0], "W")->percent.value(), 6.2);
        QCOMPARE(of(table->rows[0], "C")->percent.value(), 0.9);
        QCOMPARE(of(table->rows[0], "Cr")->percent.value(), 4.1);
    }
    // What cannot be read costs its line, and is told.
    void badLinesCostThemselves() {
        const auto table = readShotTable("Blade,Cr,Mo\nK-1,13.2,0.5\nK-2,many,0.5\nK-3,,\nK-4,0.4,120\n");
        QVERIFY(table.ok());
        QStringList kept;
        for (const ShotTable::Row& row : table->rows) kept << QString::fromStdString(row.piece);
        QCOMPARE(kept, (QStringList{"K-1", "K-2", "K-4"}));
        QCOMPARE(table->skipped.size(), std::size_t(3));
        QCOMPARE(table->skipped[0].line, 3);
        QCOMPARE(table->skipped[1].line, 4);
        QCOMPARE(table->skipped[2].line, 5);
    }
    void whatIsNoSuchTable() {
        for (const char* text : {"", "a,b\n1,2\n", "Blade,Cr\nK-1,13\n", "Blade,Hardness\nK-1,61\n", "Blade,Cr,Mo\n"})
            QVERIFY2(!readShotTable(text).ok(), text);
    }
};

QTEST_APPLESS_MAIN(tst_ShotTable)
#include "tst_shot_table.moc"
