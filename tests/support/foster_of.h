// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The way back from a ladder to its terms, by eigenvalues: the second road that cauerOf is held to.

#include "core/physics/foster.h"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>

namespace ibuki {

/// The terms seen at the first node, slowest first. Throws InputError as ThermalLadder does.
inline std::vector<FosterTerm> fosterOf(const std::vector<LadderNode>& nodes) {
    const ThermalLadder refusesWhatIsNone(nodes, 1);
    const auto n = static_cast<Eigen::Index>(nodes.size());
    Eigen::VectorXd diagonal(n), beside(std::max<Eigen::Index>(n - 1, 0));
    for (Eigen::Index i = 0; i < n; ++i) {
        const LadderNode& node = nodes[static_cast<std::size_t>(i)];
        double conductance = 1 / node.toNextKPerW;
        if (i > 0) conductance += 1 / nodes[static_cast<std::size_t>(i - 1)].toNextKPerW;
        diagonal[i] = conductance / node.capacityJPerK;
        if (i + 1 < n)
            beside[i] =
                -1 / node.toNextKPerW
                / std::sqrt(node.capacityJPerK * nodes[static_cast<std::size_t>(i + 1)].capacityJPerK);
    }
    Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver;
    solver.computeFromTridiagonal(diagonal, beside);
    std::vector<FosterTerm> terms;
    for (Eigen::Index i = 0; i < n; ++i) {
        const double v = solver.eigenvectors()(0, i), tau = 1 / solver.eigenvalues()[i];
        terms.push_back({v * v * tau / nodes[0].capacityJPerK, tau});
    }
    return terms;
}

} // namespace ibuki
