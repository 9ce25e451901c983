// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/grain.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "tests/support/temp_logbook.h"

#include <functional>
#include <memory>
#include <QtTest>

using namespace rollcall;
using fixtures::TempLogbook;

// What an act refuses by itself, whatever form, line or table it was asked by: the field is named, the reason said, and
// nothing is in the record.
class tst_Refusals : public QObject {
    Q_OBJECT

    struct Shop {
        TempLogbook logbook;
        Batch batch = logbook.withBatch();
        std::string reading = logReading(*logbook, logbook.reading(batch, 0, 62.1)).value();

        int entries() { return logbook->counts().value().at("change"); }
        Logbook& record() { return *logbook; }
        const Blade& blade() const { return batch.blades[0]; }
    };
    using Act = std::function<Result<Done>(Shop&)>;

    std::unique_ptr<Shop> m_shop; ///< of everything that is refused

    template<class T>
    static Result<Done> done(const Result<T>& result) {
        return result ? Result<Done>(Done{}) : Result<Done>(result.error());
    }

    // A field, what is wrong with it, and the act that is asked for it.
    struct Case {
        const char* field;
        const char* wrong;
        Act act;
    };

    static std::vector<Case> ofBatches() {
        return {
            {"name", "no name", [](Shop& s) { return renameBatch(s.record(), s.batch.id, "  "); }},
            {"name", "a name in use",
             [](Shop& s) {
                 BatchDraft other;
                 other.name = "Hedge";
                 other.blades = {{"H-1", {}, ""}};
                 const auto hedge = addBatch(s.record(), other);
                 return hedge ? renameBatch(s.record(), *hedge, "Orchard") : Result<Done>(hedge.error());
             }},
            {"mark", "no mark", [](Shop& s) { return renameBlade(s.record(), s.blade().id, " "); }},
            {"mark", "a mark in use", [](Shop& s) { return renameBlade(s.record(), s.blade().id, "A-2"); }},
            {"mark", "another blade of that mark",
             [](Shop& s) {
                 return done(addBlade(s.record(), s.batch.id, {"A-1", {}, ""}));
             }},
            {"blades", "a batch of nothing",
             [](Shop& s) {
                 BatchDraft none;
                 none.name = "Hedge";
                 return done(addBatch(s.record(), none));
             }},
            {"mark", "two of one mark",
             [](Shop& s) {
                 BatchDraft twice;
                 twice.name = "Hedge";
                 twice.blades = {{"H-1", {}, ""}, {"H-1", {}, ""}};
                 return done(addBatch(s.record(), twice));
             }},
            {"thickness", "thicker than any blade",
             [](Shop& s) { return changeShape(s.record(), s.blade().id, BladeShape::knife(58, 16, 51), "51"); }},
            {"rehardening_limit", "fewer hardenings than none",
             [](Shop& s) {
                 BatchRules rules;
                 rules.rehardening_limit = -1;
                 return changeRules(s.record(), s.batch.id, rules, false);
             }},
            {"spacing", "further apart than a hand",
             [](Shop& s) {
                 BatchRules rules;
                 rules.spacing.min_edge_mm = 51;
                 return changeRules(s.record(), s.batch.id, rules, false);
             }},
            {"allowance", "an allowance that allows all",
             [](Shop& s) {
                 BatchRules rules;
                 rules.allowance = 4;
                 return changeRules(s.record(), s.batch.id, rules, true);
             }},
            {"window", "limits swapped",
             [](Shop& s) {
                 return changeLimits(s.record(), s.batch.id, {63, 61}, "63:61", 64);
             }},
            {"chance", "surer than sure", [](Shop& s) { return askSample(s.record(), s.batch.id, 1.5); }},
            {"blades", "nothing to sign for", [](Shop& s) { return sign(s.record(), {}); }},
        };
    }
    static std::vector<Case> ofBlades() {
        return {
            {"blades", "no blade in the cold",
             [](Shop& s) { return logCold(s.record(), s.batch, {}, -70, 1, s.record().now()); }},
            {"hours", "cold for a week",
             [](Shop& s) { return logCold(s.record(), s.batch, {s.blade().id}, -70, 168, s.record().now()); }},
            {"reason", "looked into without a word", [](Shop& s) { return lookInto(s.record(), s.blade(), 1, "\t"); }},
            {"reason", "excused without a word",
             [](Shop& s) { return excuse(s.record(), s.blade().id, Gate::temper, ""); }},
            {"grade", "taken for nothing", [](Shop& s) { return takeFor(s.record(), s.batch, s.blade(), " "); }},
            {"tester", "read by nobody",
             [](Shop& s) {
                 ReadingDraft draft = s.logbook.reading(s.batch, 0, 62.3);
                 draft.tester = "";
                 return done(logReading(s.record(), draft));
             }},
            {"reason", "accepted without a word", [](Shop& s) { return acceptReading(s.record(), s.reading, " "); }},
            {"reason", "superseded without a word",
             [](Shop& s) { return supersedeReadings(s.record(), {s.reading}, ""); }},
            {"blade", "moved to a blade that is not there",
             [](Shop& s) {
                 const Batch now = s.record().batch(s.batch.id).value();
                 return moveReading(s.record(), now, s.reading, "nowhere");
             }},
            {"reading", "a reading that is not there",
             [](Shop& s) { return moveReading(s.record(), s.batch, "none", s.batch.blades[1].id); }},
            {"strikes", "a series of nothing", [](Shop& s) { return logSeries(s.record(), {}); }},
            {"blade", "ground off where nothing is marked",
             [](Shop& s) { return grindOff(s.record(), s.batch.blades[1].id); }},
        };
    }
    static std::vector<Case> ofSteel() {
        return {
            {"certificate", "a certificate of nothing",
             [](Shop& s) { return addCertificate(s.record(), s.batch.id, {}, {}, {}); }},
            {"shot", "a shot of nothing", [](Shop& s) { return done(addShot(s.record(), {})); }},
            {"reason", "a shot struck out without a word", [](Shop& s) { return strikeShot(s.record(), "any", " "); }},
            {"reason", "taken for another without a word",
             [](Shop& s) { return assignGrade(s.record(), s.batch.id, "1095", ""); }},
            {"grade", "taken for no grade",
             [](Shop& s) { return assignGrade(s.record(), s.batch.id, " ", "the file says so"); }},
            {"name", "a sheet without a name",
             [](Shop& s) {
                 return keepOwnGrade(s.record(), {{"based_on", "1095"}});
             }},
            {"place", "a steel that lies nowhere",
             [](Shop& s) {
                 return nameSteelPart(s.record(), s.batch.id, {"420", " "});
             }},
            {"lot", "a lot of an unknown steel",
             [](Shop& s) {
                 BatchDraft unknown;
                 unknown.name = "Lane";
                 unknown.blades = {{"H-1", {}, ""}};
                 const auto id = addBatch(s.record(), unknown);
                 return id ? changeLot(s.record(), *id, "7", "", "") : Result<Done>(id.error());
             }},
        };
    }
    static std::vector<Case> ofHeats() {
        const auto heat = [](double set, std::optional<double> least, std::optional<double> most) {
            return [=](Shop& s) {
                HeatDraft draft;
                draft.batch = s.batch.id;
                draft.set_c = set;
                draft.min_minutes = least;
                draft.max_minutes = most;
                return done(startHeat(s.record(), draft));
            };
        };
        const auto oven = [](const char* name, double step) {
            return [=](Shop& s) {
                Oven one;
                one.name = name;
                one.step_c = step;
                return done(addOven(s.record(), one));
            };
        };
        const auto warp = [](double mm) {
            return [=](Shop& s) { return logWarp(s.record(), s.blade().id, 1, 0, {"", mm, WarpSide::left}, ""); };
        };
        return {
            {"set point", "hotter than any oven", heat(1500, {}, {})},
            {"soak", "soaked longer than longest", heat(800, 12, 5)},
            {"name", "an oven without a name", oven(" ", 5)},
            {"step", "an oven without steps", oven("Oven 1", 0)},
            {"name", "a recipe without a name", [](Shop& s) { return done(addRecipe(s.record(), {})); }},
            {"stages", "a recipe of nothing",
             [](Shop& s) {
                 Recipe empty;
                 empty.name = "as always";
                 return done(addRecipe(s.record(), empty));
             }},
            {"trace", "a trace of nothing", [](Shop& s) { return addTrace(s.record(), {}); }},
            {"reason", "a heat struck out without a word", [](Shop& s) { return strikeHeat(s.record(), "any", ""); }},
            {"warp", "bent the other way round", warp(-0.1)},
            {"warp", "bent like a hoop", warp(51)},
            {"hours", "a run of three days",
             [](Shop& s) {
                 PlannedRun run;
                 run.hours = 72;
                 return done(planRun(s.record(), run, ""));
             }},
        };
    }
    static std::vector<Case> ofEdgesAndGrain() {
        const auto edge = [](double behind, double angle) {
            return [=](Shop& s) {
                EdgeGeometry geometry;
                geometry.behind_edge_mm = behind;
                geometry.angle_per_side_deg = angle;
                return measureEdge(s.record(), s.blade().id, geometry, "");
            };
        };
        const auto rating = [](double first, double second) {
            return [=](Shop& s) { return rateFracture(s.record(), "any", {first, second, {}}); };
        };
        return {
            {"behind", "an edge of nothing", edge(0, 15)},
            {"angle", "an edge like a chisel's end", edge(0.3, 46)},
            {"force", "pressed by a lorry",
             [](Shop& s) {
                 EdgeAsk ask;
                 ask.rung.force_n = 1001;
                 return askEdge(s.record(), s.batch.id, ask);
             }},
            {"reason", "a rung struck out without a word", [](Shop& s) { return strikeRung(s.record(), "any", " "); }},
            {"kind", "damage of no kind", [](Shop& s) { return markDamage(s.record(), s.blade().id, {}); }},
            {"reason", "cleared without a word", [](Shop& s) { return clearDamage(s.record(), "any", ""); }},
            {"name", "a protocol without a name", [](Shop& s) { return keepProtocol(s.record(), {}); }},
            {"name", "a study without a name", [](Shop& s) { return done(addStudy(s.record(), {})); }},
            {"pieces", "a study of one piece",
             [](Shop& s) {
                 Study study;
                 study.name = "one";
                 study.blades = {s.blade().id};
                 return done(addStudy(s.record(), study));
             }},
            {"photo", "a photo of nothing", [](Shop& s) { return done(addFracture(s.record(), {})); }},
            {"reason", "a photo struck out without a word",
             [](Shop& s) { return strikeFracture(s.record(), "any", ""); }},
            {"scale", "a scale of nothing", [](Shop& s) { return scaleFracture(s.record(), "any", 0.5, ""); }},
            {"line", "a line without a length", [](Shop& s) { return done(countLine(s.record(), "any", {})); }},
            {"reason", "a line struck out without a word", [](Shop& s) { return strikeLine(s.record(), "any", ""); }},
            {"rating", "coarser than coarse", rating(0.5, 5)},
            {"rating", "finer than fine", rating(5, 10.5)},
            {"least", "a grain of nothing", [](Shop& s) { return askGrain(s.record(), s.batch.id, 13); }},
        };
    }
    static std::vector<Case> ofInstruments() {
        const auto block = [](const char* name, const char* until) {
            return [=](Shop& s) {
                Block one{"", name, "HRC", 60, 0.3, 60, 3, 0, 0};
                one.certificate.until = until;
                return done(addBlock(s.record(), one));
            };
        };
        return {
            {"name", "a block without a name", block(" ", "")},
            {"name", "a block of that name", block("62.6", "")},
            {"date", "a day that is none", block("60.1", "2027-02-30")},
            {"other_face", "a face that is its own back",
             [](Shop& s) {
                 Block one = s.record().shop().value().blocks.front();
                 one.certificate.other_face = one.id;
                 return changeBlock(s.record(), one);
             }},
            {"files", "no file tried",
             [](Shop& s) { return done(logFileTest(s.record(), s.blade().id, s.logbook.tester(), {})); }},
        };
    }

private slots:
    void nothingOfItIsInTheRecord_data() {
        QTest::addColumn<QString>("field");
        QTest::addColumn<Act>("act");
        for (const auto& cases : {ofBatches(), ofBlades(), ofSteel(), ofHeats(), ofEdgesAndGrain(), ofInstruments()}) {
            for (const Case& one : cases) QTest::newRow(one.wrong) << QString::fromLatin1(one.field) << one.act;
        }
    }
    void nothingOfItIsInTheRecord() {
        QFETCH(QString, field);
        QFETCH(Act, act);
        if (!m_shop) m_shop = std::make_unique<Shop>();
        Shop& shop = *m_shop;
        const bool makesABatch = QByteArray(QTest::currentDataTag()) == "a name in use" ||
                                 QByteArray(QTest::currentDataTag()) == "a lot of an unknown steel";
        const int before = shop.entries();
        const Result<Done> tried = act(shop);
        QVERIFY(!tried.ok());
        QCOMPARE(tried.error().kind, ErrorKind::refused);
        QCOMPARE(QString::fromStdString(tried.error().place), field);
        QVERIFY(!tried.error().text.empty());
        QCOMPARE(shop.entries(), before + (makesABatch ? 1 : 0));
    }
    void whatWasRefusedLeavesASoundRecord() { QVERIFY(m_shop && m_shop->logbook->check()->empty()); }

    // What happened once is refused the second time, and stands as it was said the first time.
    void onceIsEnough() {
        Shop shop;
        QVERIFY(strikeReading(shop.record(), shop.reading, StrikeReason::seating, "").ok());
        QCOMPARE(strikeReading(shop.record(), shop.reading, StrikeReason::edge, "").error().kind, ErrorKind::refused);
        const Batch now = shop.record().batch(shop.batch.id).value();
        QCOMPARE(now.blades[0].readings[0].struck->reason, StrikeReason::seating);
        QCOMPARE(moveReading(shop.record(), now, shop.reading, now.blades[1].id).error().place, std::string("reading"));

        DamageMark chip;
        chip.kind = "chip";
        QVERIFY(markDamage(shop.record(), shop.blade().id, chip).ok());
        const std::string damage = shop.record().batch(shop.batch.id)->blades[0].damage.front().id;
        QVERIFY(clearDamage(shop.record(), damage, "ground out").ok());
        QCOMPARE(clearDamage(shop.record(), damage, "again").error().place, std::string("damage"));
        QCOMPARE(shop.record().batch(shop.batch.id)->blades[0].damage.front().cleared, std::string("ground out"));

        QVERIFY(takeOut(shop.record(), shop.batch.blades[1].id, Fate::cracked, Gate::quench, "heard").ok());
        QVERIFY(!takeOut(shop.record(), shop.batch.blades[1].id, Fate::scrapped, Gate::quench, "again").ok());
        QCOMPARE(shop.record().batch(shop.batch.id)->blades[1].fate->fate, Fate::cracked);
    }

    // The rules of a shop hold for the batches made after them; what a batch says itself goes before.
    void rulesForLaterBatches() {
        Shop shop;
        BatchRules rules;
        rules.rule = DecisionRule::allowance;
        rules.allowance = 0.5;
        rules.uncorrected = true;
        rules.verify_every = VerifyEvery::week;
        rules.rehardening_limit = 1;
        rules.spacing = {4, 3};
        QVERIFY(changeRules(shop.record(), shop.batch.id, rules, true).ok());
        QVERIFY(changeRules(shop.record(), shop.batch.id, rules, true).ok()); // the same once more
        const auto made = [&](const char* name, std::optional<DecisionRule> rule) {
            BatchDraft draft;
            draft.name = name;
            draft.rule = rule;
            draft.blades = {{"H-1", {}, ""}};
            return shop.record().batch(addBatch(shop.record(), draft).value()).value();
        };
        const Batch as = made("Hedge", std::nullopt);
        QCOMPARE(as.rule, DecisionRule::allowance);
        QCOMPARE(as.allowance, std::optional(0.5));
        QVERIFY(as.uncorrected);
        QCOMPARE(as.verify_every, VerifyEvery::week);
        QCOMPARE(as.rehardening_limit, 1);
        QCOMPARE(as.shop_spacing.min_spacing_mm, 4.0);
        QCOMPARE(as.shop_spacing.min_edge_mm, 3.0);
        for (const DecisionRule own : {DecisionRule::plain, DecisionRule::guarded}) {
            const Batch one = made(nameOf(own), own);
            QCOMPARE(one.rule, own);
            QVERIFY(!one.allowance);
            QCOMPARE(one.verify_every, VerifyEvery::week);
        }
    }
};

QTEST_APPLESS_MAIN(tst_Refusals)
#include "tst_refusals.moc"
