// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/release/page_preview.h"
#include "app/release/release_bench.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/release.h"
#include "report/batch_card.h"
#include "report/certificate.h"
#include "report/page_picture.h"
#include "report/piece_card.h"
#include "report/pile.h"
#include "words/words.h"

#include <QFileInfo>
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
              [this, blades](const FormValues& v) { m_actions.signFor(blades, Disposition::release, v["reason"]); });
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
                       : FormFault{QStringLiteral("chance"), tr("Type per cent, such as 95, or leave it blank.")};
        },
        [this, id = batch.id](const FormValues& v) {
            std::optional<double> chance;
            if (!v["chance"].isEmpty()) chance = *parseNumber(v["chance"].toStdString()) / 100;
            m_document.perform([id, chance](Logbook& logbook) { return rollcall::askSample(logbook, id, chance); });
        });
}

void ReleaseBench::certificate() {
    if (!m_document.hasBatch()) return;
    m_document.query<std::string>([](Logbook& logbook) { return logbook.head(); },
                                  [this](const Result<std::string>& head) {
                                      if (!head) return emit said(words::errorText(head.error()), true);
                                      certificate(QString::fromStdString(*head));
                                  });
}

void ReleaseBench::certificate(const QString& head) {
    if (!m_document.hasBatch()) return;
    const auto on = [this, head](bool releasedOnly) {
        onPaper(tr("Certificate of %1").arg(QString::fromStdString(m_document.batch().name)),
                [this, head, releasedOnly](Paper& paper, const FormValues& v) {
                    const CertificateOptions options{v["shop"],
                                                     v["mark"].isEmpty() ? QImage() : QImage(v["mark"]),
                                                     v["paper"] == QLatin1String("Letter"),
                                                     m_document.now(),
                                                     releasedOnly,
                                                     head};
                    return drawCertificate(paper, m_document.batch(), m_document.verdicts(), m_document.tables(),
                                           options);
                });
    };
    // Of the batch that is in hand now: this page may still show the one before.
    const std::size_t all = m_document.batch().blades.size();
    std::size_t released = 0;
    for (std::size_t i = 0; i < all; ++i) released += m_document.judged().release(i).released() ? 1 : 0;
    if (released == 0 || released == all) return on(false);
    (new ChoiceDialog(
         tr("Which pieces?"), {},
         {{QStringLiteral("1"), tr("All %1").arg(all), tr("each with what became of it")},
          {QStringLiteral("2"), released == 1 ? tr("The released one") : tr("The %1 released").arg(released),
           tr("the others are not mentioned")}},
         m_look, window()))
        ->ask([on](int i) { on(i == 1); });
}

void ReleaseBench::otherPapers() {
    if (!m_document.hasBatch()) return;
    const QString name = QString::fromStdString(m_document.batch().name);
    (new ChoiceDialog(tr("On paper"), {},
                      {{QStringLiteral("1"), tr("Blank card"), tr("spots and room for the numbers, to fill by hand")},
                       {QStringLiteral("2"), tr("One-page table"), tr("the pile: steel, hardness, inside or not")},
                       {QStringLiteral("3"), tr("Small cards"), tr("one a piece, with a code that finds it again")}},
                      m_look, window()))
        ->ask([this, name](int i) {
            if (!m_document.hasBatch()) return;
            onPaper(i == 0   ? tr("Blank card of %1").arg(name)
                    : i == 1 ? tr("Table of %1").arg(name)
                             : tr("Small cards of %1").arg(name),
                    [this, i, name](Paper& paper, const FormValues& v) {
                        const Batch& batch = m_document.batch();
                        const BatchVerdicts& verdicts = m_document.verdicts();
                        const Instant now = m_document.now();
                        return i == 0   ? drawBatchCard(paper, batch, m_document.tables(), now)
                               : i == 1 ? drawPile(paper, pileRows(batch, verdicts), name, v["shop"], now)
                                        : drawPieceCards(paper, batch, verdicts, m_document.tables(), v["shop"]);
                    });
        });
}

void ReleaseBench::onPaper(const QString& title, std::function<int(Paper&, const FormValues&)> draw) {
    QSettings settings;
    const auto kept = [&](const char* key, const QString& otherwise = {}) {
        return settings.value(QLatin1String(key), otherwise).toString();
    };
    auto* form =
        new FormDialog(title, tr("Look at it"),
                       {{"shop", tr("Shop"), tr("as it stands on the page"), kept("shop/name"), {}, false},
                        {"mark", tr("Its mark"), tr("a picture file; blank: none"), kept("shop/mark"), {}, false},
                        {"paper",
                         tr("Paper"),
                         {},
                         kept("shop/paper", QStringLiteral("A4")),
                         {QStringLiteral("A4"), QStringLiteral("Letter")},
                         false}},
                       m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["mark"].isEmpty() || !QImage(v["mark"]).isNull()
                       ? FormFault{}
                       : FormFault{QStringLiteral("mark"), tr("This is no picture that can be read.")};
        },
        [this, title, draw](const FormValues& v) {
            QSettings keep;
            keep.setValue(QStringLiteral("shop/name"), v["shop"]);
            keep.setValue(QStringLiteral("shop/mark"), v["mark"]);
            keep.setValue(QStringLiteral("shop/paper"), v["paper"]);
            if (!m_document.hasBatch()) return;
            const bool letter = v["paper"] == QLatin1String("Letter");
            const auto pages = [draw, v](Paper& paper) { return draw(paper, v); };
            const int dpi = 96;
            (new PagePreview(title, picturesOf(letter, dpi, pages), m_look, window()))
                ->ask([this, title, letter, pages](bool printer) {
                    if (!m_document.hasBatch()) return;
                    printer ? print(title, letter, pages) : write(title, letter, pages);
                });
        });
}

void ReleaseBench::print(const QString& title, bool letter, const DrawPages& pages) {
    if (const auto printed = m_seams.print(window(), title, letter, pages))
        emit said(*printed == 1 ? tr("The page is with the printer.")
                                : tr("%1 pages are with the printer.").arg(*printed),
                  false);
}

void ReleaseBench::write(const QString& title, bool letter, const DrawPages& pages) {
    const QString path = m_seams.chooseFile(window(), title, tr("PDF (*.pdf)"), true);
    if (path.isEmpty()) return;
    const auto written = writePdf(path, letter, title, pages);
    emit said(written ? tr("%1: %2 pages.").arg(QFileInfo(path).fileName()).arg(*written)
                      : QString::fromStdString(written.error().message()),
              !written);
}

} // namespace rollcall
