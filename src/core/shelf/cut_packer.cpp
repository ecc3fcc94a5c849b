// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut_packer.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace ibuki::cutting {
namespace {

/// A rectangle of a sheet: free, taken by a block, or cut in two.
struct Node {
    CutRect at;
    BlockPtr block;
    bool downwards = false;
    double cutAt = 0;
    int first = -1; ///< −1: nothing remains on this side of the cut
    int second = -1;
    bool cut = false;
};

struct Bin {
    std::size_t sheet = 0;
    bool used = false;
    std::vector<Node> nodes;
    std::vector<int> free;
};

class Packer {
public:
    Packer(const Supply& supply, const Strategy& strategy)
        : job_(*supply.job), supply_(supply), strategy_(strategy), taken_(job_.sheets.size(), 0) {
        if (job_.offcutsFirst)
            for (std::size_t sheet : supply.offcuts)
                for (int i = 0; i < job_.sheets[sheet].count.value_or(1); ++i) open(sheet);
    }

    Attempt run(const std::vector<BlockPtr>& blocks) {
        Attempt attempt;
        for (const BlockPtr& block : blocks) place(block, attempt);
        for (Bin& bin : bins_)
            if (bin.used) attempt.layouts.push_back(layoutOf(bin, attempt));
        return attempt;
    }

private:
    struct Spot {
        int bin = -1;
        int node = -1;
        bool turned = false;
        double score = 1e300;
    };

    void open(std::size_t sheet) {
        Bin bin;
        bin.sheet = sheet;
        Node root;
        root.at = usable(job_.sheets[sheet], job_);
        bin.nodes.push_back(root);
        bin.free.push_back(0);
        bins_.push_back(std::move(bin));
        ++taken_[sheet];
    }

    static bool fits(const CutRect& rect, double width, double length) {
        return width <= rect.width + tiny && length <= rect.length + tiny;
    }

    double score(const CutRect& rect, double width, double length) const {
        const double x = rect.width - width;
        const double y = rect.length - length;
        switch (strategy_.fit) {
        case Fit::leastArea:
            return rect.width * rect.length - width * length + 1e-3 * std::min(x, y);
        case Fit::shortSide:
            return std::min(x, y) + 1e-3 * std::max(x, y);
        case Fit::longSide:
            break;
        }
        return std::max(x, y) + 1e-3 * std::min(x, y);
    }

    Spot bestSpot(const Block& block) const {
        Spot best;
        for (std::size_t b = 0; b < bins_.size(); ++b) {
            // Off-cuts stand first; a full sheet is looked at only when none of them has room.
            if (best.bin >= 0 && job_.offcutsFirst
                && job_.sheets[bins_[static_cast<std::size_t>(best.bin)].sheet].offcut
                && !job_.sheets[bins_[b].sheet].offcut)
                break;
            for (int node : bins_[b].free) {
                const CutRect& rect = bins_[b].nodes[static_cast<std::size_t>(node)].at;
                for (bool turn : {false, true}) {
                    if (turn && !block.mayTurn) continue;
                    const double width = turn ? block.length : block.width;
                    const double length = turn ? block.width : block.length;
                    if (!fits(rect, width, length)) continue;
                    const double s = score(rect, width, length);
                    if (s < best.score) best = {static_cast<int>(b), node, turn, s};
                }
            }
        }
        return best;
    }

    /// Another sheet that takes the block; false when there is none left.
    bool openFor(const Block& block) {
        std::optional<std::size_t> chosen;
        const auto consider = [&](std::size_t sheet) {
            const CutSheet& at = job_.sheets[sheet];
            if (taken_[sheet] >= at.count.value_or(at.offcut ? 1 : 1'000'000)) return;
            const CutRect room = usable(at, job_);
            if (!fits(room, block.width, block.length)
                && !(block.mayTurn && fits(room, block.length, block.width)))
                return;
            const auto area = [&](std::size_t s) { return job_.sheets[s].widthMm * job_.sheets[s].lengthMm; };
            if (!chosen
                || (strategy_.largestSheet ? area(sheet) > area(*chosen) : area(sheet) < area(*chosen)))
                chosen = sheet;
        };
        if (!job_.offcutsFirst)
            for (std::size_t sheet : supply_.offcuts) consider(sheet);
        for (std::size_t sheet : supply_.full) consider(sheet);
        if (!chosen) return false;
        open(*chosen);
        return true;
    }

    void place(const BlockPtr& block, Attempt& attempt) {
        Spot spot = bestSpot(*block);
        if (spot.bin < 0 && openFor(*block)) spot = bestSpot(*block);
        if (spot.bin >= 0) {
            lay(bins_[static_cast<std::size_t>(spot.bin)], spot.node, spot.turned ? turned(block) : block);
        } else if (block->first) { // too large together: apart they may still find room
            place(block->first, attempt);
            place(block->second, attempt);
        } else {
            attempt.missing.push_back(block->piece);
        }
    }

    bool downwardsFirst(const CutRect& rect, const Block& block) const {
        const double x = rect.width - block.width;
        const double y = rect.length - block.length;
        if (x <= tiny) return false;
        if (y <= tiny) return true;
        switch (strategy_.split) {
        case Split::shorterLeft:
            return x > y;
        case Split::longerLeft:
            return x <= y;
        case Split::keepWide:
            return false;
        case Split::keepLong:
            break;
        }
        return true;
    }

    /// Cuts a node at `size` from its left or upper edge; the near part keeps `size`. Returns the near part.
    int cut(Bin& bin, int index, bool downwards, double size) {
        const CutRect rect = bin.nodes[static_cast<std::size_t>(index)].at;
        const double rest = (downwards ? rect.width : rect.length) - size;
        if (rest <= tiny) return index;
        Node near;
        near.at = downwards ? CutRect{rect.x, rect.y, size, rect.length}
                            : CutRect{rect.x, rect.y, rect.width, size};
        const double left = rest - job_.kerfMm;
        const int first = static_cast<int>(bin.nodes.size());
        bin.nodes.push_back(near);
        int second = -1;
        if (left > tiny) {
            Node far;
            far.at = downwards ? CutRect{rect.x + size + job_.kerfMm, rect.y, left, rect.length}
                               : CutRect{rect.x, rect.y + size + job_.kerfMm, rect.width, left};
            second = static_cast<int>(bin.nodes.size());
            bin.nodes.push_back(far);
            bin.free.push_back(second);
        }
        Node& parent = bin.nodes[static_cast<std::size_t>(index)];
        parent.cut = true;
        parent.downwards = downwards;
        parent.cutAt = (downwards ? rect.x : rect.y) + size;
        parent.first = first;
        parent.second = second;
        return first;
    }

    void lay(Bin& bin, int index, const BlockPtr& block) {
        bin.used = true;
        bin.free.erase(std::find(bin.free.begin(), bin.free.end(), index));
        const bool downwards = downwardsFirst(bin.nodes[static_cast<std::size_t>(index)].at, *block);
        int at = cut(bin, index, downwards, downwards ? block->width : block->length);
        at = cut(bin, at, !downwards, downwards ? block->length : block->width);
        takeApart(bin, at, block);
    }

    /// Cuts a laid block into its pieces.
    void takeApart(Bin& bin, int index, const BlockPtr& block) {
        if (!block->first) {
            bin.nodes[static_cast<std::size_t>(index)].block = block;
            return;
        }
        const bool downwards = block->downwards;
        const int near = cut(bin, index, downwards, downwards ? block->first->width : block->first->length);
        const int far = bin.nodes[static_cast<std::size_t>(index)].second;
        bin.free.erase(std::find(bin.free.begin(), bin.free.end(), far));
        for (const auto& [node, part] : {std::pair{near, block->first}, std::pair{far, block->second}})
            takeApart(bin, cut(bin, node, !downwards, downwards ? part->length : part->width), part);
    }

    void collect(const Bin& bin, int index, CutLayout& layout) const {
        if (index < 0) return;
        const Node& node = bin.nodes[static_cast<std::size_t>(index)];
        if (node.cut) {
            layout.cuts.push_back({node.at, node.downwards, node.cutAt});
            collect(bin, node.first, layout);
            collect(bin, node.second, layout);
        } else if (node.block) {
            layout.placements.push_back({node.block->piece, node.at, node.block->turned});
        } else {
            layout.offcuts.push_back(node.at);
        }
    }

    CutLayout layoutOf(const Bin& bin, Attempt& attempt) const {
        const CutSheet& sheet = job_.sheets[bin.sheet];
        CutLayout layout;
        layout.sheet = bin.sheet;
        trim(sheet, layout);
        collect(bin, 0, layout);
        const auto area = [](const CutRect& rect) { return rect.width * rect.length; };
        std::sort(layout.offcuts.begin(), layout.offcuts.end(),
                  [&](const CutRect& a, const CutRect& b) { return area(a) > area(b); });
        attempt.sheetMm2 += sheet.widthMm * sheet.lengthMm;
        if (!(sheet.offcut && job_.offcutsFirst))
            ++attempt.sheets;
        else
            for (const CutPlacement& placement : layout.placements)
                attempt.fromOffcutsMm2 += area(placement.at);
        if (!layout.offcuts.empty())
            attempt.largestOffcutMm2 = std::max(attempt.largestOffcutMm2, area(layout.offcuts.front()));
        return layout;
    }

    /// The cuts that take off a full sheet's unusable edges, each from edge to edge of what is left.
    void trim(const CutSheet& sheet, CutLayout& layout) const {
        const CutRect room = usable(sheet, job_);
        if (room.x <= tiny) return;
        const double kerf = job_.kerfMm;
        CutRect left{0, 0, sheet.widthMm, sheet.lengthMm};
        layout.cuts.push_back({left, true, room.x - kerf});
        left = {room.x, 0, left.width - room.x, left.length};
        layout.cuts.push_back({left, true, room.x + room.width});
        left.width = room.width;
        layout.cuts.push_back({left, false, room.y - kerf});
        left = {room.x, room.y, room.width, left.length - room.y};
        layout.cuts.push_back({left, false, room.y + room.length});
    }

    const CutJob& job_;
    const Supply& supply_;
    Strategy strategy_;
    std::vector<int> taken_; ///< by sheet index
    std::vector<Bin> bins_;
};

} // namespace

BlockPtr single(std::size_t piece, double width, double length, bool mayTurn) {
    auto block = std::make_shared<Block>();
    block->piece = piece;
    block->width = width;
    block->length = length;
    block->mayTurn = mayTurn;
    return block;
}

BlockPtr turned(const BlockPtr& block) {
    auto made = std::make_shared<Block>(*block);
    std::swap(made->width, made->length);
    made->turned = !made->turned;
    if (made->first) {
        made->downwards = !made->downwards;
        made->first = turned(made->first);
        made->second = turned(made->second);
    }
    return made;
}

BlockPtr joined(const BlockPtr& a, const BlockPtr& b, bool downwards, double kerf) {
    auto block = std::make_shared<Block>();
    block->downwards = downwards;
    block->first = a;
    block->second = b;
    block->mayTurn = a->mayTurn && b->mayTurn;
    block->width = downwards ? a->width + kerf + b->width : std::max(a->width, b->width);
    block->length = downwards ? std::max(a->length, b->length) : a->length + kerf + b->length;
    return block;
}

CutRect usable(const CutSheet& sheet, const CutJob& job) {
    // An off-cut's edges are fresh cuts. The trimming cut itself lies in the margin.
    const double margin = sheet.offcut || job.marginMm <= 0 ? 0 : std::max(job.marginMm, job.kerfMm);
    return {margin, margin, sheet.widthMm - 2 * margin, sheet.lengthMm - 2 * margin};
}

bool Attempt::betterThan(const Attempt& other) const {
    const auto rank = [](const Attempt& a) {
        return std::tuple(a.missing.size(), a.sheets, -std::round(a.fromOffcutsMm2 * 1e3),
                          std::round(a.sheetMm2 * 1e3), -a.largestOffcutMm2);
    };
    return rank(*this) < rank(other);
}

Attempt pack(const Supply& supply, const std::vector<BlockPtr>& blocks, const Strategy& strategy) {
    return Packer(supply, strategy).run(blocks);
}

} // namespace ibuki::cutting
