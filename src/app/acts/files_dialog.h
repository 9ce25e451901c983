// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "plot/rule.h"

#include <functional>
#include <map>
#include <QAbstractButton>
#include <QDialog>
#include <vector>

namespace rollcall {

/// One of what a file did; filled when it is so.
class TouchButton : public QAbstractButton {
    Q_OBJECT

public:
    TouchButton(const QString& text, const QString& key, const Look& look, QWidget* parent = nullptr);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
    QString m_key;
};

/// M12 at the bench: tap which files skate, barely catch and bite, in either order; the bracket follows at once, on the
/// rule of the readings.
class FilesDialog : public QDialog {
    Q_OBJECT

public:
    /// rule: window and readings of the blade as they stand. before: the try it takes the place of, if any.
    FilesDialog(const QString& title, const std::vector<double>& files, const FileTest* before, RuleData rule,
                const Look& look, QWidget* parent);
    void ask(std::function<void(const std::vector<FileTrial>&, Surface)> done);

    /// Esc: what was tapped is not lost at the first.
    void reject() override;

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent*) override;

private:
    void touch(std::size_t row, FileTouch touch);
    void select(int row);
    void refresh();
    void propose();
    QString nextText() const;
    std::vector<FileTrial> trials() const;
    Surface surface() const;
    int top(std::size_t row) const;
    void submit();

    const Look& m_look;
    std::vector<double> m_files;
    RuleData m_rule;
    std::map<std::size_t, FileTouch> m_touches; ///< by row; a file that was not tried is not in it
    std::map<std::size_t, FileTouch> m_begun;   ///< the same before anything was tapped, or about to be given up
    std::vector<std::array<TouchButton*, 3>> m_buttons;
    std::array<TouchButton*, 3> m_surfaces{};
    std::function<void(const std::vector<FileTrial>&, Surface)> m_done;
    QString m_answer;
    bool m_contradicts = false;
    int m_row = 0;
};

} // namespace rollcall
