// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/demo.h"
#include "tests/support/places.h"

#include <QHelpEvent>
#include <QRegularExpression>
#include <QToolTip>
#include <set>

using namespace rollcall;
using fixtures::WindowDriver;

// Every number that is painted says under the pointer what it is, at every place of the window and in every batch of
// the demo.
class tst_Told : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    // What the pointer is told there; empty for nothing.
    static QString tipAt(QWidget& window, const QPoint& at) {
        QWidget* under = window.childAt(at);
        if (under == nullptr) return {};
        QToolTip::hideText();
        const QPoint inside = under->mapFrom(&window, at);
        QHelpEvent help(QEvent::ToolTip, inside, window.mapToGlobal(at));
        QApplication::sendEvent(under, &help);
        return QToolTip::text();
    }
    static QString kind(QWidget& window, const QPoint& at) {
        const QWidget* under = window.childAt(at);
        while (under != nullptr && under->objectName().isEmpty()) under = under->parentWidget();
        return under != nullptr && under->parentWidget() != nullptr ? under->objectName() : QStringLiteral("none");
    }

private slots:
    void initTestCase() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
        fixtures::putDemo(m_dir.filePath("demo.rollcall"));
    }

    void everyNumberSaysWhatItIs() {
        WindowDriver d(m_dir.filePath("demo.rollcall"));
        d.window().resize(1280, 800);
        static const QRegularExpression digit("\\d");
        QStringList mute;
        std::set<QString> asked;
        const std::vector<BatchSummary> batches = d.document().state().batches();
        for (const BatchSummary& batch : batches) {
            d.document().selectBatch(batch.id);
            d.settle();
            for (const QString& place : fixtures::places()) {
                const int gate = place.startsWith('F') ? place.mid(1, 1).toInt() - 2 : -1;
                const bool read = gate == 2 || gate == 3; // these open only where they are asked
                if (read && !d.document().batch().planOf(allGates[static_cast<std::size_t>(gate)]).required) continue;
                if (place.startsWith(QLatin1String("ledger")) && batch.id != batches.front().id)
                    continue; // of all batches
                fixtures::goTo(d, place);
                fixtures::SeenTexts seen;
                d.window().grab();
                for (const auto& one : seen.texts) {
                    if (!digit.match(one.text).hasMatch()) continue;
                    const QPoint at = one.place.center().toPoint();
                    if (!asked.insert(kind(d.window(), at) + one.text).second) continue;
                    if (tipAt(d.window(), at).isEmpty())
                        mute << QStringLiteral("%1: %2").arg(kind(d.window(), at), one.text);
                }
            }
        }
        mute.removeDuplicates();
        QVERIFY2(asked.size() > 1000, "the pointer was led over too few numbers");
        for (const QString& one : mute) qInfo("%s", qPrintable(one));
        QVERIFY2(mute.isEmpty(), qPrintable(mute.join('\n')));
    }

    // Whether the whole record was looked through is told over the clock, also where it is too large for that.
    void theClockTellsWhetherTheRecordIsSound() {
        QVERIFY(QFile::copy(m_dir.filePath("demo.rollcall"), m_dir.filePath("large.rollcall")));
        WindowDriver d(m_dir.filePath("large.rollcall"));
        const auto told = [&] { return tipAt(d.window(), {d.window().width() - 40, d.window().height() - 20}); };
        QVERIFY2(told().contains("is being looked through"), qPrintable(told()));
        QTRY_VERIFY_WITH_TIMEOUT(told().contains("was looked through and is sound"), 60000);
        // Behind its last page a file may be as long as it likes.
        d.stop();
        QVERIFY(QFile::resize(m_dir.filePath("large.rollcall"), qint64{301} << 20));
        d.start();
        QVERIFY2(told().contains("too large to be looked through here"), qPrintable(told()));
    }
};

QTEST_MAIN(tst_Told)
#include "tst_told.moc"
