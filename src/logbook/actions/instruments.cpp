// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/instruments.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <QDate>

// The measuring chain in the record: testers, blocks, runs on blocks, files.
namespace rollcall {

namespace {

std::string joined(const std::vector<double>& values) {
    std::string text;
    for (const double value : values) text += (text.empty() ? "" : " ") + fmt::format("{}", value);
    return text;
}

} // namespace

Fields fieldsOf(const Tester& tester) {
    return {{"id", q(tester.id)},
            {"name", q(tester.name)},
            {"kind", nameOf(tester.kind)},
            {"resolution", tester.resolution},
            {"indenter", q(tester.indenter)},
            {"anvil", q(tester.anvil)},
            {"files", q(joined(tester.files))}};
}

Fields fieldsOf(const Block& block) {
    return {{"id", q(block.id)},
            {"name", q(block.name)},
            {"scale", q(block.scale)},
            {"certified", block.certified},
            {"uncertainty", block.uncertainty},
            {"diameter_mm", block.diameter_mm},
            {"spacing_mm", block.spacing_mm},
            {"used_before", block.used_before}};
}

Result<std::string> addTester(Logbook& logbook, const Tester& tester) {
    if (trimmed(tester.name).empty()) return refused("name", "a tester needs a name");
    const auto taken = isTaken(logbook, "tester", "name", tester.name);
    if (!taken) return taken.error();
    if (*taken) return refused("name", fmt::format("there is a tester {} already", tester.name));
    Tester added = tester;
    added.id = logbook.newId();
    return idOr(logbook.transact("tester added", [&] { return logbook.database().insert("tester", fieldsOf(added)); }),
                added.id);
}

Result<Done> changeTester(Logbook& logbook, const Tester& tester) {
    return logbook.transact("tester changed",
                            [&] { return logbook.database().update("tester", q(tester.id), fieldsOf(tester)); });
}

namespace {

Result<Done> insertCertificate(Logbook& logbook, const Block& block) {
    const BlockCertificate& c = block.certificate;
    for (const std::string& date : {c.on, c.until}) {
        if (!date.empty() && !QDate::fromString(q(date), Qt::ISODate).isValid())
            return Error{ErrorKind::refused, "date", "a date is typed like 2027-05-31"};
    }
    if (c.other_face == block.id) return Error{ErrorKind::refused, "other_face", "a face is not its own other face"};
    return logbook.database().insert("block_certificate",
                                     stamped({{"id", q(logbook.newId())},
                                              {"block", q(block.id)},
                                              {"certified_by", q(c.by)},
                                              {"certified_on", q(c.on)},
                                              {"valid_until", q(c.until)},
                                              {"other_face", c.other_face.empty() ? QVariant() : q(c.other_face)}},
                                             logbook.now(), logbook.person()));
}

} // namespace

Result<std::string> addBlock(Logbook& logbook, const Block& block) {
    if (trimmed(block.name).empty()) return refused("name", "a block needs a name");
    const auto taken = isTaken(logbook, "block", "name", block.name);
    if (!taken) return taken.error();
    if (*taken) return refused("name", fmt::format("there is a block {} already", block.name));
    Block added = block;
    added.id = logbook.newId();
    return idOr(logbook.transact("block added",
                                 [&] {
                                     auto done = logbook.database().insert("block", fieldsOf(added));
                                     if (done && added.certificate != BlockCertificate())
                                         done = insertCertificate(logbook, added);
                                     return done;
                                 }),
                added.id);
}

Result<Done> changeBlock(Logbook& logbook, const Block& block) {
    const auto shop = logbook.shop();
    if (!shop) return shop.error();
    const auto known =
        std::find_if(shop->blocks.begin(), shop->blocks.end(), [&](const Block& b) { return b.id == block.id; });
    const bool another = known == shop->blocks.end() || known->certificate != block.certificate;
    return logbook.transact("block changed", [&] {
        auto done = logbook.database().update("block", q(block.id), fieldsOf(block));
        if (done && another) done = insertCertificate(logbook, block);
        return done;
    });
}

Result<Tester> testerById(Logbook& logbook, const std::string& id) {
    const auto row =
        logbook.database().select(QStringLiteral("SELECT resolution, indenter, anvil FROM tester WHERE id=?"), {q(id)});
    if (!row) return row.error();
    if (row->empty()) return refused("tester", "no tester is chosen");
    Tester tester;
    tester.id = id;
    tester.resolution = row->front()[0].toDouble();
    tester.indenter = s(row->front()[1]);
    tester.anvil = s(row->front()[2]);
    return tester;
}

Result<std::string> startVerification(Logbook& logbook, const std::string& testerId, const std::string& block) {
    const Result<Tester> tester = testerById(logbook, testerId);
    if (!tester) return tester.error();
    const Result<QVariant> scale =
        logbook.database().single(QStringLiteral("SELECT scale FROM block WHERE id=?"), {q(block)});
    if (!scale) return scale.error();
    if (scale->isNull()) return refused("block", "no block is chosen");
    const std::string id = logbook.newId();
    return idOr(logbook.transact("verification begun",
                                 [&] {
                                     return logbook.database().insert("verification",
                                                                      {{"id", q(id)},
                                                                       {"tester", q(tester->id)},
                                                                       {"indenter", q(tester->indenter)},
                                                                       {"anvil", q(tester->anvil)},
                                                                       {"scale", *scale},
                                                                       {"block", q(block)},
                                                                       {"person", q(logbook.person())}});
                                 }),
                id);
}

Result<std::string> logBlockReading(Logbook& logbook, const std::string& verification, double value,
                                    const std::string& as_entered) {
    const Result<std::vector<Row>> rows = logbook.database().select(
        QStringLiteral("SELECT tester, scale FROM verification WHERE id=?"), {q(verification)});
    if (!rows) return rows.error();
    if (rows->empty()) return refused("verification", "this run on a block is not in the logbook");
    const Result<Tester> tester = testerById(logbook, s(rows->front()[0]));
    if (!tester) return tester.error();
    ReadingDraft draft;
    draft.scale = s(rows->front()[1]);
    draft.value = value;
    draft.as_entered = as_entered;
    draft.resolution = tester->resolution;
    const std::string id = logbook.newId();
    return idOr(logbook.transact(
                    "block reading logged",
                    [&] { return insertReading(logbook, id, draft, *tester, logbook.now(), verification, {}, {}); }),
                id);
}

Result<std::string> logFileTest(Logbook& logbook, const std::string& blade, const std::string& set,
                                const FileTest& test) {
    if (test.trials.empty()) return refused("files", "no file was tried");
    const auto with = [&](FileTouch touch) {
        std::vector<double> files;
        for (const FileTrial& trial : test.trials) {
            if (trial.touch == touch) files.push_back(trial.file_hrc);
        }
        return q(joined(files));
    };
    const std::string id = logbook.newId();
    return idOr(logbook.transact("files tried",
                                 [&] {
                                     return logbook.database().insert("file_test",
                                                                      stamped({{"id", q(id)},
                                                                               {"blade", q(blade)},
                                                                               {"tester", q(set)},
                                                                               {"gate", storedName(test.gate)},
                                                                               {"round", test.round},
                                                                               {"after_cycle", test.after_temper},
                                                                               {"skates", with(FileTouch::skates)},
                                                                               {"bites", with(FileTouch::bites)},
                                                                               {"touches", with(FileTouch::touches)},
                                                                               {"surface", nameOf(test.surface)}},
                                                                              logbook.now(), logbook.person()));
                                 }),
                id);
}

} // namespace rollcall
