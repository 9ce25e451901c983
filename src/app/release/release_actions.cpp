// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/release/release_bench.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "logbook/package.h"
#include "report/batch_card.h"
#include "report/batch_table.h"
#include "report/certificate.h"
#include "words/words.h"

#include <QFileInfo>
#include <QSaveFile>
#include <QSettings>

// What the Release gate asks, and how it gets into the record and out of the shop.
namespace rollcall {

void ReleaseBench::signAll() {
    const auto blades = mayGo();
    QStringList marks;
    for (const std::size_t i : blades) marks << QString::fromStdString(m_document.batch().blades[i].mark);
    auto* form = new FormDialog(tr("Release %1").arg(marks.join(QStringLiteral(", "))), tr("Sign"),
                                {{"reason", tr("Remark"), tr("blank: none"), {}, {}, false}}, m_look, window());
    form->ask([](const FormValues&) { return FormFault{}; },
              [this, blades](const FormValues& v) { sign(blades, Disposition::release, v["reason"]); });
}

void ReleaseBench::decide() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const auto index = static_cast<std::size_t>(m_document.bladeIndex());
    if (m_answers[index].out)
        return emit said(tr("%1 is out of the batch.").arg(QString::fromStdString(blade->mark)), true);
    const ReleaseAnswer& answer = m_answers[index];
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < dispositions; ++i) {
        const auto one = static_cast<Disposition>(i);
        QString detail = one == answer.suggestion.disposition ? tr("suggested; ") : QString();
        switch (one) {
        case Disposition::release:
            detail += answer.open.empty() ? tr("every gate is answered")
                                          : tr("over %1 open gates, with the reason").arg(answer.open.size());
            break;
        case Disposition::temperAgain:
            detail += tr("T logs the temper; it is read again then");
            break;
        case Disposition::reharden:
            detail += tr("H begins round %1 of %2: all gates open anew, more skin is lost")
                          .arg(blade->round + 1)
                          .arg(m_document.batch().rehardening_limit + 1);
            break;
        case Disposition::otherPurpose:
            detail += tr("for its own window, in a batch of its own");
            break;
        case Disposition::hold:
            detail += tr("nothing is done until it is decided");
            break;
        case Disposition::scrap:
            detail += tr("it leaves the batch");
            break;
        }
        choices.push_back({QString::number(i + 1), words::dispositionName(one), detail});
    }
    (new ChoiceDialog(tr("What becomes of %1?").arg(QString::fromStdString(blade->mark)),
                      {tr("You decide and sign; the record only suggests.")}, choices, m_look, window()))
        ->ask([this, index](int i) { askReason(index, static_cast<Disposition>(i)); });
}

void ReleaseBench::askReason(std::size_t blade, Disposition disposition) {
    if (blade >= m_answers.size()) return;
    const bool free = disposition == Disposition::release && m_answers[blade].open.empty();
    auto* form = new FormDialog(
        tr("%1: %2").arg(QString::fromStdString(m_document.batch().blades[blade].mark),
                         words::dispositionName(disposition)),
        tr("Sign"),
        {{"reason", tr("Why"), free ? tr("blank: none") : tr("a year from now it is asked"), {}, {}, false}}, m_look,
        window());
    form->ask(
        [free](const FormValues& v) {
            return free || !v["reason"].isEmpty() ? FormFault{} : FormFault{QStringLiteral("reason"), tr("Say why.")};
        },
        [this, blade, disposition](const FormValues& v) { sign({blade}, disposition, v["reason"]); });
}

void ReleaseBench::sign(std::vector<std::size_t> blades, Disposition disposition, const QString& reason) {
    if (!m_document.hasBatch()) return;
    std::vector<Logbook::Decision> decisions;
    std::vector<std::string> scrapped;
    for (const std::size_t i : blades) {
        if (i >= m_document.batch().blades.size()) continue;
        const Blade& blade = m_document.batch().blades[i];
        // What it rests on is what is on screen now; if that changed meanwhile, the signature is stale at once.
        decisions.push_back({blade.id,
                             {disposition,
                              blade.round,
                              releaseBasis(m_document.state().verdicts.blades[i]),
                              reason.toStdString(),
                              {},
                              {}}});
        if (disposition == Disposition::scrap) scrapped.push_back(blade.id);
    }
    m_document.perform(
        [decisions, scrapped, why = reason.toStdString()](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                auto done = logbook.sign(decisions);
                for (const std::string& blade : scrapped) {
                    if (done) done = logbook.takeOut(blade, Fate::scrapped, Gate::release, why);
                }
                return done;
            });
        },
        [this, disposition, count = decisions.size()](const Result<Done>& done) {
            if (done)
                emit said(count == 1 ? tr("%1, signed.").arg(words::dispositionName(disposition))
                                     : tr("%1, signed for %2.").arg(words::dispositionName(disposition)).arg(count),
                          false);
        });
}

void ReleaseBench::askSample() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    auto* form =
        new FormDialog(tr("Sampling"), tr("Declare it"),
                       {{"chance",
                         tr("Chance asked"),
                         tr("that all unread ones are inside, %; blank: each blade is read"),
                         batch.sample_asked ? QString::number(*batch.sample_asked * 100) : QStringLiteral("95"),
                         {},
                         false}},
                       m_look, window());
    form->ask(
        [](const FormValues& v) {
            if (v["chance"].isEmpty()) return FormFault{};
            const auto value = parseNumber(v["chance"].toStdString());
            return value && *value > 0 && *value < 100
                       ? FormFault{}
                       : FormFault{QStringLiteral("chance"), tr("Type per cent, such as 95, or nothing.")};
        },
        [this, id = batch.id](const FormValues& v) {
            std::optional<double> chance;
            if (!v["chance"].isEmpty()) chance = *parseNumber(v["chance"].toStdString()) / 100;
            m_document.perform([id, chance](Logbook& logbook) { return logbook.askSample(id, chance); });
        });
}

void ReleaseBench::certificate() {
    if (!m_document.hasBatch()) return;
    QSettings settings;
    auto* form = new FormDialog(tr("Certificate of %1").arg(QString::fromStdString(m_document.batch().name)),
                                tr("Write the PDF"),
                                {{"shop",
                                  tr("Shop"),
                                  tr("as it stands on the page"),
                                  settings.value(QStringLiteral("shop/name")).toString(),
                                  {},
                                  false},
                                 {"mark",
                                  tr("Its mark"),
                                  tr("a picture file; blank: none"),
                                  settings.value(QStringLiteral("shop/mark")).toString(),
                                  {},
                                  false},
                                 {"paper",
                                  tr("Paper"),
                                  {},
                                  settings.value(QStringLiteral("shop/paper"), QStringLiteral("A4")).toString(),
                                  {QStringLiteral("A4"), QStringLiteral("Letter")},
                                  false}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["mark"].isEmpty() || !QImage(v["mark"]).isNull()
                       ? FormFault{}
                       : FormFault{QStringLiteral("mark"), tr("This is no picture that can be read.")};
        },
        [this](const FormValues& v) {
            QSettings keep;
            keep.setValue(QStringLiteral("shop/name"), v["shop"]);
            keep.setValue(QStringLiteral("shop/mark"), v["mark"]);
            keep.setValue(QStringLiteral("shop/paper"), v["paper"]);
            const QString path = m_seams.chooseFile(window(), tr("Write the certificate"), tr("PDF (*.pdf)"), true);
            if (path.isEmpty() || !m_document.hasBatch()) return;
            CertificateOptions options{v["shop"], QImage(v["mark"]), v["paper"] == QLatin1String("Letter"),
                                       LogbookSeams::real().now()};
            const auto written =
                writeCertificate(path, m_document.batch(), m_document.state().verdicts, m_document.tables(), options);
            emit said(written ? tr("%1: %2 pages.").arg(QFileInfo(path).fileName()).arg(*written)
                              : QString::fromStdString(written.error().message()),
                      !written);
        });
}

void ReleaseBench::blankCard() {
    if (!m_document.hasBatch()) return;
    const QString path = m_seams.chooseFile(window(), tr("Write a blank card"), tr("PDF (*.pdf)"), true);
    if (path.isEmpty()) return;
    const bool letter = QSettings().value(QStringLiteral("shop/paper")).toString() == QLatin1String("Letter");
    const auto written =
        writeBatchCard(path, m_document.batch(), m_document.tables(), letter, LogbookSeams::real().now());
    emit said(written ? tr("%1: %2 pages.").arg(QFileInfo(path).fileName()).arg(*written)
                      : QString::fromStdString(written.error().message()),
              !written);
}

void ReleaseBench::exportTables() {
    if (!m_document.hasBatch()) return;
    const QString path =
        m_seams.chooseFile(window(), tr("Write the tables"), tr("Workbook (*.xlsx);;Table (*.csv)"), true);
    if (path.isEmpty()) return;
    const Batch& batch = m_document.batch();
    const ReportTable blades = bladeTable(batch, m_document.state().verdicts, m_document.tables());
    const QString ending = QFileInfo(path).suffix().toLower();
    Result<Done> done = Error{ErrorKind::argument, path.toStdString(), "the ending must be xlsx or csv"};
    if (ending == QLatin1String("xlsx")) {
        done = writeWorkbook(path, {blades, readingTable(batch)});
    } else if (ending == QLatin1String("csv")) {
        QSaveFile file(path);
        const QByteArray text = csvOf(blades);
        const bool ok = file.open(QIODevice::WriteOnly) && file.write(text) == text.size() && file.commit();
        done = ok ? Result<Done>(Done{})
                  : Result<Done>(Error{ErrorKind::disk, path.toStdString(), "this file cannot be written"});
    }
    emit said(done ? tr("%1 is written.").arg(QFileInfo(path).fileName())
                   : QString::fromStdString(done.error().message()),
              !done);
}

void ReleaseBench::exportAll() {
    const QString path = m_seams.chooseFile(window(), tr("A new folder for the whole logbook"), tr("Folder (*)"), true);
    if (path.isEmpty()) return;
    auto rows = std::make_shared<int>(0);
    m_document.perform(
        [path, rows](Logbook& logbook) -> Result<Done> {
            const auto counts = logbook.exportTo(path);
            if (!counts) return counts.error();
            for (const auto& [table, count] : *counts) *rows += count;
            return Done{};
        },
        [this, path, rows](const Result<Done>& done) {
            if (done)
                emit said(tr("%1 rows in %2; rollcallctl import-package brings them back.")
                              .arg(*rows)
                              .arg(QFileInfo(path).fileName()),
                          false);
        });
}

} // namespace rollcall
