// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Putting pieces together as one does a puzzle: two that share a side become one, without waste, until
// nothing fits any more. Finds the way back for a sheet that was cut up; planCuts tries it many times.

#include "core/shelf/cut_packer.h"

#include <random>

namespace ibuki::cutting {

/// Draws without the library's distributions, which differ between machines.
class Dice {
public:
    bool coin() { return (engine_() >> 40U) % 2 == 0; }
    std::size_t below(std::size_t n) { return n == 0 ? 0 : (engine_() >> 11U) % n; }
    double share() { return static_cast<double>(engine_() >> 11U) * 0x1p-53; }

private:
    std::mt19937_64 engine_{20310304};
};

/// Sides are compared in thousandths of a millimetre.
class Puzzle {
public:
    /// room: the largest rectangle that a block may fill.
    Puzzle(const std::vector<BlockPtr>& blocks, const CutRect& room, double kerfMm);

    std::vector<BlockPtr> solve(Dice& dice);

private:
    struct Tile {
        BlockPtr block;
        long width = 0;
        long length = 0;
    };
    struct Join {
        std::size_t a = 0;
        std::size_t b = 0;
        bool turnA = false;
        bool turnB = false;
        bool downwards = true;
        long sum = 0; ///< of the sides that are not shared, with the kerf
    };
    struct Side {
        long length = 0;
        std::size_t tile = 0;
        bool isWidth = false;
    };

    void listSides();
    template <class Use> void eachJoin(const Side& one, const Side& other, Use&& use) const;
    std::optional<Join> draw(Dice& dice) const;
    void carryOut(const Join& join);
    bool isKnown(long side) const; ///< some tile or the sheet has it
    bool fits(long width, long length, bool mayTurn) const;

    std::vector<Tile> tiles_;
    std::vector<Side> sides_; ///< of all tiles, by length
    long roomWidth_;
    long roomLength_;
    double kerfMm_;
    long kerf_;
};

} // namespace ibuki::cutting
