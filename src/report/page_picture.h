// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/page.h"

#include <QImage>
#include <vector>

namespace rollcall {

/// The pages as they would come out of the printer, as pictures of so many dots per inch; to be looked at first.
std::vector<QImage> picturesOf(bool letter, int dpi, const DrawPages& draw);

} // namespace rollcall
