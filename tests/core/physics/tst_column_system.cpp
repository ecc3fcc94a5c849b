// SPDX-License-Identifier: GPL-3.0-or-later
// The equations of a conduction grid against a dense matrix of them, and the multigrid cycle before them.

#include "core/base/random.h"
#include "core/base/thread_team.h"
#include "core/physics/column_multigrid.h"
#include "core/physics/column_system.h"
#include "support/near.h"
#include "support/test_class.h"

#include <Eigen/Dense>
#include <algorithm>
#include <numeric>

using namespace ibuki;

namespace {

/// Conductances over three decades, some cells missing; every column reaches the room.
ColumnSystem madeUp(Random& random, int nx, int ny, int nz) {
    const auto widths = [&](int count) {
        std::vector<double> all(static_cast<std::size_t>(count));
        for (double& one : all) one = 0.2 + random.uniform();
        return all;
    };
    ColumnSystem system(widths(nx), widths(ny), nz);
    std::vector<bool> exists(system.cells());
    for (std::size_t i = 0; i < exists.size(); ++i) exists[i] = random.uniform() > 0.15;
    const auto conductance = [&] { return std::pow(10.0, 3 * random.uniform() - 2); };
    for (int z = 0; z < nz; ++z)
        for (int y = 0; y < ny; ++y)
            for (int x = 0; x < nx; ++x) {
                const std::size_t at = system.at(x, y, z);
                if (!exists[at]) continue;
                if (x + 1 < nx && exists[system.at(x + 1, y, z)]) system.gx[at] = conductance();
                if (y + 1 < ny && exists[system.at(x, y + 1, z)]) system.gy[at] = conductance();
                if (z + 1 < nz && exists[system.at(x, y, z + 1)]) system.gz[at] = conductance();
                system.out[at] = 0.01 + 0.1 * random.uniform();
                system.heat[at] = random.uniform() < 0.3 ? random.uniform() : 0;
            }
    return system;
}

Eigen::MatrixXd dense(const ColumnSystem& system) {
    const auto n = static_cast<Eigen::Index>(system.cells());
    Eigen::MatrixXd a = Eigen::MatrixXd::Zero(n, n);
    const auto tie = [&](std::size_t i, std::size_t j, double g) {
        const auto p = static_cast<Eigen::Index>(i), q = static_cast<Eigen::Index>(j);
        a(p, p) += g;
        a(q, q) += g;
        a(p, q) -= g;
        a(q, p) -= g;
    };
    for (int z = 0; z < system.nz; ++z)
        for (int y = 0; y < system.ny; ++y)
            for (int x = 0; x < system.nx; ++x) {
                const std::size_t at = system.at(x, y, z);
                if (x + 1 < system.nx) tie(at, system.at(x + 1, y, z), system.gx[at]);
                if (y + 1 < system.ny) tie(at, system.at(x, y + 1, z), system.gy[at]);
                if (z + 1 < system.nz) tie(at, system.at(x, y, z + 1), system.gz[at]);
            }
    for (std::size_t i = 0; i < system.cells(); ++i) {
        const auto p = static_cast<Eigen::Index>(i);
        a(p, p) += system.out[i];
        if (a(p, p) == 0) a(p, p) = 1; // does not exist
    }
    return a;
}

double dot(const std::vector<double>& a, const std::vector<double>& b) {
    return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}

} // namespace

class TestColumnSystem : public QObject {
    Q_OBJECT

    static void sizes() {
        QTest::addColumn<int>("nx");
        QTest::addColumn<int>("ny");
        QTest::addColumn<int>("nz");
        QTest::newRow("one cell") << 1 << 1 << 1;
        QTest::newRow("one column") << 1 << 1 << 6;
        QTest::newRow("a row") << 9 << 1 << 1;
        QTest::newRow("a plate") << 7 << 5 << 1;
        QTest::newRow("a block") << 6 << 5 << 4;
        QTest::newRow("wider") << 11 << 8 << 3;
    }

private slots:
    void everyCellIsWhatTheDenseMatrixSays_data() { sizes(); }
    void everyCellIsWhatTheDenseMatrixSays() {
        QFETCH(int, nx);
        QFETCH(int, ny);
        QFETCH(int, nz);
        Random random(41);
        ThreadTeam team(2);
        for (int trial = 0; trial < 8; ++trial) {
            const ColumnSystem system = madeUp(random, nx, ny, nz);
            const Eigen::VectorXd expected = dense(system).ldlt().solve(Eigen::Map<const Eigen::VectorXd>(
                system.heat.data(), static_cast<Eigen::Index>(system.cells())));
            const ColumnSolution found = solveColumns(system, team);
            QVERIFY(!found.cancelled);
            QVERIFY(found.residual <= 1e-10);
            const double most = expected.cwiseAbs().maxCoeff();
            for (std::size_t i = 0; i < system.cells(); ++i)
                QVERIFY_NEAR(found.rise[i], expected(static_cast<Eigen::Index>(i)), 1e-7 * (most + 1e-12));
        }
    }
    void whatIsHeatedLeaves() { // Σ out · rise = Σ heat
        Random random(42);
        ThreadTeam team(2);
        const ColumnSystem system = madeUp(random, 20, 15, 5);
        const ColumnSolution found = solveColumns(system, team);
        const double in = std::accumulate(system.heat.begin(), system.heat.end(), 0.0);
        QVERIFY(in > 0);
        QVERIFY_REL(dot(system.out, found.rise), in, 1e-7);
        QVERIFY(*std::min_element(found.rise.begin(), found.rise.end()) > -1e-9); // heat makes nothing colder
    }
    void heatAddsUp() { // the rise of two sources is the sum of their rises
        Random random(43);
        ThreadTeam team(1);
        ColumnSystem one = madeUp(random, 8, 6, 3);
        ColumnSystem other = one, both = one;
        for (std::size_t i = 0; i < one.cells(); ++i) {
            other.heat[i] = one.out[i] > 0 ? random.uniform() : 0;
            both.heat[i] = one.heat[i] + other.heat[i];
        }
        const auto a = solveColumns(one, team), b = solveColumns(other, team), sum = solveColumns(both, team);
        for (std::size_t i = 0; i < one.cells(); ++i)
            QVERIFY_NEAR(sum.rise[i], a.rise[i] + b.rise[i], 1e-6 * (1 + sum.rise[i]));
    }
    void theNumberOfThreadsChangesNoFigure() {
        Random random(44);
        const ColumnSystem system = madeUp(random, 17, 13, 4);
        ThreadTeam one(1), three(3);
        const auto a = solveColumns(system, one), b = solveColumns(system, three);
        for (std::size_t i = 0; i < system.cells(); ++i)
            QVERIFY_NEAR(a.rise[i], b.rise[i], 1e-7 * (1 + std::abs(a.rise[i])));
    }
    void
    theCycleIsSymmetricAndPositive() { // what conjugate gradients ask of it: (u, Mv) = (v, Mu), (u, Mu) > 0
        Random random(45);
        ThreadTeam team(2);
        for (int trial = 0; trial < 6; ++trial) {
            const ColumnSystem system = madeUp(random, 9, 7, 4);
            ColumnMultigrid multigrid(system, team);
            std::vector<double> u(system.cells()), v(system.cells()), mu(system.cells()), mv(system.cells());
            for (std::size_t i = 0; i < u.size(); ++i) {
                const bool exists = system.out[i] > 0;
                u[i] = exists ? random.normal() : 0;
                v[i] = exists ? random.normal() : 0;
            }
            multigrid.apply(u, mu);
            multigrid.apply(v, mv);
            const double scale = std::sqrt(dot(u, mu) * dot(v, mv));
            QVERIFY(dot(u, mu) > 0);
            QVERIFY_NEAR(dot(u, mv), dot(v, mu), 1e-4 * scale); // single precision
        }
    }
    void whoStopsItGetsNoFigures() {
        Random random(46);
        ThreadTeam team(1);
        std::stop_source stop;
        stop.request_stop();
        ColumnSolveOptions options;
        options.stop = stop.get_token();
        QVERIFY(solveColumns(madeUp(random, 9, 7, 4), team, options).cancelled);
    }
    void progressGrowsToItsEnd() {
        Random random(47);
        ThreadTeam team(1);
        std::vector<double> seen;
        ColumnSolveOptions options;
        options.progress = [&](double share) { seen.push_back(share); };
        solveColumns(madeUp(random, 30, 25, 4), team, options);
        QVERIFY(!seen.empty());
        for (const double share : seen) QVERIFY(share >= 0 && share <= 1);
        QVERIFY(seen.back() >= seen.front());
    }
};

IBUKI_TEST(TestColumnSystem)
#include "tst_column_system.moc"
