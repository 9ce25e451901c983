// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/zip_folder.h"

#include "files/disk.h"

#include <memory>
#include <QDir>
#include <QDirIterator>
#include <QFile>
#include <QFileInfo>
#include <QRegularExpression>
#include <zip.h>

namespace rollcall {

namespace {

constexpr quint64 mostBytes = quint64{4} << 30; // a small zip may claim to hold more than any disk

Error at(ErrorKind kind, const QString& path, const char* text) {
    return {kind, path.toStdString(), text};
}

// Names as a package has them; nothing that climbs out of the folder or hides in it.
bool belongs(const QString& name) {
    static const QRegularExpression allowed(QStringLiteral("^(datapackage\\.json|[a-z_]+\\.csv|files/[0-9a-f]{64})$"));
    return allowed.match(name).hasMatch();
}

} // namespace

Result<Done> zipFolder(const QString& folder, const QString& zip) {
    if (QFileInfo::exists(zip)) return at(ErrorKind::exists, zip, "this file exists already");
    const QString part = zip + QStringLiteral(".part");
    QFile::remove(part); // of a run that was killed
    int failure = 0;
    zip_t* archive = zip_open(QFile::encodeName(part).constData(), ZIP_CREATE | ZIP_EXCL, &failure);
    if (archive == nullptr) return at(ErrorKind::disk, zip, "this file cannot be written");
    const QDir root(folder);
    QDirIterator files(folder, QDir::Files, QDirIterator::Subdirectories);
    bool good = true;
    while (good && files.hasNext()) {
        const QString path = files.next();
        zip_source_t* source = zip_source_file(archive, QFile::encodeName(path).constData(), 0, -1);
        const QByteArray name = root.relativeFilePath(path).toUtf8();
        good = source != nullptr && zip_file_add(archive, name.constData(), source, ZIP_FL_ENC_UTF_8) >= 0;
        if (!good && source != nullptr) zip_source_free(source);
    }
    if (!good) zip_discard(archive);
    if (!good || zip_close(archive) != 0) {
        QFile::remove(part);
        return at(ErrorKind::disk, zip, "this file cannot be written");
    }
    auto named = giveName(part, zip);
    if (!named) QFile::remove(part);
    return named;
}

Result<Done> unzipInto(const QString& zip, const QString& folder) {
    if (!QFileInfo(zip).isFile()) return at(ErrorKind::input, zip, "there is no such file");
    int failure = 0;
    const std::unique_ptr<zip_t, decltype(&zip_discard)> archive(
        zip_open(QFile::encodeName(zip).constData(), ZIP_RDONLY | ZIP_CHECKCONS, &failure), &zip_discard);
    if (!archive) return at(ErrorKind::input, zip, "this is no zip file, or it is damaged");
    quint64 total = 0;
    for (zip_int64_t i = 0; i < zip_get_num_entries(archive.get(), 0); ++i) {
        zip_stat_t entry;
        const auto index = static_cast<zip_uint64_t>(i);
        if (zip_stat_index(archive.get(), index, 0, &entry) != 0)
            return at(ErrorKind::input, zip, "this zip file is damaged");
        const QString name = QString::fromUtf8(entry.name);
        if (name == QLatin1String("files/")) continue;
        if (!belongs(name)) return at(ErrorKind::input, zip, "this zip file holds what is not of a package");
        if ((total += entry.size) > mostBytes) return at(ErrorKind::input, zip, "this zip file holds more than 4 GiB");
        const std::unique_ptr<zip_file_t, decltype(&zip_fclose)> file(zip_fopen_index(archive.get(), index, 0),
                                                                      &zip_fclose);
        const QString path = QDir(folder).filePath(name);
        QFile out(path);
        if (!QDir().mkpath(QFileInfo(path).absolutePath()) || !out.open(QIODevice::WriteOnly))
            return at(ErrorKind::disk, path, "this file cannot be written");
        QByteArray part(1 << 20, Qt::Uninitialized);
        quint64 read = 0;
        while (file && read < entry.size) {
            const zip_int64_t count = zip_fread(file.get(), part.data(), static_cast<zip_uint64_t>(part.size()));
            if (count <= 0) break;
            if (out.write(part.constData(), count) != count)
                return at(ErrorKind::disk, path, "this file cannot be written");
            read += static_cast<quint64>(count);
        }
        if (read != entry.size) return at(ErrorKind::input, zip, "this zip file is damaged");
    }
    return Done{};
}

} // namespace rollcall
