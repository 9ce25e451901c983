// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "logbook/schema.h"
#include "tests/support/fixtures.h"

#include <csignal>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QRegularExpression>
#include <QScopeGuard>
#include <QtTest>
#include <sys/resource.h>

using namespace rollcall;

class tst_Cli : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    static cli::Answer run(const QStringList& words) {
        return cli::run(words, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
    }
    static cli::Answer line(const QString& words) { return run(words.split(' ', Qt::SkipEmptyParts)); }
    static QJsonObject json(const cli::Answer& answer) {
        if (answer.exit_code != 0) qWarning() << answer.error;
        return QJsonDocument::fromJson(answer.output).object();
    }
    QString write(const char* name, const QByteArray& bytes) {
        QFile file(m_dir.filePath(name));
        if (!file.open(QIODevice::WriteOnly)) qFatal("not written");
        file.write(bytes);
        return file.fileName();
    }

private slots:
    void tracesAndWarp() {
        const QString path = write("trace.csv", "s,c\n0,700\n600,900\nx,1\n1200,700\n");
        const QJsonObject whole = json(run({"trace", path, "--threshold", "800"}));
        QCOMPARE(whole["minutes_above"].toDouble(), 10.0);
        QCOMPARE(whole["peak_c"].toDouble(), 900.0);
        QCOMPARE(whole["skipped"].toArray()[0].toObject()["line"].toInt(), 4);
        QCOMPARE(json(run({"trace", path, "--threshold", "1472F", "--from", "5:00", "--to", "10:00"}))["minutes_above"]
                     .toDouble(),
                 5.0);
        const QJsonObject thick =
            json(run({"trace", path, "--threshold", "800", "--thickness", "3", "--surface", "foil"}));
        QVERIFY(thick["steel_minutes_above"].toDouble() < 10.0);
        const QJsonArray order = json(run({"warp", "--blades", "A=1.2L,B=0.8R,C=2.0L"}))["order"].toArray();
        QCOMPARE(order[0].toObject()["blade"].toString(), QStringLiteral("C"));
        QVERIFY(!order[0].toObject()["turn_over"].toBool() && order[1].toObject()["turn_over"].toBool());
        QCOMPARE(run({"trace", path}).exit_code, 2);
        QCOMPARE(run({"trace", "nowhere.csv", "--threshold", "800"}).exit_code, 2);
        QCOMPARE(line("temper --grade Unobtainium --next 200:2").exit_code, 2);
        QCOMPARE(line("temper --grade 1084 --next 900:2").exit_code, 2);
        QCOMPARE(line("warp --blades A=bent").exit_code, 2);
        QCOMPARE(line("colour --temper mauve").exit_code, 2);
    }
    void steelAgainstAClaim() {
        const QString path = write("shot.csv", "element,percent,error\nMo,0.05,0.01\nCr,13.6,0.1\nMn,0.46,0.05\n");
        const QJsonObject answer = json(run({"steel", path, "--claimed", "X50CrMoV15"}));
        QCOMPARE(answer["claim"].toString(), QStringLiteral("not_consistent"));
        const QJsonObject worst = answer["worst_element"].toObject();
        QCOMPARE(worst["element"].toString(), QStringLiteral("Mo"));
        QCOMPARE(worst["required_min"].toDouble(), 0.5);
        QVERIFY(std::abs(worst["z"].toDouble() - 24.96) < 0.01); // 0.45 / hypot(0.01, 0.015)
        QVERIFY(answer["unseen_elements"].toArray().contains("C"));
        QCOMPARE(answer["candidates"].toArray()[0].toObject()["score"].toDouble(), 0.0);
        QCOMPARE(json(run({"steel", path}))["claim"].type(), QJsonValue::Null);
        QCOMPARE(run({"steel", path, "--claimed", "moon"}).exit_code, 2);
        QCOMPARE(run({"steel", path, "--method", "guess"}).exit_code, 2);
        QCOMPARE(run({"steel", "nowhere.csv"}).exit_code, 2);
        QCOMPARE(run({"steel", write("none.csv", "element,percent\nC,0.8\n")}).exit_code, 2);
    }
    void tracesAreImported() {
        const QString book = m_dir.filePath("heat.rollcall");
        QVERIFY(run({"demo", book}).exit_code == 0);
        const QString path = write("oven.csv", "s,c\n0,20\n600,845\n");
        QCOMPARE(run({"import", book, "--trace", path, "--batch", "Nowhere", "--set", "845"}).exit_code, 2);
        const QJsonObject answer =
            json(run({"import", book, "--trace", path, "--batch", "Hedge 5", "--set", "845", "--oven", "Kiln"}));
        QVERIFY(answer["new_heat"].toBool());
        QCOMPARE(answer["samples"].toInt(), 2);
        QVERIFY(json(run({"check", book}))["ok"].toBool());
    }

    // Commands and values named by the specification and the method; all known to the table or worked by hand.
    void computes_data() {
        QTest::addColumn<QString>("command");
        QTest::addColumn<QString>("key");
        QTest::addColumn<QVariant>("value");
        const auto row = [](const char* command, const char* key, const QVariant& value) {
            QTest::newRow(qPrintable(QString("%1 > %2").arg(command, key))) << command << key << value;
        };
        row("rockwell --scale HRC --depth 0.0800", "value", 60.0);
        // Worked figures of the method: edge load, bend, grain, the blades that were not read.
        row("bend --thickness 4.76 --free-length 100 --angle 90", "strain_percent", 3.7384953);
        row("bend --thickness 0.1in --free-length 25.4 --angle 90", "peak_strain_percent",
            QVariant::fromValue(nullptr));
        row("grain --line 5 --crossings 240 --line 5mm --crossings 240", "g", 7.8819247);
        row("grain --line 5 --crossings 240", "interval", QVariant::fromValue(nullptr));
        row("edge --hrc 60 --angle-per-side 15 --behind-edge 0.1 --force 30lbf --raise 25", "yield_depth_mm",
            QVariant::fromValue(nullptr));
        // T (C + log10 t) by hand, the example of the method; the curve's own row at 200 °C, 1 h; the colour table.
        row("temper --grade 115CrV3 --cycle 190:2 --next 207:2", "parameter", 7154.152484899579);
        row("temper --grade 115CrV3 --next 392F:60min", "predicted_hrc", 61.5);
        row("temper --grade 115CrV3 --cycle 185:2=58 --target 61:63", "temperature_c", QVariant::fromValue(nullptr));
        row("colour --temper straw", "low_c", 180.0);
        row("colour --temper straw", "high_c", 221.0);
        row("rockwell --scale C --depth 0.07711", "value", 61.4); // 61.445
        row("convert --from HRC --value 60.5 --to HV", "result", 708.5);
        row("indent --scale HRC --value 60 --thickness 0.7", "min_thickness_mm", 0.762);
        row("indent --scale HRC --value 60 --thickness 0.7mm", "thickness_ok", false);
        row("indent --scale HRC --value 60 --thickness 0.030in", "thickness_ok", true);
        row("verify --scale HRC --block 62.6 --readings 62.4,62.5", "error", -0.15);
        row("verify --scale HRC --block 62.6 --readings 62.4,62.5", "max_error", 0.5);
        row("verify --block 62.6 --readings 62.4,63.5", "ok", false);
        row("verify --block 62.6 --readings 58,60,62.4,62.5 --seating 2", "error", -0.15);
        row("files --skates 55,60 --bites 65 --touches 60", "upper", 61.5);
        row("files --skates 55,60 --bites 65 --touches 60", "contradiction", false);
        row("files --skates 62 --bites 58", "contradiction", true);
        row("compare --a 62.0,61.4,63.2,60.8,62.1 --b 61,60,62,60,61", "bias", 1.1);
        row("judge --readings 62.1,61.8,61.9 --window 61:62.5", "verdict", "pass");
        row("judge --readings 62.1,61.8,61.9 --window 58:62.5 --bias 1.5", "verdict", "borderline");
        row("judge --readings 62.1,61.8,61.9 --window 61:62.5", "standard_uncertainty", 0.23094);
        row("judge --readings 62.1,61.8,61.9 --window 61:62.5", "coverage_factor", 2.0379);
        row("judge --readings 62.1,61.8,61.9 --window 61:62.5 --bias 0.2", "expanded_uncertainty", 0.64216);
        row("judge --readings 62.1,61.8,61.9 --window 61:62.5 --bias=-0.2", "corrected_mean", 62.13333);
        row("judge --readings 64 --min 64.5", "verdict", "borderline");
        row("judge --readings 64.0,64.1,64.2 --min 65.5", "verdict", "fail");
        row("judge --readings 60.6 --window 61:63 --rule allowance --allowance 0.5", "verdict", "borderline");
        row("judge --readings 62.0,62.0 --min 60 --tester rebound", "verdict", "borderline");
    }
    void computes() {
        QFETCH(QString, command);
        QFETCH(QString, key);
        QFETCH(QVariant, value);
        const QJsonValue answer = json(line(command))[key];
        if (value.typeId() == QMetaType::Double)
            QVERIFY2(std::abs(answer.toDouble() - value.toDouble()) < 1e-4,
                     qPrintable(QString::number(answer.toDouble(), 'g', 9)));
        else
            QCOMPARE(answer.toVariant(), value);
    }

    void judgeSaysEverythingItPromises() {
        const QJsonObject answer = json(line("judge --readings 62.1,61.8,61.9,65.0 --min 61 --bias 0.2"));
        for (const char* key : {"n", "mean", "corrected_mean", "sd", "standard_uncertainty", "dof", "coverage_factor",
                                "expanded_uncertainty", "probability_inside", "verdict", "more_readings", "flagged",
                                "mean_without_flagged", "uneven", "reasons"}) {
            QVERIFY2(answer.contains(key), key);
        }
        QCOMPARE(answer["flagged"].toArray().at(0)["index"].toInt(), 3);
        QCOMPARE(answer["flagged"].toArray().at(0)["value"].toDouble(), 65.0);
        const QJsonObject single = json(line("judge --readings 62 --window 61:63"));
        QVERIFY(single["sd"].isNull());
        QVERIFY(single["mean_without_flagged"].isNull());
        const QJsonObject explained = json(line("judge --readings 62.1,61.8,61.9 --window 61:62.5 --explain"));
        QVERIFY(explained["derivation"].toArray().size() > 5);
    }

    void suggestsSpots() {
        QJsonObject answer = json(line("spots --length 120 --height 28 --thickness 2.4 --n 5 --value 62"));
        QCOMPARE(answer["spots"].toArray().size(), 5);
        QVERIFY(answer["reason"].isNull());
        answer = json(run({"spots", "--length", "12", "--height", "28", "--thickness", "2.4", "--n", "9", "--value",
                           "62", "--existing", "5,1.3;8,1.3"}));
        QVERIFY(answer["spots"].toArray().size() < 9);
        QVERIFY(answer["reason"].toString().startsWith("only"));
        answer = json(line("spots --length 120 --height 28 --thickness 0.5 --n 3 --value 62"));
        QCOMPARE(answer["spots"].toArray().size(), 0);
        QVERIFY(answer["reason"].toString().contains("too thin"));
        answer = json(line("spots --length 120 --height 28 --thickness 2.4 --n 2 --value 62 --edge-line 6"));
        QCOMPARE(answer["spots"].toArray().at(0)["y_mm"].toDouble(), 6.0);
    }

    void bracketsAndComparesInTheirKeys() {
        QJsonObject answer = json(line("files --skates 60"));
        QCOMPARE(answer["lower"].toDouble(), 60.0);
        QVERIFY(answer["upper"].isNull()); // open
        answer = json(line("files --skates 62 --bites 58,65"));
        QVERIFY(answer["lower"].isNull() && answer["upper"].isNull());
        QVERIFY2(answer["reason"].toString().contains("58 bit where 62 skated"),
                 qPrintable(answer["reason"].toString()));
        answer = json(line("files --skates 60 --bites 60"));
        QVERIFY(answer["reason"].toString().contains("skated and bit"));
        answer = json(line("compare --a 62.0,61.4,63.2,60.8,62.1 --b 61,60,62,60,61 --explain"));
        QVERIFY(std::abs(answer["interval"].toArray()[1].toDouble() - 1.3776) < 1e-3);
        QVERIFY(std::abs(answer["limits_of_agreement"].toArray()[1].toDouble() - 1.78) < 0.01);
        QVERIFY(answer["derivation"].toArray().size() > 0);
        answer = json(line("verify --block 62.6 --readings 60.1,61.0,62.7,62.9 --seating 2"));
        QCOMPARE(answer["n"].toInt(), 2);
        QVERIFY(answer["ok"].toBool());
        QVERIFY(json(line("verify --block 62.6 --readings 62,63.4"))["next"].toString().contains("repeat once"));
    }

    void errorsAreOneLineAndExitTwo_data() {
        QTest::addColumn<QString>("command");
        for (const char* command : {"",
                                    "fly",
                                    "rockwell --scale HRZ --depth 0.08",
                                    "rockwell --scale HRC",
                                    "rockwell --scale HRC --depth 0.5",
                                    "rockwell --scale HRC --depth deep",
                                    "rockwell --scale HRC --depth 0.08 --depth 0.08",
                                    "rockwell --scale HRC --depth",
                                    "rockwell --colour red",
                                    "rockwell HRC",
                                    "convert --from HRC --value 69 --to HV",
                                    "convert --from HRC --value 60 --to X",
                                    "judge --readings 62 --window 63:61",
                                    "judge --readings 62",
                                    "judge --readings 62 --window 61:63 --min 60",
                                    "judge --readings nan --min 60",
                                    "judge --readings 62 --min 60 --pooled-sd 0",
                                    "verify --block 62.6 --readings 62",
                                    "verify --block 62.6 --readings 62,62.1,62.2 --seating 2",
                                    "verify --block 62.6 --readings 62,62.1 --seating -1",
                                    "verify --block 62.6 --readings 62,62.1 --seating 3",
                                    "files",
                                    "files --skates soft",
                                    "files --skates 95",
                                    "compare --a 62,61 --b 61,60",
                                    "compare --a 62,61,63 --b 61,60",
                                    "compare --a 62,61,63",
                                    "spots --length 0 --height 3 --thickness 2",
                                    "info /nowhere/at.rollcall",
                                    "show",
                                    "demo /tmp/x.rollcall --today soon"}) {
            QTest::newRow(command) << command;
        }
    }
    void errorsAreOneLineAndExitTwo() {
        QFETCH(QString, command);
        const cli::Answer answer = line(command);
        QCOMPARE(answer.exit_code, 2);
        QVERIFY(answer.output.isEmpty());
        QVERIFY(answer.error.startsWith("rollcallctl: "));
        QCOMPARE(answer.error.count('\n'), 1);
    }

    void newInfoAndTheirErrors() {
        const QString path = m_dir.filePath("new.rollcall");
        QCOMPARE(json(run({"new", path}))["schema"].toInt(), schema::version);
        const cli::Answer again = run({"new", path});
        QCOMPARE(again.exit_code, 1);
        QVERIFY(again.error.contains("not overwritten"));
        QCOMPARE(json(run({"info", path}))["counts"].toObject()["batch"].toInt(), 0);
        QCOMPARE(json(run({"check", path}))["ok"].toBool(), true);
        QCOMPARE(run({"info", write("notes.txt", "nothing but words in here, and then some more of them")}).exit_code,
                 1);
    }

    // The way of the readings file through import, list and show.
    void importsAndShows() {
        const QString log = m_dir.filePath("import.rollcall");
        QCOMPARE(run({"new", log}).exit_code, 0);
        const QString csv =
            write("r.csv", "batch,blade,gate,value,window_low,window_high,cycle,grade\n"
                           "Hedge 9,B-1,temper,62.1,61,63,1,115CrV3\nHedge 9,B-1,temper,62.0,61,63,1,115CrV3\nHedge "
                           "9,B-2,temper,wet,61,63,1,115CrV3\nHedge 9,B-2,temper,58.0,61,63,1,115CrV3\nHedge "
                           "9,B-2,temper,58.2,61,63,1,115CrV3\n");
        QJsonObject answer = json(run({"import", log, "--csv", csv}));
        QCOMPARE(answer["readings"].toInt(), 4);
        QCOMPARE(answer["rejected"].toArray().at(0)["line"].toInt(), 4);
        QCOMPARE(json(run({"import", log, "--csv", csv}))["already_there"].toInt(), 4);
        answer = json(run({"list", log}));
        QCOMPARE(answer["batches"].toArray().at(0)["name"].toString(), QStringLiteral("Hedge 9"));
        QCOMPARE(answer["batches"].toArray().at(0)["gates"].toArray(), (QJsonArray{QJsonValue("temper")}));
        answer = json(run({"show", log, "Hedge 9"}));
        const QJsonArray blades = answer["blades"].toArray();
        QCOMPARE(blades.at(0)["gates"].toArray().at(0)["verdict"].toString(),
                 QStringLiteral("borderline")); // not verified
        QVERIFY(blades.at(0)["gates"].toArray().at(0)["reasons"].toArray().at(0).toString().contains("not verified"));
        QCOMPARE(blades.at(1)["gates"].toArray().at(0)["verdict"].toString(),
                 QStringLiteral("borderline")); // 58 in 61 to 63, but by a tester nobody checked
        QVERIFY(std::abs(blades.at(1)["gates"].toArray().at(0)["mean"].toDouble() - 58.1) < 1e-9);
        QCOMPARE(run({"show", log, "Hedge 10"}).exit_code, 2);
        QCOMPARE(run({"import", log, "--csv", m_dir.filePath("missing.csv")}).exit_code, 2);
        QCOMPARE(run({"import", log, "--csv", write("bad.csv", "batch,blade,gate,value\nX,1,quench,soft\n")}).exit_code,
                 1);
    }

    // Out as a zip, back as another logbook, without names, and one logbook into another.
    void outAndInAgain() {
        const auto file = [this](const char* name) { return m_dir.filePath(QLatin1String(name)); };
        const auto withBatch = [&](const char* name, const char* batch) {
            run({"new", file(name)});
            const QString csv = write(QByteArray(name) + ".csv", QByteArray("batch,blade,gate,value,tester,smith\n") +
                                                                     batch + ",B-1,temper,62.1,Bench 1,Rosehip\n");
            return run({"import", file(name), "--csv", csv}).exit_code;
        };
        QCOMPARE(withBatch("south", "Hedge 9"), 0);
        QCOMPARE(withBatch("north", "Grove 2"), 0);
        const QJsonObject out = json(run({"export", file("south"), file("south.zip")}));
        QCOMPARE(out["tables"].toObject()["reading"].toInt(), 1);
        QCOMPARE(json(run({"import-package", file("back"), file("south.zip")})), out);
        QCOMPARE(run({"export", file("south"), file("south.zip")}).exit_code, 1); // there already
        QCOMPARE(run({"export", file("south"), file("share.zip"), "--without-names"}).exit_code, 0);
        QCOMPARE(run({"import-package", file("share"), file("share.zip")}).exit_code, 0);
        QCOMPARE(json(run({"check", file("share")}))["ok"].toBool(), true);
        QVERIFY(run({"show", file("share"), "Batch 1"}).output.contains("Piece 1"));
        QFile shared(file("share"));
        QVERIFY(shared.open(QIODevice::ReadOnly));
        QVERIFY(!shared.readAll().contains("Rosehip"));

        const QJsonObject trial = json(run({"merge", file("south"), file("north"), "--trial"}));
        QCOMPARE(trial["tables"].toObject()["reading"].toInt(), 1);
        QVERIFY(trial["renamed"].toArray().at(0).toString().startsWith("tester Bench 1"));
        QCOMPARE(json(run({"list", file("south")}))["batches"].toArray().size(), 1);
        QCOMPARE(json(run({"merge", file("south"), file("north")})), trial);
        QCOMPARE(json(run({"list", file("south")}))["batches"].toArray().size(), 2);
        QCOMPARE(json(run({"merge", file("south"), file("north")}))["rows"].toInt(), 0);
        QCOMPARE(run({"merge", file("south"), file("nowhere")}).exit_code, 2);
        for (const char* paper : {"--pdf", "--card", "--pile", "--pieces"}) {
            const QString path = file(paper);
            QCOMPARE(run({"report", file("south"), "Hedge 9", paper, path}).exit_code, 0);
            QFile pdf(path);
            QVERIFY(pdf.open(QIODevice::ReadOnly) && pdf.read(5) == "%PDF-");
        }
        QCOMPARE(run({"report", file("south"), "Hedge 9", "--xlsx", file("book.xlsx")}).exit_code, 0);
        QCOMPARE(run({"report", file("south"), "Hedge 10", "--csv", file("no.csv")}).exit_code, 2);
    }

    // Whatever is asked to be written, and however the disk fails, what was there before is there still; the logbook is
    // no paper.
    void whatLeavesDestroysNothing_data() {
        QTest::addColumn<QString>("option");
        for (const char* option : {"--pdf", "--card", "--pile", "--pieces", "--csv", "--xlsx", "--svg"})
            QTest::newRow(option) << QString::fromLatin1(option);
    }
    void whatLeavesDestroysNothing() {
        QFETCH(QString, option);
        const QString book = m_dir.filePath("kept" + option + ".rollcall");
        QCOMPARE(run({"demo", book, "--seed", "1", "--today", "2026-11-24"}).exit_code, 0);
        const auto content = [](const QString& path) {
            QFile file(path);
            return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
        };
        const QByteArray before = content(book);
        const cli::Answer onto = run({"report", book, "Orchard 12", option, book});
        QVERIFY2(onto.error.contains(option == "--svg" ? "ending must be" : "is not written over"),
                 onto.error.constData());
        QVERIFY(onto.exit_code != 0);
        QCOMPARE(content(book), before);
        const QString paper = m_dir.filePath("signed" + option + (option == "--svg" ? ".svg" : ".out"));
        QFile old(paper);
        QVERIFY(old.open(QIODevice::WriteOnly) && old.write("the signed one") > 0);
        old.close();
        {
            std::signal(SIGXFSZ, SIG_IGN); // a full disk: no file grows beyond this
            rlimit all{};
            getrlimit(RLIMIT_FSIZE, &all);
            const rlimit little{300, all.rlim_max};
            setrlimit(RLIMIT_FSIZE, &little);
            const auto room = qScopeGuard([all] { setrlimit(RLIMIT_FSIZE, &all); });
            const cli::Answer full = run({"report", book, "Orchard 12", option, paper});
            QVERIFY2(full.exit_code != 0 && full.error.contains("cannot be written"), full.error.constData());
        }
        QCOMPARE(content(paper), QByteArray("the signed one"));
        QCOMPARE(run({"report", book, "Orchard 12", option, paper}).exit_code, 0);
        QVERIFY(content(paper).size() > 300);
    }

    // What a certificate prints of the record proves the record of then: it goes on from there, or it is another.
    void theHeadOfTheRecord() {
        const auto at = [&](const char* name) { return m_dir.filePath(name); };
        QCOMPARE(run({"demo", at("one"), "--seed", "1", "--today", "2026-11-24"}).exit_code, 0);
        QCOMPARE(run({"demo", at("two"), "--seed", "2", "--today", "2026-11-24"}).exit_code, 0);
        const QString head = json(run({"info", at("one")}))["head"].toString();
        QVERIFY2(QRegularExpression("^\\d+-[0-9a-f]{16}$").match(head).hasMatch(), qPrintable(head));
        const auto checked = [&](const char* name, const QString& code) {
            return json(run({"check", at(name), "--head", code}));
        };
        QVERIFY(checked("one", head)["ok"].toBool());
        QFile more(at("more"));
        QVERIFY(more.open(QIODevice::WriteOnly) && more.write("{\"do\": \"person\", \"initials\": \"QQ\"}\n") > 0);
        more.close();
        QCOMPARE(run({"log", at("one"), at("more")}).exit_code, 0);
        QVERIFY(json(run({"info", at("one")}))["head"].toString() != head);
        QVERIFY(checked("one", head)["ok"].toBool());           // it went on from there
        QVERIFY(checked("one", head.toUpper())["ok"].toBool()); // as it may be typed from paper
        const QJsonObject other = checked("two", head);
        QVERIFY(!other["ok"].toBool());
        QVERIFY2(other["problems"].toArray().at(0).toString().contains("of the paper"),
                 QJsonDocument(other).toJson().constData());
        QVERIFY(!checked("one", "999999" + head.mid(head.indexOf('-')))["ok"].toBool());
        QCOMPARE(run({"check", at("one"), "--head", "nonsense"}).exit_code, 2);
    }

    void aBackupFromTheCommandLine() {
        const QString book = m_dir.filePath("shop");
        QCOMPARE(run({"new", book}).exit_code, 0);
        QCOMPARE(run({"backup", book, m_dir.filePath("stick")}).exit_code, 0);
        QVERIFY(json(run({"check", m_dir.filePath("stick")}))["ok"].toBool());
        QCOMPARE(run({"backup", book, m_dir.filePath("stick")}).exit_code, 1); // never over another
    }

    // Run by the clock, it makes a copy where something is new.
    void copiesFromTheCommandLine() {
        const QString book = m_dir.filePath("kept.rollcall");
        QCOMPARE(run({"new", book}).exit_code, 0);
        const QString folder = m_dir.filePath("copies");
        const QJsonObject first = json(run({"keep", book, folder}));
        QVERIFY(first["written"].toString().startsWith(folder));
        QVERIFY(json(run({"check", first["written"].toString()}))["ok"].toBool());
        const QJsonObject second = json(run({"keep", book, folder}));
        QVERIFY(second["written"].isNull());
        QCOMPARE(second["kept"].toInt(), 1);
        QCOMPARE(run({"keep", m_dir.filePath("none.rollcall"), folder}).exit_code, 2);
    }

    // What is sound of a damaged logbook in a new one, and what is not by name.
    void salvageFromTheCommandLine() {
        const QString book = m_dir.filePath("torn");
        QCOMPARE(run({"demo", book}).exit_code, 0);
        QFile file(book);
        QVERIFY(file.open(QIODevice::ReadWrite));
        QVERIFY(file.seek(file.size() / 2));
        file.write(QByteArray(20000, '\x7f'));
        file.close();
        QVERIFY(run({"check", book}).exit_code != 0 || !json(run({"check", book}))["ok"].toBool());
        const auto saved = run({"salvage", book, m_dir.filePath("saved")});
        QCOMPARE(saved.exit_code, 0);
        QVERIFY(json(saved)["rows"].toObject()["batch"].toInt() > 0);
        QVERIFY(!json(saved)["left"].toArray().isEmpty());
        QVERIFY(json(run({"check", m_dir.filePath("saved")}))["ok"].toBool());
        QCOMPARE(run({"salvage", book, m_dir.filePath("saved")}).exit_code, 1); // never over another
        QCOMPARE(run({"salvage", m_dir.filePath("nowhere"), m_dir.filePath("x")}).exit_code, 2);
    }

    void demoIsMadeFromItsSeed() {
        const auto made = [&](const char* name, const char* seed) {
            const QString path = m_dir.filePath(name);
            const QJsonObject answer = json(run({"demo", path, "--seed", seed, "--today", "2026-11-24"}));
            return answer["counts"].toObject().isEmpty() ? QByteArray() : run({"show", path, "Grove 3"}).output;
        };
        const QByteArray first = made("d1", "1");
        QVERIFY(!first.isEmpty());
        QCOMPARE(made("d2", "1"), first);
        QVERIFY(made("d3", "2") != first);
        QCOMPARE(run({"demo", m_dir.filePath("d1")}).exit_code, 1); // never overwritten
        QVERIFY(run({"show", m_dir.filePath("d1"), "Orchard 12", "--pretty"}).output.count('\n') > 50);
    }
};

QTEST_MAIN(tst_Cli) // paper needs typefaces
#include "tst_cli.moc"
