// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/reading_row.h"
#include "app/frame/verdict_column.h"
#include "logbook/actions/blades.h"
#include "tests/support/demo.h"
#include "tests/support/places.h"

#include <QRegularExpression>
#include <QTranslator>
#include <set>

using namespace rollcall;
using fixtures::WindowDriver;

// Every place of the demo, and of a logbook with long names and many blades, at the sizes a workshop's screen may have
// and the sizes a text may have on it: nothing that decides is cut, and no text lies over another.
class tst_Sizes : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    QString m_demo;

    // A language whose words are 40 per cent longer than English ones.
    struct Longer : QTranslator {
        QString translate(const char*, const char* source, const char*, int) const override {
            QString text = QString::fromUtf8(source);
            static const QRegularExpression word("(?<![%@\\w])\\p{L}{3,}");
            qsizetype grown = 0;
            for (const QRegularExpressionMatch& one : word.globalMatch(text)) {
                const QString more = one.captured().right((one.capturedLength() * 2 + 2) / 5).toLower();
                text.insert(one.capturedEnd() + grown, more);
                grown += more.size();
            }
            return text;
        }
        bool isEmpty() const override { return false; }
    };

    using Seen = fixtures::SeenTexts;

    static QStringList faultsAt(WindowDriver& d, const QStringList& where) {
        QStringList faults;
        const QString batch = QString::fromStdString(d.document().batch().name);
        for (const QString& place : where) {
            const int gate = place.startsWith('F') ? place.mid(1, 1).toInt() - 2 : -1;
            const bool read = gate == 2 || gate == 3; // these open only where they are asked
            if (read && !d.document().batch().planOf(allGates[static_cast<std::size_t>(gate)]).required) continue;
            fixtures::goTo(d, place);
            Seen seen;
            d.window().grab();
            for (const QString& cut : seen.cuts) faults << QStringLiteral("%1 %2: cut: %3").arg(batch, place, cut);
            static const QRegularExpression many(
                "(?<![\\d.,/:-])1 "
                "(blades|readings|shots|photos|places|lines|pieces|marks|tempers|days|weeks|months|times|"
                "runs|steps|gates|crossings|files|strikes|elements|siblings|minutes)\\b");
            for (const Seen::Text& one : seen.texts) {
                if (many.match(one.text).hasMatch())
                    faults << QStringLiteral("%1 %2: one as many: %3").arg(batch, place, one.text);
            }
            for (const QString& over : overlaps(seen))
                faults << QStringLiteral("%1 %2: over: %3").arg(batch, place, over);
        }
        faults.removeDuplicates();
        return faults;
    }
    // Texts that lie over each other by more than a hair, in what is seen of the window now.
    static QStringList overlaps(const Seen& seen) {
        QStringList found;
        for (std::size_t i = 0; i < seen.texts.size(); ++i) {
            for (std::size_t j = i + 1; j < seen.texts.size(); ++j) {
                const QRectF both = seen.texts[i].place & seen.texts[j].place;
                if (both.width() > 3 && both.height() > 3)
                    found << seen.texts[i].text + QStringLiteral(" | ") + seen.texts[j].text;
            }
        }
        return found;
    }

private slots:
    void initTestCase() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
        m_demo = m_dir.filePath("demo.rollcall");
        fixtures::putDemo(m_demo);
    }

    // More digits than a reading has: all of them, so that what is wrong is seen.
    void aNumberTooLongIsSeenWhole() {
        WindowDriver d;
        d.makeBatch();
        d.type("62161");
        auto* row = d.window().findChild<ReadingRow*>();
        Seen seen;
        row->grab();
        const auto typed = std::find_if(seen.texts.begin(), seen.texts.end(),
                                        [](const Seen::Text& one) { return one.text == "62161"; });
        QStringList texts;
        for (const Seen::Text& one : seen.texts) texts << one.text;
        QVERIFY2(typed != seen.texts.end(), qPrintable(texts.join('|')));
        QVERIFY2(typed->place.right() < row->mapTo(&d.window(), row->rect().topRight()).x(),
                 qPrintable(QString::number(typed->place.right())));
    }

    // Reasons that are further down are counted as many as they are, also in a window that was just laid out anew.
    void whatIsFurtherDownIsCounted() {
        WindowDriver d(m_demo);
        d.window().resize(1280, 800);
        for (const BatchSummary& batch : d.document().state().batches()) {
            if (batch.name == "Orchard 12") d.document().selectBatch(batch.id);
        }
        d.settle();
        int counted = 0;
        for (const char* place : {"heat", "temper", "dark", "quench", "dark", "temper", "dark"}) {
            const QString wish = QString::fromLatin1(place);
            for (std::size_t blade = 0; blade < d.document().batch().blades.size(); ++blade) {
                d.document().selectBlade(static_cast<int>(blade));
                if (const auto gate = gateNamed(place))
                    d.window().openGate(*gate);
                else
                    d.window().run(wish);
                d.settle();
                const auto* column = d.window().findChild<VerdictColumn*>();
                const auto* list = column->findChild<ReasonList*>(QStringLiteral("reasons"));
                int below = 0;
                for (int row = 0; row < list->rows(); ++row) {
                    if (list->visualRect(list->model()->index(row, 0)).bottom() >= list->viewport()->height()) ++below;
                }
                const QString right = below > 0 ? QStringLiteral("and %1 more").arg(below) : QString();
                QVERIFY2(column->rest() == right, qPrintable(wish + ": " + column->rest() + ", " + right));
                counted += below > 0 ? 1 : 0;
            }
        }
        QVERIFY(counted > 10);
    }

    void nothingThatDecidesIsCut_data() {
        QTest::addColumn<QSize>("size");
        QTest::addColumn<double>("factor");
        QTest::addColumn<QStringList>("where");
        QTest::addColumn<bool>("longer");
        QTest::newRow("1280x800") << QSize(1280, 800) << 1.0 << fixtures::places() << false;
        QTest::newRow("1280x720") << QSize(1280, 720) << 1.0 << fixtures::places() << false;
        QTest::newRow("1024x640") << QSize(1024, 640) << 1.0 << fixtures::places() << false;
        QTest::newRow("1280x800, text 80 %") << QSize(1280, 800) << 0.8 << fixtures::places() << false;
        QTest::newRow("1280x800, text 125 %") << QSize(1280, 800) << 1.25 << fixtures::places() << false;
        QTest::newRow("2560x1440, text 150 %") << QSize(2560, 1440) << 1.5 << fixtures::places() << false;
        QTest::newRow("1280x800, text 150 %") << QSize(1280, 800) << 1.5 << fixtures::places() << false;
        QTest::newRow("1280x800, longer words") << QSize(1280, 800) << 1.0 << fixtures::places() << true;
    }
    void nothingThatDecidesIsCut() {
        QFETCH(QSize, size);
        QFETCH(double, factor);
        QFETCH(QStringList, where);
        QFETCH(bool, longer);
        Longer language;
        if (longer) QCoreApplication::installTranslator(&language);
        WindowDriver d(m_demo);
        Look look = d.window().look();
        look.factor = factor;
        d.window().setLook(look);
        d.settle();
        d.window().resize(size);
        QStringList faults;
        const std::vector<BatchSummary> batches = d.document().state().batches();
        for (const BatchSummary& batch : batches) {
            d.document().selectBatch(batch.id);
            d.settle();
            // The ledger says the same whatever batch is in hand.
            const QStringList here =
                batch.id == batches.front().id ? where : where.filter(QRegularExpression("^(?!ledger)"));
            faults << faultsAt(d, here);
        }
        QVERIFY(d.window().width() <= size.width() && d.window().height() <= size.height());
        faults.removeDuplicates();
        if (qEnvironmentVariableIsSet("LIST"))
            for (const QString& f : faults) qInfo("%s", qPrintable(f));
        QVERIFY2(faults.isEmpty(), qPrintable(faults.join('\n')));
    }
};

QTEST_MAIN(tst_Sizes)
#include "tst_sizes.moc"
