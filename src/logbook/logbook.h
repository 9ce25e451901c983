// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/result.h"
#include "core/base/tables.h"
#include "core/heat/schedule.h"
#include "core/judge/record.h"
#include "core/steel/grade_sheet.h"
#include "logbook/column_map.h"

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <QByteArray>
#include <QString>
#include <QVariant>
#include <string>
#include <vector>

class QLockFile;

namespace rollcall {

class Database;

/// Where a logbook gets time and identity from; passed in, so that tests and the demo are reproducible.
struct LogbookSeams {
    std::function<Instant()> now;
    std::function<std::string()> newId;

    /// The computer's clock and random identities.
    static LogbookSeams real();
};

struct Person {
    std::string id;
    std::string initials;
    std::string name;
};

struct Block {
    std::string id;
    std::string name;
    std::string scale = "HRC";
    double certified = 0;
    double uncertainty = 0.3; ///< U of the certificate, k = 2
    double diameter_mm = 60;  ///< of its face
    double spacing_mm = 3;    ///< in use between indents
    int used_before = 0;      ///< places taken before it came into this logbook
    int used = 0;             ///< indents logged on it here, struck out ones too; counted, not stored
};

/// An oven of the shop.
struct Oven {
    std::string id;
    std::string name;
    double step_c = 5;              ///< it is set in steps of this
    std::optional<Instant> checked; ///< against a known thermocouple
};

/// Pieces set side by side, in one batch or several.
struct Study {
    std::string id;
    std::string name;
    std::string factor;              ///< name of the trait that is varied; empty for none in particular
    std::vector<std::string> blades; ///< ids
};

/// A picture or other file to be kept with an entry; empty bytes for none.
struct AttachedFile {
    QString name;
    QByteArray bytes;
};

/// People, testers, blocks and ovens of the shop, and the day's tempers.
struct Shop {
    std::vector<Person> people;
    std::vector<Tester> testers;
    std::vector<Block> blocks;
    std::vector<Oven> ovens;
    std::vector<GradeSheet> own_grades;  ///< the last version of each
    std::vector<Protocol> own_protocols; ///< likewise
    std::vector<Study> studies;
    std::vector<PlannedRun> day; ///< planned tempers that are not over for longer than a day
    std::map<std::string, std::string> settings;
};

struct BatchSummary {
    std::string id;
    std::string name;
    std::string grade;
    int blades = 0;
    std::vector<Gate> gates;
    Instant created;
    std::string lot; ///< name of the bar or lot it was cut from
};

struct BladeDraft {
    std::string mark;
    BladeShape shape;
    std::string thickness_text; ///< as typed
};

struct BatchDraft {
    std::string name;
    std::string grade; ///< empty when not known
    std::string lot;
    std::string purpose;
    Window window;
    std::string window_text; ///< as typed
    std::optional<double> quench_minimum;
    std::optional<int> minimum_tempers;
    DecisionRule rule = DecisionRule::guarded;
    std::optional<double> allowance;
    bool uncorrected = false;
    std::array<GatePlan, gateCount> plan;
    std::vector<BladeDraft> blades;
};

struct ReadingDraft {
    std::string blade; ///< id
    Gate gate = Gate::temper;
    int round = 1;
    std::optional<int> after_temper;
    std::string scale = "HRC";
    double value = 0;
    std::string as_entered;
    double resolution = 0.1;
    std::optional<Spot> spot;
    std::optional<double> convex_radius_mm; ///< of the surface; none: flat
    std::string tester;                     ///< id
    std::string series;                     ///< id of the series it belongs to; empty for none
    std::string note;
};

/// A series of rebound strikes as the instrument shows it.
struct SeriesDraft {
    std::vector<ReadingDraft> strikes;     ///< all on one blade, in the order they were struck
    std::optional<double> instrument_mean; ///< its own average, HRC
    std::string support;                   ///< how the blade lay and was coupled
};

struct TemperDraft {
    std::string batch;
    std::vector<std::string> blades; ///< ids
    std::optional<double> temperature_c;
    std::optional<double> hours;
    std::string as_entered;
    std::optional<Instant> time;
};

/// A heat about to begin; its clock starts at zero.
struct HeatDraft {
    std::string batch;
    std::string oven; ///< id
    double set_c = 0;
    double near_c = 10;
    std::optional<double> min_minutes;
    std::optional<double> max_minutes;
    HeatSurface surface = HeatSurface::scaled;
    std::string medium;
    std::optional<double> medium_c;
    double medium_tolerance_c = 15;
    std::optional<double> edge_mm;
    std::string as_entered;
    std::optional<Instant> zero; ///< none: now
};

/// A stretch of trace to be kept with a heat.
struct TraceDraft {
    std::string run;
    QString name;
    QByteArray file; ///< as given, kept as an attachment; empty for samples from a wire
    Trace trace;
    double shift_s = 0; ///< of the trace's clock on the run's
    bool fresh = true;  ///< begins the trace anew; else goes on where it ended
};

enum class HeatMoment { in, out, quenched };
template<>
inline constexpr std::array namesOf<HeatMoment>{"in", "out", "quenched"};

/// What was noted of a blade in a heat; what is none is left as it was noted before.
struct HeatNoteDraft {
    std::string run;
    std::string blade;
    int round = 1;
    std::optional<double> transfer_s;
    std::optional<double> quenchant_c;
    std::optional<double> noted_c;
    std::optional<double> noted_minutes;
    std::string note;
    std::string as_entered;
};

/// A shot of an analyser as it came.
struct ShotDraft {
    std::string batch;
    std::string blade; ///< id; empty: the bar
    AnalysisMethod method = AnalysisMethod::xrf;
    std::string piece;
    CompositionShot composition;
    QString file_name;
    QByteArray file; ///< as given; empty when typed
};

/// A photo of a broken blade.
struct FractureDraft {
    std::string blade;
    int round = 1;
    int after_temper = 0; ///< number of the last temper before it was broken
    AttachedFile photo;
    int width = 0; ///< pixels, upright
    int height = 0;
};

/// A reading with where it was taken, for lists across batches.
struct PlacedReading {
    std::string batch;
    std::string mark;
    Gate gate = Gate::temper;
    std::string scale;
    double value = 0;
    std::optional<Instant> time;
};

/// Rows of each table that went out or came in.
using PackageCounts = std::map<std::string, int>;

/// What an import of readings did, or would do.
struct ImportReport {
    std::string id;  ///< of the import; empty when nothing was taken
    int batches = 0; ///< newly added
    int blades = 0;
    int readings = 0;
    int already_there = 0;
    struct Rejected {
        int line = 0;
        std::string reason;
    };
    std::vector<Rejected> rejected;
};

/// An import that could be taken back.
struct PastImport {
    std::string id;
    std::string file;
    int readings = 0;
    Instant at;
};

/// What a merge did, or would do.
struct MergeReport {
    PackageCounts added;                ///< rows that came in, by table
    int changed = 0;                    ///< rows that only the other one had changed
    std::vector<std::string> conflicts; ///< sentences: what both changed, and what became of it
    std::vector<std::string> renamed;   ///< sentences: what came in under another name
    bool nothing() const { return added.empty() && changed == 0; }
};

/// The record of a shop in one file. Values in, values out; every action is one transaction that is on disk
/// when the call returns, together with its entry in the hash-chained change log. Readings and what is said
/// about them are only ever added. Not thread-safe: one thread owns it.
class Logbook {
public:
    enum class Access { write, read };

    /// Makes a new, empty logbook. Errors: exists, disk.
    static Result<std::unique_ptr<Logbook>> create(const QString& path, LogbookSeams seams = LogbookSeams::real());
    /// Opens a logbook. Errors: input (no such file), locked (open elsewhere, and by whom), damaged (not a
    /// logbook), disk. A logbook of a newer Rollcall is opened for reading only, whatever was asked.
    static Result<std::unique_ptr<Logbook>> open(const QString& path, Access access,
                                                 LogbookSeams seams = LogbookSeams::real());
    /// Checkpoints and leaves the file as one closed piece that a read-only folder can hold.
    ~Logbook();

    bool readOnly() const { return m_readOnly; }
    /// Why it can only be read; empty when it can be written.
    const std::string& readOnlyReason() const { return m_readOnlyReason; }
    int schemaVersion() const { return m_schema; }
    void setPerson(const std::string& initials) { m_person = initials; }
    const std::string& person() const { return m_person; }
    Instant now() const { return m_seams.now(); }

    /// Runs many actions as one transaction: one wait for the disk instead of one each. Nothing of them is
    /// stored when the work fails. For generated logbooks, not for what a maker types.
    Result<Done> inOneTransaction(const std::function<Result<Done>()>& work);

    // --- what is in it
    Result<Shop> shop();
    Result<std::vector<BatchSummary>> batches();
    Result<Batch> batch(const std::string& id);
    /// All runs on blocks, in the order they were made, without the readings struck out.
    Result<std::vector<Verification>> verifications();
    /// Unstruck readings on blades made with a tester after a moment, oldest first.
    Result<std::vector<PlacedReading>> readingsSince(const std::string& tester, const Instant& since);
    /// Number of rows of every table.
    Result<std::map<std::string, int>> counts();
    /// Sentences about everything found wrong: damage of the file, broken references, a change log whose chain
    /// is broken, rows that are not what the change log says. Empty when all is well.
    Result<std::vector<std::string>> check();

    // --- actions; each returns the id of what it made
    Result<std::string> addPerson(const std::string& initials, const std::string& name);
    Result<std::string> addTester(const Tester& tester);
    Result<std::string> addBlock(const Block& block);
    /// New settings of a tester. Another indenter or anvil ends its verification; earlier readings keep theirs.
    Result<Done> changeTester(const Tester& tester);
    Result<Done> changeBlock(const Block& block);
    Result<Done> changeSetting(const std::string& key, const std::string& value);
    /// Errors (refused): a name in use, no blades, two blades of one mark, a shape or window that cannot be.
    Result<std::string> addBatch(const BatchDraft& draft);
    Result<Done> changePlan(const std::string& batch, Gate gate, const GatePlan& plan);
    Result<Done> changeLimits(const std::string& batch, const Window& window, const std::string& text,
                              std::optional<double> quench_minimum);
    Result<Done> renameBlade(const std::string& blade, const std::string& mark);
    /// Logs one reading; it is on disk when this returns.
    Result<std::string> logReading(const ReadingDraft& draft);
    /// Logs a series of strikes as one action. Errors (refused): no strikes.
    Result<Done> logSeries(const SeriesDraft& series);
    Result<Done> strikeReading(const std::string& reading, StrikeReason reason, const std::string& note);
    /// Logs what a set of files did on a blade; the test's own id, person and time are given here.
    /// Errors (refused): no file tried.
    Result<std::string> logFileTest(const std::string& blade, const std::string& set, const FileTest& test);
    /// Takes readings out because another set stands instead of them; they stay visible. Errors (refused): no reason.
    Result<Done> supersedeReadings(const std::vector<std::string>& readings, const std::string& reason);
    /// Lets a reading that breaks a rule count, with the reason.
    Result<Done> acceptReading(const std::string& reading, const std::string& reason);
    /// Begins a run on a block with a tester as it is set up now.
    Result<std::string> startVerification(const std::string& tester, const std::string& block);
    Result<std::string> logBlockReading(const std::string& verification, double value, const std::string& as_entered);
    Result<std::string> logTemper(const TemperDraft& draft);
    Result<Done> strikeTemper(const std::string& temper, const std::string& reason);
    /// A new hardening round: the blade is quenched again and starts anew at the Quench gate.
    Result<std::string> reharden(const std::string& blade, const std::string& reason,
                                 const std::optional<Instant>& quenched);
    /// The marks of all readings on a blade so far are ground off: they leave its map, the readings stay. Errors
    /// (refused): there is none.
    Result<Done> grindOff(const std::string& blade);
    Result<Done> excuse(const std::string& blade, Gate gate, const std::string& reason);
    Result<Done> takeOut(const std::string& blade, Fate fate, Gate gate, const std::string& reason);
    // --- the heat
    Result<std::string> addOven(const Oven& oven);
    Result<Done> changeOven(const Oven& oven);
    /// All recipes, the newest version of each first.
    Result<std::vector<Recipe>> recipes();
    /// Keeps a recipe; one of a known name becomes its next version. Errors (refused): no name, no stages.
    Result<std::string> addRecipe(const Recipe& recipe);
    /// The version a batch runs from now on.
    Result<Done> useRecipe(const std::string& batch, const std::string& recipe);
    /// Errors (refused): a set point outside 100 to 1400 °C, limits of soak that are swapped.
    Result<std::string> startHeat(const HeatDraft& draft);
    Result<Done> strikeHeat(const std::string& run, const std::string& reason);
    Result<Done> addTrace(const TraceDraft& draft);
    /// A blade's moment on the run's clock. A later mark of the same kind takes the place of an earlier one.
    Result<Done> markHeat(const std::string& run, const std::string& blade, int round, HeatMoment moment,
                          double clock_s);
    Result<Done> noteHeat(const HeatNoteDraft& note);
    /// Errors (refused): the oven is taken then, and by what.
    Result<std::string> planRun(const PlannedRun& run, const std::string& as_entered);
    /// kind: started, out, cancelled.
    Result<Done> markPlanned(const std::string& planned, const char* kind);
    Result<Done> logWarp(const std::string& blade, int round, int after_temper, const Warp& warp,
                         const std::string& as_entered);
    Result<Done> logColour(const std::string& blade, const ColourNote& note);

    // --- the steel
    /// Supplier and heat number of a batch's lot. Errors (refused): a batch without a grade has no lot.
    Result<Done> changeLot(const std::string& batch, const std::string& name, const std::string& supplier,
                           const std::string& heat_number);
    /// The mill's values of a batch's lot, with the certificate as a file where there is one. Later values of an
    /// element take the place of earlier ones. Errors as changeLot.
    Result<Done> addCertificate(const std::string& batch, const std::vector<ElementReading>& values,
                                const QString& fileName, const QByteArray& file);
    /// Errors (refused): no element.
    Result<std::string> addShot(const ShotDraft& draft);
    Result<Done> strikeShot(const std::string& shot, const std::string& reason);
    Result<Done> addSteelNote(const std::string& batch, const SteelNote& note);
    /// What the batch is taken for from now on; what it was sold as stays. Errors (refused): no reason.
    Result<Done> assignGrade(const std::string& batch, const std::string& grade, const std::string& reason);
    /// A grade of the shop's own, in its next version. Errors (refused): no name.
    Result<Done> keepOwnGrade(const GradeSheet& sheet);

    // --- edge and proof
    Result<Done> measureEdge(const std::string& blade, const EdgeGeometry& edge, const std::string& as_entered);
    /// Logs a rung; its id is given here.
    Result<std::string> logRung(const std::string& blade, const EdgeRung& rung, const std::string& as_entered);
    /// Errors (refused): no reason.
    Result<Done> strikeRung(const std::string& rung, const std::string& reason);
    Result<Done> noteGrinding(const std::string& blade, const GrindingNote& note);
    Result<Done> askEdge(const std::string& batch, const EdgeAsk& ask);
    Result<Done> markDamage(const std::string& blade, const DamageMark& mark, const AttachedFile& photo = {});
    /// A protocol of the shop's own, in its next version. Errors (refused): no name, no step, a step that cannot be.
    Result<Done> keepProtocol(const Protocol& protocol);
    Result<std::string> beginTrial(const std::string& blade, int round, int after_temper, const Protocol& protocol);
    Result<Done> trialEvent(const std::string& trial, const TrialEvent& event, const AttachedFile& photo = {});
    /// Errors (refused): no name, fewer than two pieces.
    Result<std::string> addStudy(const Study& study);
    // --- grain
    /// Keeps a photo of a broken blade as given. Errors (refused): no file, no pixels.
    Result<std::string> addFracture(const FractureDraft& draft);
    /// Errors (refused): no reason.
    Result<Done> strikeFracture(const std::string& fracture, const std::string& reason);
    /// A later scale takes the place of an earlier one. Errors (refused): outside 1 to 10 000 pixels per mm.
    Result<Done> scaleFracture(const std::string& fracture, double px_per_mm, const std::string& as_entered);
    /// Keeps a counted line; its id is given here. Errors (refused): no length, crossings that are none.
    Result<std::string> countLine(const std::string& fracture, const CountedLine& line);
    /// Errors (refused): no reason.
    Result<Done> strikeLine(const std::string& line, const std::string& reason);
    /// Errors (refused): a rating outside 1 to 10.
    Result<Done> rateFracture(const std::string& fracture, const FractureRating& rating);
    /// The least grain size that a batch asks from now on. Errors (refused): outside 1 to 12.
    Result<Done> askGrain(const std::string& batch, double least);
    // --- release
    /// Signs decisions about blades as one action; the person and time are given here. Errors (refused): no reason
    /// where one is asked (anything but a plain release), nobody at work to sign.
    struct Decision {
        std::string blade;
        Signature signature;
    };
    Result<Done> sign(const std::vector<Decision>& decisions);
    /// Declares the chance asked for the blades left unread; none: every blade is read. Errors (refused): not between 0
    /// and 1.
    Result<Done> askSample(const std::string& batch, std::optional<double> chance);
    /// Writes the whole logbook as a Frictionless Data Package: a folder with datapackage.json, one CSV for each table
    /// in the order of its rows, and the attached files under their hash. Errors: exists (the folder is not empty),
    /// disk.
    Result<PackageCounts> exportTo(const QString& folder);
    /// A file as it was given, by its hash. Errors (input): there is none; damaged: it is not what its hash says.
    Result<QByteArray> fileOf(const std::string& sha256);

    /// The batch that a blade belongs to.
    Result<std::string> batchOf(const std::string& blade);

    /// Takes the good lines of a readings.csv, or of any table whose columns the map names, reports the others, and
    /// keeps the file. Importing it again adds nothing. A trial reports and does nothing. Errors: input when it is no
    /// such file, refused when not a single line could be taken.
    Result<ImportReport> importReadings(const Tables& tables, const QString& fileName, const QByteArray& bytes,
                                        const std::optional<ColumnMap>& map = {}, bool trial = false);
    /// The last import that was not taken back; none when there is none.
    Result<std::optional<PastImport>> lastImport();
    /// The inverse of an import: its readings are struck out, its tempers too, the blades it made are out and give
    /// their names free. Errors (refused): taken back already, something was logged on what it brought.
    Result<Done> takeBackImport(const std::string& import);

    // --- two logbooks
    /// Takes in what another logbook holds and this one does not, as one action; where both changed the same thing
    /// since they were one, this one's stays and the conflict is told. A trial reports and does nothing.
    /// Errors: as open(); refused when the other does not pass its own check, or is this one.
    Result<MergeReport> merge(const QString& other, bool trial);
    /// A new logbook with the numbers of this one, without names, notes, photos and files. Errors: exists, disk.
    Result<Done> copyWithoutNames(const QString& path);

private:
    friend class ReadingsImport;
    friend class LogbookMerge;
    Logbook(std::unique_ptr<Database> database, std::unique_ptr<QLockFile> lock, LogbookSeams seams);

    /// Makes the schema, or brings an older one up to date after a copy of the file.
    Result<Done> prepare(const QString& path, bool fresh);
    /// Runs the work as one transaction with one entry in the change log; a failed work leaves no trace.
    Result<Done> transact(const char* action, const std::function<Result<Done>()>& work);
    Result<Done> insertBlade(const std::string& batch, const std::string& id, const BladeDraft& draft, int position);
    Result<Done> insertReading(const std::string& id, const ReadingDraft& draft, const Tester& tester,
                               const std::optional<Instant>& time, const std::string& verification,
                               const std::string& import, const std::string& identity);
    Result<std::string> gradeId(const std::string& designation);
    Result<Done> learnScatter();
    Result<std::vector<Tester>> testers();
    Result<Tester> testerById(const std::string& id);
    Result<std::vector<Block>> blocks();
    /// Keeps a file where there is one and gives the id of its attachment; null for none.
    Result<QVariant> attached(const AttachedFile& file);
    /// Keeps a file and gives the id of its attachment.
    Result<std::string> insertAttachment(const QString& name, const char* mediaType, const QByteArray& bytes);
    Result<Done> keepBytes(const QString& sha, const QByteArray& bytes);
    Result<std::vector<Oven>> ovens();
    Result<std::vector<GradeSheet>> ownGrades();
    Result<std::string> lotOf(const std::string& batch);
    Result<Done> loadSteel(Batch& batch);
    Result<Done> loadProof(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<Done> loadRelease(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<Done> loadGrain(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<std::vector<Protocol>> ownProtocols();
    Result<std::vector<Study>> studies();
    Result<std::vector<PlannedRun>> plannedRuns();
    Result<Done> loadHeats(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<std::shared_ptr<const Trace>> traceOf(const std::string& run, std::string& name);
    /// Logs a temper without a transaction of its own; numbers it for each blade.
    Result<Done> insertTemper(const std::string& id, const TemperDraft& draft);

    std::unique_ptr<Database> m_database;
    std::unique_ptr<QLockFile> m_lock;
    LogbookSeams m_seams;
    std::map<std::string, PooledScatter> m_learned; ///< by tester, from the days before m_learnedDay
    std::int64_t m_learnedDay = -1;
    std::map<std::string, std::shared_ptr<const Trace>> m_traces; ///< by their parts; decoded once
    std::string m_person;
    std::string m_readOnlyReason;
    bool m_readOnly = false;
    bool m_inTransaction = false;
    int m_schema = 0;
};

} // namespace rollcall
