// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut_puzzle.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace ibuki::cutting {
namespace {

long thousandths(double mm) { return std::lround(mm * 1000); }

} // namespace

Puzzle::Puzzle(const std::vector<BlockPtr>& blocks, const CutRect& room, double kerfMm)
    : roomWidth_(thousandths(room.width)),
      roomLength_(thousandths(room.length)),
      kerfMm_(kerfMm),
      kerf_(thousandths(kerfMm)) {
    for (const BlockPtr& block : blocks)
        tiles_.push_back({block, thousandths(block->width), thousandths(block->length)});
}

void Puzzle::listSides() {
    sides_.clear();
    for (std::size_t i = 0; i < tiles_.size(); ++i) {
        sides_.push_back({tiles_[i].width, i, true});
        if (tiles_[i].length != tiles_[i].width) sides_.push_back({tiles_[i].length, i, false});
    }
    std::sort(sides_.begin(), sides_.end(), [](const Side& a, const Side& b) {
        return std::tie(a.length, a.tile, a.isWidth) < std::tie(b.length, b.tile, b.isWidth);
    });
}

bool Puzzle::isKnown(long side) const {
    const auto found = std::lower_bound(sides_.begin(), sides_.end(), side,
                                        [](const Side& one, long length) { return one.length < length; });
    return (found != sides_.end() && found->length == side) || side == roomWidth_ || side == roomLength_;
}

bool Puzzle::fits(long width, long length, bool mayTurn) const {
    return (width <= roomWidth_ && length <= roomLength_)
           || (mayTurn && length <= roomWidth_ && width <= roomLength_);
}

/// Both ways of laying the two along their shared side: beside each other, and below each other where one
/// may not turn (else the pair can be turned as a whole).
template <class Use> void Puzzle::eachJoin(const Side& one, const Side& other, Use&& use) const {
    const Tile& a = tiles_[one.tile];
    const Tile& b = tiles_[other.tile];
    const bool mayTurn = a.block->mayTurn && b.block->mayTurn;
    const long sum = (one.isWidth ? a.length : a.width) + kerf_ + (other.isWidth ? b.length : b.width);
    for (const bool downwards : {true, false}) {
        if (mayTurn && !downwards) continue;
        const Join join{one.tile,  other.tile, one.isWidth == downwards, other.isWidth == downwards,
                        downwards, sum};
        if ((join.turnA && !a.block->mayTurn) || (join.turnB && !b.block->mayTurn)) continue;
        if (downwards ? fits(sum, one.length, mayTurn) : fits(one.length, sum, mayTurn)) use(join);
    }
}

/// One of all possible joins, the likelier the fewer tiles share the side: what only two share was one cut.
/// Likelier still when some tile or the sheet has the other side, too.
std::optional<Puzzle::Join> Puzzle::draw(Dice& dice) const {
    std::optional<Join> chosen;
    double total = 0;
    for (std::size_t begin = 0, end = 0; begin < sides_.size(); begin = end) {
        while (end < sides_.size() && sides_[end].length == sides_[begin].length) ++end;
        const auto others = static_cast<double>(end - begin - 1);
        for (std::size_t i = begin; i < end; ++i)
            for (std::size_t j = i + 1; j < end; ++j)
                eachJoin(sides_[i], sides_[j], [&](const Join& join) {
                    const double weight = (isKnown(join.sum) ? 4 : 1) / (others * others * others);
                    total += weight;
                    if (dice.share() * total < weight) chosen = join;
                });
    }
    return chosen;
}

void Puzzle::carryOut(const Join& join) {
    const auto part = [&](std::size_t tile, bool turn) {
        return turn ? turned(tiles_[tile].block) : tiles_[tile].block;
    };
    const BlockPtr both = joined(part(join.a, join.turnA), part(join.b, join.turnB), join.downwards, kerfMm_);
    tiles_[std::min(join.a, join.b)] = {both, thousandths(both->width), thousandths(both->length)};
    tiles_.erase(tiles_.begin() + static_cast<std::ptrdiff_t>(std::max(join.a, join.b)));
}

std::vector<BlockPtr> Puzzle::solve(Dice& dice) {
    while (tiles_.size() > 1) {
        listSides();
        const auto join = draw(dice);
        if (!join) break;
        carryOut(*join);
    }
    std::vector<BlockPtr> made;
    for (const Tile& tile : tiles_) made.push_back(tile.block);
    return made;
}

} // namespace ibuki::cutting
