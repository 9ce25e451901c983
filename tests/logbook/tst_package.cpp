// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/release_judge.h"
#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "logbook/transfer/package.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <QCryptographicHash>
#include <QDirIterator>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <random>

using namespace rollcall;
using fixtures::TempLogbook;

class tst_Package : public QObject {
    Q_OBJECT

    static QMap<QString, QByteArray> filesIn(const QString& folder) {
        QMap<QString, QByteArray> files;
        QDirIterator all(folder, QDir::Files, QDirIterator::Subdirectories);
        while (all.hasNext()) {
            QFile file(all.next());
            if (!file.open(QIODevice::ReadOnly)) qFatal("%s not read", qPrintable(file.fileName()));
            files[QDir(folder).relativeFilePath(file.fileName())] = file.readAll();
        }
        return files;
    }
    static void put(const QString& path, const QByteArray& bytes) {
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size())
            qFatal("%s not written", qPrintable(path));
    }

    static bool addCertificateFile(Logbook& log) {
        const auto batches = log.batches();
        return batches &&
               addCertificate(log, batches->front().id, {{"C", 1.0, {}, {}}}, "mill.pdf", "%PDF of the mill").ok();
    }

private slots:
    // The whole demo goes out, comes back as another logbook that is sound, and goes out again the same to the last
    // byte.
    void theDemoGoesOutAndComesBack() {
        QTemporaryDir dir;
        const QString path = dir.filePath("demo.rollcall");
        QVERIFY(writeDemo(path, fixtures::tables(), {1, fixtures::at(15), 1}).ok());
        const auto out = exportPackage(path, dir.filePath("out"));
        QVERIFY2(out.ok(), out.ok() ? "" : out.error().text.c_str());
        QVERIFY(out->at("reading") > 500 && out->at("fracture") == 5);
        const auto in = importPackage(dir.filePath("back.rollcall"), dir.filePath("out"));
        QVERIFY2(in.ok(), in.ok() ? "" : in.error().text.c_str());
        QVERIFY(*in == *out);
        {
            const auto back = Logbook::open(dir.filePath("back.rollcall"), Logbook::Access::read).value();
            QVERIFY(back->check().value().empty()); // the change log's chain included
        }
        QVERIFY(exportPackage(dir.filePath("back.rollcall"), dir.filePath("again")).ok());
        QVERIFY(filesIn(dir.filePath("out")) == filesIn(dir.filePath("again")));
        const auto full = exportPackage(path, dir.filePath("again"));
        QCOMPARE(full.error().kind, ErrorKind::exists);
        QCOMPARE(importPackage(path, dir.filePath("out")).error().kind, ErrorKind::exists);
    }
    // The same as one zip file; a zip that holds something else, or half of one, makes nothing.
    void asAZipFile() {
        TempLogbook log;
        log.withBatch();
        log.close();
        QTemporaryDir dir;
        const QString zip = dir.filePath("shop.zip");
        QVERIFY(exportPackage(log.path(), zip).ok());
        QVERIFY(filesIn(dir.path())["shop.zip"].startsWith("PK"));
        QCOMPARE(exportPackage(log.path(), zip).error().kind, ErrorKind::exists);
        QVERIFY(importPackage(dir.filePath("back.rollcall"), zip).ok());
        QVERIFY(exportPackage(log.path(), dir.filePath("a")).ok());
        QVERIFY(exportPackage(dir.filePath("back.rollcall"), dir.filePath("b")).ok());
        QVERIFY(filesIn(dir.filePath("a")) == filesIn(dir.filePath("b")));
        const QString bad = dir.filePath("bad.zip");
        put(bad, filesIn(dir.path())["shop.zip"].left(2000));
        QCOMPARE(importPackage(dir.filePath("none.rollcall"), bad).error().kind, ErrorKind::input);
        QCOMPARE(importPackage(dir.filePath("none.rollcall"), dir.filePath("no.zip")).error().kind, ErrorKind::input);
        QByteArray climbing = filesIn(dir.path())["shop.zip"];
        QVERIFY(climbing.contains("blade.csv"));
        put(bad, climbing.replace("blade.csv", "../be.csv")); // of the same length: out of the folder
        const auto refused = importPackage(dir.filePath("none.rollcall"), bad);
        QVERIFY2(refused.error().text == "this zip file holds what is not of a package", refused.error().text.c_str());
        QVERIFY(!QFile::exists(dir.filePath("none.rollcall")));
    }
    // Blanks, line ends, backslashes, quotes, empty and missing texts.
    void difficultTexts() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::vector<std::string> texts{" blank at both ends ", "two\nlines\r\n", "back\\slash \\N",
                                             "\"quoted\", comma; semicolon", "tab\tend"};
        for (const std::string& text : texts) QVERIFY(excuse(*log, batch.blades[0].id, Gate::edge, text).ok());
        QTemporaryDir dir;
        log.close();
        QVERIFY(exportPackage(log.path(), dir.filePath("out")).ok());
        QVERIFY(importPackage(dir.filePath("back.rollcall"), dir.filePath("out")).ok());
        const auto back = Logbook::open(dir.filePath("back.rollcall"), Logbook::Access::read).value();
        const Batch read = back->batch(batch.id).value();
        QCOMPARE(read.blades[0].excuses.size(), texts.size());
        for (std::size_t i = 0; i < texts.size(); ++i) QCOMPARE(read.blades[0].excuses[i].reason, texts[i]);
    }
    void whatIsNoPackageOrDamaged() {
        TempLogbook log;
        log.withBatch();
        log.close();
        QTemporaryDir dir;
        const QString back = dir.filePath("back.rollcall");
        QCOMPARE(importPackage(back, dir.filePath("nowhere")).error().kind, ErrorKind::input);
        QVERIFY(!QFile::exists(back)); // nothing half made stays
        QVERIFY(exportPackage(log.path(), dir.filePath("out")).ok());
        const QString blades = dir.filePath("out/blade.csv");
        const QByteArray whole = filesIn(dir.filePath("out"))["blade.csv"];
        put(blades, QByteArray(whole).replace("A-1", "A-9"));
        const auto changed = importPackage(back, dir.filePath("out"));
        QVERIFY2(QString::fromStdString(changed.error().text).contains("changed or damaged"),
                 changed.error().text.c_str());
        QVERIFY(!QFile::exists(back));
        QFile::remove(blades);
        QVERIFY(!importPackage(back, dir.filePath("out")).ok());
        put(blades, whole);
        QVERIFY(importPackage(back, dir.filePath("out")).ok());
    }
    // What is not a whole package of a logbook makes none: no tables, one left out, a name that leads out of it, a
    // link, a zip with more than its own.
    void whatIsNotAWholePackage() {
        TempLogbook log;
        log.withBatch();
        QVERIFY(addCertificateFile(*log));
        log.close();
        QTemporaryDir dir;
        const QString out = dir.filePath("out");
        const QString back = dir.filePath("back.rollcall");
        QVERIFY(exportPackage(log.path(), out).ok());
        const auto whole = filesIn(out);
        const auto refused = [&](const char* says) {
            const auto in = importPackage(back, out);
            const bool told = !in && QString::fromStdString(in.error().text).contains(QLatin1String(says));
            for (auto file = whole.begin(); file != whole.end(); ++file) put(out + "/" + file.key(), file.value());
            if (!told) qWarning() << (in ? "taken in" : in.error().text.c_str());
            return told && !QFile::exists(back);
        };
        const auto described = [&](const std::function<void(QJsonObject&)>& change) {
            QJsonObject package = QJsonDocument::fromJson(whole["datapackage.json"]).object();
            change(package);
            put(out + "/datapackage.json", QJsonDocument(package).toJson());
        };
        described([](QJsonObject& package) { package["resources"] = QJsonArray(); });
        QVERIFY(refused("is missing"));
        described([](QJsonObject& package) {
            QJsonArray some;
            for (const QJsonValue one : package["resources"].toArray()) {
                if (one.toObject()["name"].toString() != "reading") some.append(one);
            }
            package["resources"] = some;
        });
        QVERIFY(refused("the table reading is missing"));
        const QByteArray blobs = whole["attachment_blob.csv"];
        const QByteArray hash = blobs.split('\n').at(1).left(64);
        QCOMPARE(hash.size(), 64);
        const auto rehash = [&](const QString& name, const QByteArray& bytes) {
            const auto sha = [](const QByteArray& b) {
                return QCryptographicHash::hash(b, QCryptographicHash::Sha256).toHex();
            };
            put(out + "/" + name, bytes);
            put(out + "/datapackage.json", QByteArray(whole["datapackage.json"]).replace(sha(whole[name]), sha(bytes)));
        };
        rehash("attachment_blob.csv", QByteArray(blobs).replace(hash, "../../../../../../dev/zero"));
        QVERIFY(refused("no name of a file"));
        QFile::remove(out + "/files/" + hash);
        QFile::link("/dev/zero", out + "/files/" + hash);
        QVERIFY(!importPackage(back, out).ok() && !QFile::exists(back));
        QFile::remove(out + "/files/" + hash);
        put(out + "/files/" + hash, whole["files/" + QString::fromLatin1(hash)]);
        // A number that no blade has, with the hash of its table redone: the chain knows better.
        rehash("blade.csv", QByteArray(whole["blade.csv"]).replace("2.4", "2.5"));
        QVERIFY(refused("does not pass its own check"));
        QVERIFY(importPackage(back, out).ok());
    }

    // A byte changed here and there, with the hash made to fit: refused in words with nothing made. Seeded.
    void changedByAHandThatFitsTheHash() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log->setPerson("HB");
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
        log.close();
        QTemporaryDir dir;
        const QString out = dir.filePath("out");
        QVERIFY(exportPackage(log.path(), out).ok());
        const auto whole = filesIn(out);
        std::mt19937 random(5);
        const auto below = [&](qsizetype n) { return static_cast<qsizetype>(random() % static_cast<unsigned>(n)); };
        int refused = 0;
        for (int i = 0; i < 60; ++i) {
            QStringList filled;
            for (auto file = whole.begin(); file != whole.end(); ++file) {
                if (file.key().endsWith(".csv") && file.value().count('\n') > 1) filled << file.key();
            }
            const QString name = filled[below(filled.size())];
            QByteArray bytes = whole[name];
            bytes[below(bytes.size())] = "\",;\n\\x9-"[below(8)];
            QByteArray descriptor = whole["datapackage.json"];
            const auto sha = [](const QByteArray& b) {
                return QCryptographicHash::hash(b, QCryptographicHash::Sha256).toHex();
            };
            QVERIFY(descriptor.contains(sha(whole[name])));
            put(out + "/" + name, bytes);
            put(out + "/datapackage.json", descriptor.replace(sha(whole[name]), sha(bytes)));
            const QString back = dir.filePath(QString::number(i) + ".rollcall");
            const auto in = importPackage(back, out);
            if (!in) {
                ++refused;
                QVERIFY(!in.error().text.empty());
                QVERIFY(!QFile::exists(back));
            } else {
                QVERIFY2(bytes == whole[name], qPrintable(name + "\n" + bytes));
            }
            put(out + "/" + name, whole[name]);
        }
        QVERIFY2(refused > 10, qPrintable(QString::number(refused)));
    }
    // Decisions and the plan of sampling come back as they were signed.
    void decisionsInTheRecord() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string blade = batch.blades[0].id;
        QVERIFY(
            !sign(*log, {{blade, {Disposition::release, 1, "temper=pass 62.00", "", {}, {}}}}).ok()); // nobody at work
        log->setPerson("HB");
        QVERIFY(!sign(*log, {{blade, {Disposition::hold, 1, "", " ", {}, {}}}}).ok());
        QVERIFY(!sign(*log, {}).ok());
        QVERIFY(sign(*log, {{blade, {Disposition::release, 1, "temper=pass 62.00", "", {}, {}}}}).ok());
        QVERIFY(sign(*log, {{blade, {Disposition::otherPurpose, 1, "temper=fail 57.00", "a chopper", {}, {}}}}).ok());
        QVERIFY(!askSample(*log, batch.id, 1.5).ok());
        QVERIFY(askSample(*log, batch.id, 0.95).ok());
        QVERIFY(log.reopen().ok());
        const Batch read = log->batch(batch.id).value();
        QCOMPARE(*read.sample_asked, 0.95);
        QCOMPARE(read.blades[0].signatures.size(), std::size_t(2));
        QCOMPARE(read.blades[0].signatures[1].disposition, Disposition::otherPurpose);
        QCOMPARE(read.blades[0].signatures[1].by, std::string("HB"));
        QCOMPARE(read.blades[0].signatures[0].basis, std::string("temper=pass 62.00"));
        QVERIFY(askSample(*log, batch.id, std::nullopt).ok());
        QVERIFY(!log->batch(batch.id).value().sample_asked);
        QVERIFY(log->check().value().empty());
    }
};

QTEST_GUILESS_MAIN(tst_Package)
#include "tst_package.moc"
