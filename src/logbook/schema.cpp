// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/schema.h"

#include "logbook/database.h"
#include "logbook/kinds.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace rollcall::schema {

const int version = [] {
    // The fourteenth makes no table: from it on entries tell of many rows by digests, which an earlier Rollcall would
    // take for rows that no entry tells of.
    int newest = 14;
    for (const Kind& kind : kinds()) newest = std::max(newest, kind.since);
    return newest;
}();

// Times are *_ms (UTC, milliseconds since 1970) with *_offset (minutes of the local clock that wrote them).
// Every id is unique across logbooks, so that two of them can be merged.
std::vector<const char*> migration(int toVersion) {
    static const std::vector<const char*> first{
        "CREATE TABLE change (seq INTEGER PRIMARY KEY, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL,"
        " person TEXT NOT NULL, action TEXT NOT NULL, payload TEXT NOT NULL, previous TEXT NOT NULL, hash TEXT NOT "
        "NULL)",
        "CREATE TABLE person (id TEXT PRIMARY KEY, initials TEXT NOT NULL UNIQUE, name TEXT NOT NULL)",
        "CREATE TABLE tester (id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, kind TEXT NOT NULL CHECK (kind IN "
        "('bench','rebound','files','other')),"
        " resolution REAL NOT NULL CHECK (resolution >= 0), indenter TEXT NOT NULL, anvil TEXT NOT NULL, files TEXT "
        "NOT "
        "NULL)",
        "CREATE TABLE block (id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, scale TEXT NOT NULL, certified REAL NOT "
        "NULL,"
        " uncertainty REAL NOT NULL CHECK (uncertainty >= 0), diameter_mm REAL NOT NULL CHECK (diameter_mm > 0),"
        " spacing_mm REAL NOT NULL CHECK (spacing_mm > 0), used_before INTEGER NOT NULL CHECK (used_before >= 0))",
        "CREATE TABLE grade (id TEXT PRIMARY KEY, designation TEXT NOT NULL UNIQUE)",
        "CREATE TABLE lot (id TEXT PRIMARY KEY, grade TEXT NOT NULL REFERENCES grade(id), name TEXT NOT NULL,"
        " supplier TEXT NOT NULL, heat_number TEXT NOT NULL)",
        "CREATE TABLE purpose (id TEXT PRIMARY KEY, name TEXT NOT NULL, window_low REAL, window_high REAL, window_text "
        "TEXT NOT NULL,"
        " CHECK (window_low IS NULL OR window_high IS NULL OR window_low <= window_high))",
        "CREATE TABLE batch (id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, lot TEXT REFERENCES lot(id),"
        " purpose TEXT NOT NULL REFERENCES purpose(id), rule TEXT NOT NULL CHECK (rule IN "
        "('guarded','plain','allowance')),"
        " allowance REAL, uncorrected INTEGER NOT NULL, quench_minimum REAL, minimum_tempers INTEGER,"
        " created_ms INTEGER NOT NULL, created_offset INTEGER NOT NULL)",
        "CREATE TABLE gate_plan (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), gate TEXT NOT NULL,"
        " required INTEGER NOT NULL, extent TEXT NOT NULL CHECK (extent IN ('all','sample')), planned INTEGER NOT NULL "
        "CHECK (planned >= 1),"
        " UNIQUE (batch, gate))",
        "CREATE TABLE blade (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), mark TEXT NOT NULL, "
        "position INTEGER NOT NULL,"
        " outline TEXT NOT NULL, thickness_mm REAL, thickness_text TEXT NOT NULL, reading_line_mm REAL NOT NULL, "
        "UNIQUE (batch, mark))",
        "CREATE TABLE hardening_round (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), number INTEGER "
        "NOT NULL CHECK (number >= 1),"
        " quenched_ms INTEGER, quenched_offset INTEGER, reason TEXT NOT NULL, person TEXT NOT NULL, UNIQUE (blade, "
        "number))",
        "CREATE TABLE cycle (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), temperature_c REAL, hours "
        "REAL,"
        " as_entered TEXT NOT NULL, at_ms INTEGER, at_offset INTEGER, person TEXT NOT NULL)",
        "CREATE TABLE cycle_blade (id TEXT PRIMARY KEY, cycle TEXT NOT NULL REFERENCES cycle(id), blade TEXT NOT NULL "
        "REFERENCES blade(id),"
        " round INTEGER NOT NULL, number INTEGER NOT NULL CHECK (number >= 1), UNIQUE (cycle, blade))",
        "CREATE TABLE cycle_mark (id TEXT PRIMARY KEY, cycle TEXT NOT NULL UNIQUE REFERENCES cycle(id), reason TEXT "
        "NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE attachment_blob (sha256 TEXT PRIMARY KEY, bytes BLOB NOT NULL)",
        "CREATE TABLE attachment (id TEXT PRIMARY KEY, sha256 TEXT NOT NULL REFERENCES attachment_blob(sha256), name "
        "TEXT NOT NULL,"
        " media_type TEXT NOT NULL, size INTEGER NOT NULL)",
        "CREATE TABLE import (id TEXT PRIMARY KEY, attachment TEXT NOT NULL REFERENCES attachment(id), sha256 TEXT NOT "
        "NULL,"
        " taken INTEGER NOT NULL, already_there INTEGER NOT NULL, rejected INTEGER NOT NULL, person TEXT NOT NULL,"
        " at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE verification (id TEXT PRIMARY KEY, tester TEXT NOT NULL REFERENCES tester(id), indenter TEXT NOT "
        "NULL, anvil TEXT NOT NULL,"
        " scale TEXT NOT NULL, block TEXT NOT NULL REFERENCES block(id), person TEXT NOT NULL)",
        "CREATE TABLE strike_series (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), instrument_mean "
        "REAL, support TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE reading (id TEXT PRIMARY KEY, blade TEXT REFERENCES blade(id), verification TEXT REFERENCES "
        "verification(id),"
        // IN with three texts makes SQLite build a table of them for each row, half of what an insert takes. Logbooks
        // of before say just that; it means the same.
        " gate TEXT NOT NULL CHECK (gate = 'block' OR gate IN ('quench','temper')), round INTEGER NOT NULL, "
        "after_cycle INTEGER,"
        " scale TEXT NOT NULL, value REAL NOT NULL, as_entered TEXT NOT NULL, resolution REAL NOT NULL,"
        " at_ms INTEGER, at_offset INTEGER, tester TEXT NOT NULL REFERENCES tester(id), indenter TEXT NOT NULL, anvil "
        "TEXT NOT NULL,"
        " x_mm REAL, y_mm REAL, convex_radius_mm REAL, series TEXT REFERENCES strike_series(id), import TEXT "
        "REFERENCES import(id), identity "
        "TEXT NOT NULL, note TEXT NOT NULL, person "
        "TEXT NOT NULL,"
        " CHECK ((blade IS NULL) = (gate = 'block')), CHECK ((verification IS NULL) = (gate <> 'block')))",
        "CREATE INDEX reading_by_blade ON reading(blade)",
        // Partial, so that a reading typed on a blade touches as few pages as it can.
        "CREATE INDEX reading_by_verification ON reading(verification) WHERE verification IS NOT NULL",
        "CREATE INDEX reading_by_identity ON reading(identity) WHERE identity <> ''",
        "CREATE INDEX blade_by_batch ON blade(batch)",
        "CREATE TABLE reading_mark (id TEXT PRIMARY KEY, reading TEXT NOT NULL REFERENCES reading(id),"
        " kind TEXT NOT NULL CHECK (kind IN ('struck','superseded','accepted')), reason TEXT NOT NULL, note TEXT NOT "
        "NULL,"
        " replaced_by TEXT REFERENCES reading(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT "
        "NULL,"
        " UNIQUE (reading, kind))",
        "CREATE TABLE file_test (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), tester TEXT NOT NULL "
        "REFERENCES tester(id), gate TEXT NOT NULL CHECK (gate IN ('quench','temper')), round INTEGER NOT NULL,"
        " after_cycle INTEGER NOT NULL, skates TEXT NOT NULL, bites TEXT NOT NULL, touches TEXT NOT NULL,"
        " surface TEXT NOT NULL CHECK (surface IN ('bare','scale','decarburised')), person TEXT NOT NULL,"
        " at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE excuse (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), gate TEXT NOT NULL, "
        "reason TEXT NOT NULL,"
        " stands_in TEXT REFERENCES blade(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT "
        "NULL)",
        "CREATE TABLE blade_fate (id TEXT PRIMARY KEY, blade TEXT NOT NULL UNIQUE REFERENCES blade(id),"
        " fate TEXT NOT NULL CHECK (fate IN ('cracked','scrapped','coupon','removed')), gate TEXT NOT NULL, reason "
        "TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE signature (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), gate TEXT NOT NULL,"
        " decision TEXT NOT NULL CHECK (decision IN ('accept','hold','scrap')), verdict TEXT NOT NULL, basis TEXT NOT "
        "NULL,"
        " reason TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE setting (id TEXT PRIMARY KEY, value TEXT NOT NULL)",
    };
    // Ovens, recipes, heats with their traces and marks, the schedule, warp and temper colours.
    static const std::vector<const char*> second{
        "CREATE TABLE oven (id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, step_c REAL NOT NULL CHECK (step_c > 0),"
        " checked_ms INTEGER, checked_offset INTEGER)",
        "CREATE TABLE recipe (id TEXT PRIMARY KEY, name TEXT NOT NULL, version INTEGER NOT NULL CHECK (version >= 1),"
        " grade TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL, UNIQUE (name, "
        "version))",
        "CREATE TABLE recipe_stage (id TEXT PRIMARY KEY, recipe TEXT NOT NULL REFERENCES recipe(id), position INTEGER "
        "NOT NULL,"
        " kind TEXT NOT NULL, temperature_c REAL NOT NULL, minutes REAL NOT NULL, max_minutes REAL, tolerance_c REAL "
        "NOT NULL,"
        " cooling TEXT NOT NULL, as_entered TEXT NOT NULL)",
        "CREATE TABLE batch_recipe (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), recipe TEXT NOT "
        "NULL REFERENCES recipe(id),"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE heat_run (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), oven TEXT NOT NULL "
        "REFERENCES oven(id),"
        " set_c REAL NOT NULL, near_c REAL NOT NULL, min_minutes REAL, max_minutes REAL, surface TEXT NOT NULL CHECK "
        "(surface IN ('scaled','foil')),"
        " medium TEXT NOT NULL, medium_c REAL, medium_tolerance_c REAL NOT NULL, edge_mm REAL, as_entered TEXT NOT "
        "NULL,"
        " zero_ms INTEGER NOT NULL, zero_offset INTEGER NOT NULL, person TEXT NOT NULL)",
        "CREATE TABLE heat_run_mark (id TEXT PRIMARY KEY, run TEXT NOT NULL UNIQUE REFERENCES heat_run(id), reason "
        "TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        // Samples as little-endian doubles, seconds and degrees Celsius by turns; a fresh part begins the trace anew.
        "CREATE TABLE trace_part (id TEXT PRIMARY KEY, run TEXT NOT NULL REFERENCES heat_run(id), attachment TEXT "
        "REFERENCES attachment(id),"
        " name TEXT NOT NULL, fresh INTEGER NOT NULL, samples TEXT NOT NULL REFERENCES attachment_blob(sha256), "
        "shift_s REAL NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE heat_mark (id TEXT PRIMARY KEY, run TEXT NOT NULL REFERENCES heat_run(id), blade TEXT NOT NULL "
        "REFERENCES blade(id),"
        " round INTEGER NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('in','out','quenched')), clock_s REAL NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE heat_note (id TEXT PRIMARY KEY, run TEXT NOT NULL REFERENCES heat_run(id), blade TEXT NOT NULL "
        "REFERENCES blade(id),"
        " round INTEGER NOT NULL, transfer_s REAL, quenchant_c REAL, noted_c REAL, noted_minutes REAL, note TEXT NOT "
        "NULL, as_entered TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE planned_cycle (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), oven TEXT NOT NULL "
        "REFERENCES oven(id),"
        " what TEXT NOT NULL, temperature_c REAL NOT NULL, hours REAL NOT NULL, warm_minutes REAL NOT NULL, "
        "cool_minutes REAL NOT NULL,"
        " as_entered TEXT NOT NULL, start_ms INTEGER NOT NULL, start_offset INTEGER NOT NULL, person TEXT NOT NULL,"
        " at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE planned_mark (id TEXT PRIMARY KEY, planned TEXT NOT NULL REFERENCES planned_cycle(id),"
        " kind TEXT NOT NULL CHECK (kind IN ('started','out','cancelled')), person TEXT NOT NULL, at_ms INTEGER NOT "
        "NULL,"
        " at_offset INTEGER NOT NULL, UNIQUE (planned, kind))",
        "CREATE TABLE warp (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT NULL, "
        "after_cycle INTEGER NOT NULL,"
        " mm REAL NOT NULL CHECK (mm >= 0), as_entered TEXT NOT NULL, high TEXT NOT NULL CHECK (high IN "
        "('left','right')),"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE temper_colour (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT "
        "NULL, after_cycle INTEGER NOT NULL,"
        " zone TEXT NOT NULL, colour TEXT NOT NULL, surface TEXT NOT NULL CHECK (surface IN "
        "('bare','coated','scaled','foil')), torch INTEGER NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
    };
    // Steel: shots of an analyser, what else was found out, the mill's values, re-assigned grades, the shop's own
    // grades.
    static const std::vector<const char*> third{
        "CREATE TABLE lot_value (id TEXT PRIMARY KEY, lot TEXT NOT NULL REFERENCES lot(id), element TEXT NOT NULL, "
        "percent REAL NOT NULL,"
        " attachment TEXT REFERENCES attachment(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER "
        "NOT NULL)",
        "CREATE TABLE steel_shot (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), blade TEXT REFERENCES "
        "blade(id),"
        " method TEXT NOT NULL CHECK (method IN ('xrf','oes')), piece TEXT NOT NULL, attachment TEXT REFERENCES "
        "attachment(id),"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE steel_value (id TEXT PRIMARY KEY, shot TEXT NOT NULL REFERENCES steel_shot(id), element TEXT NOT "
        "NULL, percent REAL, lod REAL, sigma REAL)",
        "CREATE TABLE steel_shot_mark (id TEXT PRIMARY KEY, shot TEXT NOT NULL UNIQUE REFERENCES steel_shot(id), "
        "reason TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE steel_note (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), kind TEXT NOT NULL "
        "CHECK (kind IN ('spark','coupon','changed')),"
        " text TEXT NOT NULL, hrc REAL, agrees INTEGER, marks TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT "
        "NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE grade_assignment (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), grade TEXT NOT "
        "NULL REFERENCES grade(id), reason TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE own_grade (id TEXT PRIMARY KEY, name TEXT NOT NULL, sheet TEXT NOT NULL, person TEXT NOT NULL, "
        "at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
    };
    // Edge and Proof: geometry and rod test of edges, trials key by key, damage, studies, the shop's own protocols.
    static const std::vector<const char*> fourth{
        "CREATE TABLE edge_geometry (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), behind_edge_mm "
        "REAL "
        "NOT NULL CHECK (behind_edge_mm > 0),"
        " angle_deg REAL NOT NULL, grind TEXT NOT NULL CHECK (grind IN ('flat','convex','hollow')), finish TEXT NOT "
        "NULL, before_hardening_mm REAL,"
        " as_entered TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE edge_rung (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT "
        "NULL, "
        "after_cycle INTEGER NOT NULL, force_n REAL, raise_deg REAL, contact_mm REAL,"
        " outcome TEXT NOT NULL CHECK (outcome IN ('held','set','roll','chip','crack')), size_mm REAL, place_mm REAL, "
        "sound INTEGER NOT NULL,"
        " as_entered TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE edge_rung_mark (id TEXT PRIMARY KEY, rung TEXT NOT NULL UNIQUE REFERENCES edge_rung(id), reason "
        "TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE grinding_note (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), colour INTEGER NOT "
        "NULL, cleared INTEGER NOT NULL,"
        " text TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE edge_ask (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), purpose TEXT NOT NULL, "
        "school TEXT NOT NULL, by_hand INTEGER NOT NULL,"
        " force_n REAL NOT NULL, raise_deg REAL NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset "
        "INTEGER NOT NULL)",
        "CREATE TABLE damage (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), kind TEXT NOT NULL, "
        "place_mm REAL, size_mm REAL, note TEXT NOT NULL,"
        " attachment TEXT REFERENCES attachment(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER "
        "NOT NULL)",
        "CREATE TABLE own_protocol (id TEXT PRIMARY KEY, name TEXT NOT NULL, sheet TEXT NOT NULL, person TEXT NOT "
        "NULL, "
        "at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        // The protocol as it was when the trial began.
        "CREATE TABLE trial (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT NULL, "
        "after_cycle INTEGER NOT NULL, protocol TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE trial_event (id TEXT PRIMARY KEY, trial TEXT NOT NULL REFERENCES trial(id), act TEXT NOT NULL, "
        "value REAL NOT NULL, second REAL NOT NULL, third REAL NOT NULL,"
        " text TEXT NOT NULL, attachment TEXT REFERENCES attachment(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, "
        "at_offset INTEGER NOT NULL)",
        "CREATE TABLE study (id TEXT PRIMARY KEY, name TEXT NOT NULL, factor TEXT NOT NULL, person TEXT NOT NULL, "
        "at_ms "
        "INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE study_piece (id TEXT PRIMARY KEY, study TEXT NOT NULL REFERENCES study(id), blade TEXT NOT NULL "
        "REFERENCES blade(id), UNIQUE (study, blade))",
        "CREATE INDEX edge_rung_by_blade ON edge_rung(blade)",
        "CREATE INDEX trial_event_by_trial ON trial_event(trial)",
    };
    // Grain: photos of fractures as given, their scale, lines counted on them, ratings. Release: signed decisions.
    static const std::vector<const char*> fifth{
        "CREATE TABLE fracture (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT NULL, "
        "after_cycle INTEGER NOT NULL, attachment TEXT NOT NULL REFERENCES attachment(id),"
        " width INTEGER NOT NULL CHECK (width > 0), height INTEGER NOT NULL CHECK (height > 0), person TEXT NOT NULL, "
        "at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE fracture_mark (id TEXT PRIMARY KEY, fracture TEXT NOT NULL UNIQUE REFERENCES fracture(id), "
        "reason TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE fracture_scale (id TEXT PRIMARY KEY, fracture TEXT NOT NULL REFERENCES fracture(id), px_per_mm "
        "REAL NOT NULL CHECK (px_per_mm > 0), as_entered TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, "
        "at_offset INTEGER NOT NULL)",
        // Places in pixels of the photo as it is seen upright; crossings as "part weight; part weight".
        "CREATE TABLE fracture_line (id TEXT PRIMARY KEY, fracture TEXT NOT NULL REFERENCES fracture(id), zone TEXT "
        "NOT NULL CHECK (zone IN ('edge','middle','spine','skin')), circle INTEGER NOT NULL, ax REAL NOT NULL, ay REAL "
        "NOT NULL, bx REAL NOT NULL, by REAL NOT NULL, crossings TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER "
        "NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE fracture_line_mark (id TEXT PRIMARY KEY, line TEXT NOT NULL UNIQUE REFERENCES fracture_line(id), "
        "reason TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE fracture_rating (id TEXT PRIMARY KEY, fracture TEXT NOT NULL REFERENCES fracture(id), first REAL "
        "NOT NULL CHECK (first BETWEEN 1 AND 10), second REAL NOT NULL CHECK (second BETWEEN 1 AND 10), person TEXT "
        "NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE grain_ask (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), least REAL NOT NULL, "
        "person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE disposition (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT "
        "NULL, decision TEXT NOT NULL CHECK (decision IN ('release','temper again','re-harden','other "
        "purpose','hold','scrap')), basis TEXT NOT NULL, reason TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT "
        "NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE sample_ask (id TEXT PRIMARY KEY, batch TEXT NOT NULL REFERENCES batch(id), chance REAL CHECK "
        "(chance > 0 AND chance < 1), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE INDEX disposition_by_blade ON disposition(blade)",
        "CREATE INDEX fracture_by_blade ON fracture(blade)",
        "CREATE INDEX fracture_line_by_fracture ON fracture_line(fracture)",
    };
    // Data that comes and goes: imports taken back, logbooks taken in. Marks ground off a blade, each reading's by
    // name; those of one grinding share its identity.
    static const std::vector<const char*> sixth{
        "CREATE TABLE ground_off (id TEXT PRIMARY KEY, reading TEXT NOT NULL UNIQUE REFERENCES reading(id), grinding "
        "TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "CREATE TABLE import_mark (id TEXT PRIMARY KEY, import TEXT NOT NULL UNIQUE REFERENCES import(id), person TEXT "
        "NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        // The attachment is the other logbook's change log from where the two parted.
        "CREATE TABLE merge (id TEXT PRIMARY KEY, name TEXT NOT NULL, attachment TEXT NOT NULL REFERENCES "
        "attachment(id), last_hash TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT "
        "NULL)",
    };
    // Every way from a batch to what was found out about it is indexed: a batch is read in the same time in a logbook
    // of a million readings as in one of a hundred.
    static const std::vector<const char*> seventh{
        "CREATE INDEX batch_by_lot ON batch(lot)",
        "CREATE INDEX batch_by_purpose ON batch(purpose)",
        "CREATE INDEX cycle_by_batch ON cycle(batch)",
        "CREATE INDEX cycle_blade_by_blade ON cycle_blade(blade)",
        "CREATE INDEX strike_series_by_blade ON strike_series(blade)",
        "CREATE INDEX file_test_by_blade ON file_test(blade)",
        "CREATE INDEX excuse_by_blade ON excuse(blade)",
        "CREATE INDEX batch_recipe_by_batch ON batch_recipe(batch)",
        "CREATE INDEX recipe_stage_by_recipe ON recipe_stage(recipe)",
        "CREATE INDEX heat_run_by_batch ON heat_run(batch)",
        "CREATE INDEX trace_part_by_run ON trace_part(run)",
        "CREATE INDEX heat_mark_by_blade ON heat_mark(blade)",
        "CREATE INDEX heat_note_by_blade ON heat_note(blade)",
        "CREATE INDEX warp_by_blade ON warp(blade)",
        "CREATE INDEX temper_colour_by_blade ON temper_colour(blade)",
        "CREATE INDEX lot_value_by_lot ON lot_value(lot)",
        "CREATE INDEX steel_shot_by_batch ON steel_shot(batch)",
        "CREATE INDEX steel_value_by_shot ON steel_value(shot)",
        "CREATE INDEX steel_note_by_batch ON steel_note(batch)",
        "CREATE INDEX grade_assignment_by_batch ON grade_assignment(batch)",
        "CREATE INDEX edge_geometry_by_blade ON edge_geometry(blade)",
        "CREATE INDEX grinding_note_by_blade ON grinding_note(blade)",
        "CREATE INDEX edge_ask_by_batch ON edge_ask(batch)",
        "CREATE INDEX damage_by_blade ON damage(blade)",
        "CREATE INDEX trial_by_blade ON trial(blade)",
        "CREATE INDEX fracture_scale_by_fracture ON fracture_scale(fracture)",
        "CREATE INDEX fracture_rating_by_fracture ON fracture_rating(fracture)",
        "CREATE INDEX grain_ask_by_batch ON grain_ask(batch)",
        "CREATE INDEX sample_ask_by_batch ON sample_ask(batch)",
        "CREATE INDEX verification_by_block ON verification(block)",
        // What was worked out of the rows and costs much to work out anew. Nothing of it is in the change log; it can
        // be emptied at any time.
        "CREATE TABLE derived (what TEXT PRIMARY KEY, value TEXT NOT NULL)",
    };
    std::vector<const char*> made; // from here on each kind says itself how it is made
    for (const Kind& kind : kinds()) {
        if (kind.since == toVersion) made.insert(made.end(), kind.made.begin(), kind.made.end());
    }
    // Another word among the decisions: a finished knife is sent back. What was struck out or taken out and brought
    // back can be struck out again, so that one mark a row is no rule any more. SQLite changes either with its table
    // only.
    static const std::vector<const char*> eleventh{
        "DROP INDEX disposition_by_blade",
        "ALTER TABLE disposition RENAME TO disposition_before",
        "CREATE TABLE disposition (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id), round INTEGER NOT "
        "NULL, decision TEXT NOT NULL CHECK (decision IN ('release','temper again','re-harden','other "
        "purpose','hold','scrap','send back')), basis TEXT NOT NULL, reason TEXT NOT NULL, person TEXT NOT NULL, at_ms "
        "INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "INSERT INTO disposition SELECT * FROM disposition_before ORDER BY rowid",
        "DROP TABLE disposition_before",
        "CREATE INDEX disposition_by_blade ON disposition(blade)",
        "ALTER TABLE cycle_mark RENAME TO cycle_mark_before",
        "CREATE TABLE cycle_mark (id TEXT PRIMARY KEY, cycle TEXT NOT NULL REFERENCES cycle(id), reason TEXT NOT NULL,"
        " person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "INSERT INTO cycle_mark SELECT * FROM cycle_mark_before ORDER BY rowid",
        "DROP TABLE cycle_mark_before",
        "CREATE INDEX cycle_mark_by_cycle ON cycle_mark(cycle)",
        "ALTER TABLE reading_mark RENAME TO reading_mark_before",
        "CREATE TABLE reading_mark (id TEXT PRIMARY KEY, reading TEXT NOT NULL REFERENCES reading(id),"
        " kind TEXT NOT NULL CHECK (kind IN ('struck','superseded','accepted')), reason TEXT NOT NULL, note TEXT NOT "
        "NULL, replaced_by TEXT REFERENCES reading(id), person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset "
        "INTEGER NOT NULL)",
        "INSERT INTO reading_mark SELECT * FROM reading_mark_before ORDER BY rowid",
        "DROP TABLE reading_mark_before",
        "CREATE INDEX reading_mark_by_reading ON reading_mark(reading)",
        "ALTER TABLE blade_fate RENAME TO blade_fate_before",
        "CREATE TABLE blade_fate (id TEXT PRIMARY KEY, blade TEXT NOT NULL REFERENCES blade(id),"
        " fate TEXT NOT NULL CHECK (fate IN ('cracked','scrapped','coupon','removed')), gate TEXT NOT NULL, reason "
        "TEXT NOT NULL, person TEXT NOT NULL, at_ms INTEGER NOT NULL, at_offset INTEGER NOT NULL)",
        "INSERT INTO blade_fate SELECT * FROM blade_fate_before ORDER BY rowid",
        "DROP TABLE blade_fate_before",
        "CREATE INDEX blade_fate_by_blade ON blade_fate(blade)",
    };
    if (toVersion == 11) made.insert(made.end(), eleventh.begin(), eleventh.end());
    return toVersion == 1   ? first
           : toVersion == 2 ? second
           : toVersion == 3 ? third
           : toVersion == 4 ? fourth
           : toVersion == 5 ? fifth
           : toVersion == 6 ? sixth
           : toVersion == 7 ? seventh
                            : made;
}

namespace {

// Tables that came with a version whose rows are never changed or erased.
std::vector<const char*> appendOnlyTables(int ofVersion) {
    // The log of changes and the files themselves are described by no log.
    std::vector<const char*> tables;
    if (ofVersion == 1) tables = {"change", "attachment_blob"};
    if (ofVersion == 11) tables = {"disposition", "cycle_mark", "reading_mark", "blade_fate"}; // made anew
    for (const Kind& kind : kinds()) {
        if (kind.since == ofVersion && kind.append_only) tables.push_back(kind.table);
    }
    return tables;
}

std::array<QString, 2> guardsOf(const char* table) {
    const auto guard = [&](const char* verb) {
        return QStringLiteral(
                   "CREATE TRIGGER %1_no_%2 BEFORE %3 ON %1 BEGIN SELECT RAISE(ABORT, '%1 is append-only'); END")
            .arg(QLatin1String(table), QString::fromLatin1(verb).toLower(), QLatin1String(verb));
    };
    return {guard("UPDATE"), guard("DELETE")};
}

} // namespace

QStringList guards() {
    QStringList all;
    for (int made = 1; made <= version; ++made) {
        for (const char* table : appendOnlyTables(made)) {
            for (const QString& guard : guardsOf(table)) {
                if (!all.contains(guard)) all << guard;
            }
        }
    }
    return all;
}

Result<std::string> planted(Database& database) {
    QStringList missing = guards();
    QStringList views;
    for (int made = 1; made <= version; ++made) {
        for (const char* statement : migration(made)) {
            if (QLatin1String(statement).startsWith(QLatin1String("CREATE VIEW"))) views << QLatin1String(statement);
        }
    }
    const auto found = database.select(
        QStringLiteral("SELECT type, name, sql FROM sqlite_master WHERE type IN ('trigger', 'view') ORDER BY name"));
    if (!found) return found.error();
    for (const Row& one : *found) {
        if (missing.removeOne(one[2].toString()) || views.contains(one[2].toString())) continue;
        return fmt::format("it holds a {} that Rollcall does not make ({}), which could change what is stored",
                           s(one[0]), s(one[1]));
    }
    if (!missing.isEmpty())
        return fmt::format("what keeps its rows from being changed is missing ({})",
                           missing.front().section(QLatin1Char(' '), 2, 2).toStdString());
    return std::string();
}

} // namespace rollcall::schema
