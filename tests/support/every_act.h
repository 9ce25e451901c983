// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/log_acts.h"
#include "tests/support/fixtures.h"

#include <memory>
#include <QByteArray>
#include <QFile>
#include <QTemporaryDir>
#include <vector>

namespace rollcall::fixtures {

/// A shop's work, a line each, with single quotes for double ones: every act there is at least once.
inline const std::vector<const char*>& everyAct() {
    static const std::vector<const char*> lines{
        "{'do':'person','initials':'HB','name':'at the bench'}",
        "{'do':'tester','name':'Bench 1','kind':'bench','resolution':0.1,'indenter':'C-1','anvil':'flat'}",
        "{'do':'tester','name':'Rebound','kind':'rebound'}",
        "{'do':'tester','name':'Files','kind':'files','files':[40,50,60,65]}",
        "{'do':'block','name':'62.6','certified':62.6,'uncertainty':0.3,'diameter':60,'spacing':3}",
        "{'do':'grade','name':'Orchard steel','based_on':'1095','sheet':{'composition':'C 0.9-1.0; Mn 0.3-0.5'}}",
        "{'do':'batch','name':'Pear 3','count':6,'marks':'P-#','sold_as':'115CrV3','window':'61:63','lot':'L-7',"
        "'purpose':'grafting knife','gates':['steel','heat','quench','temper','edge','proof','release']}",
        "{'do':'batch','name':'Plum 1','blades':[{'mark':'A','thickness':2.4,'length':90,'height':20},"
        "{'mark':'B','sold_as':'1095','window':'58:60','finished':true}],'sold_as':'115CrV3','window':'60:62',"
        "'rule':'allowance','allowance':0.5,'evidence':{'quench':'files'},'tempers':2,'minimum':64}",
        "{'do':'verify','tester':'Bench 1','block':'62.6','readings':[62.7,62.9,62.8,62.8,62.8],'by':'HB'}",
        "{'do':'shot','batch':'Pear 3','method':'xrf','elements':{'Cr':0.6,'V':'<0.05','Mn':[0.3,0.02]},'sigmas':2}",
        "{'do':'shot','batch':'Pear 3','blade':'P-2','method':'oes','elements':{'C':1.18,'Cr':0.61},'piece':'tang'}",
        "{'do':'certificate','batch':'Pear 3','elements':{'C':1.2,'Cr':0.65,'V':0.09},'number':'M-1'}",
        "{'do':'spark','batch':'Pear 3','agrees':true,'text':'bursts as the known bar'}",
        "{'do':'coupon','batch':'Pear 3','hrc':[65.5,65.7],'text':'quenched beside'}",
        "{'do':'changed','batch':'Pear 3','blade':'P-6','text':'pack carburised'}",
        "{'do':'take_for','batch':'Plum 1','grade':'1095','reason':'the certificate'}",
        "{'do':'take_for','batch':'Pear 3','blade':'P-5','grade':'1095','reason':'its own shot'}",
        "{'do':'heat','batch':'Pear 3','as':'h1','oven':'Oven 1','set':790,'medium':'fast oil','medium_temperature':50,"
        "'soak_least':5,'soak_most':12,'surface':'foil','edge':0.6,'trace':[[0,780],[60,790],[600,791]]}",
        "{'do':'in_heat','heat':'h1','blades':'all','in':0,'out':480,'quenched':482}",
        "{'do':'in_heat','heat':'h1','blade':'P-6','in':10,'out':400,'transfer':2,'quenchant':55,'note':'fell'}",
        "{'do':'reading','batch':'Pear 3','blade':'P-1','gate':'quench','value':65.4,'tester':'Bench 1','x':20,'y':6}",
        "{'do':'reading','batch':'Pear 3','blade':'P-1','gate':'quench','value':65.5,'tester':'Bench 1','note':'again',"
        "'convex_radius':12}",
        "{'do':'strikes','batch':'Pear 3','blade':'P-2','gate':'quench','values':[64.1,64.8,65.0],'tester':'Rebound',"
        "'instrument_mean':64.6,'support':'clamped'}",
        "{'do':'strike_out','batch':'Pear 3','blade':'P-1','gate':'quench','nth':2,'reason':'slipped'}",
        "{'do':'files','batch':'Pear 3','blade':'P-3','gate':'quench','skates':60,'bites':65,'surface':'bare',"
        "'tester':'Files'}",
        "{'do':'temper','batch':'Pear 3','blades':'all','temperature':'401F','hours':'90min'}",
        "{'do':'temper','batch':'Pear 3','blades':['P-1','P-2'],'temperature':null}",
        "{'do':'cold','batch':'Pear 3','blades':['P-1'],'temperature':-70,'hours':1}",
        "{'do':'colour','batch':'Pear 3','blade':'P-2','zone':'spine','colour':'straw','surface':'bare','torch':true}",
        "{'do':'warp','batch':'Pear 3','blade':'P-2','mm':1.2,'high':'L'}",
        "{'do':'reading','batch':'Pear 3','blade':'P-2','gate':'temper','value':61.9,'tester':'Bench 1'}",
        "{'do':'reading','batch':'Pear 3','blade':'P-2','gate':'temper','value':45.0,'tester':'Bench "
        "1','zone':'spine'}",
        "{'do':'reading','batch':'Pear 3','blade':'P-2','gate':'temper','value':58.0,'tester':'Rebound'}",
        "{'do':'replace_set','batch':'Pear 3','blade':'P-2','gate':'temper','keep':'Bench 1','reason':'on the block'}",
        "{'do':'geometry','batch':'Pear 3','blade':'P-2','angle':15,'behind_edge':0.3,'grind':'flat','finish':'400'}",
        "{'do':'edge','batch':'Pear 3','force':90,'raise':45,'purpose':'grafting knife'}",
        "{'do':'rung','batch':'Pear 3','blade':'P-2','outcome':'true','force':60,'raise':45,'contact':8}",
        "{'do':'rung','batch':'Pear 3','blade':'P-2','outcome':'chip','force':90,'raise':45,'place':20,'size':0.4}",
        "{'do':'burnt','batch':'Pear 3','blade':'P-3','text':'straw at the tip'}",
        "{'do':'burnt','batch':'Pear 3','blade':'P-3','cleared':true}",
        "{'do':'cuts','batch':'Pear 3','blade':'P-2','looks':[[20,'pass'],[40,'pass'],[60,'fails']],'medium':'rope'}",
        "{'do':'trial','batch':'Pear 3','blade':'P-2','protocol':'Performance "
        "trial','steps':[{'value':300},{'value':200},"
        "{'value':40},{'failed':{'what':'edge','how':'chipped'}}]}",
        "{'do':'damage','batch':'Pear 3','blade':'P-3','kind':'crack','place':30,'size':2,'note':'at the plunge'}",
        "{'do':'cleared','batch':'Pear 3','blade':'P-3','reason':'ground out, dye sees none'}",
        "{'do':'fracture','batch':'Pear 3','blade':'P-6','rating':[8,7],'untempered':true}",
        "{'do':'looked','batch':'Pear 3','blade':'P-2','reason':'the oven was at 210'}",
        "{'do':'study','name':'Two steels','factor':'steel','pieces':[['Pear 3','P-2'],['Plum 1','A']]}",
        "{'do':'note','batch':'Pear 3','blade':'P-2','text':'a little long','card':true}",
        "{'do':'note','batch':'Pear 3','text':'forged in the rain'}",
        "{'do':'excuse','batch':'Pear 3','blades':['P-4'],'gate':'temper','reason':'a coupon'}",
        "{'do':'out','batch':'Pear 3','blade':'P-6','fate':'coupon','gate':'quench','reason':'broken for grain'}",
        "{'do':'reharden','batch':'Pear 3','blade':'P-5','reason':'soft'}",
        "{'do':'ground_off','batch':'Pear 3','blade':'P-1'}",
        "{'do':'rename','batch':'Pear 3','blade':'P-4','mark':'P-4b'}",
        "{'do':'limits','batch':'Pear 3','window':'60:62.5','minimum':63}",
        "{'do':'limits','batch':'Pear 3','blade':'P-1','window':'59:61'}",
        "{'do':'claim','batch':'Plum 1','blade':'A','sold_as':'1095','window':'57:59','purpose':'budding knife'}",
        "{'do':'add_blade','batch':'Plum 1','mark':'C','thickness':2.2,'length':80,'height':18,'window':'58:60'}",
        "{'do':'made_by_mistake','batch':'Plum 1','blade':'C','reason':'counted twice'}",
        "{'do':'other_steel','batch':'Plum 1','grade':'1095','place':'cladding'}",
        "{'do':'other_steel','batch':'Plum 1','place':'cladding'}",
        "{'do':'zone_window','batch':'Pear 3','zone':'spine','window':'45:52'}",
        "{'do':'plan','batch':'Plum 1','gate':'quench','required':true,'by_files':true}",
        "{'do':'plan','batch':'Plum 1','gate':'temper','required':true,'planned':5}",
        "{'do':'rule','batch':'Plum 1','rule':'plain','as_read':true,'verify_every':'week','rehardening_limit':1,"
        "'spacing':3.5,'edge':3,'later':true}",
        "{'do':'batch','name':'Quince 2','count':2,'marks':'Q-#','sold_as':'1095'}",
        "{'do':'batch','name':'Quince 3','count':1,'marks':'R-#','sold_as':'1095','rule':'guarded'}",
        "{'do':'sample','batch':'Plum 1','chance':0.9}",
        "{'do':'sample','batch':'Plum 1','chance':null}",
        "{'do':'sign','batch':'Pear 3','blades':['P-2'],'decision':'hold','reason':'until Monday','by':'HB'}",
        "{'do':'reading','batch':'Quince 2','blade':'Q-1','gate':'quench','value':64.4,'tester':'Bench 1'}",
        "{'do':'undo'}",
    };
    return lines;
}

/// With the quotes that a line has.
inline QByteArray plain(const char* line) {
    return QByteArray(line).replace('\'', '"');
}

/// A logbook that is written by lines.
class LoggedLines {
public:
    /// A new one in place of the one before.
    void begin(const char* name) {
        m_lines.reset();
        m_logbook.reset();
        const auto clock = std::make_shared<Instant>(LogbookSeams::real().now());
        LogbookSeams seams = LogbookSeams::real();
        seams.now = [clock] { return *clock; };
        const QString path = m_dir.filePath(QLatin1String(name));
        QFile::remove(path);
        m_logbook = Logbook::create(path, seams).value();
        m_lines = std::make_unique<cli::LogLines>(*m_logbook, tables(), QDir(m_dir.path()), clock);
    }
    Result<Done> take(const QByteArray& line) { return m_lines->take(1, line); }
    /// The same as an entry of its own.
    Result<Done> log(const QByteArray& line) {
        return m_logbook->transact("line logged", [&] { return take(line); });
    }
    Logbook& operator*() { return *m_logbook; }
    Logbook* operator->() { return m_logbook.get(); }

private:
    QTemporaryDir m_dir;
    std::unique_ptr<Logbook> m_logbook;
    std::unique_ptr<cli::LogLines> m_lines;
};

} // namespace rollcall::fixtures
