// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/grain.h"
#include "bench/numbers/figure.h"
#include "core/proof/crossings.h"
#include "core/proof/fracture_texture.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

enum class Texture { darkGrooves, darkBorders, brightSteps, unevenLight };

const char* nameOfTexture(Texture texture) {
    switch (texture) {
    case Texture::darkGrooves:
        return "dark grooves";
    case Texture::darkBorders:
        return "cells with dark borders";
    case Texture::brightSteps:
        return "bright steps";
    case Texture::unevenLight:
        return "uneven light";
    }
    return "";
}

// The same facets, looking otherwise.
GreyImage drawn(const FractureTexture& made, Texture texture, std::mt19937& random) {
    std::normal_distribution<double> noise(0, 4);
    GreyImage image = made.picture;
    const int w = image.width;
    const auto facet = [&](int x, int y) {
        return made.facets[static_cast<std::size_t>(std::clamp(y, 0, image.height - 1)) * static_cast<std::size_t>(w) +
                           static_cast<std::size_t>(std::clamp(x, 0, w - 1))];
    };
    const auto grain = [](int facet_number, int spread) {
        return static_cast<double>((facet_number * 2654435761U >> 8) % static_cast<unsigned>(spread));
    };
    for (int y = 0; y < image.height; ++y) {
        for (int x = 0; x < w; ++x) {
            std::uint8_t& pixel =
                image.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(w) + static_cast<std::size_t>(x)];
            double grey = pixel;
            const int own = facet(x, y);
            const bool border =
                facet(x + 1, y) != own || facet(x, y + 1) != own || facet(x - 1, y) != own || facet(x, y - 1) != own;
            if (texture == Texture::darkBorders) grey = border ? 70 : 150 + grain(own, 20);
            if (texture == Texture::brightSteps) grey = border ? 215 : 70 + grain(own, 90);
            if (texture == Texture::unevenLight) grey *= 0.5 + 0.7 * x / w;
            pixel = static_cast<std::uint8_t>(std::clamp(grey + noise(random), 0.0, 255.0));
        }
    }
    return image;
}

struct Bias {
    double mean = 0;
    double worst = 0;
    int pictures = 0;
};

Bias biasOf(Texture texture, int seeds, bool quick) {
    std::mt19937 random(20261134);
    Bias bias;
    for (const double g : {4.0, 6.0, 8.0}) {
        for (const double facet_px : {14.0, 20.0, 28.0}) {
            if (quick && (g != 6.0 || facet_px > 20)) continue;
            const double scale = facet_px / interceptOf(g);
            for (int seed = 1; seed <= seeds; ++seed) {
                const auto made = fractureTexture(g, scale, static_cast<int>(facet_px * 64),
                                                  static_cast<int>(facet_px * 24), static_cast<std::uint64_t>(seed))
                                      .value();
                const GreyImage image = drawn(made, texture, random);
                std::vector<InterceptLine> lines;
                std::vector<InterceptLine> truth;
                for (int i = 0; i < 5; ++i) {
                    const TestLine line{false,
                                        {image.width * 0.05, image.height * (0.2 + 0.15 * i)},
                                        {image.width * 0.95, image.height * (0.2 + 0.15 * i)}};
                    const double mm = line.length() / scale;
                    lines.push_back({mm, static_cast<double>(suggestCrossings(image, line).size())});
                    // What really lies on the line: changes of the facet along it.
                    double crossed = 0;
                    const int y = static_cast<int>(line.a.y);
                    for (int x = static_cast<int>(line.a.x) + 1; x <= static_cast<int>(line.b.x); ++x) {
                        const std::size_t at = static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) +
                                               static_cast<std::size_t>(x);
                        crossed += made.facets[at] != made.facets[at - 1] ? 1 : 0;
                    }
                    truth.push_back({mm, crossed});
                }
                const double off = grainSize(lines)->g - grainSize(truth)->g;
                bias.mean += off;
                bias.worst = std::abs(off) > std::abs(bias.worst) ? off : bias.worst;
                ++bias.pictures;
            }
        }
    }
    bias.mean /= bias.pictures;
    return bias;
}

} // namespace

Figures grainFigures(int draws) {
    Figures figures;
    double all = 0;
    double worst = 0;
    const int seeds = std::clamp(draws / 4000, 1, 8);
    int pictures = 0;
    for (const Texture texture :
         {Texture::darkGrooves, Texture::darkBorders, Texture::brightSteps, Texture::unevenLight}) {
        const Bias bias = biasOf(texture, seeds, draws < 2000);
        figures.push_back({fmt::format("grain suggested, {}: mean bias in G", nameOfTexture(texture)), bias.mean, -1e6,
                           1e6, bias.pictures, false});
        all += bias.mean / 4;
        worst = std::abs(bias.worst) > std::abs(worst) ? bias.worst : worst;
        pictures += bias.pictures;
    }
    figures.push_back({"grain suggested: mean bias over the four textures", all, -0.1, 0.1, pictures, false});
    figures.push_back({"grain suggested: worst picture", worst, -0.3, 0.3, pictures, false});
    return figures;
}

} // namespace rollcall::numbers
