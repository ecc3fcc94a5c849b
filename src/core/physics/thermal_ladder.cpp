// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/thermal_ladder.h"

#include "core/base/input_error.h"

#include <Eigen/Dense>
#include <cmath>

namespace ibuki {

struct ThermalLadder::State {
    Eigen::MatrixXd transition; ///< of the rises over the room, one step
    Eigen::MatrixXd perWatt;    ///< steady rise of each node per W into each
    Eigen::VectorXd rise;
    double stepS = 0;
    double slowestS = 0;
    double ambientC = 0;

    Eigen::VectorXd steady(double powerW, const std::vector<double>& alsoW) const {
        Eigen::VectorXd sum = powerW * perWatt.col(0);
        for (std::size_t i = 0; i < alsoW.size(); ++i)
            if (alsoW[i] != 0) sum += alsoW[i] * perWatt.col(static_cast<Eigen::Index>(i));
        return sum;
    }
};

namespace {

Eigen::MatrixXd conductanceMatrix(const std::vector<LadderNode>& nodes) {
    const auto n = static_cast<Eigen::Index>(nodes.size());
    Eigen::MatrixXd g = Eigen::MatrixXd::Zero(n, n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const double link = 1 / nodes[static_cast<std::size_t>(i)].toNextKPerW;
        g(i, i) += link;
        if (i + 1 == n) continue;
        g(i + 1, i + 1) += link;
        g(i, i + 1) -= link;
        g(i + 1, i) -= link;
    }
    return g;
}

} // namespace

ThermalLadder::ThermalLadder(const std::vector<LadderNode>& nodes, double stepS)
    : state_(std::make_unique<State>()) {
    bool sound = !nodes.empty() && stepS > 0;
    for (const LadderNode& node : nodes) sound = sound && node.capacityJPerK > 0 && node.toNextKPerW > 0;
    if (!sound) throw InputError("ladder-values", {});
    state_->stepS = stepS;
    state_->rise = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(nodes.size()));
    relink(nodes);
}

void ThermalLadder::relink(const std::vector<LadderNode>& nodes) {
    const auto n = static_cast<Eigen::Index>(nodes.size());
    Eigen::VectorXd rootC(n);
    for (Eigen::Index i = 0; i < n; ++i)
        rootC[i] = std::sqrt(nodes[static_cast<std::size_t>(i)].capacityJPerK);
    const Eigen::MatrixXd g = conductanceMatrix(nodes);
    const Eigen::MatrixXd symmetric =
        rootC.cwiseInverse().asDiagonal() * g * rootC.cwiseInverse().asDiagonal();
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(symmetric);
    const Eigen::VectorXd decay = (-eigen.eigenvalues() * state_->stepS).array().exp();
    state_->transition = rootC.cwiseInverse().asDiagonal() * eigen.eigenvectors() * decay.asDiagonal()
                         * eigen.eigenvectors().transpose() * rootC.asDiagonal();
    state_->perWatt = g.ldlt().solve(Eigen::MatrixXd::Identity(n, n));
    state_->slowestS = 1 / eigen.eigenvalues().minCoeff();
}

ThermalLadder::~ThermalLadder() = default;
ThermalLadder::ThermalLadder(const ThermalLadder& other) : state_(std::make_unique<State>(*other.state_)) {}
ThermalLadder::ThermalLadder(ThermalLadder&&) noexcept = default;
ThermalLadder& ThermalLadder::operator=(ThermalLadder&&) noexcept = default;

void ThermalLadder::settle(double powerW, double ambientC, const std::vector<double>& alsoW) {
    state_->rise = state_->steady(powerW, alsoW);
    state_->ambientC = ambientC;
}

void ThermalLadder::step(double powerW, double ambientC, const std::vector<double>& alsoW) {
    const Eigen::VectorXd steady = state_->steady(powerW, alsoW);
    // Absolute temperatures are carried over a change of the room; only their rise is measured anew.
    state_->rise.array() += state_->ambientC - ambientC;
    state_->ambientC = ambientC;
    state_->rise = steady + state_->transition * (state_->rise - steady);
}

double ThermalLadder::nodeC(std::size_t node) const {
    return state_->ambientC + state_->rise[static_cast<Eigen::Index>(node)];
}
double ThermalLadder::totalKPerW() const { return state_->perWatt(0, 0); }
double ThermalLadder::slowestS() const { return state_->slowestS; }

} // namespace ibuki
