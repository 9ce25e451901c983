// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "core/judge/standing.h"
#include "logbook/actions/blades.h"

#include <deque>
#include <optional>
#include <QObject>
#include <QString>

namespace rollcall {

/// What the reading station asks for next.
enum class StationAct {
    typeReading,
    verify,
    finishVerification,
    repeatVerification,
    logTemper,
    temperAgain,
    oneMore,
    callNext,
    decide,
    overview,
    setLimits,
    reharden,
    clearCrack,
    lookInto,
    chooseSet,
    tryFiles,
    grindClean,
    coldTreat,
    toSteel,
    nothing
};

/// The reading station's state: what is being typed, where the next indent goes, whether a blade or a block is
/// read. Knows no widget; readings enter here from keys today and may enter from a wire.
class ReadingStation : public QObject {
    Q_OBJECT

public:
    explicit ReadingStation(Document& document, QObject* parent = nullptr);

    enum class Mode { blade, block };
    Mode mode() const { return m_mode; }
    const QString& typed() const { return m_typed; }
    /// One line under the field: what was refused and what to do; empty when all is well.
    const QString& message() const { return m_message; }
    bool refused() const { return m_refused; }

    /// Scale and surface of the readings to come; they stay until changed. radius none: flat.
    void setSurface(const std::string& scale, std::optional<double> radius_mm);
    const std::string& scale() const { return m_scale; }
    std::optional<double> convexRadius() const { return m_radius; }
    /// E6. The zone of the readings to come on this blade; the edge again with the next one.
    void setZone(Zone zone);
    Zone zone() const { return m_zone; }
    /// The scale of the next number: the block's while it is read.
    const std::string& scaleInUse() const { return m_mode == Mode::block ? m_block.scale : m_scale; }

    /// A digit or decimal mark; anything else is ignored. False when it was not taken.
    bool type(QChar key);
    void backspace();
    void clear();
    /// A reading from a wire. It is placed and logged at once where the blade in hand, or after a Pass the next one,
    /// expects it; else it waits to be taken or left.
    void receive(double value, const QString& text, const QString& scale);
    /// M11: logs a whole series of strikes on the blade in hand, each on the next free spot; one struck again on the
    /// spot of the one before is marked by its index.
    void logSeries(const std::vector<double>& strikes, const std::vector<std::size_t>& sameSpot,
                   std::optional<double> instrumentMean, const std::string& support);
    /// Readings that came and are not logged yet.
    int waiting() const { return static_cast<int>(m_incoming.size()); }

    /// Logs what is typed. False when nothing is typed: then Enter means the primary act.
    bool enter();

    /// What the blade is expected to read, HRC: its mean so far, its siblings', the middle of the window.
    std::optional<double> expectedHrc() const { return expected(); }

    /// Whether the blade in hand may be read without asking for one more.
    bool expectsReading() const;
    /// `*`: one more reading than planned on this blade.
    void askOneMore();
    void strikeLast(StrikeReason reason);
    /// The reading that strikeLast() would strike out; empty when there is none.
    QString lastReading() const;

    /// Where the next indent goes: the chosen spot, else the suggested one; none when places are not known or
    /// there is no room.
    std::optional<Spot> nextSpot() const;
    SpotCheck checkNext() const;
    /// Distances to keep for a mark of the expected hardness, or of one softer by so many points.
    SpacingRule spacing(double softer_by = 0) const;
    /// Why there is no suggested spot; empty when there is one.
    QString noSpotReason() const;
    /// Chooses a spot; refused with the distance when it breaks the rule.
    bool chooseSpot(const Spot& spot);
    void moveSpot(double dx_mm, double dy_mm);

    /// The tester's verification as it stands now for work at this hardness.
    StandingRun verification() const;
    void beginVerification(const Block& block);
    void leaveVerification();
    const Block& block() const { return m_block; }
    /// The run in hand; null before its first reading.
    const Verification* run() const;
    /// Runs of this tester that failed today, counted back from the last.
    int failedRunsToday() const;

    StationAct act() const;

signals:
    void changed();
    void logged(const QString& what);
    void testerNeeded();

private:
    void refuse(const QString& message);
    QString whyNotExpected() const;
    struct Number {
        double value = 0;
        QString text;
    };
    void logBlade(const std::vector<Number>& numbers);
    ReadingDraft draftFor(const Blade& blade, const Number& number) const;
    void logBlock(const Number& number);
    void takeIncoming();
    void notStored(const std::vector<Number>& numbers);
    void goOn(bool stored);
    int stillExpected() const;
    std::optional<int> nextBladeToRead() const;
    std::optional<double> expected() const;
    std::optional<double> inScale(std::optional<double> hrc) const;
    std::optional<Spot> freeSpot(const Blade& blade, const SpacingRule& rule) const;
    std::vector<Spot> indents(bool withCurrent) const;
    void forget();

    Document& m_document;
    Mode m_mode = Mode::blade;
    std::string m_scale = "HRC";
    Zone m_zone = Zone::edge;
    std::optional<double> m_radius;
    Block m_block;
    std::string m_run;
    std::string m_blade; ///< for which the typing is meant
    Gate m_gate = Gate::temper;
    QString m_typed;
    QString m_message;
    std::optional<Spot> m_chosen;
    std::deque<Number> m_incoming; ///< from a wire, in the order they came
    std::vector<Spot> m_placed;    ///< spots given to readings that are not on disk yet
    /// The suggested spot and what it was worked out of; asked for many times between two changes.
    struct Suggested {
        int revision = 0;
        std::size_t placed = 0;
        std::string scale;
        std::optional<Spot> spot;
    };
    mutable std::optional<Suggested> m_suggested;
    bool m_refused = false;
    bool m_askedOnce = false; ///< a number far off was asked for; the next Enter takes it
    bool m_oneMore = false;
    bool m_logging = false;
    bool m_enterAgain = false;
};

} // namespace rollcall
