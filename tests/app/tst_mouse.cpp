// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/key_row.h"
#include "tests/support/mouse.h"

using namespace rollcall;
using fixtures::Mouse;
using fixtures::WindowDriver;

// Walks without a keyboard: what a mouse or a finger can reach, from the first screen on.
class tst_Mouse : public QObject {
    Q_OBJECT

    // Keys on the screen, and the first question of an empty logbook.
    static void begin(Mouse& m, const char* kit) {
        m.button("do-menu");
        m.choose(QStringLiteral("Touch on or off"));
        m.primary(); // New batch
        m.choose(QString::fromLatin1(kit));
    }
    // Fields of the open form, then its button.
    static void fillIn(Mouse& m, std::initializer_list<std::pair<const char*, const char*>> fields) {
        for (const auto& [field, text] : fields) m.field(field, QString::fromLatin1(text));
        m.primary();
    }
    // From the empty logbook to three blades asked at Quench and Temper.
    static void benchBatch(WindowDriver& d, Mouse& m) {
        begin(m, "A bench tester");
        fillIn(m, {{"initials", "HB"}, {"block", "62.6"}});
        m.pick("profile", "Quench and Temper");
        fillIn(m, {{"name", "Orchard 13"},
                   {"count", "3"},
                   {"marks", "GK-#"},
                   {"grade", "115CrV3"},
                   {"window", "61 to 63"},
                   {"thickness", "2.4"}});
        QCOMPARE(d.document().batch().blades.size(), std::size_t(3));
    }
    static void verify(Mouse& m) {
        m.act("verify");
        m.keys("627\n629\n628\n628\n628\n");
        m.primary();
    }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // as the driver does, which comes later
        QSettings().clear();
    }

    // The first verdict, with the clicks it takes.
    void fromNothingToTheFirstVerdict() {
        WindowDriver d;
        Mouse m(d);
        benchBatch(d, m);
        verify(m);
        m.keys("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(3));
        qInfo("from the empty logbook to the first verdict: %d clicks", m.clicks());
        QVERIFY2(m.clicks() <= 120, "it takes too many clicks");
    }

    // The keys stand on demand, by a click on the field, and obey the rules of the keyboard.
    void theKeysAreTheKeyboard() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);
        auto* keys = d.window().findChild<KeyRow*>();
        QVERIFY(!keys->isVisible());
        auto* field = d.window().findChild<QWidget*>(QStringLiteral("reading-row"));
        Mouse m(d);
        m.on(field, {field->width() - 60, 60});
        QVERIFY(keys->isVisible());
        m.keys("999\n");
        QVERIFY2(d.field().contains("HRC reads 20 to 70"), qPrintable(d.field())); // refused, and it stays to be mended
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(0));
        m.on(keys->findChild<QAbstractButton*>("key-back"));
        m.on(keys->findChild<QAbstractButton*>("key-back"));
        m.on(keys->findChild<QAbstractButton*>("key-back"));
        m.keys("65.2\n");
        QCOMPARE(d.document().batch().blades[0].readings.at(0).value, 65.2);
        for (auto* key : keys->findChildren<QAbstractButton*>()) {
            QVERIFY2(key->width() >= 40 && key->height() >= 40, qPrintable(key->objectName()));
            QVERIFY(!key->accessibleName().isEmpty());
        }
        m.on(field, {field->width() - 60, 60});
        QVERIFY(!keys->isVisible());
    }

    // Six blades by files, from the empty logbook to a decision for each.
    void sixByFiles() {
        WindowDriver d;
        Mouse m(d);
        begin(m, "A set of files");
        fillIn(m, {{"initials", "HB"}});
        fillIn(m,
               {{"name", "Hedge 4"}, {"marks", "H-#"}, {"grade", "1084"}, {"window", "50 to 63"}, {"minimum", "58"}});
        QCOMPARE(d.document().batch().blades.size(), std::size_t(6));
        const auto tryFiles = [&](const QStringList& taps) {
            m.act("files");
            auto* files = qobject_cast<FilesDialog*>(d.dialog());
            QVERIFY(files != nullptr);
            for (const QString& tap : taps) m.on(files->findChild<QAbstractButton*>(tap));
            m.primary();
        };
        for (int blade = 0; blade < 6; ++blade) {
            m.blade(blade);
            tryFiles(blade == 5 ? QStringList{"file55-B", "file45-B", "file40-B"}
                                : QStringList{"file55-S", "file60-S", "file65-B"});
        }
        QCOMPARE(d.document().verdict(0, Gate::quench)->state, State::pass);
        QCOMPARE(d.document().verdict(5, Gate::quench)->state, State::fail);
        m.blade(0);
        m.act("temper");
        m.field("temperature", "205");
        fillIn(m, {{"blades", "H-1, H-2, H-3, H-4, H-5"}});
        m.button("gate-temper");
        for (int blade = 0; blade < 5; ++blade) {
            m.blade(blade);
            tryFiles(blade == 4 ? QStringList{"file55-S", "file60-S", "file65-B"}
                                : QStringList{"file55-S", "file60-B"});
        }
        m.blade(0);
        m.button("gate-release");
        QCOMPARE(d.act(), QStringLiteral("Sign for 4 blades"));
        m.primary();
        m.primary(); // the form
        for (const auto& [mark, what] : {std::pair("H-5", "Hold"), std::pair("H-6", "Scrap")}) {
            QCOMPARE(d.act(), QStringLiteral("On to ") + mark);
            m.primary();
            m.primary();
            m.choose(QString::fromLatin1(what));
            m.field("reason", "by files");
            m.primary();
        }
        for (const Blade& blade : d.document().batch().blades) QCOMPARE(blade.signatures.size(), std::size_t(1));
        qInfo("six by files to a decision each: %d clicks", m.clicks());
    }

    // A working day with twelve slips, each mended where it happened.
    void twelveSlips() {
        WindowDriver d;
        Mouse m(d);
        benchBatch(d, m);
        const auto blade = [&](std::size_t i) -> const Blade& { return d.document().batch().blades[i]; };
        const auto undo = [&] { m.act("undo"); };
        verify(m);
        m.keys("652\n"); // 1. mistyped, struck out as a slip
        undo();
        m.choose(QStringLiteral("typing slip"));
        QCOMPARE(blade(0).readings.front().struck->reason, StrikeReason::typingSlip);
        undo(); // 2. it was right after all
        QVERIFY(!blade(0).readings.front().struck);
        m.keys("653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        m.blade(1);
        m.act("excuse"); // 3. the wrong blade excused
        fillIn(m, {{"reason", "stands for it"}});
        QCOMPARE(blade(1).excuses.size(), std::size_t(1));
        undo();
        QVERIFY(blade(1).excuses.empty());
        m.act("out"); // 4. the wrong one out
        m.choose(QStringLiteral("Scrapped"));
        QVERIFY(blade(1).fate.has_value());
        undo();
        QVERIFY(!blade(1).fate);
        m.act("redo");
        QVERIFY(blade(1).fate.has_value());
        undo();
        m.act("rename"); // 5. misspelt
        fillIn(m, {{"mark", "GK-22"}});
        undo();
        QCOMPARE(blade(1).mark, std::string("GK-2"));
        m.act("limits"); // 6. limits of another batch
        fillIn(m, {{"window", "57 to 59"}});
        QCOMPARE(d.document().batch().window.low.value(), 57.0);
        undo();
        QCOMPARE(d.document().batch().window.low.value(), 61.0);
        m.act("note"); // 7. a note on the wrong batch
        fillIn(m, {{"text", "new belt"}});
        QCOMPARE(d.document().batch().notes.size(), std::size_t(1));
        undo();
        QVERIFY(d.document().batch().notes.empty());
        m.act("temper"); // 8. tempered only in thought
        fillIn(m, {{"temperature", "205"}});
        QVERIFY(!blade(0).tempers.empty());
        undo();
        QVERIFY(blade(0).tempers.empty());
        m.act("rename-batch"); // 9. misnamed
        fillIn(m, {{"name", "Orchard 14"}});
        undo();
        QCOMPARE(d.document().batch().name, std::string("Orchard 13"));
        m.act("same-again"); // 10. a batch made twice
        m.primary();
        QCOMPARE(d.document().state().batches().size(), std::size_t(2));
        undo();
        QCOMPARE(d.document().state().batches().size(), std::size_t(1));
        m.act("add-blade"); // 11. a blade that was none
        fillIn(m, {{"mark", "GK-4"}});
        QCOMPARE(d.document().batch().blades.size(), std::size_t(4));
        undo();
        QCOMPARE(d.document().batch().blades.size(), std::size_t(3));
        m.blade(0);
        m.keys("640\n"); // 12. made on another blade
        m.act("move-reading");
        m.choose(QStringLiteral("GK-3"));
        QVERIFY(blade(0).readings.back().struck.has_value());
        QCOMPARE(blade(2).readings.size(), std::size_t(1));
        qInfo("twelve slips and their mending: %d clicks", m.clicks());
    }

    // Eight finished knives from two files to the one page.
    void aPileFromTwoFiles() {
        WindowDriver d;
        Mouse m(d);
        benchBatch(d, m);
        verify(m);
        QByteArray knives("batch,blade,gate,value,tester,grade,purpose,low,high,finished\n");
        QByteArray shots("Knife,Cr [%],Mo [%],V [%],Mn [%]\n");
        const char* grades[] = {"X50CrMoV15", "1095", "X46Cr13", "80CrV2", "440C", "115CrV3", "D2", "52100"};
        for (int i = 0; i < 8; ++i) {
            for (const char* tenth : {"59.9", "60.0", "60.1"})
                knives += "Pile,K-" + QByteArray::number(i + 1) + ",temper," + tenth + ",Bench 1," + grades[i] +
                          ",kitchen,58,62,yes\n";
            shots += "K-" + QByteArray::number(i + 1) + ",14.4,0.58,0.14,0.42\n";
        }
        const int before = m.clicks();
        d.chooseFile(d.writeFile("knives.csv", knives));
        m.act("exchange");
        m.choose(QStringLiteral("Import readings"));
        if (d.dialog()->findChild<PrimaryButton*>() != nullptr) m.primary(); // the columns as they were understood
        m.choose(QStringLiteral("Good"));
        QCOMPARE(d.document().batch().name, std::string("Pile"));
        QCOMPARE(d.document().batch().blades.size(), std::size_t(8));
        d.chooseFile(d.writeFile("shots.csv", shots));
        m.button("gate-steel");
        m.act("steel.file");
        QCOMPARE(d.document().batch().shots.size(), std::size_t(8));
        m.act("pile");
        const QString page = d.writeFile("page.pdf", {});
        d.chooseFile(page);
        m.act("pile.pdf");
        QVERIFY(QFileInfo(page).size() > 2000);
        QVERIFY2(m.clicks() - before <= 40, qPrintable(QString::number(m.clicks() - before)));
    }
};

QTEST_MAIN(tst_Mouse)
#include "tst_mouse.moc"
