// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/count_page.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/folder_form.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "core/judge/gates.h"
#include "core/judge/proof_judge.h"
#include "logbook/actions/grain.h"
#include "plot/fracture_picture.h"
#include "report/export_picture.h"
#include "words/words.h"

#include <cmath>
#include <QFile>
#include <QFileInfo>
#include <QPointer>

// What the counting of a fracture asks for, and its way into the record.
namespace rollcall {

void CountPage::addPhoto() {
    if (m_document.blade() == nullptr) return;
    const QString path = m_seams.chooseFile(window(), tr("A photo of the fracture"),
                                            tr("Pictures (*.png *.jpg *.jpeg *.tif *.tiff)"), false);
    if (!path.isEmpty()) takeFile(path);
}

void CountPage::rateByEye() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    auto* form =
        new FormDialog(tr("%1, broken and rated by eye").arg(QString::fromStdString(blade->mark)), tr("Note it"),
                       {{"first", tr("First look"), tr("1 coarse to 10 fine, against pieces you know"), {}, {}, false},
                        {"second", tr("Second look"), tr("later, without a glance at the first"), {}, {}, false}},
                       m_look, window());
    const auto looked = [](const QString& text) {
        const auto value = parseNumber(text.toStdString());
        return value && *value >= 1 && *value <= 10 ? std::optional(*value) : std::nullopt;
    };
    form->ask(
        [looked](const FormValues& v) {
            for (const char* field : {"first", "second"}) {
                if (!looked(v[QLatin1String(field)]))
                    return FormFault{QString::fromLatin1(field), tr("Type 1 to 10; halves lie between two.")};
            }
            return FormFault{};
        },
        [this, looked, id = blade->id, round = blade->round, after = lastTemper(*blade)](const FormValues& v) {
            constexpr int width = 400; // pixels of a plate that nothing is laid on
            constexpr int height = 300;
            const FractureDraft draft{
                id, round, after, {QStringLiteral("rated, no photo.png"), blankPlate(width, height)}, width, height};
            const FractureRating rating{*looked(v["first"]), *looked(v["second"]), {}};
            m_document.perform([draft, rating](Logbook& logbook) {
                return logbook.inOneTransaction([&]() -> Result<Done> {
                    const auto added = addFracture(logbook, draft);
                    return added ? rateFracture(logbook, *added, rating) : Result<Done>(added.error());
                });
            });
        });
}

bool CountPage::takeFile(const QString& path) {
    static const QStringList endings{QStringLiteral("png"), QStringLiteral("jpg"), QStringLiteral("jpeg"),
                                     QStringLiteral("tif"), QStringLiteral("tiff")};
    const QFileInfo info(path);
    if (m_document.blade() == nullptr || !endings.contains(info.suffix().toLower())) return false;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
        emit said(tr("%1 cannot be read.").arg(info.fileName()), true);
        return true;
    }
    takePhoto(info.fileName(), file.readAll());
    return true;
}

void CountPage::takePhoto(const QString& name, const QByteArray& bytes) {
    emit said(tr("%1 is opened.").arg(name), false);
    const Blade& blade = *m_document.blade();
    // The record gets it though this page should be gone by then.
    m_photos.decode(bytes,
                    [page = QPointer<CountPage>(this), &document = m_document, name, bytes, id = blade.id,
                     round = blade.round, after = lastTemper(blade)](const std::shared_ptr<const LoadedPhoto>& photo) {
                        if (!photo->trouble.isEmpty()) {
                            if (page) emit page->said(tr("%1 was not taken: %2.").arg(name, photo->trouble), true);
                            return;
                        }
                        FractureDraft draft{id, round, after, {name, bytes}, photo->grey.width, photo->grey.height};
                        document.perform(
                            [draft](Logbook& logbook) -> Result<Done> {
                                if (auto added = addFracture(logbook, draft); !added) return added.error();
                                return Done{};
                            },
                            [page, name](const Result<Done>& done) {
                                if (!done || !page) return;
                                if (const Blade* now = page->m_document.blade())
                                    page->m_photo = static_cast<int>(now->fractures.size()) - 1;
                                emit page->said(tr("%1 is in the record as it is.").arg(name), false);
                                emit page->changed();
                            });
                    });
}

void CountPage::setScale() {
    if (photo() == nullptr) return emit said(tr("Add a photo first."), true);
    (new ChoiceDialog(tr("The scale of the photo"),
                      {tr("A rule, or anything of known size in the picture, or what the microscope says.")},
                      {{QStringLiteral("1"), tr("Two clicks on a known length"), tr("then type how long it is")},
                       {QStringLiteral("2"), tr("Type pixels for a millimetre"), {}}},
                      m_look, window()))
        ->ask([this](int way) {
            if (way == 0) {
                m_scaling = true;
                m_clicks.clear();
                return emit changed();
            }
            auto* form =
                new FormDialog(tr("The scale of the photo"), tr("Set it"),
                               {{"scale", tr("Pixels for 1 mm"), tr("such as 600"), {}, {}, false}}, m_look, window());
            form->ask(
                [](const FormValues& v) {
                    const auto value = parseNumber(v["scale"].toStdString());
                    return value && *value >= 1 && *value <= 10000
                               ? FormFault{}
                               : FormFault{QStringLiteral("scale"), tr("Type a number, 1 to 10000.")};
                },
                [this](const FormValues& v) { keepScale(*parseNumber(v["scale"].toStdString()), v["scale"]); });
        });
}

void CountPage::scaleByClicks() {
    const double pixels = std::hypot(m_clicks[1].x - m_clicks[0].x, m_clicks[1].y - m_clicks[0].y);
    m_scaling = false;
    m_clicks.clear();
    if (pixels < 20) return emit said(tr("The two clicks lie too near: zoom in, or choose a longer piece."), true);
    auto* form =
        new FormDialog(tr("The scale of the photo"), tr("Set it"),
                       {{"length", tr("Between the clicks"), words::lengthHint(0.5), {}, {}, false}}, m_look, window());
    form->ask(
        [](const FormValues& v) {
            const auto mm = words::typed(v["length"], Quantity::length);
            return mm && *mm > 0 ? FormFault{}
                                 : FormFault{QStringLiteral("length"),
                                             tr("Type a length such as %1.").arg(words::length(0.5, 2))};
        },
        [this, pixels](const FormValues& v) {
            const double mm = *words::typed(v["length"], Quantity::length);
            keepScale(pixels / mm, tr("%1 px are %2").arg(pixels, 0, 'f', 1).arg(v["length"]));
        });
}

void CountPage::keepScale(double px_per_mm, const QString& text) {
    const FracturePhoto* own = photo();
    if (own == nullptr) return;
    m_document.perform([id = own->id, px_per_mm, text = text.toStdString()](Logbook& logbook) {
        return scaleFracture(logbook, id, px_per_mm, text);
    });
}

// The next line goes where there is most room between those that are there: halves, quarters, eighths of the height.
void CountPage::layNext() {
    const FracturePhoto* own = photo();
    double place = 0;
    double part = 0.5;
    for (std::size_t n = own->lines.size() + 1; n > 0; n /= 2, part /= 2) place += part * static_cast<double>(n % 2);
    const double y = own->height * (0.06 + 0.88 * place);
    if (m_circle) {
        const double radius = 0.4 * std::min(own->width, own->height) * (1 - 0.5 * place);
        return lay({true, {own->width / 2.0, own->height / 2.0}, {own->width / 2.0 + radius, own->height / 2.0}});
    }
    lay({false, {0.04 * own->width, y}, {0.96 * own->width, y}});
}

void CountPage::lay(const TestLine& line) {
    const FracturePhoto* own = photo();
    const auto loaded = own != nullptr ? m_photos.photo(own->sha256) : nullptr;
    if (!loaded) return emit said(tr("The photo is still being opened."), true);
    if (line.length() < 8) return;
    m_draft = Draft{line, {}, -1, true};
    emit changed();
    m_photos.suggest(loaded, line, [this, line, id = own->id](const std::vector<double>& found) {
        const bool same = m_draft && m_shown == id && m_draft->line.a.x == line.a.x && m_draft->line.a.y == line.a.y &&
                          m_draft->line.b.x == line.b.x && m_draft->line.b.y == line.b.y;
        if (!same) return; // another line was laid meanwhile
        for (const double part : found) m_draft->crossings.push_back({part, 1});
        m_draft->looking = false;
    });
}

void CountPage::countDraft() {
    const FracturePhoto* own = photo();
    if (own == nullptr || m_draft->looking) return;
    CountedLine line;
    line.zone = m_zone;
    line.line = m_draft->line;
    line.crossings = m_draft->crossings;
    m_draft.reset();
    m_document.perform([id = own->id, line](Logbook& logbook) -> Result<Done> {
        if (auto counted = countLine(logbook, id, line); !counted) return counted.error();
        return Done{};
    });
}

// The last line counted; without one, the photo.
void CountPage::strike() {
    const FracturePhoto* own = photo();
    if (own == nullptr) return emit said(tr("There is nothing to strike out."), true);
    std::string last;
    for (const CountedLine& line : own->lines) {
        if (!line.struck) last = line.id;
    }
    using Reasons = std::array<const char*, 3>;
    const Reasons reasons =
        last.empty()
            ? Reasons{QT_TRANSLATE_NOOP("record", "another piece"), QT_TRANSLATE_NOOP("record", "not sharp"), "other"}
            : Reasons{QT_TRANSLATE_NOOP("record", "miscounted"), QT_TRANSLATE_NOOP("record", "badly placed"), "other"};
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < reasons.size(); ++i)
        choices.push_back({QString::number(i + 1), words::recorded(reasons[i]), {}});
    (new ChoiceDialog(last.empty() ? tr("Strike out the photo: why?") : tr("Strike out the last line: why?"),
                      {tr("It stays in the record, with the reason.")}, choices, m_look, window()))
        ->ask([this, last, photoId = own->id, reasons](int i) {
            m_document.perform([last, photoId, reason = reasons[static_cast<std::size_t>(i)]](Logbook& logbook) {
                return last.empty() ? strikeFracture(logbook, photoId, reason) : strikeLine(logbook, last, reason);
            });
        });
}

void CountPage::nextPhoto() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || blade->fractures.empty()) return;
    m_photo = (m_photo + 1) % static_cast<int>(blade->fractures.size());
}

void CountPage::askLeast() {
    if (!m_document.hasBatch()) return;
    auto* form = new FormDialog(tr("The grain asked for"), tr("Ask for it"),
                                {{"least",
                                  tr("G, or finer"),
                                  tr("1 to 12; 8 is usual"),
                                  QString::number(grainLeastOf(m_document.batch())),
                                  {},
                                  false}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) {
            const auto value = parseNumber(v["least"].toStdString());
            return value && *value >= 1 && *value <= 12
                       ? FormFault{}
                       : FormFault{QStringLiteral("least"), tr("Type a number, 1 to 12.")};
        },
        [this](const FormValues& v) {
            m_document.perform([id = m_document.batch().id, least = *parseNumber(v["least"].toStdString())](
                                   Logbook& logbook) { return askGrain(logbook, id, least); });
        });
}

void CountPage::watch() {
    auto* form = new FormDialog(tr("The camera's folder"), tr("Watch it"),
                                {{"folder",
                                  tr("Folder"),
                                  tr("each photo dropped there is of the blade in hand; blank: none"),
                                  m_folder.path(),
                                  {},
                                  false}},
                                m_look, window());
    form->ask(folderFault, [this](const FormValues& v) {
        m_folder.watch(v["folder"]);
        emit said(v["folder"].isEmpty() ? tr("No folder is watched.") : tr("%1 is watched for photos").arg(v["folder"]),
                  false);
    });
}

void CountPage::savePicture() {
    if (photo() == nullptr) return emit said(tr("There is no picture to save."), true);
    const QString path = m_seams.chooseFile(window(), tr("Save the picture"), tr("PNG (*.png);;SVG (*.svg)"), true);
    if (path.isEmpty()) return;
    const auto saved = rollcall::savePicture(path, size(), tr("Grain"), palette().panel,
                                             [this](QPainter& painter, const QRect&) { paintAll(painter); });
    emit said(saved ? tr("%1 is saved.").arg(QFileInfo(path).fileName()) : QString::fromStdString(saved.error().text),
              !saved);
}

} // namespace rollcall
