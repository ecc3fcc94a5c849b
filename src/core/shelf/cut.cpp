// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut.h"

#include "core/base/input_error.h"
#include "core/shelf/cut_packer.h"
#include "core/shelf/cut_puzzle.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <random>

namespace ibuki {

using namespace cutting;

namespace {

constexpr double largestMm = 100'000;
constexpr long mostPieces = 2'000; ///< of all kinds together

[[noreturn]] void refuse(const char* code, Fields fields = {}) {
    throw InputError(code, {}, std::move(fields));
}

bool fitsSheet(const CutPiece& piece, const CutSheet& sheet, const CutJob& job) {
    const CutRect room = usable(sheet, job);
    const auto fits = [&](double w, double l) { return w <= room.width + tiny && l <= room.length + tiny; };
    return fits(piece.widthMm, piece.lengthMm) || (piece.mayTurn && fits(piece.lengthMm, piece.widthMm));
}

void check(const CutJob& job) {
    if (job.pieces.empty()) refuse("cut-value");
    const auto cannotBe = [](double mm) { return !(mm >= 0 && mm <= largestMm); };
    if (cannotBe(job.kerfMm) || cannotBe(job.marginMm)) refuse("cut-value.kerf");
    long pieces = 0;
    for (const CutPiece& piece : job.pieces) pieces += std::max(0, piece.count);
    if (pieces > mostPieces || job.pieces.size() > mostPieces || job.sheets.size() > mostPieces)
        refuse("cut-value.many", {{"most", static_cast<int>(mostPieces)}});
    for (const CutSheet& sheet : job.sheets)
        if (!(sheet.widthMm > 0) || !(sheet.lengthMm > 0) || cannotBe(sheet.thicknessMm)
            || cannotBe(sheet.widthMm) || cannotBe(sheet.lengthMm))
            refuse("cut-value.sheet", {{"name", sheet.name}});
    for (const CutPiece& piece : job.pieces) {
        if (!(piece.widthMm > 0) || !(piece.lengthMm > 0) || cannotBe(piece.thicknessMm) || piece.count < 1
            || cannotBe(piece.widthMm) || cannotBe(piece.lengthMm))
            refuse("cut-value.piece", {{"name", piece.name}});
        bool sameThickness = false;
        bool fits = false;
        for (const CutSheet& sheet : job.sheets) {
            if (std::abs(sheet.thicknessMm - piece.thicknessMm) > tiny) continue;
            sameThickness = true;
            fits = fits || fitsSheet(piece, sheet, job);
        }
        if (!sameThickness)
            refuse("cut-no-sheet", {{"thicknessMm", piece.thicknessMm}, {"name", piece.name}});
        if (!fits)
            refuse("cut-piece-too-large",
                   {{"name", piece.name}, {"widthMm", piece.widthMm}, {"lengthMm", piece.lengthMm}});
    }
}

/// The pieces of one thickness as blocks, arranged anew for each attempt.
class Arrangement {
public:
    Arrangement(const CutJob& job, const Supply& supply, std::vector<std::size_t> pieces)
        : job_(job), pieces_(std::move(pieces)) {
        for (const auto* list : {&supply.offcuts, &supply.full})
            for (std::size_t sheet : *list) {
                const CutRect room = usable(job.sheets[sheet], job);
                room_.width = std::max(room_.width, room.width);
                room_.length = std::max(room_.length, room.length);
            }
        for (std::size_t piece : pieces_) {
            const CutPiece& p = job.pieces[piece];
            total_ += static_cast<std::size_t>(p.count);
            areaMm2_ += p.widthMm * p.lengthMm * p.count;
        }
    }

    std::size_t total() const { return total_; }
    double areaMm2() const { return areaMm2_; }

    /// attempt 0 to 4: plain orders; later ones mix columns, joined pairs and shaken orders.
    std::vector<BlockPtr> blocks(int attempt, Dice& dice) const {
        std::vector<BlockPtr> made;
        const int kind = attempt < 5 ? 0 : attempt % 3;
        for (std::size_t piece : pieces_) {
            if (kind == 1)
                addColumns(made, piece, dice);
            else
                addSingles(made, piece, job_.pieces[piece].count);
        }
        if (kind == 2) join(made, dice);
        sort(made, attempt < 5 ? attempt : static_cast<int>(dice.below(5)),
             attempt < 5 ? 0 : 0.35 * dice.share(), dice);
        return made;
    }

    /// Single pieces joined as a puzzle is, as far as it goes without waste.
    std::vector<BlockPtr> puzzled(Dice& dice) const {
        std::vector<BlockPtr> singles;
        for (std::size_t piece : pieces_) addSingles(singles, piece, job_.pieces[piece].count);
        std::vector<BlockPtr> made = Puzzle(singles, room_, job_.kerfMm).solve(dice);
        sort(made, 0, 0, dice);
        return made;
    }

private:
    BlockPtr one(std::size_t piece) const {
        const CutPiece& p = job_.pieces[piece];
        return single(piece, p.widthMm, p.lengthMm, p.mayTurn);
    }

    void addSingles(std::vector<BlockPtr>& made, std::size_t piece, int count) const {
        const BlockPtr block = one(piece);
        made.insert(made.end(), static_cast<std::size_t>(count), block);
    }

    /// Whole columns of a piece one way round, then columns of it the other way, then what is left.
    void addColumns(std::vector<BlockPtr>& made, std::size_t piece, Dice& dice) const {
        int left = job_.pieces[piece].count;
        BlockPtr upright = one(piece);
        if (upright->mayTurn && dice.coin()) upright = turned(upright);
        for (const BlockPtr& way : {upright, upright->mayTurn ? turned(upright) : upright}) {
            const int high =
                static_cast<int>((room_.length + job_.kerfMm + tiny) / (way->length + job_.kerfMm));
            if (high < 1) continue;
            int columns = left / high;
            if (way == upright && columns > 0)
                columns = static_cast<int>(dice.below(static_cast<std::size_t>(columns) + 1));
            for (int c = 0; c < columns; ++c) {
                BlockPtr column = way;
                for (int i = 1; i < high; ++i) column = joined(column, way, false, job_.kerfMm);
                made.push_back(column);
            }
            left -= columns * high;
        }
        addSingles(made, piece, left);
    }

    /// Joins blocks that share a side length, at random, while the result still fits a sheet.
    void join(std::vector<BlockPtr>& made, Dice& dice) const {
        const auto rounds = dice.below(2 * made.size() + 1);
        for (std::size_t round = 0; round < rounds && made.size() > 1; ++round) {
            const std::size_t i = dice.below(made.size());
            const std::size_t start = dice.below(made.size());
            for (std::size_t step = 0; step < made.size(); ++step) {
                const std::size_t j = (start + step) % made.size();
                if (j == i) continue;
                const BlockPtr both = match(made[i], made[j], dice.coin());
                if (!both) continue;
                made[std::min(i, j)] = both;
                made.erase(made.begin() + static_cast<std::ptrdiff_t>(std::max(i, j)));
                break;
            }
        }
    }

    BlockPtr match(const BlockPtr& a, BlockPtr b, bool turnFirst) const {
        for (int way = 0; way < 2; ++way) {
            if ((way == 0) == turnFirst) {
                if (!b->mayTurn) continue;
                b = turned(b);
            }
            for (bool downwards : {true, false}) {
                const bool same =
                    downwards ? std::abs(a->length - b->length) < tiny : std::abs(a->width - b->width) < tiny;
                if (!same) continue;
                BlockPtr both = joined(a, b, downwards, job_.kerfMm);
                if (fits(*both)) return both;
            }
        }
        return nullptr;
    }

    bool fits(const Block& block) const {
        const auto in = [&](double w, double l) {
            return w <= room_.width + tiny && l <= room_.length + tiny;
        };
        return in(block.width, block.length) || (block.mayTurn && in(block.length, block.width));
    }

    static double key(const Block& block, int order) {
        const double longer = std::max(block.width, block.length);
        const double shorter = std::min(block.width, block.length);
        switch (order) {
        case 0:
            return block.width * block.length;
        case 1:
            return longer + 1e-3 * shorter;
        case 2:
            return shorter + 1e-3 * longer;
        case 3:
            return block.width + 1e-3 * block.length;
        default:
            return block.length + 1e-3 * block.width;
        }
    }

    static void sort(std::vector<BlockPtr>& made, int order, double shake, Dice& dice) {
        std::vector<std::pair<double, BlockPtr>> keyed;
        keyed.reserve(made.size());
        for (BlockPtr& block : made)
            keyed.emplace_back(-key(*block, order) * (1 + shake * (dice.share() - 0.5)), std::move(block));
        std::stable_sort(keyed.begin(), keyed.end(),
                         [](const auto& a, const auto& b) { return a.first < b.first; });
        for (std::size_t i = 0; i < made.size(); ++i) made[i] = std::move(keyed[i].second);
    }

    const CutJob& job_;
    std::vector<std::size_t> pieces_;
    std::size_t total_ = 0;
    double areaMm2_ = 0;
    CutRect room_;
};

constexpr std::array allFits{Fit::leastArea, Fit::shortSide, Fit::longSide};
constexpr std::array allSplits{Split::shorterLeft, Split::longerLeft, Split::keepWide, Split::keepLong};

Attempt search(const CutJob& job, const Supply& supply, const std::vector<std::size_t>& pieces) {
    Dice dice;
    const Arrangement arrangement(job, supply, pieces);
    // So many that 60 pieces stay well within a blink; few pieces get a wider search.
    const int tries = static_cast<int>(std::min<std::size_t>(20000, 40000 / arrangement.total() + 60));
    std::optional<Attempt> best;
    const double n = static_cast<double>(arrangement.total());
    const int puzzles = static_cast<int>(std::min(8000.0, 3e7 / (n * n * n)));
    for (int i = 0; i < tries + puzzles; ++i) {
        const Strategy strategy{allFits[dice.below(allFits.size())], allSplits[dice.below(allSplits.size())],
                                dice.coin()};
        Attempt attempt =
            pack(supply, i < tries ? arrangement.blocks(i, dice) : arrangement.puzzled(dice), strategy);
        if (!best || attempt.betterThan(*best)) best = std::move(attempt);
        if (best->missing.empty() && best->sheetMm2 - arrangement.areaMm2() < 1e-6) break; // nothing is left
    }
    return std::move(*best);
}

void addTo(CutPlan& plan, const CutJob& job, Attempt attempt) {
    for (CutLayout& layout : attempt.layouts) {
        const CutSheet& sheet = job.sheets[layout.sheet];
        (sheet.offcut ? plan.offcutSheets : plan.fullSheets) += 1;
        plan.sheetMm2 += sheet.widthMm * sheet.lengthMm;
        for (const CutPlacement& placement : layout.placements)
            plan.usedMm2 += placement.at.width * placement.at.length;
        plan.layouts.push_back(std::move(layout));
    }
    std::map<std::size_t, int> missing;
    for (std::size_t piece : attempt.missing) ++missing[piece];
    plan.missing.insert(plan.missing.end(), missing.begin(), missing.end());
}

} // namespace

CutPlan planCuts(const CutJob& job) {
    check(job);
    std::map<long, std::vector<std::size_t>> byThickness; // in thousandths of a millimetre
    for (std::size_t i = 0; i < job.pieces.size(); ++i)
        byThickness[std::lround(job.pieces[i].thicknessMm * 1000)].push_back(i);
    CutPlan plan;
    for (const auto& [thickness, pieces] : byThickness) {
        Supply supply;
        supply.job = &job;
        for (std::size_t i = 0; i < job.sheets.size(); ++i)
            if (std::lround(job.sheets[i].thicknessMm * 1000) == thickness)
                (job.sheets[i].offcut ? supply.offcuts : supply.full).push_back(i);
        addTo(plan, job, search(job, supply, pieces));
    }
    return plan;
}

} // namespace ibuki
