// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/seams.h"

#include "app/shared/speaker.h"
#include "report/page.h"

#include <QDrag>
#include <QFileDialog>
#include <QMimeData>
#include <QPrintDialog>
#include <QPrinter>
#include <QRegularExpression>
#include <QStandardPaths>

namespace rollcall {

Seams Seams::real() {
    Seams seams;
    seams.chooseFile = [](QWidget* parent, const QString& title, const QString& filter, bool making) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
        // A name with the first ending that is offered, to be typed over.
        const qsizetype star = filter.indexOf(QLatin1String("*."));
        const qsizetype end = filter.indexOf(QRegularExpression(QStringLiteral("[ )]")), star);
        const QString ending = star < 0 ? QString() : filter.mid(star + 1, end - star - 1);
        return making ? QFileDialog::getSaveFileName(parent, title, folder + QStringLiteral("/shop") + ending, filter)
                      : QFileDialog::getOpenFileName(parent, title, folder, filter);
    };
    seams.print = [](QWidget* parent, const QString& title, bool letter,
                     const std::function<int(Paper&)>& draw) -> std::optional<int> {
        QPrinter printer(QPrinter::HighResolution);
        printer.setDocName(title);
        printer.setPageSize(QPageSize(letter ? QPageSize::Letter : QPageSize::A4));
        printer.setFullPage(true); // the pages keep margins of their own
        if (QPrintDialog(&printer, parent).exec() != QDialog::Accepted) return std::nullopt;
        QPainter painter;
        if (!painter.begin(&printer)) return std::nullopt;
        Paper paper = Paper::of(painter, printer);
        return draw(paper);
    };
    seams.drag = [](QWidget* from, QMimeData* what) {
        auto* drag = new QDrag(from);
        if (what->hasImage())
            drag->setPixmap(QPixmap::fromImage(qvariant_cast<QImage>(what->imageData())).scaledToWidth(160));
        drag->setMimeData(what);
        drag->exec(Qt::CopyAction);
    };
    const auto speaker = std::make_shared<Speaker>();
    seams.speak = [speaker](const QString& text) { return speaker->say(text); };
    seams.sound = [speaker](Sound sound) { speaker->sound(sound); };
    return seams;
}

} // namespace rollcall
