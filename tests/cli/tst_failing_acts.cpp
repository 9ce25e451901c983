// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/every_act.h"
#include "tests/support/failing_memory.h"

#include <QCoreApplication>
#include <QJsonDocument>
#include <QtTest>
#include <set>

using namespace rollcall;
using fixtures::everyAct;
using fixtures::LoggedLines;
using fixtures::memory;
using fixtures::plain;

// Every act of a line, with SQLite out of memory at one request after the other; and every act told what cannot be.
class tst_FailingActs : public QObject {
    Q_OBJECT

    LoggedLines m_shop;
    bool m_atWork = false; ///< the shop of the refusals stands

    int entries() { return m_shop->counts().value().at("change"); }

private slots:
    void nothingHalfWithoutMemory() {
        m_shop.begin("memory.rollcall");
        int refused = 0;
        std::set<std::string> acts;
        for (const char* line : everyAct()) {
            constexpr int step = 3; // requests
            bool done = false;
            if (QByteArray(line).contains("'undo'")) // an act with an entry of its own, as the window makes it
                QVERIFY(m_shop.take(plain("{'do':'sample','batch':'Pear 3','chance':0.8}")).ok());
            for (int request = 0; !done; request += step) {
                const int before = entries();
                memory().failed = false;
                memory().failIn = request;
                const auto tried = m_shop.log(plain(line));
                memory().failIn = -1;
                refused += memory().failed ? 1 : 0;
                QVERIFY2(memory().failed || tried.ok(), tried.ok() ? line : tried.error().message().c_str());
                QVERIFY2(entries() == before + (tried.ok() ? 1 : 0), line);
                if (!tried.ok()) QVERIFY2(!tried.error().text.empty(), line);
                done = tried.ok();
            }
            const QJsonObject said = QJsonDocument::fromJson(plain(line)).object();
            acts.insert(said[QStringLiteral("do")].toString().toStdString());
        }
        for (const cli::LogAct& act : cli::logActs()) QVERIFY2(acts.contains(act.name), act.name);
        const auto problems = m_shop->check();
        QVERIFY2(problems->empty(), problems->empty() ? "" : problems->front().c_str());
        qInfo("%d requests for memory were refused", refused);
    }

    void whatCannotBeIsRefused_data() {
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<QString>("says");
        const auto row = [](const char* line, const char* says) { QTest::newRow(says) << plain(line) << says; };
        row("{'do':'person','initials':' '}", "'person' needs it");
        row("{'do':'person','initials':'HB'}", "somebody is HB already");
        row("{'do':'tester','name':'Bench 1','kind':'bench'}", "there is a tester Bench 1 already");
        row("{'do':'batch','name':' ','count':1}", "'batch' needs it");
        row("{'do':'batch','name':'Pear 3','count':1}", "there is a batch Pear 3 already");
        row("{'do':'batch','name':'New','blades':[{'mark':' '}]}", "a blade needs a mark");
        row("{'do':'batch','name':'New','count':1,'window':'63:61'}", "the lower limit is above the upper one");
        row("{'do':'claim','batch':'Pear 3','blade':'P-1','minimum':99}", "outside");
        row("{'do':'claim','batch':'Pear 3','blade':'P-1','tempers':-1}", "outside");
        row("{'do':'add_blade','batch':'Pear 3','mark':'P-1'}", "P-1");
        row("{'do':'add_blade','batch':'Pear 3','mark':'N','thickness':80}", "outside");
        row("{'do':'rename','batch':'Pear 3','blade':'P-1','mark':'P-2'}", "another blade of this batch is marked P-2");
        row("{'do':'cold','batch':'Pear 3','blades':'all','temperature':20,'hours':1}", "outside");
        row("{'do':'cold','batch':'Pear 3','blades':[],'temperature':-70,'hours':1}", "blades");
        row("{'do':'rule','batch':'Pear 3','allowance':9}", "outside");
        row("{'do':'rule','batch':'Pear 3','rehardening_limit':-1}", "outside");
        row("{'do':'zone_window','batch':'Pear 3','zone':'edge','window':'45:52'}",
            "the edge is judged by the batch's");
        row("{'do':'zone_window','batch':'Pear 3','zone':'spine','window':'52:45'}", "the lower limit is above");
        row("{'do':'plan','batch':'Pear 3','gate':'steel','required':true,'by_files':true}", "files");
        row("{'do':'excuse','batch':'Pear 3','blade':'P-1','gate':'temper','reason':' '}", "reason");
        row("{'do':'looked','batch':'Pear 3','blade':'P-1','reason':' '}", "'looked' needs it");
        row("{'do':'cleared','batch':'Pear 3','blade':'P-1','reason':'nothing there'}", "damage");
        row("{'do':'take_for','batch':'Pear 3','grade':' '}", "grade");
        row("{'do':'reading','batch':'Pear 3','blade':'P-9','gate':'quench','value':60,'tester':'Bench 1'}", "P-9");
        row("{'do':'reading','batch':'Pear 3','blade':'P-1','gate':'steel','value':60,'tester':'Bench 1'}", "gate");
        row("{'do':'reading','batch':'Pear 3','blade':'P-1','gate':'quench','value':60,'tester':'Bench 9'}", "Bench 9");
        row("{'do':'reading','batch':'Pear 3','blade':'P-1','gate':'quench','value':999,'tester':'Bench 1'}", "999");
        row("{'do':'strike_out','batch':'Pear 3','blade':'P-1','gate':'quench','nth':7,'reason':'slipped'}", "reading");
        row("{'do':'strike_out','batch':'Pear 3','blade':'P-1','gate':'quench','value':12,'reason':'slipped'}", "12");
        row("{'do':'heat','batch':'Pear 3','as':'h2','oven':'Oven 1','set':9000,'medium':'fast oil'}", "outside");
        row("{'do':'in_heat','heat':'h9','blades':'all'}", "h9");
        row("{'do':'in_heat','heat':'h1','blade':'P-1','in':500,'out':100}", "it lies before what came first");
        row("{'do':'temper','batch':'Pear 3','blades':'all','temperature':2000}", "outside");
        row("{'do':'warp','batch':'Pear 3','blade':'P-1','mm':900,'high':'L'}", "outside");
        row("{'do':'rung','batch':'Pear 3','blade':'P-1','outcome':'sings'}", "known are");
        row("{'do':'colour','batch':'Pear 3','blade':'P-1','zone':'edge','colour':'plaid'}", "known are");
        row("{'do':'geometry','batch':'Pear 3','blade':'P-1','angle':120,'behind_edge':0.3}", "outside");
        row("{'do':'study','name':' ','pieces':[['Pear 3','P-1'],['Pear 3','P-2']]}", "name");
        row("{'do':'study','name':'One','pieces':[['Pear 3','P-1']]}", "two");
        row("{'do':'grade','name':'Y','based_on':'nothing'}", "nothing");
        row("{'do':'note','batch':'Pear 3','text':' '}", "note");
        row("{'do':'sample','batch':'Pear 3','chance':2}", "outside");
        row("{'do':'sign','batch':'Pear 3','blades':'all','decision':'release','reason':'fine'}", "say who signs");
        row("{'do':'trial','batch':'Pear 3','blade':'P-1','protocol':'Dance','steps':[]}", "there is no such protocol");
        row("{'do':'fracture','batch':'Pear 3','blade':'P-1','rating':40}", "two looks");
        row("{'do':'cuts','batch':'Pear 3','blade':'P-1','looks':[[20,'sings']]}", "hesitates or fails");
        row("{'do':'certificate','batch':'Pear 3','elements':{'C':-4}}", "C");
        row("{'do':'verify','tester':'Bench 1','block':'62.6','readings':[]}", "at least one is needed");
        row("{'do':'verify','tester':'Bench 1','block':'70.1','readings':[62,62]}", "70.1");
        row("{'do':'block','name':'62.6','certified':62.6}", "there is a block 62.6 already");
        row("{'do':'made_by_mistake','batch':'Pear 3','blade':'P-1','reason':' '}", "reason");
        row("{'do':'reharden','batch':'Pear 3','blade':'P-1','reason':' '}", "reason");
    }
    void whatCannotBeIsRefused() {
        if (!std::exchange(m_atWork, true)) {
            m_shop.begin("refused.rollcall");
            for (const char* line : everyAct()) {
                const QByteArray said = plain(line);
                if (said.contains("\"out\"") || said.contains("ground_off")) break; // the shop as it stands at work
                QVERIFY(m_shop.log(said).ok());
            }
        }
        QFETCH(QByteArray, line);
        QFETCH(QString, says);
        const int before = entries();
        const auto tried = m_shop.log(line);
        QVERIFY(!tried.ok());
        const std::string told = tried.error().message();
        QVERIFY2(QString::fromStdString(told).contains(says, Qt::CaseInsensitive), told.c_str());
        QCOMPARE(entries(), before);
    }
};

int main(int argc, char** argv) {
    fixtures::takeMemory(); // before SQLite is used at all
    QCoreApplication application(argc, argv);
    tst_FailingActs test;
    return QTest::qExec(&test, argc, argv);
}
#include "tst_failing_acts.moc"
