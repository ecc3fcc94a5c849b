// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_batch.h"

#include "core/base/thread_team.h"
#include "core/evidence/response.h"
#include "core/import/header_roles.h"
#include "core/reduce/probe.h"
#include "core/reduce/reduce.h"
#include "store/digest.h"
#include "store/local_time.h"
#include "store/log/mapped_file.h"

#include <atomic>
#include <exception>
#include <filesystem>
#include <mutex>
#include <numeric>
#include <sys/stat.h>

namespace ibuki {
namespace {

/// When the file was changed last, as this machine's clock says it.
std::optional<Instant> fileTime(const std::string& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return std::nullopt;
    return localTime(info.st_mtim);
}

} // namespace

BatchRules batchRules(const Document& document, const Configuration* configuration,
                      std::optional<Id<Study>> study) {
    BatchRules rules{settingsFor(configuration), rememberedRoles(document)};
    if (study) applyRules(rules.settings, document, *study);
    return rules;
}

ReadLog readOneLog(const std::string& path, const BatchRules& rules, LogOptions options,
                   std::stop_token stop) {
    const MappedFile file(path);
    options.allChannels = false; // the others are streamed into the project once the log is taken
    options.stop = std::move(stop);
    options.rolesByHeader = rules.remembered;
    LogReading reading;
    try {
        reading = readLogReported(file.bytes(), path, options);
    } catch (const InputError& error) {
        if (error.code != "log-no-channels" || options.ambientOnly) throw;
        options.ambientOnly = true; // a probe names its one column as it likes
        reading = readLogReported(file.bytes(), path, options);
    }
    file.requireWhole();
    ReadLog read;
    read.log.fileName = std::filesystem::path(path).filename().string();
    read.log.sha256 = sha256(file.bytes());
    read.log.bytes = static_cast<std::int64_t>(file.bytes().size());
    read.log.fileTime = fileTime(path);
    read.log.readAs = readAs(reading.report);
    read.log.trace = std::move(reading.trace);
    read.log.settings = rules.settings;
    read.log.reduction = reduceByEveryMetric(read.log.trace, rules.settings);
    options.stop = {};
    options.progress = {};
    options.rolesByHeader.clear();
    options.roles = reading.report.stated;
    read.source = {path, std::move(options), std::move(reading.report), std::move(reading.keptRows),
                   file.stamp()};
    return read;
}

void reduceWith(ImportedLog& log, const ImportedLog* probe) {
    if (!probe) {
        log.reduction = reduceByEveryMetric(log.trace, log.settings);
        return;
    }
    const ProbeAlignment alignment = alignmentFor(log.trace, probe->trace, std::nullopt);
    log.reduction = reduceByEveryMetric(withProbe(log.trace, probe->trace, alignment), log.settings);
}

bool reduceWithRoom(ImportedLog& log, const EnteredAmbient& room) {
    const LoadReduction* main = log.reduction.main();
    const bool hasOwn = firstChannel(log.trace, Role::ambient) != nullptr
                        || (main && main->ambient.source == AmbientSource::probe);
    if (hasOwn) return false;
    log.settings.ambient = room;
    reduceWith(log, nullptr);
    return true;
}

namespace {

/// Files read side by side, each into its own place, so that their order and what they give stay the same.
class BatchReading {
public:
    BatchReading(const std::vector<std::string>& files, const BatchRules& rules, const std::stop_token& stop,
                 const Progress& progress)
        : files_(files),
          rules_(rules),
          stop_(stop),
          progress_(progress),
          outcomes_(files.size()),
          shares_(files.size()) {}

    LogBatch read() {
        ThreadTeam team(files_.size() > 1 ? 0 : 1);
        team.run(team.size(), [this](int, int from, int to) {
            for (int i = from; i < to; ++i) readOnes();
        });
        LogBatch batch;
        for (Outcome& outcome : outcomes_) {
            if (outcome.failed) std::rethrow_exception(outcome.failed);
            if (outcome.refused) batch.refused.push_back(std::move(*outcome.refused));
            if (!outcome.read) continue;
            batch.logs.push_back(std::move(outcome.read->log));
            batch.sources.push_back(std::move(outcome.read->source));
        }
        return batch;
    }

private:
    struct Outcome {
        std::optional<ReadLog> read;
        std::optional<InputError> refused;
        std::exception_ptr failed; ///< Cancelled, or what nobody expects
    };

    /// The next file that nobody has begun, until there is none.
    void readOnes() {
        for (std::size_t i = next_++; i < files_.size(); i = next_++) readOne(i);
    }

    void readOne(std::size_t i) {
        try {
            if (stop_.stop_requested()) throw Cancelled{};
            LogOptions options;
            options.progress = [this, i](double share) { tell(i, share); };
            outcomes_[i].read = readOneLog(files_[i], rules_, std::move(options), stop_);
        } catch (const InputError& error) {
            outcomes_[i].refused = error;
        } catch (...) {
            outcomes_[i].failed = std::current_exception();
        }
        tell(i, 1);
    }

    void tell(std::size_t i, double share) {
        const std::lock_guard lock(telling_);
        shares_[i] = share;
        progress_(std::accumulate(shares_.begin(), shares_.end(), 0.0) / static_cast<double>(shares_.size()));
    }

    const std::vector<std::string>& files_;
    const BatchRules& rules_;
    const std::stop_token& stop_;
    const Progress& progress_;
    std::vector<Outcome> outcomes_;
    std::atomic<std::size_t> next_ = 0;
    std::mutex telling_;
    std::vector<double> shares_;
};

} // namespace

void layProbes(LogBatch& batch) {
    const auto probes = probesAmong(batch.logs);
    batch.reducedBeside.assign(batch.logs.size(), {});
    for (std::size_t i = 0; i < probes.size(); ++i) {
        if (!probes[i]) continue;
        reduceWith(batch.logs[*probes[i]], &batch.logs[i]);
        batch.reducedBeside[*probes[i]] = i;
    }
}

LogBatch readLogBatch(const std::vector<std::string>& files, const BatchRules& rules,
                      const std::stop_token& stop, const Progress& progress) {
    LogBatch batch = BatchReading(files, rules, stop, progress).read();
    layProbes(batch);
    return batch;
}

void replaceLog(LogBatch& batch, std::size_t at, ReadLog read, std::optional<std::size_t> probe) {
    batch.logs[at] = std::move(read.log);
    batch.sources[at] = std::move(read.source);
    for (auto& beside : batch.reducedBeside)
        if (beside == at) beside = batch.logs.size(); // none of these: it was the probe as it was read before
    batch.reducedBeside[at] = probe;
}

std::optional<std::size_t> probeOf(const std::vector<ImportRow>& rows, std::size_t log) {
    for (std::size_t i = 0; i < rows.size(); ++i)
        if (rows[i].take && rows[i].probeOf == log) return i;
    return std::nullopt;
}

std::vector<ProbeChange> probeChanges(const LogBatch& batch, const std::vector<ImportRow>& rows) {
    std::vector<ProbeChange> changes;
    for (std::size_t i = 0; i < batch.logs.size(); ++i) {
        const auto probe = probeOf(rows, i);
        if (probe == batch.reducedBeside[i]) continue;
        changes.push_back({i, probe, batch.logs[i], {}});
        if (probe) changes.back().room = batch.logs[*probe];
    }
    return changes;
}

void reduceChanges(std::vector<ProbeChange>& changes, const std::stop_token& stop, const Progress& progress) {
    double done = 0;
    for (ProbeChange& change : changes) {
        if (stop.stop_requested()) throw Cancelled{};
        reduceWith(change.data, change.room ? &*change.room : nullptr);
        progress(++done / static_cast<double>(changes.size()));
    }
}

void takeChanges(LogBatch& batch, std::vector<ProbeChange> changes) {
    for (ProbeChange& change : changes) {
        batch.logs[change.log].reduction = std::move(change.data.reduction);
        batch.reducedBeside[change.log] = change.probe;
    }
}

} // namespace ibuki
