// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/qr_code.h"

#include <memory>
#include <qrencode.h>

namespace rollcall {

void drawCode(QPainter& painter, const QRectF& area, const QString& text) {
    const QByteArray bytes = text.toUtf8();
    const std::unique_ptr<QRcode, decltype(&QRcode_free)> code(
        QRcode_encodeData(static_cast<int>(bytes.size()), reinterpret_cast<const unsigned char*>(bytes.constData()), 0,
                          QR_ECLEVEL_M),
        &QRcode_free);
    if (!code) return;
    constexpr int quiet = 4; // modules of white that readers need around it
    const double module = area.width() / (code->width + 2 * quiet);
    painter.setPen(Qt::NoPen);
    painter.setBrush(Qt::black);
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (int row = 0; row < code->width; ++row) {
        for (int column = 0; column < code->width; ++column) {
            if (code->data[row * code->width + column] & 1)
                painter.drawRect(
                    QRectF(area.x() + (column + quiet) * module, area.y() + (row + quiet) * module, module, module));
        }
    }
}

} // namespace rollcall
