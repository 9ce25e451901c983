// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/growing_model.h"
#include "app/store/document.h"
#include "core/judge/tester_health.h"
#include "plot/look.h"

#include <map>
#include <QAbstractListModel>
#include <QListView>
#include <QWidget>

namespace rollcall {

/// The testers of the shop with what their runs on blocks say; computed anew from every snapshot.
class TesterListModel : public GrowingModel<QAbstractListModel> {
    Q_OBJECT

public:
    explicit TesterListModel(const Document& document, QObject* parent = nullptr);
    void refresh();

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

    const Tester& tester(int row) const;
    const TesterHealth& health(int row) const { return m_health[static_cast<std::size_t>(row)]; }
    /// "07:27", "not today", "40 to 65".
    QString word(int row) const;
    int count(State state) const;
    /// The charts of this tester are of the next block it was read on.
    void nextBlock(int row);

private:
    const Document& m_document;
    std::map<std::string, std::string> m_blocks; ///< tester -> block chosen for its charts
    std::vector<TesterHealth> m_health;
};

/// Takes the roll's place on the Testers bench: a row each, the error as a share of what is allowed.
class TesterList : public QWidget {
    Q_OBJECT

public:
    TesterList(Document& document, const Look& look, QWidget* parent = nullptr);
    void refresh();
    const TesterListModel& model() const { return *m_model; }
    int current() const { return m_current; }
    QWidget* list() const;
    void step(int by);
    void nextBlock();

signals:
    void currentChanged();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void select(int row);

    Document& m_document;
    const Look& m_look;
    TesterListModel* m_model;
    QListView* m_list;
    int m_current = 0;
    bool m_refreshing = false;
};

} // namespace rollcall
