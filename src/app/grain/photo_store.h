// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "plot/fracture_picture.h"

#include <functional>
#include <map>
#include <memory>
#include <QObject>

namespace rollcall {

/// A photo decoded: upright, with what is drawn and what is measured.
struct LoadedPhoto {
    PhotoLevels levels;
    GreyImage grey;
    QString trouble; ///< why it cannot be shown; empty when it can
};

/// Photos of fractures out of the logbook, and drawn fractures to hold beside them. Everything that takes long is done
/// off the interface thread; ready() tells when something came.
class PhotoStore : public QObject {
    Q_OBJECT

public:
    explicit PhotoStore(Document& document);

    /// The photo with this hash; null until it is ready. The last few stay decoded.
    std::shared_ptr<const LoadedPhoto> photo(const std::string& sha256);
    /// The photo at a glance, 96 pixels high at most; a null picture until it is ready. All stay in hand.
    QImage thumbnail(const std::string& sha256);
    /// A drawn fracture of a rating at a scale, or the last one of this rating and size while a new one is drawn; a
    /// null picture where it cannot be drawn. seed: another fracture of the same rating.
    QImage fracture(int rating, double screen_px_per_mm, const QSize& size, int seed = 1);
    /// Decodes a picture file, then calls back here.
    void decode(const QByteArray& bytes, std::function<void(std::shared_ptr<const LoadedPhoto>)> then);
    /// Looks for crossings along a line of a photo, then calls back here.
    void suggest(std::shared_ptr<const LoadedPhoto> photo, const TestLine& line,
                 std::function<void(const std::vector<double>&)> then);
    /// Nothing is being read, decoded or drawn.
    bool idle() const { return m_working == 0; }

signals:
    void ready();

private:
    /// Runs the work on another thread and its outcome here.
    void away(std::function<std::function<void()>()> work);
    void keep(const std::string& sha256, std::shared_ptr<const LoadedPhoto> photo);

    /// Fetches a file from the logbook, then calls back here with its bytes, or why there are none.
    void fetch(const std::string& sha256, std::function<void(const QByteArray&, const QString&)> then);

    struct Drawn {
        double scale = 0;
        QImage picture;
        bool drawing = false;
    };
    Document& m_document;
    std::vector<std::pair<std::string, std::shared_ptr<const LoadedPhoto>>> m_photos; ///< the last used last
    std::vector<std::string> m_awaited;
    std::map<std::string, QImage> m_thumbnails;                  ///< null while it is being made
    std::map<std::tuple<int, int, int, int>, Drawn> m_fractures; ///< by rating, width, height, seed
    int m_working = 0;
};

} // namespace rollcall
