// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/watched_folder.h"
#include "app/shared/bench.h"
#include "app/shared/row_list.h"
#include "app/shared/seams.h"
#include "core/judge/steel_book.h"
#include "logbook/actions/steel.h"

#include <memory>

namespace rollcall {

struct ShotTable;

/// The Steel gate: is the bar what it was sold as? One ruler for each element, worst first; look-alikes; what would
/// tell them apart.
class SteelBench : public Bench {
    Q_OBJECT

public:
    SteelBench(Document& document, WatchedFolder& folder, Seams seams, const Look& look, QWidget* parent = nullptr);

    QString title() const override { return tr("Steel"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    std::optional<Gate> gate() const override { return Gate::steel; }
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    /// A shot as a file: by menu, drop or from the watched folder.
    bool takeFile(const QString& path) override {
        if (!isTable(path)) return false;
        importShot(path);
        return true;
    }

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    const SteelAnswer* answer() const;
    std::vector<const Grade*> lookAlikes(int most) const;
    void importShot(const QString& path);
    void askShotFile();
    void typeShot();
    void keepShot(ShotDraft draft, const QString& what);
    void keepShots(std::vector<ShotDraft> drafts, const QString& what);
    void askSigmas(const std::function<void()>& then);
    void askBesideLod(const std::function<void()>& then);
    void takeShots(const QString& name, const QByteArray& bytes, const ShotTable& table);
    void strikeShot();
    void reassign();
    void assign(const std::string& grade);
    void lot();
    void certificate();
    void nameOther();
    void noteSpark();
    void noteCoupon();
    void noteChanged();
    void library();
    void editGrade(const GradeSheet& sheet);
    void ownGradeOfShot();
    void exportGrades();
    void importGrades();
    void watch();

    WatchedFolder& m_folder;
    Seams m_seams;
    RowList* m_elements;
    int m_element = 0; ///< in hand
    /// Whether the next shot is of the blade in hand, not of the bar; none: as its claim says.
    bool forBlade() const;
    std::optional<bool> m_forBlade;
    AnalysisMethod m_method = AnalysisMethod::xrf;
};

} // namespace rollcall
