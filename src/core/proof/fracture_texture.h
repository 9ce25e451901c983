// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/proof/grey_image.h"

#include <vector>

namespace rollcall {

/// A fracture drawn by number: facets lit from the upper left, with grooves between them.
struct FractureTexture {
    GreyImage picture;
    std::vector<int> facets; ///< number of the facet at each pixel, in the order of the picture
};

/// Draws a fracture whose mean intercept is that of a grain size (M30), at a scale. The same seed gives the same
/// picture. It is a likeness: a real fracture has carbides, tears and depth of its own. Errors (range): G outside 0 to
/// 12, a scale or size not positive, facets under 2 pixels or larger than the picture.
Result<FractureTexture> fractureTexture(double g, double px_per_mm, int width, int height, std::uint64_t seed);

} // namespace rollcall
