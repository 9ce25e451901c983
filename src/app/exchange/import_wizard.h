// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "core/base/csv.h"
#include "logbook/transfer/column_map.h"
#include "logbook/transfer/import.h"
#include "plot/look.h"

#include <functional>
#include <QDialog>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QTableWidget;

namespace rollcall {

class PrimaryButton;

/// Shows somebody's own table as it is, says over each column what it is taken for, and tries the import after every
/// change: what would come in, and what is wrong with which line. Nothing is stored before it is taken.
class ImportWizard : public QDialog {
    Q_OBJECT

public:
    /// bytes are the file as given; table is what is in it.
    ImportWizard(Document& document, const QString& name, const QByteArray& bytes, CsvText table, const Look& look,
                 QWidget* parent);
    ~ImportWizard() override;
    /// Shows it without blocking; done gets what was taken in.
    void ask(std::function<void(const ImportReport&)> done);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void buildTable();
    QLayout* buildFixed();
    ColumnMap map() const;
    /// Puts what is taken for granted into the fields.
    void show(const ColumnMap& map);
    void changed();
    void tryIt();
    void tell(const Result<ImportReport>& tried);
    void take();
    QString rememberedUnder() const;

    Document& m_document;
    QString m_name;
    QByteArray m_bytes;
    CsvText m_csv;
    const Look& m_look;
    QTableWidget* m_table;
    std::vector<QComboBox*> m_is;
    std::vector<QComboBox*> m_unit;
    std::map<std::string, QWidget*> m_fixed; ///< by readings column: a line or a box
    QLabel* m_answer;
    QLabel* m_problems;
    PrimaryButton* m_accept;
    std::function<void(const ImportReport&)> m_done;
    int m_readings = 0;                ///< that would come in
    std::shared_ptr<Progress> m_trial; ///< while it is tried
    bool m_again = false;              ///< something changed while it was tried
    bool m_showing = false;
};

} // namespace rollcall
