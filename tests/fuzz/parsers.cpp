// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/fuzz/parsers.h"

#include "cli/log_acts.h"
#include "core/base/csv.h"
#include "core/base/number.h"
#include "core/base/protocol.h"
#include "core/base/tables.h"
#include "core/base/units.h"
#include "core/find/wanted.h"
#include "core/heat/trace.h"
#include "core/heat/warp.h"
#include "core/steel/composition.h"
#include "core/steel/grade_sheet.h"
#include "core/steel/shot_table.h"
#include "devices/line_pattern.h"
#include "logbook/shape_text.h"
#include "logbook/transfer/column_map.h"
#include "logbook/transfer/package.h"
#include "logbook/transfer/readings_csv.h"
#include "logbook/transfer/zip_folder.h"
#include "plot/fracture_picture.h"
#include "words/typed_time.h"

#include <cmath>
#include <QBuffer>
#include <QCryptographicHash>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QPainter>
#include <QTemporaryDir>
#include <stdexcept>

namespace rollcall::fuzz {

namespace {

const Tables& tables() {
    static const Tables all = Tables::load(ROLLCALL_DATA_DIR "/tables").value();
    return all;
}

void promise(bool held, const char* what) {
    if (!held) throw std::logic_error(what);
}

// A refusal says why.
template<class T>
void told(const Result<T>& read) {
    promise(read.ok() || !read.error().text.empty(), "refused without a word");
}

void numbers(std::string_view text) {
    const auto one = parseNumber(text);
    told(one);
    promise(!one || std::isfinite(*one), "a number that is none");
    told(parseNumbers(text));
    for (const Quantity quantity : {Quantity::length, Quantity::temperature, Quantity::duration}) {
        for (const Units units : {Units::metric, Units::inch}) {
            const auto value = parseQuantity(text, quantity, units);
            told(value);
            promise(!value || std::isfinite(*value), "a quantity that is none");
        }
    }
}

void table(std::string_view text) {
    const auto whole = readCsv(text);
    told(whole);
    told(readCsvByLines(text));
    if (!whole) return;
    // Written as it was read it is read as it was.
    std::string again;
    const auto write = [&](const std::vector<std::string>& fields) {
        for (std::size_t i = 0; i < fields.size(); ++i) again += (i > 0 ? "," : "") + csvField(fields[i]);
        again += '\n';
    };
    write(whole->header);
    for (const CsvRow& row : whole->rows) write(row.fields);
    const auto second = readCsv(again);
    // What parts the fields is guessed from the header, and a byte order mark belongs to none of them.
    if (whole->separator != ',' || whole->header.size() < 2 || again.starts_with("\xEF\xBB\xBF")) return;
    promise(second.ok() && second->header == whole->header && second->rows.size() == whole->rows.size(),
            "a table that is not read back");
    for (std::size_t i = 0; i < whole->rows.size(); ++i)
        promise(second->rows[i].fields == whole->rows[i].fields, "a row that is not read back");
}

void readings(std::string_view text) {
    const auto read = tableOfFile(QByteArray(text.data(), static_cast<qsizetype>(text.size())));
    told(read);
    if (!read) return;
    (void)isReadingsCsv(*read);
    const ColumnMap map = guessColumns(*read, "Batch");
    for (const CsvText& one : {*read, arranged(*read, map)}) {
        const auto lines = readReadingsCsv(tables(), one);
        told(lines);
        if (!lines) continue;
        for (const auto& bad : lines->rejected) promise(!bad.reason.empty(), "a line refused without a word");
        for (const ReadingLine& line : lines->lines) promise(std::isfinite(line.value), "a reading that is no number");
    }
}

void trace(std::string_view text) {
    told(parseClock(text));
    const auto read = readTrace(text);
    told(read);
}

void steel(std::string_view text) {
    const auto shot = readShot(text);
    told(shot);
    told(readShotTable(text));
}

void sheet(std::string_view text) {
    GradeSheet fields{{"name", "X"}, {"based_on", "1095"}};
    const auto& names = gradeSheetFields();
    std::size_t at = 0;
    for (std::size_t i = 0; i < text.size() && at < names.size(); ++at) { // a field a line
        const std::size_t end = std::min(text.find('\n', i), text.size());
        if (end > i) fields[names[at]] = std::string(text.substr(i, end - i));
        i = end + 1;
    }
    const auto grade = gradeFromSheet(fields, tables());
    told(grade);
    if (!grade) return;
    const GradeSheet written = sheetOf(*grade);
    const auto again = gradeFromSheet(written, tables());
    promise(again.ok() && sheetOf(*again) == written, "a grade that is not read back");
}

void protocol(std::string_view text) {
    const auto read = readProtocols(std::string(text));
    told(read);
    if (!read) return;
    for (const Protocol& one : *read) {
        const auto again = readProtocols(protocolText(one));
        promise(again.ok() && again->size() == 1 && again->front().steps.size() == one.steps.size(),
                "a protocol that is not read back");
    }
}

void warps(std::string_view text) {
    told(parseWarps(text));
}

void sentence(std::string_view text) {
    (void)wantedFrom(std::string(text), tables(), Instant{1795500000000, 60});
}

void line(std::string_view text) {
    static const LinePattern pattern =
        LinePattern::fromText(R"((?<value>[0-9]+([.,][0-9]+)?)\s*(?<scale>HR[A-C][A-Z]?)?)").value();
    const QByteArray bytes(text.data(), static_cast<qsizetype>(text.size()));
    LineSplitter splitter;
    for (const QByteArray& one : splitter.take(bytes)) {
        const DeviceLine read = pattern.parse(one);
        promise(read.kind != DeviceLine::Kind::reading || std::isfinite(read.value), "a reading that is no number");
    }
    (void)splitter.abandon();
}

void pattern(std::string_view text) {
    told(LinePattern::fromText(QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()))));
}

void outline(std::string_view text) {
    BladeShape shape;
    shape.outline = outlineFromText(QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())));
    const std::vector<Spot> again = outlineFromText(outlineText(shape));
    promise(std::equal(again.begin(), again.end(), shape.outline.begin(), shape.outline.end(),
                       [](const Spot& a, const Spot& b) { return a.x_mm == b.x_mm && a.y_mm == b.y_mm; }),
            "an outline that is not read back");
}

void zip(std::string_view text) {
    const QTemporaryDir dir;
    QFile file(dir.filePath(QStringLiteral("p.zip")));
    if (!file.open(QIODevice::WriteOnly)) return;
    file.write(text.data(), static_cast<qint64>(text.size()));
    file.close();
    QDir(dir.path()).mkdir(QStringLiteral("out"));
    told(unzipInto(file.fileName(), dir.filePath(QStringLiteral("out"))));
    promise(QDir(dir.path()).entryList(QDir::AllEntries | QDir::NoDotAndDotDot).size() == 2, "something outside");
}

std::string emptyZip() {
    return std::string("PK\x05\x06") + std::string(18, '\0');
}

QByteArray bytesOf(std::string_view text) {
    return {text.data(), static_cast<qsizetype>(text.size())};
}

QByteArray contentOf(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

void put(const QString& path, const QByteArray& bytes) {
    QFile file(path);
    promise(file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size(), "a file was not written");
}

// A day or a moment as a maker types it.
void moment(std::string_view text) {
    const Instant now{1795500000000, 60};
    const QString typed = QString::fromUtf8(bytesOf(text));
    const auto when = typedTime(typed, now);
    told(when);
    promise(!when || when->utc_ms <= now.utc_ms, "a moment ahead");
    const auto day = typedDate(typed);
    told(day);
    promise(!day || day->empty() || typedDate(QString::fromStdString(*day)).ok(), "a day that is not read back");
}

// A photo of a fracture. Whatever its head says of its size, it is decoded within bounds.
void picture(std::string_view text) {
    const ReadPhoto read = readPhoto(bytesOf(text));
    promise(!read.photo.isNull() || !read.ofAKind || !read.trouble.isEmpty(), "refused without a word");
    if (read.photo.isNull() || read.photo.width() > 2000 || read.photo.height() > 2000) return;
    promise(greyOf(read.photo).width == read.photo.width() && !photoLevels(read.photo).empty(), "a photo in part");
}

std::string pictureAs(const char* format) {
    QImage image(24, 16, QImage::Format_RGB32);
    for (int y = 0; y < image.height(); ++y) {
        for (int x = 0; x < image.width(); ++x) image.setPixel(x, y, qRgb(10 * x, 15 * y, x * y));
    }
    QByteArray bytes;
    QBuffer buffer(&bytes);
    image.save(&buffer, format);
    return bytes.toStdString();
}

// A logbook with a batch in it, to which lines are logged and from which a package is made.
class Shop {
public:
    static Shop& only() {
        static Shop shop;
        return shop;
    }

    /// Logs the lines as `rollcallctl log` does, then takes all of it back.
    void log(const QByteArray& lines) {
        const Error undone{ErrorKind::refused, "", "taken back"};
        (void)m_logbook->transact("lines logged", [&]() -> Result<Done> {
            (void)take(lines);
            return undone;
        });
    }
    const QString& package() const { return m_package; }
    QString path(const char* name) const { return m_dir.filePath(QLatin1String(name)); }

    static const std::vector<std::string>& lines() {
        static const std::vector<std::string> all{
            R"({"do":"person","initials":"HB"})",
            R"({"do":"tester","name":"Bench 1","kind":"bench"})",
            R"({"do":"block","name":"62.6","certified":62.6})",
            R"({"do":"batch","name":"Pear 3","count":3,"marks":"P-#","sold_as":"115CrV3","window":"61:63"})",
            R"({"do":"verify","tester":"Bench 1","block":"62.6","readings":[62.7,62.9,62.8],"by":"HB"})",
            R"({"do":"temper","batch":"Pear 3","blades":["P-1","P-2"],"temperature":"401F","hours":"90min"})",
            R"({"do":"reading","batch":"Pear 3","blade":"P-1","gate":"temper","value":61.9,"tester":"Bench 1"})",
            R"({"do":"note","batch":"Pear 3","text":"forged in the rain","time":"2020-01-20T08:12"})"};
        return all;
    }

private:
    Shop() : m_clock(std::make_shared<Instant>(LogbookSeams::real().now())) {
        LogbookSeams seams = LogbookSeams::real();
        seams.now = [clock = m_clock] { return *clock; };
        m_logbook = Logbook::create(path("shop.rollcall"), seams).value();
        QByteArray all;
        for (const std::string& one : lines()) all += QByteArray::fromStdString(one) + '\n';
        promise(m_logbook->transact("lines logged", [&] { return take(all); }).ok(), "the shop was not made");
        m_package = path("package");
        promise(exportTo(*m_logbook, m_package).ok(), "the package was not made");
    }

    Result<Done> take(const QByteArray& text) {
        cli::LogLines logging(*m_logbook, tables(), QDir(m_dir.path()), m_clock);
        int number = 0;
        Result<Done> all = Done{};
        for (const QByteArray& line : text.split('\n')) {
            if (line.trimmed().isEmpty()) continue;
            const auto done = logging.take(++number, line);
            told(done);
            if (!done) all = done;
        }
        return all;
    }

    QTemporaryDir m_dir;
    std::shared_ptr<Instant> m_clock;
    std::unique_ptr<Logbook> m_logbook;
    QString m_package;
};

void logLines(std::string_view text) {
    Shop::only().log(bytesOf(text));
}

// A package of which one file, named in the first line, is another, and which says so: what is in it is read.
void package(std::string_view text) {
    const Shop& shop = Shop::only();
    const QString folder = shop.package();
    const std::size_t end = std::min(text.find('\n'), text.size());
    QString name = QString::fromUtf8(bytesOf(text.substr(0, end)));
    if (!QFileInfo(folder + QLatin1Char('/') + name).isFile() || name.contains(QLatin1Char('/')))
        name = QStringLiteral("reading.csv");
    const QString member = folder + QLatin1Char('/') + name;
    const QString index = folder + QStringLiteral("/datapackage.json");
    const QByteArray was = contentOf(member);
    const QByteArray indexWas = contentOf(index);
    put(member, bytesOf(text.substr(std::min(end + 1, text.size()))));
    if (member != index) {
        QJsonObject all = QJsonDocument::fromJson(indexWas).object();
        QJsonArray resources = all[QStringLiteral("resources")].toArray();
        for (QJsonValueRef one : resources) {
            QJsonObject resource = one.toObject();
            if (resource[QStringLiteral("path")].toString() != name) continue;
            const auto hash = QCryptographicHash::hash(contentOf(member), QCryptographicHash::Sha256).toHex();
            resource[QStringLiteral("hash")] = QStringLiteral("sha256:") + QString::fromLatin1(hash);
            one = resource;
        }
        all[QStringLiteral("resources")] = resources;
        put(index, QJsonDocument(all).toJson());
    }
    const QString made = shop.path("made.rollcall");
    const auto read = importPackage(made, folder);
    put(member, was);
    put(index, indexWas);
    told(read);
    promise(read.ok() == QFile::exists(made), "a logbook of what was refused");
    QFile::remove(made);
}

std::string memberOf(const char* name) {
    return std::string(name) + '\n' +
           contentOf(Shop::only().package() + QLatin1Char('/') + QLatin1String(name)).toStdString();
}

// With members that are packed, of the names that a package has.
std::string smallZip() {
    const QTemporaryDir dir;
    const QString folder = dir.filePath(QStringLiteral("p"));
    QDir(dir.path()).mkdir(QStringLiteral("p"));
    for (const char* name : {"person.csv", "reading.csv", "block.csv"})
        put(folder + QLatin1Char('/') + QLatin1String(name),
            contentOf(Shop::only().package() + QLatin1Char('/') + QLatin1String(name)));
    const QString zip = dir.filePath(QStringLiteral("p.zip"));
    promise(zipFolder(folder, zip).ok(), "no zip was made");
    return contentOf(zip).toStdString();
}

} // namespace

const std::vector<Parser>& parsers() {
    static const std::vector<Parser> all{
        {"numbers", numbers, {"62.1", "62,1 HRC", "1475F", "0.095in", "8 min", "2 h", "62.1, 61.8; 61.9", "-1e+10"}},
        {"table",
         table,
         {"a,b\n1,2\n", "\"a;b;c\",d\n1,2\n", "\"a \"\"b\"\"\";c\n1;\"2\n3\"\n", "x\ty\r\n\r\n1\t2\r\n"}},
        {"readings",
         readings,
         {"batch,blade,gate,temper,value,scale,tester,time\nP,1,temper,1,61.5,HRC,Bench,2026-11-20T10:00\n",
          "Knife;Rockwell\n1;61,5\n2;60,5\n"}},
        {"trace", trace, {"time,temperature\n0,20\n60,812.5\n", "2026-11-20 10:00:00;800\n", "10:00:05"}},
        {"steel", steel, {"Cr 13.6; Mo 0.05; V <0.05", "element,percent,error\nC,1.02,0.02\nCr,1.4,0.1\n"}},
        {"sheet",
         sheet,
         {"\n\n\nC 0.95-1.05; Cr -0.30; V 0.15-\n790-820\n5-10\n62 64 66\noil\n260-370\n"
          "150:2=64 200:2=61.5 250:2=59 300:2=57\nmedium\nnone",
          "Y\n1095\nZ, W\nC 5e-05-0.3; Si -0.1"}},
        {"protocol",
         protocol,
         {protocolText({"Cut to dull", {}}), protocolText(tables().protocols().front()),
          "protocol,step,kind,least,most\nP,S,number,0.00001,123456789.12345\n"}},
        {"warps", warps, {"1=1.2L, 2=0.8R 3=0", "x=1.2L"}},
        {"sentence", sentence, {"115CrV3, tempered 200 to 210 C, since spring, failed", "by HB, lot A"}},
        {"line", line, {"62.1 HRC\r\n61,8\r\n", "#12 62.1\n"}},
        {"pattern", pattern, {R"((?<value>\d+))", "(["}},
        {"outline", outline, {"[[0,0],[58,0.5],[58,16],[0,16]]", "[[0],1,[1,2,3],[6e3,1]]"}},
        {"moment", moment, {"14:30", "2026-11-24 18:00", "24.11.2026 18:00", "2027-05", "31.5.2027"}},
        {"picture", picture, {pictureAs("PNG"), pictureAs("JPEG"), pictureAs("BMP"), pictureAs("PPM")}},
        {"log", logLines, Shop::lines(), 600},
        {"zip", zip, {emptyZip(), smallZip()}},
        {"package",
         package,
         {memberOf("reading.csv"), memberOf("datapackage.json"), memberOf("blade.csv"), memberOf("change.csv")},
         40}};
    return all;
}

} // namespace rollcall::fuzz
