// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/batch_table.h"

#include "core/base/csv.h"
#include "core/judge/release_judge.h"
#include "files/disk.h"
#include "plot/translate.h"
#include "words/words.h"

#include <QDateTime>
#include <QFileInfo>
#include <xlsxwriter.h>

namespace rollcall {

namespace {

QString stateAt(const BladeVerdicts& verdicts, Gate gate) {
    const std::optional<Verdict>& verdict = verdicts[indexOf(gate)];
    return verdict ? words::stateName(verdict->state) : QString();
}

QVariant rounded(double value, int places) {
    return QString::number(value, 'f', places).toDouble();
}

} // namespace

ReportTable bladeTable(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables) {
    ReportTable table;
    table.title = QString::fromStdString(batch.name);
    table.head = {tr("blade"),    tr("sold as"),    tr("composition"), tr("HRC"),      tr("U (95 %)"),
                  tr("readings"), tr("window low"), tr("window high"), tr("inside"),   tr("quench HRC"),
                  tr("heat"),     tr("edge"),       tr("proof"),       tr("decision"), tr("signed by")};
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const BladeVerdicts& own = verdicts.blades[i];
        const std::optional<Verdict>& temper = own[indexOf(Gate::temper)];
        const std::optional<Verdict>& quench = own[indexOf(Gate::quench)];
        const ReleaseAnswer release = releaseAnswer(batch, i, own, tables);
        const BladeClaim claim = batch.claimOf(batch.blades[i]);
        QVariantList row{QString::fromStdString(batch.blades[i].mark),
                         QString::fromStdString(claim.claimed.empty() ? claim.grade : claim.claimed),
                         stateAt(own, Gate::steel)};
        if (temper && temper->measurement) {
            const Measurement& m = *temper->measurement;
            row << rounded(m.decided_mean, 1) << rounded(m.decided_uncertainty, 2) << m.n;
        } else {
            row << QVariant() << QVariant() << QVariant();
        }
        row << (claim.window->low ? QVariant(*claim.window->low) : QVariant())
            << (claim.window->high ? QVariant(*claim.window->high) : QVariant()) << stateAt(own, Gate::temper)
            << (quench && quench->measurement ? rounded(quench->measurement->decided_mean, 1) : QVariant())
            << stateAt(own, Gate::heat) << stateAt(own, Gate::edge) << stateAt(own, Gate::proof);
        if (release.out)
            row << tr("out") << QVariant();
        else if (release.signature == nullptr)
            row << QVariant() << QVariant();
        else
            row << words::dispositionName(release.signature->disposition) +
                       (release.changed.empty() ? QString() : tr(" (stale)"))
                << QString::fromStdString(release.signature->by);
        table.rows.push_back(std::move(row));
    }
    return table;
}

ReportTable readingTable(const Batch& batch) {
    ReportTable table;
    table.title = tr("Readings");
    table.head = {tr("blade"), tr("gate"),   tr("round"), tr("after temper"), tr("value"), tr("scale"),
                  tr("time"),  tr("tester"), tr("x mm"),  tr("y mm"),         tr("by"),    tr("struck out")};
    for (const Blade& blade : batch.blades) {
        for (const Reading& reading : blade.readings) {
            const Tester* tester = batch.tester(reading.tester);
            QVariantList row{QString::fromStdString(blade.mark),
                             words::gateName(reading.gate),
                             reading.round,
                             reading.after_temper ? QVariant(*reading.after_temper) : QVariant(),
                             reading.value,
                             QString::fromStdString(reading.scale)};
            row << (reading.time ? QVariant(QDateTime::fromMSecsSinceEpoch(reading.time->utc_ms, Qt::OffsetFromUTC,
                                                                           reading.time->offset_minutes * 60)
                                                .toString(Qt::ISODate))
                                 : QVariant())
                << (tester != nullptr ? QString::fromStdString(tester->name) : QString())
                << (reading.spot ? QVariant(reading.spot->x_mm) : QVariant())
                << (reading.spot ? QVariant(reading.spot->y_mm) : QVariant()) << QString::fromStdString(reading.person)
                << (reading.struck ? QVariant(words::strikeName(reading.struck->reason)) : QVariant());
            table.rows.push_back(std::move(row));
        }
    }
    return table;
}

namespace {

// A text that a spreadsheet would take for a formula stands behind an apostrophe, by which it knows a text.
QString inert(const QVariant& field) {
    const QString text = field.toString();
    if (field.typeId() != QMetaType::QString || text.isEmpty()) return text;
    bool number = false;
    text.toDouble(&number);
    return !number && QStringLiteral("=+-@\t\r").contains(text.front()) ? QLatin1Char('\'') + text : text;
}

} // namespace

QByteArray csvOf(const ReportTable& table) {
    QByteArray text;
    const auto line = [&](const QVariantList& fields) {
        for (qsizetype i = 0; i < fields.size(); ++i)
            text += (i == 0 ? "" : ",") + QByteArray::fromStdString(csvField(inert(fields[i]).toStdString()));
        text += '\n';
    };
    line(QVariantList(table.head.begin(), table.head.end()));
    for (const QVariantList& row : table.rows) line(row);
    return text;
}

Result<Done> writeCsv(const QString& path, const ReportTable& table) {
    return writeFile(path, csvOf(table));
}

namespace {

Result<Done> makeWorkbook(const QString& path, const std::vector<ReportTable>& tables) {
    const Error failed{ErrorKind::disk, path.toStdString(), "this file cannot be written"};
    lxw_workbook* book = workbook_new(path.toLocal8Bit().constData());
    if (book == nullptr) return failed;
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    QStringList used;
    for (const ReportTable& table : tables) {
        if (used.contains(table.title)) continue; // the one in view is one of all
        used << table.title;
        QString name = table.title.left(31);
        for (const char c : {'[', ']', ':', '*', '?', '/', '\\', '\''}) name.replace(QLatin1Char(c), QLatin1Char(' '));
        lxw_worksheet* sheet = workbook_add_worksheet(book, name.toUtf8().constData());
        if (sheet == nullptr) sheet = workbook_add_worksheet(book, nullptr); // a name in use
        for (qsizetype c = 0; c < table.head.size(); ++c)
            worksheet_write_string(sheet, 0, static_cast<lxw_col_t>(c), table.head[c].toUtf8().constData(), bold);
        for (std::size_t r = 0; r < table.rows.size(); ++r) {
            for (qsizetype c = 0; c < table.rows[r].size(); ++c) {
                const QVariant& value = table.rows[r][c];
                const auto row = static_cast<lxw_row_t>(r + 1);
                const auto column = static_cast<lxw_col_t>(c);
                if (value.typeId() == QMetaType::Double || value.typeId() == QMetaType::Int)
                    worksheet_write_number(sheet, row, column, value.toDouble(), nullptr);
                else if (value.isValid())
                    worksheet_write_string(sheet, row, column, value.toString().toUtf8().constData(), nullptr);
            }
        }
        worksheet_freeze_panes(sheet, 1, 1);
    }
    return workbook_close(book) == LXW_NO_ERROR ? Result<Done>(Done{}) : failed;
}

} // namespace

Result<Done> writeWorkbook(const QString& path, const std::vector<ReportTable>& tables) {
    return writeFileBy(path, [&](const QString& part) { return makeWorkbook(part, tables); });
}

Result<Done> writeTablesTo(const QString& path, const std::vector<ReportTable>& tables) {
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("xlsx")) return writeWorkbook(path, tables);
    if (ending != QLatin1String("csv"))
        return Error{ErrorKind::argument, path.toStdString(), "the ending must be csv or xlsx"};
    return writeCsv(path, tables.front());
}

} // namespace rollcall
