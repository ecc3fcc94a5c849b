// SPDX-License-Identifier: GPL-3.0-or-later
#include "sample_log.h"

#include "core/reduce/reduce.h"
#include "store/atomic_file.h"
#include "store/digest.h"
#include "store/log/log_reader.h"
#include "store/log/log_writer.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace ibuki {

ImportedLog sampleLog(const SimulatedBench& bench, const SimulatedProtocol& protocol, std::uint64_t seed,
                      const std::string& label, int number, const std::filesystem::path& folder) {
    const std::string text = logText(simulate(bench, protocol, seed).trace);
    ImportedLog log;
    log.fileName = fmt::format("{}_{}_{}.csv", dateText(*protocol.start), label, number);
    std::replace(log.fileName.begin(), log.fileName.end(), ' ', '-');
    std::transform(log.fileName.begin(), log.fileName.end(), log.fileName.begin(),
                   [](char c) { return static_cast<char>(std::tolower(static_cast<unsigned char>(c))); });
    log.sha256 = sha256(text);
    log.bytes = static_cast<std::int64_t>(text.size());
    if (!folder.empty()) writeFileAtomically(folder / log.fileName, text);
    LogOptions options;
    options.allChannels = true;
    log.trace = readLog(text, log.fileName, options);
    ReduceSettings settings;
    settings.limitC = bench.limitC;
    log.reduction = reduceByEveryMetric(log.trace, settings);
    return log;
}

} // namespace ibuki
