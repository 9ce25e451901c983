// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/grain/photo_store.h"
#include "app/links/watched_folder.h"
#include "app/shared/bench.h"
#include "app/shared/seams.h"

#include <optional>

namespace rollcall {

/// Fracture photos side by side at one scale, lines laid over them and their crossings counted (M30); under them the
/// ratings' own drawn fractures at the same scale.
class CountPage : public Bench {
    Q_OBJECT

public:
    CountPage(Document& document, PhotoStore& photos, WatchedFolder& folder, Seams seams, const Look& look);

    QString title() const override { return tr("Count"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override { strike(); }
    Commands commands() override;
    QStringList movements() const override;
    bool escape() override;
    bool key(QKeyEvent* event) override;
    bool takeFile(const QString& path) override;
    bool wantsAll() const override { return m_whole; }

    /// The photo in hand of the blade in hand; null when it has none.
    const FracturePhoto* photo() const;
    /// Shows photos of so many other pieces beside it.
    void besideOthers(int count);
    /// Sets the scale of the photo in hand; text is what it was set by.
    void keepScale(double px_per_mm, const QString& text);
    /// Zooms about the middle.
    void zoom(double by);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    /// A photo in its pane.
    struct Pane {
        QRect area;
        QString name;
        const FracturePhoto* photo = nullptr; ///< null: the drawn fracture
        bool chosen = false;
    };
    /// A line that is being looked at, not counted yet.
    struct Draft {
        TestLine line;
        std::vector<Crossing> crossings;
        int chosen = -1;
        bool looking = true; ///< for crossings
    };

    QRect pictureArea() const;
    QRect stripArea() const;
    std::vector<Pane> panes() const;
    QRect chosenArea() const;
    PhotoView viewOf(const Pane& pane) const;
    double screenScale() const; ///< pixels on screen for a millimetre; 0 without a scale
    void fit();
    void pan(const QPointF& screen);
    void drawPane(QPainter& painter, const Pane& pane);
    void drawStrip(QPainter& painter);
    void drawThumbnails(QPainter& painter);
    QRect thumbnail(int index) const;
    void drawHints(QPainter& painter);
    std::optional<FractureReading> readingOf(std::size_t blade) const;

    void addPhoto();
    /// A broken piece that was compared by eye, without a photo.
    void rateByEye();
    void takePhoto(const QString& name, const QByteArray& bytes);
    void setScale();
    void scaleByClicks();
    void layNext();
    void lay(const TestLine& line);
    void countDraft();
    void toggleAt(const QPoint& at);
    void stepCrossing(int by);
    bool draftKey(QKeyEvent* event);
    void strike();
    void nextPhoto();
    void askLeast();
    void watch();
    void savePicture();
    void paintAll(QPainter& painter);

    PhotoStore& m_photos;
    WatchedFolder& m_folder;
    Seams m_seams;
    int m_photo = 0;      ///< of the blade's
    int m_beside = 0;     ///< other pieces' photos shown beside it
    int m_reference = 0;  ///< rating of the drawn fracture beside it; 0: none
    bool m_whole = false; ///< takes the whole window
    FractureZone m_zone = FractureZone::middle;
    bool m_circle = false;
    std::optional<Draft> m_draft;
    std::vector<PicturePoint> m_clicks; ///< of a scale that is being set
    bool m_scaling = false;
    double m_scale = 0;  ///< pixels on screen for one of the photo in hand; 0: not fitted yet
    QPointF m_middle;    ///< of the view, in pixels of the photo in hand
    std::string m_shown; ///< id of the photo that the view is of
    std::optional<QPoint> m_pressed;
    std::optional<QPoint> m_dragged; ///< where the mouse is now
    bool m_panning = false;
};

} // namespace rollcall
