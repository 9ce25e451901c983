// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/call/blade_view.h"
#include "app/frame/footer.h"
#include "app/frame/main_window.h"
#include "app/frame/verdict_column.h"
#include "app/grain/grain_bench.h"
#include "app/roll/roll.h"
#include "app/shared/buttons.h"
#include "report/page.h"
#include "tests/support/fixtures.h"

#include <atomic>
#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPdfWriter>
#include <QTemporaryDir>
#include <QtTest>

namespace rollcall::fixtures {

/// The real window on a logbook of its own, driven by keys and clicks; asks nothing of its insides but what is on
/// screen.
class WindowDriver {
public:
    explicit WindowDriver(const QString& existing = {}) {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // with the test's own XDG_CONFIG_HOME
        loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"));
        m_path = existing.isEmpty() ? m_dir.filePath(QStringLiteral("shop.rollcall")) : existing;
        start();
    }

    void start() {
        LogbookSeams clock = LogbookSeams::real();
        clock.now = [this, real = clock.now] {
            Instant now = real();
            now.utc_ms += m_shift_ms;
            now.offset_minutes += m_shift_offset;
            return now;
        };
        m_document = std::make_unique<Document>(Tables(tables()), std::move(clock));
        Seams seams;
        seams.chooseFile = [this](QWidget*, const QString&, const QString&, bool) {
            return m_chosenFiles.size() > 1 ? m_chosenFiles.takeFirst() : m_chosenFiles.value(0);
        };
        seams.speak = [this](const QString& text) {
            m_spoken << text;
            return m_noVoice;
        };
        seams.sound = [this](Sound sound) { m_sounded.push_back(sound); };
        seams.drag = [this](QWidget*, QMimeData* what) { m_dragged.reset(what); };
        seams.print = [this](QWidget*, const QString&, bool, const auto& draw) -> std::optional<int> {
            QPdfWriter paper(m_dir.filePath(QStringLiteral("printed.pdf")));
            QPainter painter(&paper);
            Paper sheets = Paper::of(painter, paper);
            return draw(sheets);
        };
        m_window = std::make_unique<MainWindow>(*m_document, Look(), seams);
        m_window->resize(1280, 800);
        m_window->show();
        if (!QTest::qWaitForWindowExposed(m_window.get())) qFatal("window not shown");
        m_document->open(m_path, !QFile::exists(m_path));
        settle();
    }
    void stop() {
        m_window.reset();
        m_document.reset();
    }
    void restart() {
        stop();
        start();
    }

    /// Moves the computer's clock on, or back; and its zone, as summer time does.
    void passTime(std::int64_t ms, int offsetMinutes = 0) {
        m_shift_ms += ms;
        m_shift_offset += offsetMinutes;
    }
    MainWindow& window() { return *m_window; }
    Document& document() { return *m_document; }
    const QString& path() const { return m_path; }
    /// What was said aloud and sounded since the last look.
    QStringList spoken() { return std::exchange(m_spoken, {}); }
    std::vector<Sound> sounded() { return std::exchange(m_sounded, {}); }
    /// From now on the computer has no voice, for this reason; none: it has one again.
    void loseVoice(const QString& why) { m_noVoice = why; }
    /// What the next questions for a file are answered; the last answer stays.
    void chooseFile(const QString& file) { m_chosenFiles = {file}; }
    void chooseFiles(const QStringList& files) { m_chosenFiles = files; }

    /// Waits until everything asked of the storage thread is answered and on screen.
    void settle() {
        if (!QTest::qWaitFor([this] { return m_document->quiet(); }, 60000))
            qFatal("the storage thread does not answer");
        QCoreApplication::processEvents();
        QCoreApplication::processEvents(); // what the first has laid out anew comes on screen
    }

    /// Presses keys where a person's keys would go: "621" types digits, '\n' is Enter.
    void type(const QString& keys) {
        for (const QChar key : keys) {
            if (key == '\n')
                press(Qt::Key_Return);
            else
                QTest::keyClick(target(), key.toLatin1());
        }
        settle();
    }
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QTest::keyClick(target(), key, modifiers);
        settle();
    }
    /// A file of this content in the test's own folder.
    QString writeFile(const QString& name, const QByteArray& bytes) {
        const QString path = m_dir.filePath(name);
        QFile out(path);
        if (!out.open(QIODevice::WriteOnly) || out.write(bytes) != bytes.size())
            qFatal("%s not written", qPrintable(path));
        return path;
    }
    /// Drags a file over the middle of the window and lets it fall.
    void drop(const QString& file) {
        QMimeData mime;
        mime.setUrls({QUrl::fromLocalFile(file)});
        QDragEnterEvent enter({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(m_window.get(), &enter);
        if (!enter.isAccepted()) qFatal("the window does not take %s", qPrintable(file));
        QDropEvent fall({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(m_window.get(), &fall);
        settle();
    }
    /// What was drawn out of the window last; null for nothing.
    const QMimeData* dragged() const { return m_dragged.get(); }
    /// Does a command as a hand would: by its button where that is in sight, else by its line in the menu.
    void run(const char* id) {
        auto* button = m_window->findChild<QAbstractButton*>(QStringLiteral("do-") + QLatin1String(id));
        if (button != nullptr && button->isVisible()) {
            QTest::mouseClick(button, Qt::LeftButton);
            return settle();
        }
        const Commands all = m_window->commands();
        const auto command =
            std::find_if(all.begin(), all.end(), [&](const Command& c) { return c.id == QLatin1String(id); });
        if (command == all.end()) qFatal("no command %s here", id);
        press(Qt::Key_F10);
        for (auto* row : dialog()->findChildren<RowButton*>()) {
            if (row->text() != command->text) continue;
            row->click(); // it may have to be scrolled to
            return settle();
        }
        qFatal("%s is not in the menu", id);
    }
    GrainBench& grain() { return *m_window->findChild<GrainBench*>(); }
    void click(const char* name) {
        auto* button = m_window->findChild<QAbstractButton*>(QLatin1String(name));
        if (button == nullptr) qFatal("no button %s", name);
        QTest::mouseClick(button, Qt::LeftButton);
        settle();
    }

    QDialog* dialog() {
        (void)QTest::qWaitFor([] { return QApplication::activeModalWidget() != nullptr; }, 2000);
        return qobject_cast<QDialog*>(QApplication::activeModalWidget());
    }
    /// Puts text into a field of the open form.
    void fill(const char* field, const QString& text) {
        QDialog* form = dialog();
        if (auto* line = form->findChild<QLineEdit*>(QLatin1String(field)))
            line->setText(text);
        else if (auto* box = form->findChild<QComboBox*>(QLatin1String(field)))
            box->isEditable() ? box->setEditText(text) : box->setCurrentText(text);
        else
            qFatal("no field %s", field);
    }
    /// What stands in a field of the open form.
    QString formValue(const char* field) {
        QDialog* form = dialog();
        if (auto* line = form->findChild<QLineEdit*>(QLatin1String(field))) return line->text();
        auto* box = form->findChild<QComboBox*>(QLatin1String(field));
        return box != nullptr ? box->currentText() : QString();
    }
    /// Leaves a form in which something was typed: asked once, told, then left.
    void giveUp() {
        press(Qt::Key_Escape);
        if (dialog() == nullptr || !formMessage().contains("not kept")) qFatal("what was typed is lost without a word");
        press(Qt::Key_Escape);
    }
    QString formMessage() { return plain(dialog()->findChild<QLabel*>(QStringLiteral("message"))->text()); }
    /// A text with plain blanks where a number is kept on one line with its unit.
    static QString plain(QString text) { return text.replace(QChar(0xA0), QLatin1Char(' ')); }
    /// Everything a dialog says.
    QString dialogText() {
        QStringList texts;
        for (auto* label : dialog()->findChildren<QLabel*>()) texts << label->text();
        for (auto* row : dialog()->findChildren<RowButton*>()) texts << row->text() << row->accessibleDescription();
        return plain(texts.join('\n'));
    }

    // --- walks that many tests begin with
    void setUpShop() {
        if (dialog()->findChild<QWidget*>("initials") == nullptr) type("1"); // a bench tester
        fill("initials", "HB");
        fill("block", "62.6");
        press(Qt::Key_Return, Qt::ControlModifier);
    }
    /// From the empty logbook to a batch of three blades GK-1 to GK-3.
    void makeBatch(const QString& profile = "Quench and Temper", const QString& thickness = "2.4") {
        type("n");
        if (dialog()->findChild<QWidget*>("name") == nullptr) setUpShop();
        fill("name", "Orchard 13");
        fill("profile", profile);
        fill("count", "3");
        fill("marks", "GK-#");
        fill("grade", "115CrV3");
        fill("window", "61 to 63");
        fill("thickness", thickness);
        fill("size", "58 x 16");
        press(Qt::Key_Return, Qt::ControlModifier);
    }
    void verifyTester() {
        type("v");
        type("627\n629\n628\n628\n628\n"); // error exactly 0.2 from five readings
        press(Qt::Key_Return);
    }

    // --- what is on screen
    const ColumnContent& column() { return m_window->findChild<VerdictColumn*>()->content(); }
    QString word() { return column().word; }
    QString act() { return m_window->findChild<PrimaryButton*>()->text(); }
    QString reasons() {
        QStringList all;
        for (const auto& line : column().lines) all << line.text;
        return plain(all.join('\n'));
    }
    QString now() { return plain(m_window->findChild<Footer*>()->text()); }
    QString lineText() { return m_window->links().tester.stateText(); }
    QString field() { return plain(m_window->findChild<QWidget*>(QStringLiteral("reading-row"))->accessibleName()); }
    BladeView* bladeView() { return m_window->findChild<BladeView*>(); }
    QString rollText(int row) {
        const RollModel& model = m_window->findChild<Roll*>()->model();
        return model.data(model.index(row), Qt::AccessibleTextRole).toString();
    }

private:
    // Where keys go: an open dialog's focus, else the window's.
    QWidget* target() const {
        if (QWidget* modal = QApplication::activeModalWidget())
            return modal->focusWidget() != nullptr ? modal->focusWidget() : modal;
        QWidget* window = m_window.get();
        return window->focusWidget() != nullptr ? window->focusWidget() : window;
    }

    std::atomic<std::int64_t> m_shift_ms = 0; ///< of the clock; read by the storage thread too
    std::atomic<int> m_shift_offset = 0;
    QTemporaryDir m_dir;
    QString m_path;
    QStringList m_chosenFiles;
    QStringList m_spoken;
    QString m_noVoice;
    std::vector<Sound> m_sounded;
    std::unique_ptr<QMimeData> m_dragged;
    std::unique_ptr<Document> m_document;
    std::unique_ptr<MainWindow> m_window;
};

} // namespace rollcall::fixtures
