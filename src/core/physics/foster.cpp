// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/foster.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

/// Jacobi matrix: diagonal, and squares of what stands beside it (the first is 1).
struct Jacobi {
    std::vector<double> diagonal;
    std::vector<double> besideSquared;
};

/// Takes one eigenvalue with its weight into the leading `size` rows.
void rotateIn(Jacobi& j, std::size_t size, double eigenvalue, double weight) {
    double gamma = 1, sigma = 0, shift = 0, carried = weight;
    for (std::size_t i = 0; i <= size; ++i) {
        const double rho = j.besideSquared[i] + carried;
        const double beside = gamma * rho;
        const double before = sigma;
        gamma = rho > 0 ? j.besideSquared[i] / rho : 1;
        sigma = rho > 0 ? carried / rho : 0;
        const double next = sigma * (j.diagonal[i] - eigenvalue) - gamma * shift;
        j.diagonal[i] -= next - shift;
        shift = next;
        carried = sigma > 0 ? shift * shift / sigma : before * j.besideSquared[i];
        j.besideSquared[i] = beside;
    }
}

Jacobi jacobiOf(const std::vector<FosterTerm>& terms) {
    double sum = 0;
    for (const FosterTerm& term : terms) sum += term.kPerW / term.tauS;
    Jacobi j{std::vector<double>(terms.size()), std::vector<double>(terms.size(), 0.0)};
    for (std::size_t i = 0; i < terms.size(); ++i) j.diagonal[i] = 1 / terms[i].tauS;
    j.besideSquared[0] = terms[0].kPerW / terms[0].tauS / sum;
    for (std::size_t i = 1; i < terms.size(); ++i)
        rotateIn(j, i, 1 / terms[i].tauS, terms[i].kPerW / terms[i].tauS / sum);
    return j;
}

} // namespace

double impedanceAt(std::span<const FosterTerm> terms, double timeS) {
    double z = 0;
    for (const FosterTerm& term : terms) z -= term.kPerW * std::expm1(-timeS / term.tauS);
    return z;
}

std::vector<LadderNode> cauerOf(std::vector<FosterTerm> terms) {
    std::sort(terms.begin(), terms.end(),
              [](const FosterTerm& a, const FosterTerm& b) { return a.tauS < b.tauS; }); // keeps most digits
    bool passive = !terms.empty();
    double sum = 0;
    for (std::size_t i = 0; i < terms.size(); ++i) {
        passive = passive && terms[i].kPerW > 0 && terms[i].tauS > 0 && std::isfinite(terms[i].tauS)
                  && (i == 0 || terms[i].tauS > terms[i - 1].tauS);
        sum += terms[i].kPerW / terms[i].tauS;
    }
    if (!passive) throw InputError("foster-passive", {});
    const Jacobi j = jacobiOf(terms);
    std::vector<LadderNode> nodes(terms.size());
    double conductance = 0;
    for (std::size_t i = 0; i < nodes.size(); ++i) {
        const double capacity =
            i == 0 ? 1 / sum : conductance * conductance / (j.besideSquared[i] * nodes[i - 1].capacityJPerK);
        conductance = j.diagonal[i] * capacity - conductance;
        nodes[i] = {capacity, 1 / conductance};
    }
    return nodes;
}

} // namespace ibuki
