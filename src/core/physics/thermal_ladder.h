// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cauer ladder from chip to room: node i has a capacity to thermal ground and a resistance to node i + 1, the
// last one to the room (Incropera & DeWitt, ch. 5). Stepped exactly for inputs constant over the step:
// T⁺ = T_ss + C^{-½} V e^{−ΛΔt} Vᵀ C^{½} (T − T_ss) with A = C^{-½} G C^{-½} = V Λ Vᵀ.

#include <memory>
#include <vector>

namespace ibuki {

struct LadderNode {
    double capacityJPerK = 0; ///< > 0
    double toNextKPerW = 0;   ///< > 0; of the last node: to the room
};

class ThermalLadder {
public:
    /// Throws InputError when there is no node or a value is not above 0.
    ThermalLadder(const std::vector<LadderNode>& nodes, double stepS);
    ~ThermalLadder();
    ThermalLadder(const ThermalLadder& other); ///< with its temperatures
    ThermalLadder(ThermalLadder&&) noexcept;
    ThermalLadder& operator=(ThermalLadder&&) noexcept;

    /// All nodes at their steady temperatures for this power into node 0. alsoW: into each node besides.
    void settle(double powerW, double ambientC, const std::vector<double>& alsoW = {});
    /// One step of stepS with power and room held.
    void step(double powerW, double ambientC, const std::vector<double>& alsoW = {});
    /// Other resistances or capacities from now on; the nodes keep their temperatures. As many nodes.
    void relink(const std::vector<LadderNode>& nodes);

    double chipC() const { return nodeC(0); }
    double nodeC(std::size_t node) const;
    double totalKPerW() const;
    double slowestS() const; ///< the longest time constant

private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace ibuki
