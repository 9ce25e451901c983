// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/export_picture.h"

#include "files/disk.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImage>
#include <QSvgGenerator>

namespace rollcall {

Result<Done> savePng(const QString& path, const QImage& picture) {
    QBuffer bytes;
    bytes.open(QIODevice::WriteOnly);
    if (!picture.save(&bytes, "PNG"))
        return Error{ErrorKind::disk, path.toStdString(), "this picture is too large to be written"};
    return writeFile(path, bytes.data());
}

Result<Done> savePicture(const QString& path, const QSize& size, const QString& title, const QColor& background,
                         const std::function<void(QPainter&, const QRect&)>& draw) {
    const QString ending = QFileInfo(path).suffix().toLower();
    const QRect page({0, 0}, size);
    const auto paint = [&](QPaintDevice* device) {
        QPainter painter(device);
        painter.fillRect(page, background);
        draw(painter, page);
    };
    if (ending == QLatin1String("png")) {
        QImage image(size, QImage::Format_RGB32);
        paint(&image);
        return savePng(path, image);
    }
    if (ending == QLatin1String("svg")) {
        QBuffer drawn;
        QSvgGenerator svg;
        svg.setOutputDevice(&drawn);
        svg.setSize(size);
        svg.setViewBox(page);
        svg.setTitle(title);
        paint(&svg);
        return writeFile(path, drawn.data());
    }
    return Error{ErrorKind::argument, path.toStdString(), "the ending must be png or svg"};
}

} // namespace rollcall
