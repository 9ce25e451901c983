// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/frame/verdict_column.h"
#include "app/shared/document.h"
#include "app/shared/seams.h"
#include "app/steel/shot_folder.h"
#include "core/judge/steel_book.h"

#include <memory>
#include <QWidget>

class QKeyEvent;

namespace rollcall {

/// The Steel gate: is the bar what it was sold as? One ruler for each element, worst first; look-alikes; what would
/// tell them apart.
class SteelBench : public QWidget {
    Q_OBJECT

public:
    SteelBench(Document& document, ShotFolder& folder, Seams seams, const Look& look, QWidget* parent = nullptr);

    void refresh();
    ColumnContent content() const;
    void act();
    void leftAct();
    void rightAct();
    bool key(QKeyEvent* event);
    /// A shot as a file: by menu, drop or from the watched folder.
    void importShot(const QString& path);

signals:
    void said(const QString& message, bool trouble);
    void changed();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const SteelAnswer* answer() const;
    std::vector<const Grade*> lookAlikes(int most) const;
    void askShotFile();
    void typeShot();
    void keepShot(ShotDraft draft, const QString& what);
    void strikeShot();
    void reassign();
    void assign(const std::string& grade);
    void lot();
    void certificate();
    void noteSpark();
    void noteCoupon();
    void noteChanged();
    void library();
    void editGrade(const GradeSheet& sheet);
    void exportGrades();
    void importGrades();
    void watch();

    Document& m_document;
    ShotFolder& m_folder;
    Seams m_seams;
    const Look& m_look;
    std::unique_ptr<SteelBook> m_book;
    int m_first = 0;         ///< first element shown
    bool m_forBlade = false; ///< the next shot is of the blade in hand, not of the bar
    AnalysisMethod m_method = AnalysisMethod::xrf;
};

} // namespace rollcall
