// SPDX-License-Identifier: GPL-3.0-or-later
// What the heat path costs: the chain behind a slider, the conduction field beside Eigen's conjugate
// gradients with incomplete Cholesky and beside plain sweeps over the same memory, calibration and its draws,
// load steps, rehearsed campaigns. bench-heat [CELLS]

#include "core/base/thread_team.h"
#include "core/comparison/curve_test.h"
#include "core/heat/bursts.h"
#include "core/heat/calibration_draws.h"
#include "core/heat/step_response.h"
#include "core/heat/what_if.h"
#include "core/physics/column_system.h"
#include "core/physics/conduction_field.h"
#include "core/plan/rehearsal.h"
#include "core/reduce/reduce.h"
#include "core/simulate/simulated_bench.h"
#include "support/seconds.h"

#include <Eigen/IterativeLinearSolvers>
#include <Eigen/SparseCore>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>

using namespace ibuki;

namespace {

/// Die, lid and plate on n × n × 16 cells, a quarter of the joint bare.
ColumnSystem lidded(int n) {
    const double cell = 64.0 / n, area = cell * cell;
    ColumnSystem s(std::vector<double>(static_cast<std::size_t>(n), cell),
                   std::vector<double>(static_cast<std::size_t>(n), cell), 16);
    const auto solidOf = [](int z) { return z < 4 ? 0 : z < 9 ? 1 : 2; };
    const double height[] = {0.775 / 4, 0.5, 3.0 / 7}, k[] = {0.115, 0.39, 0.39}, half[] = {10, 20, 32};
    const auto isIn = [&](int i, int z) { return std::abs((i + 0.5) * cell - 32) < half[solidOf(z)]; };
    for (int z = 0; z < 16; ++z)
        for (int y = 0; y < n; ++y)
            for (int x = 0; x < n; ++x) {
                if (!isIn(x, z) || !isIn(y, z)) continue;
                const int of = solidOf(z);
                const std::size_t i = s.at(x, y, z);
                if (x + 1 < n && isIn(x + 1, z)) s.gx[i] = k[of] * height[of];
                if (y + 1 < n && isIn(y + 1, z)) s.gy[i] = k[of] * height[of];
                if (z + 1 < 16 && isIn(x, z + 1) && isIn(y, z + 1)) {
                    const int next = solidOf(z + 1);
                    const double joint = of == next               ? 0
                                         : of == 0                ? 4.667
                                         : x > n / 2 && y > n / 2 ? 1000
                                                                  : 10;
                    s.gz[i] = area / (height[of] / (2 * k[of]) + joint + height[next] / (2 * k[next]));
                }
                if (z == 15) s.out[i] = area / (height[2] / (2 * k[2]) + 0.12 * 4096);
                if (z == 0) s.heat[i] = 150 * area / 400;
            }
    return s;
}

/// The same equations, without the cells that do not exist.
void byEigen(const ColumnSystem& s, double& seconds, long& iterations) {
    std::vector<int> number(s.cells(), -1);
    int unknowns = 0;
    const auto couples = [&](std::size_t i) {
        return s.gx[i] + s.gy[i] + s.gz[i] + s.out[i] + s.heat[i] > 0;
    };
    for (std::size_t i = 0; i < s.cells(); ++i)
        if (couples(i)) number[i] = unknowns++;
    std::vector<Eigen::Triplet<double>> all;
    Eigen::VectorXd b = Eigen::VectorXd::Zero(unknowns);
    const auto couple = [&](std::size_t i, std::size_t j, double g) {
        if (g == 0) return;
        for (const auto& [row, column, value] : {std::tuple{i, i, g}, {j, j, g}, {i, j, -g}, {j, i, -g}})
            all.emplace_back(number[row], number[column], value);
    };
    for (int z = 0; z < s.nz; ++z)
        for (int y = 0; y < s.ny; ++y)
            for (int x = 0; x < s.nx; ++x) {
                const std::size_t i = s.at(x, y, z);
                if (number[i] < 0) continue;
                if (s.gx[i] > 0) couple(i, s.at(x + 1, y, z), s.gx[i]);
                if (s.gy[i] > 0) couple(i, s.at(x, y + 1, z), s.gy[i]);
                if (s.gz[i] > 0) couple(i, s.at(x, y, z + 1), s.gz[i]);
                if (s.out[i] > 0) all.emplace_back(number[i], number[i], s.out[i]);
                b[number[i]] = s.heat[i];
            }
    Eigen::SparseMatrix<double> a(unknowns, unknowns);
    a.setFromTriplets(all.begin(), all.end());
    const auto begin = std::chrono::steady_clock::now();
    Eigen::ConjugateGradient<Eigen::SparseMatrix<double>, Eigen::Lower, Eigen::IncompleteCholesky<double>>
        solver;
    solver.setTolerance(1e-8);
    solver.setMaxIterations(5'000);
    solver.compute(a);
    const Eigen::VectorXd x = solver.solve(b);
    seconds = secondsSince(begin) + 0 * x[0];
    iterations = solver.iterations();
}

void field(int n) {
    const ColumnSystem system = lidded(n);
    ThreadTeam team;
    ColumnSolveOptions options;
    options.tolerance = 1e-8;
    ColumnSolution found;
    const double own = bestSeconds(3, [&] { found = solveColumns(system, team, options); });
    std::vector<double> from(system.cells(), 1), to(system.cells());
    const double sweep = bestSeconds(5, [&] {
        for (std::size_t i = 0; i < from.size(); ++i) to[i] = from[i] + 1.5 * system.gx[i];
    });
    double eigen = 0;
    long eigenIterations = 0;
    byEigen(system, eigen, eigenIterations);
    fmt::print("field {} x {} x 16 to 1e-8: {:.3f} s, {} iterations, residual {:.1e}, {} threads\n", n, n,
               own, found.iterations, found.residual, team.size());
    fmt::print(
        "  Eigen's conjugate gradients with incomplete Cholesky: {:.3f} s, {} iterations: {:.1f} times\n",
        eigen, eigenIterations, eigen / own);
    fmt::print("  a plain sweep over three arrays of that size: {:.4f} s, so {:.0f} sweeps\n", sweep,
               own / sweep);
}

HeatPath stack() {
    HeatPath path;
    path.powerW = 150;
    path.ambientC = 25;
    path.coolerKPerW = 0.12;
    path.solids = {
        {"die", {10, 20}, 0.775, 148, true}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
    path.interfaces = {{"die-lid", 4.667}, {"lid-plate", 10}};
    return path;
}

/// Five materials with five mounts each on the lidded stack, their scatter a percent.
Calibration calibrated() {
    CalibrationInput input;
    input.bench.path = stack();
    input.bench.path.powerW = input.bench.path.ambientC = 0; // the mounts have them
    input.bench.studied = 1;
    input.anchorMm2KPerW = 8;
    input.anchorU = 4;
    HeatPath path = stack();
    for (std::size_t g = 0; g < 5; ++g) {
        input.groups.push_back({std::string(1, static_cast<char>('A' + g)), nullptr});
        path.interfaces[1].rMm2KPerW = 8 + 4 * static_cast<double>(g);
        for (int m = 0; m < 5; ++m)
            input.mounts.push_back({Id<Mount>{static_cast<std::int64_t>(input.mounts.size()) + 1}, g,
                                    totalKPerW(path) * (1 + 0.01 * (m - 2)), 150, 22});
    }
    return calibrate(input);
}

void calibration() {
    fmt::print("calibration of 25 mounts: {:.1f} ms\n", 1e3 * bestSeconds(5, [] { (void)calibrated(); }));
    const Calibration found = calibrated();
    const double drawn = bestSeconds(3, [&] { (void)drawCalibration(found); });
    // The same by the chain itself: five secant steps for the cooler and each of five joints.
    HeatPath path = stack();
    const double chain = bestSeconds(5, [&] {
        path.interfaces[1].rMm2KPerW += 0.01;
        (void)totalKPerW(path);
    });
    fmt::print("20,000 draws of it: {:.3f} s; solved by the chain they would take {:.0f} s\n", drawn,
               20'000 * 30 * chain);
}

/// A step of ten minutes at a reading a second, another of a minute at a thousand.
void steps() {
    for (const auto& [interval, length] : {std::pair{1.0, 600.0}, std::pair{0.001, 60.0}}) {
        SimulatedProtocol protocol;
        protocol.idleS = 15;
        protocol.loadS = length;
        protocol.cooldownS = 1;
        protocol.intervalS = interval;
        const Trace trace = simulate({}, protocol, 1).trace;
        Reduction reduction;
        const double reduced = bestSeconds(2, [&] { reduction = reduce(trace); });
        const Phase load = reduction.main()->phases.at(1);
        fmt::print("{} samples: reduced in {:.1f} ms, step read in {:.2f} ms\n", trace.samples(),
                   1e3 * reduced, 1e3 * bestSeconds(3, [&] { (void)stepResponseOf(trace, {}, load); }));
    }
    std::vector<std::vector<double>> a(5, std::vector<double>(30)), b = a;
    for (std::size_t c = 0; c < 5; ++c)
        for (std::size_t p = 0; p < 30; ++p)
            a[c][p] = std::sin(static_cast<double>(7 * c + p)), b[c][p] = -a[c][p];
    fmt::print("whole curves of 5 and 5 mounts: {:.2f} ms; half an hour of bursts: {:.2f} ms\n",
               1e3 * bestSeconds(5, [&] { (void)compareCurves(a, b, 0.95); }),
               1e3 * bestSeconds(5, [] { (void)burstCurves(stack(), 540, {}); }));
}

} // namespace

int main(int argc, char** argv) {
    field(argc > 1 ? std::max(16, std::atoi(argv[1])) : 256);
    FieldOptions coarse;
    coarse.grid.cellMm = 1.5;
    fmt::print("coarse picture (1.5 mm): {:.1f} ms; at 0.5 mm: {:.0f} ms\n",
               1e3 * bestSeconds(5, [&] { (void)solveField(stack(), coarse); }),
               1e3 * bestSeconds(3, [&] { (void)solveField(stack()); }));
    double r = 10;
    fmt::print("chain behind a slider: {:.2f} ms\n", 1e3 * bestSeconds(20, [&] {
                                                         HeatPath path = stack();
                                                         path.interfaces[1].rMm2KPerW = r += 0.1;
                                                         (void)solveChain(path);
                                                     }));
    calibration();
    steps();
    RehearsalScenario scenario;
    for (const char* name : {"A", "B", "C", "D", "E"})
        scenario.materials.push_back({name, 45 + 0.3 * (*name - 'A')});
    scenario.mountSdK = 0.4;
    scenario.eveningSdK = 0.3;
    RehearsedPractice plain{.name = "plain", .mounts = 5};
    RehearsedPractice blocks = plain;
    blocks.name = "blocks";
    blocks.order = RehearsedOrder::blocks;
    blocks.model = RehearsedModel::blocks;
    for (const RehearsedPractice& practice : {plain, blocks}) {
        scenario.practices = {practice};
        fmt::print("10,000 campaigns of 5 x 5, {}: {:.3f} s\n", practice.name,
                   bestSeconds(3, [&] { (void)rehearse(scenario); }));
    }
}
