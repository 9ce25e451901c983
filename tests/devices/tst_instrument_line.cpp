// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/instrument_line.h"
#include "sim/simulated_tester.h"

#include <QtTest>

using namespace rollcall;

// The instrument on a real pseudo terminal, with every fault that can be ordered.
class tst_InstrumentLine : public QObject {
    Q_OBJECT

    struct Wire {
        explicit Wire(const QString& link) {
            sim.link = link;
            if (!sim.plug()) qFatal("no pseudo terminal");
            const auto presets = readLinePresets(QStringLiteral(ROLLCALL_DATA_DIR "/devices/lines.csv"));
            line = std::make_unique<InstrumentLine>(serialTransport(link, 9600),
                                                    LinePattern::fromText(presets->front().pattern).value());
            QObject::connect(line.get(), &InstrumentLine::reading, [this](const DeviceLine& l) { values << l.value; });
            line->start();
        }
        void order(const char* command) {
            if (!sim.command(QString::fromLatin1(command))) qFatal("unknown command %s", command);
        }
        bool hasFate(const QString& fate) const {
            return std::any_of(line->log().begin(), line->log().end(),
                               [&](const InstrumentLine::Logged& l) { return l.fate == fate; });
        }
        SimulatedTester sim{0.2, 1};
        std::unique_ptr<InstrumentLine> line;
        QList<double> values;
    };

    // A transport that a test holds in its hand.
    class HandTransport : public Transport {
    public:
        Result<Done> open() override { return Done{}; }
        void close() override {}
        bool isOpen() const override { return true; }
        QString name() const override { return QStringLiteral("by hand"); }
    };

    QTemporaryDir m_dir;
    QString link() const { return m_dir.filePath(QStringLiteral("tester")); }

private slots:
    void readsRepeatsRubbishAndHalves() {
        Wire wire(link());
        QCOMPARE(wire.line->state(), InstrumentLine::State::open);
        wire.order("read 62.1");
        wire.order("again"); // the same count: one reading, sent twice
        wire.order("garbage");
        wire.order("partial 62.3");
        QTRY_COMPARE(wire.values, QList<double>{62.1});
        QTRY_VERIFY(wire.hasFate("not understood"));
        QVERIFY(wire.hasFate("repeated"));
        wire.order("rest");
        wire.order("read 62.1"); // an honest second 62.1
        QTRY_COMPARE(wire.values, (QList<double>{62.1, 62.3, 62.1}));
    }

    void comesBackAfterUnplugging() {
        Wire wire(link());
        wire.order("read 61.5");
        QTRY_COMPARE(wire.values.size(), 1);
        wire.order("unplug");
        QTRY_COMPARE(wire.line->state(), InstrumentLine::State::lost);
        QVERIFY(!wire.line->trouble().isEmpty());
        wire.order("plug");
        QTRY_COMPARE(wire.line->state(), InstrumentLine::State::open);
        wire.order("read 61.7");
        QTRY_COMPARE(wire.values, (QList<double>{61.5, 61.7}));
    }

    void halfANumberWhenTheLineGoesIsNone() {
        auto transport = std::make_unique<HandTransport>();
        HandTransport* hand = transport.get();
        InstrumentLine line(std::move(transport), LinePattern::fromText("(?<value>\\d\\d.\\d)").value());
        QList<double> values;
        connect(&line, &InstrumentLine::reading, this, [&](const DeviceLine& l) { values << l.value; });
        line.start();
        emit hand->received("61.5\n61.6");
        emit hand->lost(QStringLiteral("pulled out"));
        QCOMPARE(line.state(), InstrumentLine::State::lost);
        QCOMPARE(line.trouble(), QStringLiteral("pulled out"));
        QTRY_COMPARE(line.state(), InstrumentLine::State::open);
        emit hand->received("62.5\n");
        QCOMPARE(values, (QList<double>{61.5, 62.5})); // not 61.662.5
        QCOMPARE(line.log().at(1).fate, QStringLiteral("cut off"));
    }

    void keepsUpWithAFlood() {
        Wire wire(link());
        for (int i = 0; i < 10; ++i) {
            wire.order("flood 100");
            QTRY_COMPARE(wire.values.size(), (i + 1) * 100);
        }
        QCOMPARE(wire.line->log().size(), InstrumentLine::keptLines);
    }

    void saysWhenThereIsNoPort() {
        InstrumentLine line(serialTransport(QStringLiteral("/dev/there-is-none"), 9600),
                            LinePattern::fromText("(?<value>\\d+)").value());
        line.start();
        QCOMPARE(line.state(), InstrumentLine::State::closed);
        QCOMPARE(line.trouble(), QStringLiteral("there is no such port"));
    }
};

QTEST_GUILESS_MAIN(tst_InstrumentLine)
#include "tst_instrument_line.moc"
