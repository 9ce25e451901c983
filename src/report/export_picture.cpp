// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/export_picture.h"

#include <QFile>
#include <QFileInfo>
#include <QImage>
#include <QSvgGenerator>

namespace rollcall {

Result<Done> savePicture(const QString& path, const QSize& size, const QString& title, const QColor& background,
                         const std::function<void(QPainter&, const QRect&)>& draw) {
    const QString ending = QFileInfo(path).suffix().toLower();
    const Error failed{ErrorKind::disk, path.toStdString(), "this file cannot be written"};
    const QRect page({0, 0}, size);
    const auto paint = [&](QPaintDevice* device) {
        QPainter painter(device);
        painter.fillRect(page, background);
        draw(painter, page);
    };
    if (ending == QLatin1String("png")) {
        QImage image(size, QImage::Format_RGB32);
        paint(&image);
        return image.save(path) ? Result<Done>(Done{}) : failed;
    }
    if (ending == QLatin1String("svg")) {
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly)) return failed;
        QSvgGenerator svg;
        svg.setOutputDevice(&file);
        svg.setSize(size);
        svg.setViewBox(page);
        svg.setTitle(title);
        paint(&svg);
        return Done{};
    }
    return Error{ErrorKind::argument, path.toStdString(), "the ending must be png or svg"};
}

} // namespace rollcall
