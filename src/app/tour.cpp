// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tour.h"

#include "app/exchange/import_wizard.h"
#include "app/frame/footer.h"
#include "app/frame/main_window.h"
#include "app/grain/count_page.h"
#include "app/grain/grain_bench.h"
#include "app/grain/rate_page.h"
#include "app/heat/heat_bench.h"
#include "app/ledger/ledger_bench.h"
#include "app/ledger/ledger_page.h"
#include "app/ledger/what_if_page.h"
#include "app/proof/proof_bench.h"
#include "app/store/document.h"
#include "logbook/transfer/readings_csv.h"
#include "report/certificate.h"
#include "report/page_picture.h"

#include <QApplication>
#include <QDir>
#include <QPixmap>
#include <QThread>

namespace rollcall {

namespace {

// Lets the storage thread answer and the window paint.
void settle(const Document& document) {
    do {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
        QThread::msleep(5);
    } while (document.pending() > 0);
    QCoreApplication::processEvents();
}

class Tour {
public:
    Tour(MainWindow& window, Document& document, const QString& folder)
        : m_window(window), m_document(document), m_folder(folder) {}

    GrainBench& grain() { return *m_window.findChild<GrainBench*>(); }
    ProofBench& proof() { return *m_window.findChild<ProofBench*>(); }
    bool batch(const char* name) {
        for (const BatchSummary& summary : m_document.state().batches()) {
            if (summary.name == name) m_document.selectBatch(summary.id);
        }
        settle(m_document);
        return m_document.hasBatch() && m_document.batch().name == name;
    }
    void call(const char* mark, Gate gate) {
        m_document.selectBlade(m_document.indexOfMark(mark));
        m_window.openGate(gate);
    }
    void command(const char* id) { m_window.run(QString::fromLatin1(id)); }
    /// The dialog that is open, then closed.
    bool dialogShot(const char* name) {
        settle(m_document);
        QWidget* dialog = QApplication::activeModalWidget();
        if (dialog == nullptr) return false;
        const bool saved = dialog->grab().save(m_folder.filePath(QString::fromLatin1(name) + QStringLiteral(".png")));
        dialog->close();
        settle(m_document);
        return saved;
    }
    /// The certificate of the batch in hand, its first page.
    bool pageShot(const char* name) {
        const Instant now = m_document.now();
        QString head;
        m_document.query<std::string>([](Logbook& logbook) { return logbook.head(); },
                                      [&](const Result<std::string>& code) {
                                          if (code) head = QString::fromStdString(*code);
                                      });
        settle(m_document);
        const auto pages = picturesOf(false, 96, [&](Paper& paper) {
            return drawCertificate(paper, m_document.batch(), m_document.verdicts(), m_document.tables(),
                                   {QStringLiteral("Orchard and hedgerow tools"), {}, false, now, false, head});
        });
        return pages.front().save(m_folder.filePath(QString::fromLatin1(name) + QStringLiteral(".png")));
    }
    /// Somebody's own table on its way in.
    bool wizardShot(const char* name) {
        const QByteArray bytes =
            "Klinge;Charge;H\xC3\xA4rte 1;H\xC3\xA4rte 2;H\xC3\xA4rte 3;Datum;Dicke [mm];Schleifer\r\n"
            "A-1;Apfel 3;61,8;62,1;62,0;20.11.2026;2,4;links\r\n"
            "A-2;Apfel 3;62,3;62,4;62,2;20.11.2026;2,4;links\r\n"
            "A-3;Apfel 3;61,1;na\xC3\x9F;61,4;20.11.2026;2,5;rechts\r\n"
            "A-4;Apfel 3;62,0;61,9;;20.11.2026;2,4;rechts\r\n";
        const auto table = tableOfFile(bytes);
        if (!table) return false;
        (new ImportWizard(m_document, QStringLiteral("apples.csv"), bytes, *table, m_window.look(), &m_window))
            ->ask({});
        return dialogShot(name);
    }
    bool shot(const char* name) {
        settle(m_document);
        m_window.findChild<Footer*>()->hush(); // what is next, not what was done before
        for (int i = 0; i < 400 && !grain().photos().idle(); ++i) settle(m_document); // photos come late
        return m_window.grab().save(m_folder.filePath(QString::fromLatin1(name) + QStringLiteral(".png")));
    }

    /// A page of the ledger, when all batches are gone through and it has its answer.
    bool ledgerShot(LedgerBench::Page page, const char* name) {
        m_window.open(QStringLiteral("ledger-bench"), static_cast<int>(page));
        LedgerPage* in_sight = nullptr;
        for (LedgerPage* one : m_window.findChildren<LedgerPage*>()) {
            if (one->isVisible()) in_sight = one;
        }
        for (int i = 0; i < 4000 && in_sight != nullptr && in_sight->busy(); ++i) settle(m_document);
        return in_sight != nullptr && shot(name);
    }

private:
    MainWindow& m_window;
    Document& m_document;
    QDir m_folder;
};

} // namespace

bool writeTour(MainWindow& window, Document& document, const QString& folder) {
    if (!QDir().mkpath(folder)) return false;
    Tour tour(window, document, folder);
    window.resize(1280, 800);
    window.show();
    bool all = tour.batch("Orchard 12");
    window.openOverview();
    all = tour.shot("overview") && all;
    tour.call("GK-8", Gate::heat);
    all = tour.shot("heat") && all;
    tour.call("GK-9", Gate::heat);
    for (const auto& [page, name] :
         {std::pair(HeatBench::Page::ladder, "temper"), std::pair(HeatBench::Page::recipe, "recipe"),
          std::pair(HeatBench::Page::day, "day"), std::pair(HeatBench::Page::warp, "warp"),
          std::pair(HeatBench::Page::colour, "colour")}) {
        if (page == HeatBench::Page::colour) tour.call("GK-1", Gate::heat);
        window.open(QStringLiteral("heat-bench"), static_cast<int>(page));
        all = tour.shot(name) && all;
    }
    window.open(QStringLiteral("heat-bench"), static_cast<int>(HeatBench::Page::soak));
    tour.call("GK-4", Gate::temper);
    all = tour.shot("call") && all;
    tour.call("GK-8", Gate::temper);
    all = tour.shot("call-uneven") && all;
    tour.command("help");
    all = tour.dialogShot("help") && all;
    Look look = window.look();
    look.palette = Palette::darkOne();
    window.setLook(look);
    tour.call("GK-4", Gate::temper);
    all = tour.shot("call-dark") && all;
    look.palette = Palette::light();
    window.setLook(look);
    window.open(QStringLiteral("testers-bench"));
    all = tour.shot("testers") && all;
    for (const auto& [page, name] :
         {std::pair(LedgerBench::Page::week, "week"), std::pair(LedgerBench::Page::tempers, "ledger"),
          std::pair(LedgerBench::Page::against, "against"), std::pair(LedgerBench::Page::drift, "drift"),
          std::pair(LedgerBench::Page::yield, "yield"), std::pair(LedgerBench::Page::tried, "tried")})
        all = tour.ledgerShot(page, name) && all;
    window.findChild<DragNumber*>(QStringLiteral("low-by"))->setValue(0.4);
    all = tour.ledgerShot(LedgerBench::Page::whatIf, "what-if") && all;
    tour.command("ledger-what-if.back");
    all = tour.ledgerShot(LedgerBench::Page::plan, "plan") && all;
    window.open(QStringLiteral("ledger-bench"), 0);
    all = tour.batch("Hedge 5") && all;
    tour.call("BH-3", Gate::temper);
    tour.command("files");
    all = tour.dialogShot("files") && all;
    tour.call("BH-3", Gate::temper);
    tour.command("why");
    all = tour.dialogShot("why") && all;
    tour.call("BH-2", Gate::edge);
    all = tour.shot("edge") && all;
    tour.call("BH-3", Gate::edge);
    all = tour.shot("edge-heat") && all;
    tour.call("BH-1", Gate::proof);
    tour.proof().runTrial();
    all = tour.shot("proof") && all;
    tour.proof().leaveTrial();
    for (const auto& [page, name] :
         {std::pair(ProofBench::Page::speaks, "stands-for"), std::pair(ProofBench::Page::cuts, "cuts"),
          std::pair(ProofBench::Page::study, "study"), std::pair(ProofBench::Page::protocols, "protocols")}) {
        tour.call(page == ProofBench::Page::speaks ? "BH-3" : "BH-1", Gate::proof);
        tour.proof().openPage(page);
        all = tour.shot(name) && all;
    }
    tour.proof().openPage(ProofBench::Page::trial);
    tour.call("BH-5", Gate::proof);
    all = tour.shot("trial") && all;
    all = tour.batch("Orchard 12") && all;
    tour.call("GK-7", Gate::release);
    all = tour.shot("release") && all;
    all = tour.pageShot("certificate") && all;
    all = tour.wizardShot("import") && all;
    all = tour.batch("Sickle 4") && all;
    tour.call("C-5", Gate::proof);
    window.open(QStringLiteral("grain-bench"));
    tour.grain().count().besideOthers(1);
    all = tour.shot("grain") && all;
    tour.grain().openPage(GrainBench::Page::rate);
    tour.grain().rate().act();
    all = tour.shot("grain-rate") && all;
    tour.grain().openPage(GrainBench::Page::coupons);
    all = tour.shot("coupons") && all;
    tour.call("SK-4", Gate::proof);
    all = tour.shot("proof-grain") && all;
    all = tour.batch("Market 3") && all;
    window.open(QStringLiteral("pile-bench"));
    all = tour.shot("pile") && all;
    window.openOverview();
    all = tour.shot("overview-pile") && all;
    tour.call("MK-3", Gate::temper);
    all = tour.shot("call-finished") && all;
    tour.command("claim");
    all = tour.dialogShot("claim") && all;
    tour.command("new-batch");
    all = tour.dialogShot("new-batch") && all;
    all = tour.batch("Croft 2") && all;
    tour.call("CH-2", Gate::temper);
    all = tour.shot("call-files") && all;
    all = tour.batch("Galley 8") && all;
    tour.call("FK-1", Gate::steel);
    all = tour.shot("steel") && all;
    tour.call("FK-1", Gate::quench);
    return tour.shot("call-quench") && all;
}

} // namespace rollcall
