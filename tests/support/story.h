// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A small study for tests: one bench, three materials, simulated logs.

#include "core/domain/lookup.h"
#include "core/domain/study.h"
#include "core/evidence/response.h"
#include "core/import/import.h"
#include "core/reduce/reduce.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"
#include "core/simulate/simulated_bench.h"
#include "support/entities.h"

namespace ibuki::story {

inline const std::vector<std::pair<std::string, double>> materials{
    {"Tern 11", 0.010}, {"Plover 4", 0.026}, {"Dunlin C", 0.060}};

struct Asked {
    Document document;
    Id<Bench> bench;
    Id<Study> study;
};

inline Asked ask() {
    Asked asked;
    Edit edit(asked.document, "ask");
    asked.bench = addBench(edit, BenchTemplate::liddedChip, "node-2");
    std::vector<Id<Material>> ids;
    for (const auto& [name, resistance] : materials) {
        ids.push_back(edit.add(materialNamed(name)));
        edit.add(lotOf(ids.back(), name + ", tube"));
    }
    asked.study = addStudy(edit, {StudyTemplate::rankMaterials, asked.bench, "Three pastes", ids}, {});
    apply(asked.document, edit.finish());
    return asked;
}

inline Trace trace(const std::string& material, int mount, double extraKPerW = 0) {
    SimulatedBench bench;
    for (const auto& [name, resistance] : materials)
        if (name == material) bench.interfaceKPerW = resistance + 0.0012 * (mount - 2) + extraKPerW;
    SimulatedProtocol protocol;
    protocol.loadS = 900;
    protocol.intervalS = 2;
    protocol.start = *makeInstant(2031, 3, 4 + static_cast<unsigned>(mount),
                                  3'600'000LL * static_cast<long long>(10 + material.size() % 7));
    return simulate(bench, protocol, material.size() * 100 + static_cast<std::uint64_t>(mount)).trace;
}

inline std::string fileName(const std::string& material, int mount) {
    std::string name = material + "_" + std::to_string(mount) + ".csv";
    for (char& c : name) c = c == ' ' ? '-' : static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return name;
}

/// Three logs of each material, read and reduced.
inline std::vector<ImportedLog> nineLogs() {
    std::vector<ImportedLog> logs;
    for (int mount = 1; mount <= 3; ++mount)
        for (const auto& [name, resistance] : materials) {
            ImportedLog log;
            log.fileName = fileName(name, mount);
            log.sha256 = log.fileName;
            log.trace = trace(name, mount);
            log.reduction = reduceByEveryMetric(log.trace);
            logs.push_back(std::move(log));
        }
    return logs;
}

/// Simulated and reduced once a program; each test has a copy of its own.
inline Asked measured() {
    static const Asked once = [] {
        Asked asked = ask();
        const auto logs = nineLogs();
        apply(asked.document, importChanges(asked.document, asked.study, logs,
                                            proposeImport(asked.document, asked.study, logs))
                                  .set);
        return asked;
    }();
    return once;
}

} // namespace ibuki::story
