// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/photo_store.h"

#include <algorithm>
#include <cmath>
#include <QBuffer>
#include <QImageReader>
#include <QPointer>

namespace rollcall {

namespace {

constexpr std::size_t photosKept = 4;

std::shared_ptr<const LoadedPhoto> decoded(QByteArray bytes) {
    auto photo = std::make_shared<LoadedPhoto>();
    ReadPhoto read = readPhoto(std::move(bytes));
    if (read.photo.isNull()) {
        photo->trouble = read.ofAKind
                             ? PhotoStore::tr("it is damaged: %1").arg(read.trouble)
                             : PhotoStore::tr("it is no picture of a kind that is read here: PNG, JPEG or TIFF");
        return photo;
    }
    photo->grey = greyOf(read.photo);
    photo->levels = photoLevels(std::move(read.photo));
    return photo;
}

} // namespace

PhotoStore::PhotoStore(Document& document) : m_document(document) {}

void PhotoStore::away(std::function<std::function<void()>()> work) {
    ++m_working;
    m_document.aside([store = QPointer<PhotoStore>(this), work = std::move(work)]() -> std::function<void()> {
        return [store, then = work()] {
            if (store) --store->m_working;
            then();
            if (store) emit store->ready();
        };
    });
}

std::shared_ptr<const LoadedPhoto> PhotoStore::photo(const std::string& sha256) {
    const auto found =
        std::find_if(m_photos.begin(), m_photos.end(), [&](const auto& one) { return one.first == sha256; });
    if (found != m_photos.end()) {
        std::rotate(found, found + 1, m_photos.end());
        return m_photos.back().second;
    }
    if (std::find(m_awaited.begin(), m_awaited.end(), sha256) != m_awaited.end()) return nullptr;
    m_awaited.push_back(sha256);
    fetch(sha256, [this, sha256](const QByteArray& bytes, const QString& trouble) {
        if (trouble.isEmpty())
            return decode(bytes, [store = QPointer<PhotoStore>(this), sha256](const auto& photo) {
                if (store) store->keep(sha256, photo);
            });
        auto photo = std::make_shared<LoadedPhoto>();
        photo->trouble = trouble;
        keep(sha256, photo);
    });
    return nullptr;
}

void PhotoStore::fetch(const std::string& sha256, std::function<void(const QByteArray&, const QString&)> then) {
    ++m_working;
    m_document.query<QByteArray>([sha256](Logbook& logbook) { return logbook.fileOf(sha256); },
                                 [this, then = std::move(then)](const Result<QByteArray>& file) {
                                     --m_working;
                                     then(file ? *file : QByteArray(),
                                          file ? QString() : QString::fromStdString(file.error().text));
                                     emit ready();
                                 });
}

QImage PhotoStore::thumbnail(const std::string& sha256) {
    const auto found = m_thumbnails.find(sha256);
    if (found != m_thumbnails.end()) return found->second;
    m_thumbnails[sha256] = {};
    fetch(sha256, [this, sha256](const QByteArray& bytes, const QString&) {
        away([store = QPointer<PhotoStore>(this), sha256, bytes]() -> std::function<void()> {
            QByteArray file = bytes;
            QBuffer buffer(&file);
            QImageReader reader(&buffer);
            reader.setAutoTransform(true);
            const QSize whole = reader.size();
            // Told before reading, a JPEG is decoded small at once.
            if (whole.isValid()) reader.setScaledSize(whole.scaled(96, 96, Qt::KeepAspectRatio));
            return [store, sha256, small = reader.read()] {
                if (store) store->m_thumbnails[sha256] = small;
            };
        });
    });
    return {};
}

void PhotoStore::keep(const std::string& sha256, std::shared_ptr<const LoadedPhoto> photo) {
    std::erase(m_awaited, sha256);
    m_photos.emplace_back(sha256, std::move(photo));
    if (m_photos.size() > photosKept) m_photos.erase(m_photos.begin());
}

void PhotoStore::decode(const QByteArray& bytes, std::function<void(std::shared_ptr<const LoadedPhoto>)> then) {
    away([bytes, then = std::move(then)]() -> std::function<void()> {
        return [photo = decoded(bytes), then] { then(photo); };
    });
}

void PhotoStore::suggest(std::shared_ptr<const LoadedPhoto> photo, const TestLine& line,
                         std::function<void(const std::vector<double>&)> then) {
    away([store = QPointer<PhotoStore>(this), photo = std::move(photo), line,
          then = std::move(then)]() -> std::function<void()> {
        return [store, found = suggestCrossings(photo->grey, line), then] {
            if (store) then(found);
        };
    });
}

QImage PhotoStore::fracture(int rating, double screen_px_per_mm, const QSize& size, int seed) {
    if (size.width() < 8 || size.height() < 8) return {};
    Drawn& drawn = m_fractures[{rating, size.width(), size.height(), seed}];
    const bool fits = drawn.scale > 0 && std::abs(std::log(drawn.scale / screen_px_per_mm)) < 0.01;
    if (fits || drawn.drawing) return drawn.picture;
    drawn.drawing = true;
    away([store = QPointer<PhotoStore>(this), rating, screen_px_per_mm, size, seed]() -> std::function<void()> {
        const auto made = fractureTexture(rating, screen_px_per_mm, size.width(), size.height(),
                                          static_cast<std::uint64_t>(seed * 100 + rating));
        const QImage picture = made ? imageOf(made->picture) : QImage();
        return [store, rating, screen_px_per_mm, size, seed, picture] {
            if (store)
                store->m_fractures[{rating, size.width(), size.height(), seed}] = {screen_px_per_mm, picture, false};
        };
    });
    return drawn.picture;
}

} // namespace rollcall
