// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/benches.h"

#include "app/call/call_bench.h"
#include "app/edge/edge_bench.h"
#include "app/grain/grain_bench.h"
#include "app/heat/heat_bench.h"
#include "app/ledger/ledger_bench.h"
#include "app/links/links.h"
#include "app/overview/overview_bench.h"
#include "app/pile/pile_bench.h"
#include "app/proof/proof_bench.h"
#include "app/release/release_bench.h"
#include "app/steel/steel_bench.h"
#include "app/testers/testers_bench.h"

namespace rollcall {

std::vector<Bench*> makeBenches(const Workshop& shop) {
    return {new OverviewBench(shop.document, shop.actions, shop.exchange, shop.chart_look),
            new SteelBench(shop.document, shop.links.shots, shop.seams, shop.chart_look),
            new HeatBench(shop.document, shop.links.oven, shop.day, shop.actions, shop.seams, shop.chart_look),
            new CallBench(shop.document, shop.station, shop.links.tester, shop.actions, shop.seams, shop.look),
            new EdgeBench(shop.document, shop.links.force, shop.seams, shop.chart_look),
            new ProofBench(shop.document, shop.seams, shop.chart_look),
            new GrainBench(shop.document, shop.links.fractures, shop.seams, shop.chart_look),
            new ReleaseBench(shop.document, shop.actions, shop.seams, shop.chart_look),
            new LedgerBench(shop.document, shop.seams, shop.chart_look),
            new PileBench(shop.document, shop.actions, shop.seams, shop.chart_look),
            new TestersBench(shop.document, shop.links.tester, shop.actions, shop.seams, shop.chart_look)};
}

} // namespace rollcall
