// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/cut_svg.h"

#include "store/paper/ladder_svg.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <iterator>

namespace ibuki {
namespace {

constexpr double border = 12;
constexpr double head = 26; ///< title and ruler above the sheet
constexpr double rulerMm = 50;

class Page {
public:
    Page(const PaperSize& paper) {
        put("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" viewBox=\"0 0 {0} "
            "{1}\" "
            "font-family=\"Inter, sans-serif\">\n",
            paper.widthMm, paper.heightMm);
    }
    template <class... Args> void put(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(text_), format, std::forward<Args>(args)...);
    }
    void line(const char* kind, double x1, double y1, double x2, double y2, double width,
              const char* dash = "none") {
        put("<line class=\"{}\" x1=\"{:.4f}\" y1=\"{:.4f}\" x2=\"{:.4f}\" y2=\"{:.4f}\" stroke=\"#1f1b16\" "
            "stroke-width=\"{}\" stroke-dasharray=\"{}\"/>\n",
            kind, x1, y1, x2, y2, width, dash);
    }
    void rect(const char* kind, const CutRect& r, const char* fill, double stroke) {
        put("<rect class=\"{}\" x=\"{:.4f}\" y=\"{:.4f}\" width=\"{:.4f}\" height=\"{:.4f}\" fill=\"{}\" "
            "stroke=\"#1f1b16\" stroke-width=\"{}\"/>\n",
            kind, r.x, r.y, r.width, r.length, fill, stroke);
    }
    void text(double x, double y, double size, const char* anchor, const std::string& what) {
        put("<text x=\"{:.3f}\" y=\"{:.3f}\" font-size=\"{}\" text-anchor=\"{}\" "
            "fill=\"#1f1b16\">{}</text>\n",
            x, y, size, anchor, xmlText(what));
    }
    std::string finish() {
        text_ += "</svg>\n";
        return std::move(text_);
    }

private:
    std::string text_;
};

CutRect moved(CutRect rect) {
    rect.x += border;
    rect.y += border + head;
    return rect;
}

void putRuler(Page& page) {
    const double x = border;
    const double y = border + 15;
    page.line("ruler", x, y, x + rulerMm, y, 0.3);
    for (int mm = 0; mm <= 50; mm += 10) page.line("tick", x + mm, y - 2, x + mm, y + 2, 0.2);
    page.text(x + rulerMm + 4, y + 1.2, 3.2, "start",
              words::say("50 mm: measure this first; print without fitting to the page"));
}

void putPiece(Page& page, const CutJob& job, const CutPlacement& placement) {
    const CutRect at = moved(placement.at);
    page.rect("piece", at, "#f6e3d9", 0.2);
    const double size = std::min({3.2, at.length / 3.2, at.width / 7});
    const double x = at.x + at.width / 2;
    const double y = at.y + at.length / 2;
    page.text(x, y - 0.2 * size, size, "middle", job.pieces[placement.piece].name);
    page.text(x, y + 1.1 * size, size * 0.85, "middle",
              fmt::format("{:g} × {:g}", placement.at.width, placement.at.length));
}

void putCut(Page& page, const CutLine& cut, std::size_t number) {
    const CutRect through = moved(cut.through);
    const double at = cut.at + (cut.downwards ? border : border + head);
    if (cut.downwards)
        page.line("cut", at, through.y, at, through.y + through.length, 0.15, "1.2 0.8");
    else
        page.line("cut", through.x, at, through.x + through.width, at, 0.15, "1.2 0.8");
    page.text(cut.downwards ? at + 0.6 : through.x + 0.8, cut.downwards ? through.y + 2.6 : at - 0.5, 2.2,
              "start", fmt::format("{}", number));
}

} // namespace

PaperSize paperFor(const CutSheet& sheet) {
    const double width = sheet.widthMm + 2 * border;
    const double height = sheet.lengthMm + 2 * border + head;
    for (const PaperSize& paper :
         {PaperSize{210, 297}, PaperSize{297, 210}, PaperSize{297, 420}, PaperSize{420, 297}})
        if (width <= paper.widthMm && height <= paper.heightMm) return paper;
    return {std::max(width, rulerMm + 2 * border), height};
}

CutRect drawnPart(const CutSheet& sheet) {
    return {0, 0, paperFor(sheet).widthMm, sheet.lengthMm + 2 * border + head};
}

std::string cutSvg(const CutJob& job, const CutLayout& layout, const std::string& title) {
    const CutSheet& sheet = job.sheets[layout.sheet];
    Page page(paperFor(sheet));
    page.text(border, border + 5, 5, "start", title);
    page.text(border, border + 10, 3.2, "start",
              words::say("{sheet}: {width:g} × {length:g} × {thickness:g} mm, {pieces} pieces, {cuts} cuts "
                         "in this order, each "
                         "from edge to edge",
                         {{"sheet", sheet.name},
                          {"width", sheet.widthMm},
                          {"length", sheet.lengthMm},
                          {"thickness", sheet.thicknessMm},
                          {"pieces", layout.placements.size()},
                          {"cuts", layout.cuts.size()}}));
    putRuler(page);
    page.rect("sheet", moved({0, 0, sheet.widthMm, sheet.lengthMm}), "none", 0.3);
    for (const CutRect& rest : layout.offcuts) page.rect("offcut", moved(rest), "#eef1f2", 0.1);
    for (const CutPlacement& placement : layout.placements) putPiece(page, job, placement);
    for (std::size_t i = 0; i < layout.cuts.size(); ++i) putCut(page, layout.cuts[i], i + 1);
    return page.finish();
}

} // namespace ibuki
