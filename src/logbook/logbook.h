// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/result.h"
#include "core/base/tables.h"
#include "core/base/units.h"
#include "core/heat/schedule.h"
#include "core/judge/record.h"
#include "core/judge/tester_health.h"
#include "core/ledger/study_plan.h"
#include "core/steel/grade_sheet.h"
#include "files/held_file.h"
#include "logbook/logbook_file.h"
#include "logbook/read/present_rows.h"
#include "logbook/touched.h"

#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <QByteArray>
#include <QString>
#include <QVariant>
#include <string>
#include <utility>
#include <vector>

class QJsonArray;
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

/// What stands on a block's certificate beside its value; blank where it is not known.
struct BlockCertificate {
    std::string by;         ///< who certified it
    std::string on;         ///< ISO date
    std::string until;      ///< ISO date, the last day on which it holds
    std::string other_face; ///< id of the block whose other face this is

    bool operator==(const BlockCertificate&) const = default;
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
    BlockCertificate certificate = {};
};

/// How the faces of blocks are used, for those who judge that.
std::vector<BlockUse> usesOf(const std::vector<Block>& blocks);

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

/// People, testers, blocks and ovens of the shop, and the day's tempers.
struct Shop {
    std::vector<Person> people;
    std::vector<Tester> testers;
    std::vector<Block> blocks;
    std::vector<Oven> ovens;
    std::vector<GradeSheet> own_grades;  ///< the last version of each
    std::vector<Protocol> own_protocols; ///< likewise
    std::vector<Study> studies;
    std::vector<StudyPlan> plans; ///< studies that were planned, in that order
    std::vector<PlannedRun> day;  ///< planned tempers that are not over for longer than a day
    std::map<std::string, std::string> settings;

    /// What lengths and temperatures are shown in; kept under unitsSetting.
    Units units() const {
        const auto wish = settings.find(unitsSetting);
        return wish == settings.end() ? Units::metric : named<Units>(wish->second).value_or(Units::metric);
    }
    static constexpr const char* unitsSetting = "units";

    /// What a temper is advised in: the steps of its first oven; without one 5 °C, or 10 °F where that is read.
    OvenSteps ovenSteps() const;
};

struct BatchSummary {
    std::string id;
    std::string name;
    std::string grade;
    int blades = 0;
    Instant created;
    std::string lot; ///< name of the bar or lot it was cut from
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

/// The record of a shop in one file: opened, read, and written in transactions that are on disk when the call returns,
/// together with their entry in the hash-chained change log. What can be done to it stands in actions/, what comes and
/// goes in transfer/. Not thread-safe: one thread owns it.
class Logbook {
public:
    enum class Access { write, read };

    /// Makes a new logbook: under another name until it is whole, filled by whoever is given that name. Errors: exists,
    /// disk, refused (no name for a file), those of the filling.
    static Result<Done> make(const QString& path, LogbookSeams seams,
                             const std::function<Result<Done>(const QString& part)>& fill);
    /// Makes a new, empty logbook and opens it. Errors as make().
    static Result<std::unique_ptr<Logbook>> create(const QString& path, LogbookSeams seams = LogbookSeams::real());
    /// Opens a logbook. Errors: input (no such file), locked (open elsewhere, and by whom), damaged (not a
    /// logbook), disk. For reading only, whatever was asked: one of a newer Rollcall; one with triggers or views that
    /// Rollcall does not make; one whose last entries and rows do not agree; one with a second name (a hard link). A
    /// symbolic link is followed.
    static Result<std::unique_ptr<Logbook>> open(const QString& name, Access access,
                                                 LogbookSeams seams = LogbookSeams::real());
    /// Checkpoints and leaves the file as one closed piece that a read-only folder can hold.
    ~Logbook();

    bool readOnly() const { return m_readOnly; }
    /// Why it can only be read; empty when it can be written.
    const std::string& readOnlyReason() const { return m_readOnlyReason; }
    /// From now on it is only read: something was found wrong with it.
    void stopWriting(const std::string& reason) {
        m_readOnly = true;
        m_readOnlyReason = reason;
    }
    int schemaVersion() const { return m_schema; }
    /// A copy of the logbook as it is now, looked through before it gets its name. Errors: exists, disk, damaged.
    Result<Done> backup(const QString& to);
    /// The same beside the logbook, under its name with a word and the moment. Errors: disk, damaged.
    Result<Done> backupBeside(const char* word);
    /// Brings what was stored into the file itself, so that a plain copy of it holds everything.
    void settle();
    void setPerson(const std::string& initials) { m_person = initials; }
    const std::string& person() const { return m_person; }
    Instant now() const { return m_seams.now(); }
    const LogbookSeams& seams() const { return m_seams; }
    /// For a new row: random, or the next of the series of rows that is being made.
    std::string newId() const;
    /// The one connection, for acts and transfers.
    Database& database() { return *m_database; }

    /// Runs the work as one transaction with one entry in the change log; a failed work leaves no trace. Acts inside
    /// the work belong to its entry.
    Result<Done> transact(const char* action, const std::function<Result<Done>()>& work);
    /// Inside such a work: tells of what was done so far in an entry of its own, where there is so much of it that one
    /// entry for all would not fit into memory. All of it is stored, or nothing.
    Result<Done> tellSoFar(const char* action);
    /// What the acts since the last call have changed, for those who keep what they read.
    Touched takeTouched() { return std::exchange(m_touched, {}); }
    /// Forgets what was learnt from rows that came by another way than one act at a time.
    void forgetLearned();

    /// Runs many actions as one transaction: one wait for the disk instead of one each. Nothing of them is
    /// stored when the work fails. For generated logbooks, not for what a maker types.
    Result<Done> inOneTransaction(const std::function<Result<Done>()>& work);

    // --- what is in it
    Result<Shop> shop();
    Result<std::vector<BatchSummary>> batches();
    /// The gates that each batch asks, in their order.
    Result<std::map<std::string, std::vector<Gate>>> gatesAsked();
    Result<Batch> batch(const std::string& id);
    /// A batch without what belongs to the shop: runs on blocks, testers and the shop's other tempers.
    Result<Batch> batchAlone(const std::string& id);
    /// Before many batches are read one after another: finds out once which tables each has rows in, and what has none
    /// is not asked for while nothing is logged.
    Result<Done> expectMany() { return m_present.known() ? Result<Done>(Done{}) : m_present.learn(*m_database); }
    /// All runs on blocks, in the order they were made, without the readings struck out.
    Result<std::vector<Verification>> verifications();
    /// Unstruck readings on blades made with a tester after a moment, oldest first.
    Result<std::vector<PlacedReading>> readingsSince(const std::string& tester, const Instant& since);
    /// Number of rows of every table.
    Result<std::map<std::string, int>> counts();
    /// A sentence about a file in it (photo, trace, certificate) that is not what was put in; none where it is.
    Result<std::vector<std::string>> damagedFile(const std::string& sha256);
    /// The moment of the last entry of the change log, where the clock stands before it by more than two minutes: it
    /// was set back, or ran ahead when that was written. None where all is well.
    Result<std::optional<Instant>> entryAhead();
    /// The last entry of the change log in short, for paper: its number and the beginning of its hash, such as
    /// "1184-3fa9c25b71d0a4ee". Empty while there is none.
    Result<std::string> head();
    /// Whether the log holds that entry, so that a paper's record is this one and goes on from there unchanged as far
    /// as check() finds nothing. A sentence when not. Errors (argument): no such code.
    Result<std::string> notHeld(const std::string& head);
    /// Sentences about everything found wrong: damage of the file, of the files in it, broken references, a change log
    /// whose chain is broken, rows that are not what the change log says. Empty when all is well.
    Result<std::vector<std::string>> check();

    /// The oven runs that are planned, or over for less than a day.
    Result<std::vector<PlannedRun>> plannedRuns();
    /// All recipes, the newest version of each first.
    Result<std::vector<Recipe>> recipes();

    /// A file as it was given, by its hash. Errors (input): there is none; damaged: it is not what its hash says.
    Result<QByteArray> fileOf(const std::string& sha256);

    /// The batch that a blade belongs to.
    Result<std::string> batchOf(const std::string& blade);

private:
    Logbook(std::unique_ptr<Database> database, std::unique_ptr<QLockFile> lock, LogbookSeams seams);

    /// Makes the schema, or brings an older one up to date after a copy of the file.
    Result<Done> prepare(const QString& path, bool fresh);
    Result<Done> stillThere();
    /// M9. Knows each tester's scatter by the days before today.
    Result<Done> learnScatter();
    /// Throws those of the kept sums of scatter away that an entry changes.
    Result<Done> forgetScatter(const QJsonArray& notes);
    Result<std::vector<Tester>> testers();
    Result<std::vector<Block>> blocks();
    Result<std::vector<Oven>> ovens();
    Result<std::vector<GradeSheet>> ownGrades();
    Result<Done> loadSteel(Batch& batch);
    Result<Done> loadProof(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<Done> loadRelease(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<Done> loadGrain(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<std::vector<Protocol>> ownProtocols();
    Result<std::vector<Study>> studies();
    Result<std::vector<StudyPlan>> plannedStudies();
    Result<Done> loadHeats(Batch& batch, const std::map<std::string, std::size_t>& index);
    Result<std::shared_ptr<const Trace>> traceOf(const std::string& run, std::string& name);
    bool mayHave(const char* table, const std::string& batch) const {
        return !m_presentHolds || m_present.has(table, batch);
    }
    /// The rows of a batch in a table, asked for by its id.
    Result<std::vector<Row>> rowsOf(const char* table, const std::string& batch, const char* sql);

    std::unique_ptr<HeldFile> m_held; ///< what is written to; outlives its connection
    std::unique_ptr<Database> m_database;
    std::unique_ptr<QLockFile> m_lock;
    std::unique_ptr<QTemporaryDir> m_elsewhere; ///< where a copy is read in its stead
    QString m_path;
    FileIdentity m_identity; ///< of the file when it was opened
    LogbookSeams m_seams;
    /// By tester, from the days before m_learnedDay.
    std::map<std::string, std::shared_ptr<const std::vector<ScatterDay>>> m_learned;
    std::int64_t m_learnedDay = -1;
    std::map<std::string, std::shared_ptr<const Trace>> m_traces; ///< by their parts; decoded once
    std::string m_person;
    std::string m_readOnlyReason;
    PresentRows m_present;
    bool m_presentHolds = false; ///< for the batch that is being read
    bool m_readOnly = false;
    bool m_written = true; ///< its connection may have written to the file
    bool m_inTransaction = false;
    bool m_inEntry = false; ///< an entry of the change log is being made; acts inside belong to it
    Touched m_touched;
    int m_schema = 0;
};

} // namespace rollcall
