// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Drawings of the report, as text.

#include "store/paper/ladder_svg.h"

#include <fmt/format.h>
#include <iterator>
#include <string>

namespace ibuki {

namespace paper_ink {
inline constexpr const char* ink = "#1f1b16";
inline constexpr const char* quiet = "#6d655a";
inline constexpr const char* hot = "#b8431c";
inline constexpr const char* cold = "#1d6a86";
} // namespace paper_ink

class Svg {
public:
    Svg(double width, double height) {
        put("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.0f}\" height=\"{1:.0f}\" viewBox=\"0 0 "
            "{0:.0f} "
            "{1:.0f}\" font-family=\"Inter, sans-serif\" font-size=\"12\">\n",
            width, height);
    }
    template <class... Args> void put(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(text_), format, std::forward<Args>(args)...);
    }
    void line(double x1, double y1, double x2, double y2, const char* colour, double width) {
        put("<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\" "
            "stroke-width=\"{}\"/>\n",
            x1, y1, x2, y2, colour, width);
    }
    void label(double x, double y, const char* colour, const char* anchor, std::string_view what,
               int size = 12) {
        put("<text x=\"{:.1f}\" y=\"{:.1f}\" fill=\"{}\" text-anchor=\"{}\" font-size=\"{}\">{}</text>\n", x,
            y, colour, anchor, size, xmlText(what));
    }
    std::string finish() {
        text_ += "</svg>\n";
        return std::move(text_);
    }

private:
    std::string text_;
};

} // namespace ibuki
