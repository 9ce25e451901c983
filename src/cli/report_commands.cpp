// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "logbook/transfer/merge.h"
#include "logbook/transfer/package.h"
#include "plot/rule.h"
#include "report/batch_card.h"
#include "report/batch_table.h"
#include "report/certificate.h"
#include "report/export_picture.h"
#include "report/gate_table.h"
#include "report/page.h"
#include "report/piece_card.h"
#include "report/pile.h"
#include "words/data_folder.h"
#include "words/units.h"

#include <QJsonArray>
#include <QTemporaryDir>

// The commands by which data leaves the shop and comes back.
namespace rollcall::cli {

namespace {

QJsonObject countsOf(const PackageCounts& counts) {
    int rows = 0;
    QJsonObject tables;
    for (const auto& [table, count] : counts) {
        tables[q(table)] = count;
        rows += count;
    }
    return {{"tables", tables}, {"rows", rows}};
}

} // namespace

Result<QJsonObject> exportTo(const Options& options, const Tables&) {
    if (!options.has("without-names")) {
        const auto counts = exportPackage(options.word(0), options.word(1));
        if (!counts) return counts.error();
        return countsOf(*counts);
    }
    const QTemporaryDir folder;
    const QString copy = folder.filePath(QStringLiteral("copy.rollcall"));
    {
        const auto opened = Logbook::open(options.word(0), Logbook::Access::read);
        if (!opened) return opened.error();
        if (auto made = copyWithoutNames(**opened, copy); !made) return made.error();
    }
    const auto counts = exportPackage(copy, options.word(1));
    if (!counts) return counts.error();
    return countsOf(*counts);
}

Result<QJsonObject> merge(const Options& options, const Tables&) {
    const auto opened = Logbook::open(options.word(0), Logbook::Access::write);
    if (!opened) return opened.error();
    const auto report = mergeLogbook(**opened, options.word(1), options.has("trial"));
    if (!report) return report.error();
    QJsonObject answer = countsOf(report->added);
    const auto sentences = [](const std::vector<std::string>& list) {
        QJsonArray array;
        for (const std::string& one : list) array.append(q(one));
        return array;
    };
    answer[QStringLiteral("changed")] = report->changed;
    answer[QStringLiteral("conflicts")] = sentences(report->conflicts);
    answer[QStringLiteral("renamed")] = sentences(report->renamed);
    return answer;
}

Result<QJsonObject> importPackageInto(const Options& options, const Tables&) {
    const auto counts = importPackage(options.word(0), options.word(1));
    if (!counts) return counts.error();
    return countsOf(*counts);
}

Result<QJsonObject> report(const Options& options, const Tables& tables) {
    const bool draws =
        options.has("pdf") || options.has("svg") || options.has("card") || options.has("pile") || options.has("pieces");
    if (!draws && !options.has("csv") && !options.has("xlsx"))
        return Error{ErrorKind::argument, "",
                     "say what to write: --pdf, --csv, --xlsx, --svg, --card, --pile or --pieces with a file"};
    const auto opened = Logbook::open(options.word(0), Logbook::Access::read);
    if (!opened) return opened.error();
    Logbook& logbook = **opened;
    const auto shop = logbook.shop();
    if (!shop) return shop.error();
    words::setUnits(shop->units()); // papers leave in what the shop reads
    const auto batches = logbook.batches();
    if (!batches) return batches.error();
    std::string id;
    for (const BatchSummary& summary : *batches) {
        if (q(summary.name) == options.word(1)) id = summary.id;
    }
    if (id.empty()) return Error{ErrorKind::argument, options.word(1).toStdString(), "there is no such batch"};
    const auto batch = logbook.batch(id);
    if (!batch) return batch.error();
    const Instant now = LogbookSeams::real().now();
    const BatchVerdicts verdicts = judgeBatch(*batch, tables, now);
    QJsonArray written;
    const auto file = [&](const char* option) { return q(options.text(option)); };
    const auto wrote = [&](const char* option) { written.append(file(option)); };
    if (options.has("csv")) {
        if (auto done = writeCsv(file("csv"), bladeTable(*batch, verdicts, tables)); !done) return done.error();
        wrote("csv");
    }
    if (options.has("xlsx")) {
        if (auto done = writeWorkbook(file("xlsx"), allTables(*batch, verdicts, tables)); !done) return done.error();
        wrote("xlsx");
    }
    if (draws && !loadFonts(dataFolder() + QStringLiteral("/fonts")))
        return Error{ErrorKind::table, "fonts", "the typefaces are missing from the data folder"};
    if (options.has("pdf")) {
        CertificateOptions made;
        made.shop = file("shop");
        made.letter = options.has("letter");
        made.released_only = options.has("released-only");
        made.now = now;
        const auto head = logbook.head();
        if (!head) return head.error();
        made.head = q(*head);
        if (auto done = writeCertificate(file("pdf"), *batch, verdicts, tables, made); !done) return done.error();
        wrote("pdf");
    }
    if (options.has("card")) {
        if (auto done = writeBatchCard(file("card"), *batch, tables, options.has("letter"), now); !done)
            return done.error();
        wrote("card");
    }
    const bool letter = options.has("letter");
    if (options.has("pile")) {
        const std::vector<PileRow> rows = pileRows(*batch, verdicts);
        if (file("pile").endsWith(QLatin1String(".csv"), Qt::CaseInsensitive)) {
            if (auto done = writeCsv(file("pile"), pileTable(rows, q(batch->name))); !done) return done.error();
        } else {
            const auto done = writePdf(file("pile"), letter, q(batch->name), [&](Paper& paper) {
                return drawPile(paper, rows, q(batch->name), file("shop"), now);
            });
            if (!done) return done.error();
        }
        wrote("pile");
    }
    if (options.has("pieces")) {
        const auto done = writePdf(file("pieces"), letter, q(batch->name), [&](Paper& paper) {
            return drawPieceCards(paper, *batch, verdicts, tables, file("shop"));
        });
        if (!done) return done.error();
        wrote("pieces");
    }
    if (options.has("svg")) {
        const RuleData rule = meansRule(*batch, verdicts);
        const Look look;
        const auto saved =
            savePicture(file("svg"), QSize(900, 160), options.word(1), look.palette.panel,
                        [&](QPainter& painter, const QRect& area) { drawRule(painter, area, rule, look); });
        if (!saved) return saved.error();
        wrote("svg");
    }
    return QJsonObject{{"written", written}};
}

} // namespace rollcall::cli
