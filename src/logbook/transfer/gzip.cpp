// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/gzip.h"

#include <limits>
#include <QScopeGuard>
#include <zlib.h>

namespace rollcall {

Result<QByteArray> gzip(const QByteArray& bytes) {
    constexpr int gzipHeader = 16; // added to the window's bits; https://zlib.net/manual.html
    constexpr int memory = 8;
    const Error noMemory{ErrorKind::disk, "", "there is no memory left; nothing of this entry was stored"};
    if (bytes.size() > std::numeric_limits<uInt>::max())
        return Error{ErrorKind::refused, "", "the file is larger than four gigabytes"};
    z_stream stream{};
    if (deflateInit2(&stream, Z_BEST_SPEED, Z_DEFLATED, MAX_WBITS + gzipHeader, memory, Z_DEFAULT_STRATEGY) != Z_OK)
        return noMemory;
    const auto end = qScopeGuard([&] { deflateEnd(&stream); });
    QByteArray packed(static_cast<qsizetype>(deflateBound(&stream, static_cast<uLong>(bytes.size()))),
                      Qt::Uninitialized);
    stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(bytes.constData()));
    stream.avail_in = static_cast<uInt>(bytes.size());
    stream.next_out = reinterpret_cast<Bytef*>(packed.data());
    stream.avail_out = static_cast<uInt>(packed.size());
    if (deflate(&stream, Z_FINISH) != Z_STREAM_END) return noMemory;
    packed.truncate(static_cast<qsizetype>(stream.total_out));
    packed.squeeze();
    return packed;
}

} // namespace rollcall
