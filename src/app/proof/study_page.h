// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "core/judge/study.h"

namespace rollcall {

/// Studies: pieces of one or several batches side by side, with what differs beside the factor first.
class StudyPage : public Bench {
    Q_OBJECT

public:
    StudyPage(Document& document, const Look& look);

    QString title() const override { return tr("Study"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { step(1); }
    std::vector<ReportTable> tables() const override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Row {
        QString name;
        QStringList cells;
        bool differs = false;
    };
    std::vector<Row> rows() const;
    const Study* study() const;
    void step(int by);
    void load();

    int m_index = 0;
    std::vector<StudyPiece> m_pieces; ///< of the study in hand, as last read
    std::string m_loaded;             ///< what they were read for
};

} // namespace rollcall
