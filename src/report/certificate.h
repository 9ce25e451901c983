// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gates.h"
#include "plot/rule.h"

#include <QImage>
#include <QString>

namespace rollcall {

struct Paper;

struct CertificateOptions {
    QString shop;        ///< name as the maker gives it; empty: none
    QImage mark;         ///< of the shop; null: none
    bool letter = false; ///< US Letter instead of A4
    Instant now;
    bool released_only = false; ///< pieces that are not released are left out, and so is what was found out about them
    QString head = {};          ///< of the record's change log, see Logbook::head(); empty: not printed
};

/// All means after temper on one rule with their window; the needles carry the ends of the marks.
RuleData meansRule(const Batch& batch, const BatchVerdicts& verdicts);

/// Draws the certificate of a batch page by page: what was read by which method and tester, standing means with their
/// uncertainty against the window and its rule, places of the indents, the other gates, decisions and signatures, stale
/// ones named, and the limits of what it says. It claims no accreditation. Returns the number of pages.
int drawCertificate(Paper& paper, const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables,
                    const CertificateOptions& options);

/// The certificate as a PDF with its typefaces and text in it. Errors: disk.
Result<int> writeCertificate(const QString& path, const Batch& batch, const BatchVerdicts& verdicts,
                             const Tables& tables, const CertificateOptions& options);

} // namespace rollcall
