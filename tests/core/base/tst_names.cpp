// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/names.h"

#include "core/base/protocol.h"
#include "core/judge/record.h"
#include "core/judge/sampling_plan.h"
#include "core/judge/verdict.h"
#include "core/proof/speaks.h"

#include <QFile>
#include <QRegularExpression>
#include <QtTest>
#include <set>

using namespace rollcall;

// The words under which values are stored: each its own, each read back as what it was.
class tst_Names : public QObject {
    Q_OBJECT

    template<class Enum>
    static void roundTrip(Enum last) {
        const auto& words = namesOf<Enum>;
        QCOMPARE(words.size(), static_cast<std::size_t>(last) + 1); // one for each value
        std::set<std::string> seen;
        for (std::size_t i = 0; i < words.size(); ++i) {
            const auto value = static_cast<Enum>(i);
            QVERIFY2(seen.insert(nameOf(value)).second, nameOf(value));
            QCOMPARE(named<Enum>(nameOf(value)), std::optional<Enum>(value));
        }
        QVERIFY(!named<Enum>("no such word").has_value());
        QVERIFY(!named<Enum>("").has_value());
    }

private slots:
    void everyWordIsReadBack() {
        roundTrip(Gate::release);
        roundTrip(State::excused);
        roundTrip(Disposition::sendBack);
        roundTrip(Fate::removed);
        roundTrip(StrikeReason::superseded);
        roundTrip(TesterKind::other);
        roundTrip(Surface::decarburised);
        roundTrip(SteelNoteKind::changed);
        roundTrip(DecisionRule::chance);
        roundTrip(AnalysisMethod::oes);
        roundTrip(EdgeGrind::hollow);
        roundTrip(EdgeOutcome::crack);
        roundTrip(TrialAct::takeBack);
        roundTrip(StageKind::temper);
        roundTrip(HeatSurface::coated);
        roundTrip(OxideSurface::foil);
        roundTrip(FractureZone::skin);
        roundTrip(StepKind::bend);
        roundTrip(Trait::finish);
        roundTrip(SampleGap::excused);
        roundTrip(Act::out);
        roundTrip(Fact::outBecause);
    }

    // Each fact's name is its own, word for word: the list beside the enum has not slipped by one.
    void factsAreNamedAsTheyAre() {
        QFile header(QStringLiteral(ROLLCALL_SOURCE_DIR "/src/core/judge/fact.h"));
        QVERIFY(header.open(QIODevice::ReadOnly));
        QString text = QString::fromUtf8(header.readAll());
        text = text.mid(text.indexOf("enum class Fact {") + 17);
        text = text.left(text.indexOf("};"));
        text.remove(QRegularExpression("//[^\n]*"));
        const QStringList values = text.split(',', Qt::SkipEmptyParts);
        std::size_t i = 0;
        for (const QString& value : values) {
            QString name = value.trimmed();
            if (name.isEmpty()) continue;
            for (qsizetype at = name.size() - 1; at > 0; --at) {
                if (name[at].isUpper()) name.replace(at, 1, QString("_") + name[at].toLower());
            }
            QCOMPARE(QString::fromLatin1(namesOf<Fact>.at(i++)), name);
        }
        QCOMPARE(i, namesOf<Fact>.size());
    }

    // What earlier logbooks say stays readable: the gate of heats was called cycle, and is stored so.
    void theHeatGateIsStoredAsItAlwaysWas() {
        QCOMPARE(nameOf(Gate::heat), "heat");
        QCOMPARE(storedName(Gate::heat), "cycle");
        QCOMPARE(gateNamed("cycle"), std::optional<Gate>(Gate::heat));
        QCOMPARE(gateNamed("heat"), std::optional<Gate>(Gate::heat));
        for (const Gate gate : allGates) QCOMPARE(gateNamed(storedName(gate)), std::optional<Gate>(gate));
        QCOMPARE(traitNamed("cycles"), std::optional<Trait>(Trait::tempers));
    }

    // Words that are in files and may not change, from the schema's own CHECK constraints.
    void storedWordsAreThoseOfTheSchema() {
        QCOMPARE(nameOf(TesterKind::rebound), "rebound");
        QCOMPARE(nameOf(Disposition::otherPurpose), "other purpose");
        QCOMPARE(nameOf(Surface::decarburised), "decarburised");
        QCOMPARE(nameOf(TrialAct::acknowledged), "caution");
        QCOMPARE(nameOf(TrialAct::takeBack), "take-back");
        QCOMPARE(nameOf(StrikeReason::sameSpot), "same spot");
    }
};

QTEST_APPLESS_MAIN(tst_Names)
#include "tst_names.moc"
