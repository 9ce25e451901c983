// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
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
    const bool finished = m_document.batch().isFinished(*blade);
    std::vector<Disposition> offered;
    for (std::size_t i = 0; i < dispositions; ++i) {
        const auto one = static_cast<Disposition>(i);
        const bool ours = one == Disposition::temperAgain || one == Disposition::reharden || one == Disposition::scrap;
        if (finished ? ours : one == Disposition::sendBack) continue; // nothing is done to a finished knife's steel
        QString detail = one == answer.suggestion.disposition ? tr("suggested; ") : QString();
        switch (one) {
        case Disposition::release:
            detail += answer.open.empty()       ? tr("every gate is answered")
                      : answer.open.size() == 1 ? tr("over one open gate, with the reason")
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
            detail += finished ? tr("until the seller has answered") : tr("nothing is done until it is decided");
            break;
        case Disposition::scrap:
            detail += tr("it leaves the batch");
            break;
        case Disposition::sendBack:
            detail += tr("it is not what it was sold as");
            break;
        }
        offered.push_back(one);
        choices.push_back({QString::number(offered.size()), words::dispositionName(one), detail});
    }
    (new ChoiceDialog(tr("What becomes of %1?").arg(QString::fromStdString(blade->mark)),
                      {tr("You decide and sign; the record only suggests.")}, choices, m_look, window()))
        ->ask([this, index, offered](int i) { askReason(index, offered[static_cast<std::size_t>(i)]); });
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
    std::vector<Decision> decisions;
    std::vector<std::string> scrapped;
    for (const std::size_t i : blades) {
        if (i >= m_document.batch().blades.size()) continue;
        const Blade& blade = m_document.batch().blades[i];
        // What it rests on is what is on screen now; if that changed meanwhile, the signature is stale at once.
        decisions.push_back(
            {blade.id,
             {disposition, blade.round, releaseBasis(m_document.verdicts().blades[i]), reason.toStdString(), {}, {}}});
        if (disposition == Disposition::scrap) scrapped.push_back(blade.id);
    }
    m_document.perform(
        [decisions, scrapped, why = reason.toStdString()](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                auto done = rollcall::sign(logbook, decisions);
                for (const std::string& blade : scrapped) {
                    if (done) done = rollcall::takeOut(logbook, blade, Fate::scrapped, Gate::release, why);
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
            m_document.perform([id, chance](Logbook& logbook) { return rollcall::askSample(logbook, id, chance); });
        });
}

void ReleaseBench::certificate() {
    if (!m_document.hasBatch()) return;
    onPaper(tr("Certificate of %1").arg(QString::fromStdString(m_document.batch().name)),
            [this](Paper& paper, const FormValues& v) {
                const CertificateOptions options{v["shop"], v["mark"].isEmpty() ? QImage() : QImage(v["mark"]),
                                                 v["paper"] == QLatin1String("Letter"), m_document.now()};
                return drawCertificate(paper, m_document.batch(), m_document.verdicts(), m_document.tables(), options);
            });
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
        emit said(tr("%1 pages are with the printer.").arg(*printed), false);
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
