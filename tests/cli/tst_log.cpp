// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "cli/log_acts.h"
#include "logbook/logbook.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QTemporaryDir>
#include <QtTest>
#include <set>

using namespace rollcall;

// Every act of the window, a line each; and what show and ladder say of it.
class tst_Log : public QObject {
    Q_OBJECT

    // A line with single quotes for double ones.
    static QByteArray plain(const char* text) { return QByteArray(text).replace('\'', '"'); }

    QTemporaryDir m_dir;
    QString m_book;

    cli::Answer run(const QStringList& arguments) {
        return cli::run(arguments, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
    }
    QJsonObject json(const cli::Answer& answer) {
        if (answer.exit_code != 0) qWarning("%s", answer.error.constData());
        return QJsonDocument::fromJson(answer.output).object();
    }
    cli::Answer log(const QByteArray& lines, const QStringList& more = {}) {
        QFile file(m_dir.filePath("lines.jsonl"));
        if (!file.open(QIODevice::WriteOnly)) qFatal("no file");
        file.write(lines);
        file.close();
        return run(QStringList{"log", m_book, file.fileName()} + more);
    }
    int count(const char* table) {
        return json(run({"info", m_book}))["counts"].toObject()[QLatin1String(table)].toInt();
    }
    static QJsonObject blade(const QJsonObject& shown, int i) { return shown["blades"].toArray()[i].toObject(); }
    static QJsonObject gate(const QJsonObject& blade, const char* name) {
        for (const QJsonValue one : blade["gates"].toArray()) {
            if (one.toObject()["gate"].toString() == QLatin1String(name)) return one.toObject();
        }
        return {};
    }

    const QByteArray m_shop = plain(
        "# a shop and a batch\n"
        "{'do': 'person', 'initials': 'HB'}\n"
        "{'do': 'tester', 'name': 'Bench 1', 'kind': 'bench'}\n"
        "{'do': 'tester', 'name': 'Files', 'kind': 'files', 'files': [40, 50, 60, 65]}\n"
        "{'do': 'block', 'name': '62.6', 'certified': 62.6}\n"
        "\n"
        "{'do': 'batch', 'name': 'Pear 3', 'count': 3, 'marks': 'P-#', 'sold_as': '115CrV3', 'window': '61:63', "
        "'gates': ['heat', 'quench', 'temper', 'release']}\n"
        "{'do': 'verify', 'tester': 'Bench 1', 'block': '62.6', 'readings': [62.7, 62.9, 62.8, 62.8, 62.8], 'by': "
        "'HB'}\n");

private slots:
    void init() {
        m_book = m_dir.filePath(QStringLiteral("%1.rollcall").arg(QTest::currentTestFunction()));
        QFile::remove(m_book);
        QCOMPARE(run({"new", m_book}).exit_code, 0);
    }

    void aBatchFromTheFirstLineToItsRelease() {
        const QJsonObject shop = json(log(m_shop));
        QCOMPARE(shop["lines"].toInt(), 6);
        QCOMPARE(shop["acts"].toObject()["tester"].toInt(), 2);
        QJsonObject shown = json(run({"show", m_book, "Pear 3"}));
        QCOMPARE(shown["blades"].toArray().size(), 3);
        QCOMPARE(blade(shown, 0)["mark"].toString(), QStringLiteral("P-1"));
        QCOMPARE(blade(shown, 0)["taken_for"].toString(), QStringLiteral("115CrV3"));
        QCOMPARE(blade(shown, 0)["window"].toObject()["high"].toDouble(), 63.0);
        QVERIFY(blade(shown, 0)["out"].isNull());

        QByteArray lines =
            plain("{'do': 'heat', 'batch': 'Pear 3', 'as': 'h1', 'oven': 'Oven 1', 'set': '1472F', 'medium': 'fast "
                  "oil', 'soak_least': 5}\n"
                  "{'do': 'in_heat', 'heat': 'h1', 'blades': 'all', 'in': 0, 'out': 480, 'quenched': 482}\n");
        for (const char* mark : {"P-1", "P-2", "P-3"}) {
            for (const char* value : {"65.1", "65.2", "65.3"})
                lines += (plain("{'do': 'reading', 'batch': 'Pear 3', 'blade': '")) + mark +
                         plain("', 'gate': 'quench', 'tester': 'Bench 1', 'value': ") + value + "}\n";
        }
        QCOMPARE(json(log(lines))["lines"].toInt(), 11);
        shown = json(run({"show", m_book, "Pear 3"}));
        QCOMPARE(gate(blade(shown, 0), "quench")["state"].toString(), QStringLiteral("pass"));
        QCOMPARE(gate(blade(shown, 0), "heat")["state"].toString(), QStringLiteral("pass"));
        const QJsonObject next = blade(shown, 0)["next"].toObject();
        QCOMPARE(next["act"].toString(), QStringLiteral("temper"));
        QCOMPARE(next["gate"].toString(), QStringLiteral("temper"));
        const double advised = next["temperature_c"].toDouble();
        QVERIFY(advised >= 80 && advised <= 260);
        // The ladder gives one and the same advice.
        const QJsonObject ladder = json(run({"ladder", m_book, "Pear 3", "P-1"}));
        QCOMPARE(ladder["advice"].toObject()["temperature_c"].toDouble(), advised);
        QCOMPARE(ladder["tempers"].toArray().size(), 0);

        lines = plain(
            "{'do': 'temper', 'batch': 'Pear 3', 'blades': 'all', 'temperature': '401F', 'hours': '90min'}\n"
            "{'do': 'temper', 'batch': 'Pear 3', 'blades': ['P-1', 'P-2', 'P-3'], 'temperature': 205, 'hours': 2}\n");
        for (const char* mark : {"P-1", "P-2", "P-3"}) {
            for (const char* value : {"62.1", "62.2", "62.3"})
                lines += (plain("{'do': 'reading', 'batch': 'Pear 3', 'blade': '")) + mark +
                         plain("', 'gate': 'temper', 'tester': 'Bench 1', 'value': ") + value + "}\n";
        }
        lines += plain("{'do': 'sign', 'batch': 'Pear 3', 'blades': 'all', 'decision': 'release', 'by': 'HB'}"
                       "\n");
        QCOMPARE(json(log(lines))["lines"].toInt(), 12);
        shown = json(run({"show", m_book, "Pear 3"}));
        for (int i = 0; i < 3; ++i) {
            QCOMPARE(gate(blade(shown, i), "temper")["state"].toString(), QStringLiteral("pass"));
            QCOMPARE(gate(blade(shown, i), "release")["state"].toString(), QStringLiteral("pass"));
            QVERIFY(blade(shown, i)["next"].isNull());
        }
        QSet<QString> facts;
        for (const QJsonValue one : gate(blade(shown, 0), "temper")["findings"].toArray())
            facts << one.toObject()["fact"].toString();
        QVERIFY(facts.contains("in_window"));
        QVERIFY(facts.contains("tester_verified"));
        QVERIFY(json(run({"check", m_book}))["ok"].toBool());
    }

    // The whole file is one entry of the change log; with --each every line is its own.
    void oneFileIsOneEntry() {
        const int before = count("change");
        QVERIFY(json(log(m_shop))["lines"].toInt() == 6);
        QCOMPARE(count("change"), before + 1);
        const QByteArray two = plain("{'do': 'person', 'initials': 'AA'}\n"
                                     "{'do': 'person', 'initials': 'BB'}\n");
        QVERIFY(json(log(two, {"--each"}))["lines"].toInt() == 2);
        QCOMPARE(count("change"), before + 3);
    }

    void badLinesAreNamedAndNothingIsStored_data() {
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<QString>("says");
        QTest::newRow("no json") << QByteArray("{do: x}") << "line 2";
        QTest::newRow("no object") << QByteArray("[1]") << "an object is needed";
        QTest::newRow("no act") << (plain("{'do': 'dance'}")) << "known are person, tester";
        QTest::newRow("act missing") << (plain("{'initials': 'X'}")) << "'' is no act";
        QTest::newRow("field") << (plain("{'do': 'person', 'initials': 'X', 'shoe': 43}")) << "line 2, shoe";
        QTest::newRow("fields named") << (plain("{'do': 'person', 'initials': 'X', 'shoe': 43}"))
                                      << "takes initials, name?";
        QTest::newRow("needed") << (plain("{'do': 'tester', 'name': 'T'}")) << "line 2, kind";
        QTest::newRow("word") << (plain("{'do': 'tester', 'name': 'T', 'kind': 'laser'}"))
                              << "known are bench, rebound, files, other";
        QTest::newRow("range") << (plain("{'do': 'block', 'name': 'B', 'certified': 1e9}")) << "outside 0 to 130";
        QTest::newRow("text") << (plain("{'do': 'block', 'name': 7, 'certified': 60}")) << "a text is needed";
        QTest::newRow("batch") << (plain("{'do': 'temper', 'batch': 'Plum', 'blades': 'all'}"))
                               << "there is no batch Plum";
        QTest::newRow("future") << (plain("{'do': 'person', 'initials': 'X', 'time': '2999-01-01T00:00'}"))
                                << "ahead of now";
        QTest::newRow("moment") << (plain("{'do': 'person', 'initials': 'X', 'time': 'soon'}"))
                                << "written like 2026-11-20T08:12";
        QTest::newRow("twice") << QByteArray(
                                      plain("{'do': 'batch', 'name': 'B', 'blades': [{'mark': 'A'}, {'mark': 'A'}]}"))
                               << "two blades are marked A";
        QTest::newRow("window") << (plain("{'do': 'batch', 'name': 'B', 'count': 1, 'window': '63000000:64'}"))
                                << "20 to 70";
        QTest::newRow("heat") << (plain("{'do': 'in_heat', 'heat': 'h9', 'blades': 'all'}"))
                              << "no line before has begun a heat h9";
    }
    void badLinesAreNamedAndNothingIsStored() {
        QFETCH(QByteArray, line);
        QFETCH(QString, says);
        const int before = count("person") + count("change");
        const cli::Answer answer = log("{\"do\": \"person\", \"initials\": \"OK\"}\n" + line + "\n");
        QCOMPARE(answer.exit_code, 2);
        QVERIFY2(answer.error.contains(says.toUtf8()), answer.error.constData());
        QVERIFY2(answer.error.contains("line 2"), answer.error.constData());
        QVERIFY(answer.output.isEmpty());
        QCOMPARE(count("person") + count("change"), before); // the good line before it neither
    }

    void slipsAreStruckOutByValueOrPlace() {
        QVERIFY(json(log(m_shop))["lines"].toInt() == 6);
        QByteArray lines;
        for (const char* value : {"65.1", "61.0", "65.3"})
            lines += QByteArray(plain("{'do': 'reading', 'batch': 'Pear 3', 'blade': 'P-1', 'gate': 'quench', "
                                      "'tester': 'Bench 1', 'value': ")) +
                     value + "}\n";
        lines += plain("{'do': 'strike_out', 'batch': 'Pear 3', 'blade': 'P-1', 'gate': 'quench', 'value': 61.0, "
                       "'reason': 'seating'}"
                       "\n");
        lines += plain("{'do': 'strike_out', 'batch': 'Pear 3', 'blade': 'P-1', 'gate': 'quench', 'nth': 2, 'reason': "
                       "'wrong blade'}"
                       "\n");
        QCOMPARE(json(log(lines))["lines"].toInt(), 5);
        const QJsonObject shown = json(run({"show", m_book, "Pear 3"}));
        QCOMPARE(gate(blade(shown, 0), "quench")["n"].toInt(), 1);
        QCOMPARE(gate(blade(shown, 0), "quench")["mean"].toDouble(), 65.1);
        QCOMPARE(count("reading"), 5 + 3); // nothing is erased
        const cli::Answer none = log(plain(
            "{'do': 'strike_out', 'batch': 'Pear 3', 'blade': 'P-1', 'gate': 'quench', 'nth': 2, 'reason': 'x'}"));
        QVERIFY2(none.error.contains("1 readings stand there"), none.error.constData());
    }

    void steelFilesAndOuts() {
        QVERIFY(json(log(m_shop))["lines"].toInt() == 6);
        const QByteArray lines = plain(
            "{'do': 'plan', 'batch': 'Pear 3', 'gate': 'steel', 'required': true}\n"
            "{'do': 'shot', 'batch': 'Pear 3', 'method': 'xrf', 'elements': {'Cr': 13.1, 'V': '<0.05', 'Mo': [0.5, "
            "0.02], 'Mn': 0.4}}\n"
            "{'do': 'files', 'batch': 'Pear 3', 'blade': 'P-2', 'gate': 'quench', 'skates': [60], 'bites': [65]}\n"
            "{'do': 'out', 'batch': 'Pear 3', 'blade': 'P-3', 'fate': 'cracked', 'reason': 'heard it'}\n"
            "{'do': 'spark', 'batch': 'Pear 3', 'agrees': false, 'text': 'few bursts'}\n"
            "{'do': 'rename', 'batch': 'Pear 3', 'blade': 'P-2', 'mark': 'P-9'}\n"
            "{'do': 'limits', 'batch': 'Pear 3', 'window': [60, 62]}\n");
        QCOMPARE(json(log(lines))["lines"].toInt(), 7);
        const QJsonObject shown = json(run({"show", m_book, "Pear 3"}));
        QCOMPARE(gate(blade(shown, 0), "steel")["state"].toString(), QStringLiteral("fail")); // 13 % Cr is no 115CrV3
        QVERIFY(!shown["candidates"].toArray().isEmpty());
        QCOMPARE(blade(shown, 2)["out"].toString(), QStringLiteral("cracked"));
        QVERIFY(blade(shown, 2)["next"].isNull());
        QCOMPARE(blade(shown, 1)["mark"].toString(), QStringLiteral("P-9"));
        QCOMPARE(blade(shown, 0)["window"].toObject()["low"].toDouble(), 60.0);
        QCOMPARE(count("file_test"), 1);
    }

    // A line may be dated back; what it stamps carries that moment.
    void aLineMayLieInThePast() {
        QVERIFY(json(log(m_shop))["lines"].toInt() == 6);
        QVERIFY(json(log(plain("{'do': 'reading', 'batch': 'Pear 3', 'blade': 'P-1', 'gate': 'quench', 'tester': "
                               "'Bench 1', 'value': 65.0, 'time': '2026-01-02T08:15:00'}")))["lines"]
                    .toInt() == 1);
        auto logbook = Logbook::open(m_book, Logbook::Access::read).value();
        const Batch batch = logbook->batch(logbook->batches().value()[0].id).value();
        const QDateTime at = QDateTime::fromMSecsSinceEpoch(batch.blades[0].readings[0].time->utc_ms);
        QCOMPARE(at, QDateTime(QDate(2026, 1, 2), QTime(8, 15)));
    }

    // Help and reading come from one table; each act and field is named once.
    void helpListsEveryAct() {
        const QJsonObject help = json(run({"log", "--help"}));
        QCOMPARE(help["acts"].toArray().size(), qsizetype(cli::logActs().size()));
        std::set<std::string> names;
        for (const cli::LogAct& act : cli::logActs()) {
            QVERIFY2(names.insert(act.name).second, act.name);
            std::set<std::string> fields;
            for (const cli::LogField& field : act.fields) {
                QVERIFY2(fields.insert(field.name).second, field.name);
                if (field.name != QLatin1String("decision")) continue;
                for (const char* one : namesOf<Disposition>)
                    QVERIFY2(QString(field.help).split(", ").contains(QLatin1String(one)), one);
            }
        }
        QCOMPARE(json(run({"judge", "--help"}))["command"].toString(), QStringLiteral("judge"));
        QVERIFY(json(run({"judge", "--help"}))["options"].toArray().size() > 8);
        // docs/formats.md lists them too.
        QFile formats(QStringLiteral(ROLLCALL_SOURCE_DIR "/docs/formats.md"));
        QVERIFY(formats.open(QIODevice::ReadOnly));
        const QByteArray text = formats.readAll();
        for (const cli::LogAct& act : cli::logActs()) {
            QByteArray row = QByteArray("| `") + act.name + "` | " + act.help + " | ";
            QStringList fields;
            for (const cli::LogField& field : act.fields)
                fields << QString("`%1`%2").arg(field.name, field.needed ? "" : "?");
            row += (fields.isEmpty() ? QString("–") : fields.join(", ")).toUtf8() + " |";
            QVERIFY2(text.contains(row), row.constData());
        }
    }
};

QTEST_MAIN(tst_Log)
#include "tst_log.moc"
